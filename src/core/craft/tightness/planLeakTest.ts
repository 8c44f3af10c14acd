import { figure, type Judged, invalidFigures } from '../judgement';
import { type FreeVolume, LIMIT_UG_PER_MIN } from './law';
import type { TestMethod } from './judgeTest';
import { BASELINE_S, SETTLE_S, watchTime } from './watchTime';

/** What is known of a watch before it is tested. */
export interface ToBeTested {
  readonly ratingBar: number | null;
  /** Worn so that it meets water, and how; null where nobody said. */
  readonly use: 'no water' | 'splashes' | 'swimming' | 'diving' | null;
  readonly ageYears: number | null;
  /** Cracked crystal, dents, a stiff crown: what speaks against pressure, in words. */
  readonly damage: readonly string[];
  /** Worn seals that nobody renewed, in words. */
  readonly notRenewed: readonly string[];
  readonly screwedCrown: boolean;
  readonly volume: FreeVolume;
  readonly temperatureC: number;
  /** How far this case gives, µm a bar; null where nobody knows. */
  readonly usualUmPerBar: number | null;
}

/** What the shop's testers can do. */
export interface Testers {
  readonly dryMostBar: number;
  /** The deepest vacuum of the dry one, below the air outside; 0 for one that only presses. */
  readonly dryVacuumBar: number;
  readonly wetMostBar: number;
  readonly mostBar: number;
  readonly noiseUm: number;
}

export interface PlannedStep {
  readonly method: TestMethod;
  /** Over the air outside; null for condensation. */
  readonly overBar: number | null;
  /** Under pressure; a dry test as long again after venting. */
  readonly seconds: number;
  /** The pressure in the units of other gauges. */
  readonly inOtherUnits: string;
  readonly words: string;
  /** What the slip may say once it passes, and what once it does not. */
  readonly ifPassed: string;
  readonly ifFailed: string;
}

export interface LeakTestPlan extends Judged<'test' | 'test gently' | 'do not test' | 'cannot say'> {
  readonly steps: readonly PlannedStep[];
  readonly cautions: readonly string[];
  /** The most the plan goes to, bar; 0 where nothing is to be pressed. */
  readonly mostBar: number;
}

const ATM_PER_BAR = 0.986_923;
const KPA_PER_BAR = 100;
const INHG_PER_BAR = 29.53;
const M_PER_BAR = 10.197;
/** A rating is a test pressure; without one a watch is tested to what a splash does. */
const UNRATED_BAR = 2;
const FIRST_BAR = 2;
/** A case this old, or one with seals nobody renewed, is tested under its rating. */
const OLD_YEARS = 10;
const OLD_SHARE = 0.6;
const USE_BAR = { 'no water': 1, splashes: 3, swimming: 10, diving: 12.5 } as const;
/** A case is taken to give so much where nobody knows, µm a bar. */
const USUAL_UM_PER_BAR = 5;
const LONGEST_S = 600;
const WET_S = 60;
/** A leak of so much of the limit is to be told from the limit. */
const TOLD_APART = 0.5;
const CONDENSATION_S = 60;

const rounded = (bar: number): number => Math.floor(bar * 2) / 2 || bar;

/** The same pressure as other gauges show it, all over the air outside: kPa, atm, inHg and metres of fresh water at rest. */
export function pressureInOtherUnits(overBar: number): string {
  const each = [
    `${figure(overBar * KPA_PER_BAR, 0)} kPa`,
    `${figure(overBar * ATM_PER_BAR, 2)} atm`,
    `${figure(overBar * INHG_PER_BAR, 1)} inHg`,
  ];
  return overBar < 0
    ? each.join(', ')
    : [...each, `${figure(overBar * M_PER_BAR, 0)} m of water at rest`].join(', ');
}

/** A pressure as it is spoken of: `3 bar`, or `0.7 bar below outside air`. */
export function pressureWords(overBar: number): string {
  return overBar < 0 ? `${figure(-overBar)} bar below outside air` : `${figure(overBar)} bar`;
}

/** No case is rated for more, bar, older, years, gives more, µm a bar; and no tester is noisier, µm. */
const MOST = { bar: 1000, years: 200, umPerBar: 1000, noiseUm: 1000, cm3: 50, factor: 100 } as const;

/** What of the watch or of the testers cannot be, by name; empty where all can. */
function invalidPlan(watch: ToBeTested, testers: Testers): readonly string[] {
  const bars = { from: 0, to: MOST.bar, unit: 'bar' };
  return invalidFigures([
    { path: 'ratingBar', what: 'The rating', value: watch.ratingBar, ...bars },
    {
      path: 'ageYears',
      what: 'The age of the watch',
      value: watch.ageYears,
      unit: 'years',
      from: -1,
      to: MOST.years,
    },
    { path: 'cm3', what: 'The free volume', value: watch.volume.cm3, unit: 'cm³', over: 0, to: MOST.cm3 },
    {
      path: 'factor',
      what: 'How well the volume is known',
      value: watch.volume.factor,
      unit: 'times',
      from: 1,
      to: MOST.factor,
    },
    {
      path: 'temperatureC',
      what: 'The temperature',
      value: watch.temperatureC,
      unit: '°C',
      from: -10,
      to: 60,
    },
    {
      path: 'usualUmPerBar',
      what: 'What the case gives',
      value: watch.usualUmPerBar,
      unit: 'µm a bar',
      over: 0,
      to: MOST.umPerBar,
    },
    { path: 'dryMostBar', what: 'The most of the dry tester', value: testers.dryMostBar, ...bars },
    {
      path: 'dryVacuumBar',
      what: 'The vacuum of the dry tester',
      value: testers.dryVacuumBar,
      unit: 'bar',
      from: 0,
      to: 1,
    },
    { path: 'wetMostBar', what: 'The most of the wet tester', value: testers.wetMostBar, ...bars },
    { path: 'mostBar', what: 'The most this shop tests at', value: testers.mostBar, ...bars },
    {
      path: 'noiseUm',
      what: 'The noise of the tester',
      value: testers.noiseUm,
      unit: 'µm',
      over: 0,
      to: MOST.noiseUm,
    },
  ]).map(({ reason }) => reason);
}

const may = (overBar: number): string => `only “tested at ${pressureWords(overBar)}”`;
const FAILED =
  'Stop testing. The slip states “not water resistant” until the watch is repaired and passes at that pressure.';

const CONDENSATION: PlannedStep = {
  method: 'condensation',
  overBar: null,
  seconds: CONDENSATION_S,
  inOtherUnits: '',
  words:
    'Lay the watch on a plate at 40 to 45 °C. Wait 10 to 20 minutes, until it is warm all the way through. Put a drop of water at 18 to 25 °C on the crystal for a minute, then wipe it off. If there is fog inside, the watch has failed.',
  ifPassed:
    'This test alone does not show that the watch is water resistant. It only shows that no water is inside now.',
  ifFailed: 'There is water inside. Open the watch, dry it, and find where the water came in.',
};

const isOld = ({ ageYears }: ToBeTested): boolean => ageYears !== null && ageYears >= OLD_YEARS;

/** The steps that press on the watch up to a pressure, and how long each must be watched at this tester’s noise. */
function pressedSteps(
  watch: ToBeTested,
  testers: Testers,
  most: number,
): Readonly<Record<'dry' | 'vacuum' | 'wet', readonly PlannedStep[]>> {
  const noiseOf = (overBar: number): number =>
    testers.noiseUm / Math.abs((watch.usualUmPerBar ?? USUAL_UM_PER_BAR) * overBar);
  const timeOf = (overBar: number): number | null =>
    watchTime({
      noiseShare: noiseOf(overBar),
      correlation: 0,
      overBar,
      of: { volumeCm3: watch.volume.cm3, temperatureC: watch.temperatureC },
      factor: watch.volume.factor,
      // A volume that is hardly known leaves only a leak far from the limit to be told.
      shareOfLimit: Math.min(TOLD_APART, 0.8 / watch.volume.factor),
    });
  const dryAt = (overBar: number): PlannedStep => {
    const seconds = timeOf(overBar);
    return {
      method: 'dry air',
      overBar,
      seconds: Math.min(seconds ?? LONGEST_S, 3600),
      inOtherUnits: pressureInOtherUnits(overBar),
      words: `Baseline ${BASELINE_S} s, ${pressureWords(overBar)}, settle ${SETTLE_S} s, watch, vent, settle, watch as long again.`,
      ifPassed: may(overBar),
      ifFailed: FAILED,
    };
  };
  const dryMost = Math.min(most, testers.dryMostBar);
  const wetMost = Math.min(most, testers.wetMostBar);
  const bars = [...new Set([Math.min(FIRST_BAR, dryMost), dryMost])].filter((bar) => bar > 0);
  const dry = bars.map(dryAt);
  const vacuum =
    dry.length === 0 && testers.dryVacuumBar > 0 ? [dryAt(-Math.min(testers.dryVacuumBar, 0.9))] : [];
  const wet: PlannedStep[] =
    wetMost > 0
      ? [
          {
            method: 'wet',
            overBar: wetMost,
            seconds: WET_S,
            inOtherUnits: pressureInOtherUnits(wetMost),
            words:
              'Do this only after the watch has passed a dry test. Raise the pressure with the watch above the water, lower the watch into it, release slowly, and look for bubbles. If you see bubbles, lift it out before you release further, or the watch draws in water.',
            ifPassed: may(wetMost),
            ifFailed: FAILED,
          },
        ]
      : [];
  return { dry, vacuum, wet };
}

/** What the plan rests on, and what a measure taken first would spare. */
function reasonsOf(watch: ToBeTested, testers: Testers, most: number, testedDry: boolean): readonly string[] {
  return [
    ...(watch.volume.how === 'guessed' && testedDry
      ? [
          'Measure and record the diameter and the thickness of the case first. Without its size a dry test gives no verdict, unless the case leaks badly.',
        ]
      : []),
    `Up to ${figure(most)} bar${watch.ratingBar !== null ? `; it was rated ${figure(watch.ratingBar)} bar when new` : '; its rating is not known'}.`,
    ...(isOld(watch)
      ? [
          `It is ${figure(watch.ageYears ?? 0, 0)} years old. Test below its rating, and stop at the first failure.`,
        ]
      : []),
    ...(watch.notRenewed.length > 0
      ? [`Not renewed: ${watch.notRenewed.join(', ')}. The watch may leak there.`]
      : []),
    `A leak of ${LIMIT_UG_PER_MIN} µg/min at 2 bar is the limit. The times are long enough to separate half the limit from the limit at ${figure(testers.noiseUm, 3)} µm of noise${watch.usualUmPerBar === null ? `, for a usual case of ${USUAL_UM_PER_BAR} µm a bar` : ''}.`,
    'A change of 1 °C in the case air changes the deflection by 0.17 % at 2 bar; under vacuum by 0.48 %.',
    ...(watch.volume.how === 'from the case’s size'
      ? [
          `The free volume is ${figure(watch.volume.cm3)} cm³ by the size of the case, within ${figure(watch.volume.factor, 1)} times. If you measure it, the test takes less time.`,
        ]
      : []),
  ];
}

/**
 * How a watch is to be tested: dry before wet, upward in steps under what watch, shop and testers bear, and how long each
 * step must be watched for a verdict at this tester's noise. What is cracked or loose is not pressed. What each result lets
 * the slip say. *Cannot say* where a figure of it cannot be. Source: bench practice; ISO 22810.
 */
export function planLeakTest(watch: ToBeTested, testers: Testers): LeakTestPlan {
  const wrong = invalidPlan(watch, testers);
  if (wrong.length > 0)
    return { verdict: 'cannot say', reasons: wrong, working: [], steps: [], cautions: [], mostBar: 0 };
  const { ratingBar, use } = watch;
  const wanted = use === null ? Infinity : USE_BAR[use];
  const rated = ratingBar ?? UNRATED_BAR;
  const gentle = isOld(watch) || watch.notRenewed.length > 0;
  const bears = gentle ? rated * OLD_SHARE : rated;
  const most = rounded(Math.max(0, Math.min(wanted, bears, testers.mostBar)));
  const working = [
    {
      what: 'Maximum test pressure',
      rule: 'the least of these: what the owner needs, what the case withstands, what the shop tests at, what the tester reaches',
      figures: `needs ${Number.isFinite(wanted) ? `${figure(wanted)} bar` : 'not said'}; rated ${ratingBar === null ? `not known, taken as ${UNRATED_BAR}` : figure(ratingBar)} bar${gentle ? `, ${OLD_SHARE} of it` : ''}; shop ${figure(testers.mostBar)}, dry ${figure(testers.dryMostBar)}, wet ${figure(testers.wetMostBar)} bar`,
      source: 'bench practice',
    },
  ];
  const cautions = [
    ...(watch.screwedCrown
      ? ['Screw the crown down before pressure. If it is left up, the case floods.']
      : []),
    'Close the lid and protect your eyes before pressure. The crystal can fly off.',
    'Leave the watch next to the tester until both have the same temperature.',
    ...(ratingBar !== null && ratingBar >= USE_BAR.diving
      ? ['Only a workshop that tests to ISO 6425 can certify a diver’s watch. Refer the watch to one.']
      : []),
  ];
  if (watch.damage.length > 0)
    return {
      verdict: 'do not test',
      reasons: [`Not under pressure: ${watch.damage.join(', ')}.`],
      working,
      steps: [],
      cautions,
      mostBar: 0,
    };
  const { dry, vacuum, wet } = pressedSteps(watch, testers, most);
  return {
    verdict: gentle ? 'test gently' : 'test',
    reasons: reasonsOf(watch, testers, most, dry.length + vacuum.length > 0),
    working,
    steps: [...dry, ...vacuum, ...wet, CONDENSATION],
    cautions,
    mostBar: most,
  };
}
