import { linearRegression } from 'simple-statistics';
import { figure, type Judged, memoizeByValue, type WorkingLine } from '../judgement';
import { type DriftBound, fitLeak, type LeakFit, prepare } from './fitLeak';
import {
  AMBIENT_BAR,
  type FreeVolume,
  GUESS_FACTOR,
  insideAfter,
  LIMIT_AT_BAR,
  LIMIT_UG_PER_MIN,
  massFlow,
} from './law';
import {
  condense,
  LEAST_HELD_S,
  type LeakRecord,
  mainPhase,
  NO_PRESSURE_BAR,
  type Phase,
  phasesOf,
  pressedAt,
  recoveryAfter,
} from './record';
import { type Flow, flowOf, flowWords, verdictOf } from './flow';
import { OTHER_WAY, type SettlesBy, settlesOf } from './settles';

export type LeakVerdict = 'tight' | 'leaks' | 'not yet known' | 'no verdict';

export interface LeakJudgement extends Judged<LeakVerdict> {
  /** At 2 bar over the air outside, where the limit is told. */
  readonly flow: Flow | null;
  /** At the pressure of the test. */
  readonly flowAtTest: Flow | null;
  readonly atBar: number;
  readonly stiffnessUmPerBar: number | null;
  readonly noiseUm: number | null;
  /** Nothing held it, or air went in at once. */
  readonly flooded: boolean;
  readonly settles: readonly SettlesBy[];
}

/** What is judged: a record of a tester, or its two figures. */
export type LeakEvidence = { readonly record: LeakRecord } | (TwoFigures & { readonly overBar: number });

export interface LeakSetting {
  readonly volume: FreeVolume;
  readonly temperatureC: number;
  readonly drift: DriftBound | null;
  /** What this case gave for each bar before, or its type does; null where nobody knows. */
  readonly usualUmPerBar: number | null;
  /** Of the tester, by its book, one reading. */
  readonly testerNoiseUm: number;
}

/** Deflection counts from the mean of at least this, s. */
const LEAST_BASELINE_S = 10;
const LEAST_POINTS = 12;
/** However long a blank run was, s: the drift of the next run is known no better than by so much of it. */
const LONGEST_BLANK_S = 600;
/** No tester reads finer, µm. */
const LEAST_NOISE_UM = 0.002;
/** A deflection is one from so many times the noise on. */
const OVER_NOISE = 3;
/** Less than this share of what the case showed before: very stiff, or flooded at once. */
const OF_USUAL = 0.25;
/** More than this share left after venting: the sensor is stuck. */
const STUCK_SHARE = 0.5;
/** A case of which more than this share moves on past half the watch hides what it loses. */
const STILL_MOVES = 0.02;
/** After the two figures were read crystal and case may still give by this share. Source: bench practice. */
const STILL_GIVES = 0.02;
/** From this pressure on the law may understate, and from vacuum overstate, the flow at 2 bar. Source: flow in a short, narrow way. */
const HIGH_BAR = 6;
const UNDERSTATED = 2;
const OVERSTATED = 3;

/** So many points hold the leak of a record as well as all of it: the fit goes by their means. */
const POINTS_FITTED = 750;

const SOURCE = 'viscous flow of air; ISO 22810';

/** Mean and spread of part of a record's deflection. */
function level(
  record: LeakRecord,
  from: number,
  to: number,
): { readonly mean: number; readonly spread: number } {
  const part = record.deflectionUm.slice(from, to);
  const mean = part.reduce((sum, each) => sum + each, 0) / Math.max(1, part.length);
  const squares = part.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  return { mean, spread: Math.sqrt(squares / Math.max(1, part.length - 1)) };
}

/** What the law may get wrong where it is carried from another pressure to 2 bar. */
function carried(atBar: number, flow: Flow): readonly string[] {
  if (atBar < 0)
    return [
      `Carried over from vacuum: the flow at 2 bar may be overstated ${OVERSTATED} times${flow.from > LIMIT_UG_PER_MIN && flow.from / OVERSTATED <= LIMIT_UG_PER_MIN ? '; then it would not be over the limit' : ''}.`,
    ];
  return atBar >= HIGH_BAR
    ? [
        `Carried over from ${figure(atBar)} bar: the flow at 2 bar may be understated ${UNDERSTATED} times${flow.to < LIMIT_UG_PER_MIN && flow.to * UNDERSTATED >= LIMIT_UG_PER_MIN ? '; then it could be over the limit' : ''}.`,
      ]
    : [];
}

const nothing = {
  flow: null,
  flowAtTest: null,
  stiffnessUmPerBar: null,
  noiseUm: null,
  flooded: false,
} as const;

const AGAIN = { what: 'again', words: 'Run it again, from a baseline of 10 s on.' } as const;
/**
 * Whether a case is tight, by what its deflection showed: the flow of air at 2 bar with the ends 95 of 100 lie within, free
 * volume included, held against the limit. *Tight*: the upper end is under it. *Leaks*: the lower end is over it, or nothing
 * held. *Not yet known*: the ends stand across it, or drift cannot be told from decay; `settles` says what would help. *No
 * verdict*: the record shows no deflection that could decay. Deflection µm, pressure bar over the air outside, times s.
 * Never throws. Source: ISO 22810; viscous flow; bench practice.
 */
export function judgeLeak(evidence: LeakEvidence, setting: LeakSetting): LeakJudgement {
  return judged.ask([evidence, setting]);
}

/** Takes over what was worked out elsewhere, beside the page: the same evidence in the same setting shows the same. */
export function keepJudgement(evidence: LeakEvidence, setting: LeakSetting, judgement: LeakJudgement): void {
  judged.keep([evidence, setting], judgement);
}

/** A job is folded again and again, and a fit takes its time. */
const judged = memoizeByValue(
  ([evidence, setting]: readonly [LeakEvidence, LeakSetting]): LeakJudgement =>
    settingRefused(setting)
      ? noVerdict(['Nothing can be worked out: volume, temperature or noise is no possible figure.'], 0)
      : 'record' in evidence
        ? judgeRecord(evidence.record, setting)
        : judgeTwoFigures(evidence, setting),
  60,
);

const noVerdict = (reasons: readonly string[], atBar: number): LeakJudgement => ({
  ...nothing,
  verdict: 'no verdict',
  reasons,
  working: [],
  settles: [AGAIN],
  atBar,
});

const COLDEST_C = -50;
const HOTTEST_C = 100;

/** Figures nothing can be worked out with: no volume, a factor under one, a temperature no bench has. */
function settingRefused({ volume, temperatureC, drift, testerNoiseUm, usualUmPerBar }: LeakSetting): boolean {
  return !(
    volume.cm3 > 0 &&
    Number.isFinite(volume.cm3) &&
    volume.factor >= 1 &&
    Number.isFinite(volume.factor) &&
    temperatureC > COLDEST_C &&
    temperatureC < HOTTEST_C &&
    testerNoiseUm >= 0 &&
    Number.isFinite(testerNoiseUm) &&
    (usualUmPerBar === null || Number.isFinite(usualUmPerBar)) &&
    (drift === null ||
      (Number.isFinite(drift.umPerS) && drift.errorUmPerS > 0 && Number.isFinite(drift.errorUmPerS)))
  );
}

/** What makes a record none: places without figures, times that do not rise, too many points to keep. Empty where it is one. */
export function recordContradictions(record: LeakRecord): readonly string[] {
  const contradiction = contradictionIn(record);
  return contradiction === null ? [] : [`Record: ${contradiction}.`];
}

function contradictionIn({ atS, overBar, deflectionUm }: LeakRecord): string | null {
  if (overBar.length !== atS.length || deflectionUm.length !== atS.length)
    return 'times, pressures and deflections are not equally many';
  if (atS.length < 2) return 'at least two points';
  if (![atS, overBar, deflectionUm].every((each) => each.every(Number.isFinite)))
    return 'it holds what is no figure';
  const back = atS.findIndex((at, i) => i > 0 && at <= (atS[i - 1] ?? 0));
  if (back !== -1) return `times do not rise at point ${back + 1}`;
  return overBar.some((over) => over <= -AMBIENT_BAR)
    ? 'under less than no air at all: pressure is told over the air outside'
    : null;
}

/** Two figures a time apart, as a tester shows them with nothing pressing, or at the ends of a test. */
export interface TwoFigures {
  readonly startUm: number;
  readonly endUm: number;
  readonly seconds: number;
}

/**
 * The drift a run of the tester without pressure shows, with its error; null where it was pressed, or is too short to tell.
 * µm, s. Source: straight line by least squares, its error widened for readings that go on from each other.
 */
export function driftOf(blank: LeakRecord | TwoFigures, testerNoiseUm: number): DriftBound | null {
  if (!('atS' in blank))
    return blank.seconds >= LEAST_HELD_S
      ? {
          umPerS: (blank.endUm - blank.startUm) / blank.seconds,
          errorUmPerS:
            (Math.SQRT2 * Math.max(testerNoiseUm, LEAST_NOISE_UM)) / Math.min(blank.seconds, LONGEST_BLANK_S),
        }
      : null;
  if (recordContradictions(blank).length > 0 || Math.abs(pressedAt(blank)) >= NO_PRESSURE_BAR) return null;
  const { atS, deflectionUm } = blank;
  const count = atS.length;
  const wholeS = (atS.at(-1) ?? 0) - (atS[0] ?? 0);
  if (count < LEAST_POINTS || wholeS < LEAST_HELD_S) return null;
  const { m: slope, b: start } = linearRegression(atS.map((at, i) => [at, deflectionUm[i] ?? 0]));
  const left = deflectionUm.map((each, i) => each - start - slope * (atS[i] ?? 0));
  const squares = left.reduce((sum, each) => sum + each ** 2, 0);
  const goesOn = Math.min(
    0.95,
    Math.max(0, left.reduce((sum, each, i) => sum + each * (left[i - 1] ?? 0), 0) / (squares || 1)),
  );
  const spread = Math.max(Math.sqrt(squares / (count - 2)), LEAST_NOISE_UM);
  return {
    umPerS: slope,
    errorUmPerS: Math.max(
      ((spread * Math.sqrt(12 / count)) / wholeS) * Math.sqrt((1 + goesOn) / (1 - goesOn)),
      LEAST_NOISE_UM / LONGEST_BLANK_S,
    ),
  };
}

/** What is left over of a record at each point once the fit is taken off, µm, beside the fit itself; null where nothing was fitted. */
export function residualsOf(
  record: LeakRecord,
  setting: LeakSetting,
): {
  /** The points that were fitted. */
  readonly record: LeakRecord;
  readonly fitUm: readonly number[];
  readonly leftUm: readonly number[];
} | null {
  const judgement = judgeLeak({ record }, setting);
  const kept = condense(record, POINTS_FITTED);
  const fitted = judgement.flow === null ? null : fitOf(record, setting.drift);
  if (fitted === null) return null;
  const { fit, gaveUm, main } = fitted;
  const turned = Math.sign(gaveUm * main.overBar);
  const fitUm = [...fit.modelUm()].map((each) => turned * each);
  return { record: kept, fitUm, leftUm: kept.deflectionUm.map((each, i) => each - (fitUm[i] ?? 0)) };
}

/** The fit of a record with its baseline and a pressure that stood, and about how far the case gave; null without either. */
export function fitOf(
  record: LeakRecord,
  drift: DriftBound | null,
): { readonly fit: LeakFit; readonly main: Phase; readonly gaveUm: number } | null {
  const phases = phasesOf(record);
  const [main, rest] = [mainPhase(phases), phases.find(({ kind }) => kind === 'baseline')];
  if (main === null || rest === undefined) return null;
  const gaveUm = level(record, main.from, main.to).mean - level(record, rest.from, rest.to).mean;
  return gaveUm === 0 ? null : { fit: fitRecord(record, gaveUm, main, drift), main, gaveUm };
}

/** Fits a record whose case gave by `gaveUm`; one that tells sizes without a sign is turned, so that it gives inward. */
function fitRecord(record: LeakRecord, gaveUm: number, main: Phase, drift: DriftBound | null): LeakFit {
  const turned = Math.sign(gaveUm * main.overBar);
  const kept = condense(record, POINTS_FITTED);
  return fitLeak(
    prepare(
      turned < 0 ? { ...kept, deflectionUm: kept.deflectionUm.map((each) => -each) } : kept,
      Math.abs(gaveUm),
      drift === null ? null : { ...drift, umPerS: turned * drift.umPerS },
    ),
  );
}

/** How long nothing pressed before pressure began, s: from half a reading before the first. */
function restedS({ atS }: LeakRecord, { fromS, toS, from, to }: Phase): number {
  return (atS[to] ?? toS) - fromS + (toS - fromS) / (to - from - 1) / 2;
}

function refusedRecord(record: LeakRecord, phases: readonly Phase[]): string | null {
  const contradiction = contradictionIn(record);
  if (contradiction !== null) return contradiction;
  if (record.atS.length < LEAST_POINTS)
    return `it has ${record.atS.length} points, and ${LEAST_POINTS} are wanted`;
  const held = phases.filter(({ kind }) => kind === 'pressure' || kind === 'vacuum');
  if (held.length === 0) return 'nothing pressed on the case';
  const baseline = phases.find(({ kind }) => kind === 'baseline');
  if (baseline === undefined || restedS(record, baseline) < LEAST_BASELINE_S)
    return `deflection counts from a baseline of ${LEAST_BASELINE_S} s before pressure, and this record has none`;
  return Math.max(...held.map(({ fromS, toS }) => toS - fromS)) < LEAST_HELD_S
    ? `it was watched under pressure for less than ${LEAST_HELD_S} s`
    : null;
}

function judgeRecord(record: LeakRecord, setting: LeakSetting): LeakJudgement {
  const phases = record.atS.length < 2 ? [] : phasesOf(record);
  const atBar = mainPhase(phases)?.overBar ?? pressedAt(record);
  const told = (
    verdict: LeakVerdict,
    reasons: readonly string[],
    more: Partial<LeakJudgement> = {},
  ): LeakJudgement => ({ ...nothing, settles: [], working: [], atBar, ...more, verdict, reasons });
  const refused = refusedRecord(record, phases);
  if (refused !== null) return noVerdict([`Nothing can be worked out: ${refused}.`], atBar);

  const baseline = phases.find(({ kind }) => kind === 'baseline') as Phase;
  const held = phases.filter(({ kind }) => kind === 'pressure' || kind === 'vacuum');
  const main = mainPhase(phases) as Phase;
  const after = phases.find(({ kind, fromS }) => kind === 'recovery' && fromS > main.fromS);
  const atRest = level(record, baseline.from, baseline.to);
  const pressed = level(record, main.from, main.to);
  const noise = Math.max(atRest.spread, setting.testerNoiseUm);
  // The first seconds show most: a leak only takes away from it.
  const early = level(record, main.from, Math.min(main.to, main.from + 5));
  const gaveUm = [early.mean, pressed.mean]
    .map((mean) => mean - atRest.mean)
    .reduce((most, each) => (Math.abs(each) > Math.abs(most) ? each : most));
  const outward = Math.sign(main.overBar);

  const measured = { noiseUm: noise };
  if (after !== undefined && Math.abs(gaveUm) < OVER_NOISE * noise) {
    const rising = level(record, after.from, Math.min(after.to, after.from + 10));
    const overshoot = (atRest.mean - rising.mean) * outward;
    if (
      overshoot >
        OVER_NOISE *
          noise *
          Math.sqrt(1 / Math.min(10, after.to - after.from) + 1 / (baseline.to - baseline.from)) &&
      overshoot > setting.testerNoiseUm
    )
      return told(
        'leaks',
        [
          'Flooded, not stiff: nothing gave under the pressure, and after venting the case stood the other way: air had gone in at once.',
        ],
        { ...measured, flooded: true },
      );
  }
  if (Math.abs(gaveUm) < OVER_NOISE * noise)
    return told(
      'no verdict',
      [
        `The case gave ${figure(Math.abs(gaveUm))} µm, under ${OVER_NOISE} times the noise of ${figure(noise)} µm: very stiff, or flooded at once. No deflection is not a pass.`,
      ],
      { ...measured, settles: [OTHER_WAY] },
    );
  const stiffness = Math.abs(gaveUm / main.overBar);
  if (setting.usualUmPerBar !== null && stiffness < OF_USUAL * Math.abs(setting.usualUmPerBar))
    return told(
      'no verdict',
      [
        `It gave ${figure(stiffness)} µm a bar, this case ${figure(Math.abs(setting.usualUmPerBar))} before: most of it may have gone at once.`,
      ],
      { ...measured, stiffnessUmPerBar: stiffness, settles: [OTHER_WAY] },
    );
  const inHeld = record.deflectionUm.slice(main.from, main.to);
  if (inHeld.every((each) => each === inHeld[0]))
    return told(
      'no verdict',
      [
        'The reading never moved under pressure: the sensor is stuck, or too coarse. A flat line is never tight.',
      ],
      { ...measured, settles: [AGAIN] },
    );
  if (after !== undefined) {
    const left = level(record, Math.max(after.from, after.to - 10), after.to).mean - atRest.mean;
    if (left * Math.sign(gaveUm) > STUCK_SHARE * Math.abs(gaveUm))
      return told(
        'no verdict',
        [
          `After venting ${figure((100 * left) / gaveUm, 0)} % of the deflection stayed: the sensor is stuck.`,
        ],
        { ...measured, settles: [AGAIN] },
      );
  }
  const sides = new Set(held.map(({ kind }) => kind));
  const twoSided = sides.size === 2;
  if (twoSided && sameSignBothSides(record, held, atRest.mean))
    return told(
      'no verdict',
      ['Vacuum and pressure moved the case the same way: the file gives sizes without their sign.'],
      {
        ...measured,
        settles: [{ what: 'again', words: 'Write the file with signed deflections, or one side alone.' }],
      },
    );

  const recovered = recoveryAfter(main, phases) !== null;
  const fit = fitRecord(record, gaveUm, main, setting.drift);
  const of = { volumeCm3: setting.volume.cm3, temperatureC: setting.temperatureC };
  const flow = flowOf(fit, setting.volume, massFlow(1, of, LIMIT_AT_BAR));
  const flowAtTest = flowOf(fit, setting.volume, Math.abs(massFlow(1, of, main.overBar)));
  const working: WorkingLine[] = [
    {
      what: 'Leak constant',
      rule: 'one constant, one drift, one stiffness, creep and correlated noise, fitted to baseline, pressure and recovery together',
      figures: `k = ${scientific(fit.best)}, ${scientific(fit.from)} to ${Number.isFinite(fit.to) ? scientific(fit.to) : 'any'} 1/(bar·s); drift ${figure(fit.driftUmPerS * 60, 3)} µm/min; gives ${figure(fit.stiffnessUmPerBar)} µm a bar, ${figure(100 * fit.creepShare, 1)} % of it by and by; noise ${figure(fit.noiseUm, 3)} µm, each reading ${figure(100 * fit.correlation, 0)} % of the last`,
      source: 'separable least squares',
    },
    flowLine(fit, setting, flow),
  ];
  const more = {
    flow,
    flowAtTest,
    stiffnessUmPerBar: wentAtOnce(fit.best, main.overBar) ? null : fit.stiffnessUmPerBar,
    noiseUm: fit.noiseUm,
    working,
  };
  if (setting.volume.how === 'guessed') return told(...ofEachSize(fit, setting, main.overBar, more));
  if (!recovered && !twoSided && setting.drift === null)
    return told(
      'not yet known',
      ['Drift and decay cannot be told apart without recovery, a second side, or a blank run.'],
      {
        ...more,
        settles: [
          { what: 'recovery', words: 'Vent and watch on, as long as under pressure.' },
          { what: 'two-sided', words: 'Or run vacuum and pressure, one after the other.' },
        ],
      },
    );
  const watchedS = main.toS - main.fromS;
  const gives = fit.givesAfter(watchedS / 2);
  if (verdictOf(flow) === 'tight' && gives > STILL_MOVES)
    return told(
      'not yet known',
      [
        `${figure(100 * gives, 1)} % of what the case gives comes later than half the watch: that hides what it loses.`,
      ],
      {
        ...more,
        settles: [
          {
            what: 'longer',
            words: `Watch ${figure(2 * watchedS, 0)} s under pressure and as long after venting, so that it comes to rest.`,
          },
        ],
      },
    );
  const verdict = verdictOf(flow);
  const reasons = [
    verdict === 'not yet known'
      ? `At 2 bar ${flowWords(flow)} pass: the limit of ${LIMIT_UG_PER_MIN} lies between.`
      : `At 2 bar ${flowWords(flow)} pass, ${verdict === 'tight' ? 'under' : 'over'} the limit of ${LIMIT_UG_PER_MIN}.`,
    ...carried(main.overBar, flow),
    ...(Math.abs(fit.bendUm) > OVER_NOISE * fit.noiseUm
      ? ['The drift bends: let the watch rest until it has the warmth of the tester.']
      : []),
  ];
  if (verdict !== 'not yet known') return told(verdict, reasons, more);
  return told(verdict, reasons, {
    ...more,
    settles: settlesOf({
      fit,
      setting,
      overBar: main.overBar,
      heldS: main.toS - main.fromS,
      noiseShare: fit.noiseUm / Math.abs(gaveUm),
      recovered,
    }),
  });
}

/** Where the air went in while the pressure still rose, what the case would have given cannot be told. */
const AT_ONCE_S = 5;
function wentAtOnce(constantPerBarS: number, overBar: number): boolean {
  return constantPerBarS * (2 * AMBIENT_BAR + overBar) * AT_ONCE_S > 1;
}

/** Deflections without their sign show the same way on both sides. */
function sameSignBothSides(record: LeakRecord, held: readonly Phase[], restUm: number): boolean {
  const of = (kind: Phase['kind']): number => {
    const phase = held.find((each) => each.kind === kind);
    return phase === undefined ? 0 : level(record, phase.from, phase.to).mean - restUm;
  };
  return of('pressure') * of('vacuum') > 0;
}

const scientific = (value: number): string => {
  if (value === 0) return '0';
  const power = Math.floor(Math.log10(value));
  return `${figure(value / 10 ** power, 2)}·10^${figure(power)}`;
};

function flowLine(
  fit: Pick<LeakFit, 'best'>,
  { volume, temperatureC }: LeakSetting,
  flow: Flow,
): WorkingLine {
  return {
    what: 'Flow of air at 2 bar',
    rule: 'V·10⁵·k·(3² − 1²)/(R·T), and the ends of k and V taken together',
    figures: `V = ${figure(volume.cm3)} cm³ ${volume.how}, within ${figure(volume.factor, 2)} times; ${figure(temperatureC, 1)} °C; k = ${scientific(fit.best)}: ${figure(flow.likeliest, 1)}, ${flowWords(flow)}; limit ${LIMIT_UG_PER_MIN}`,
    source: SOURCE,
  };
}

const WITH_RECORD = {
  what: 'recovery',
  words: 'Run the test with a record: baseline, pressure, venting, then watch for as long as under pressure.',
} as const;
const AGAIN_WITH_RECORD = {
  what: 'again',
  words: 'Check both figures, or run the test again with a record.',
} as const;

/** A tester nobody ran blank drifts by no more than this share of the deflection in a minute. Source: bench practice. */
const UNKNOWN_DRIFT_SHARE = 0.015;
/** Swapped figures grow by no more than this: what grows more was pressed harder for the second figure. */
const SWAPPED_UP_TO = 1.6;

/**
 * Why two figures of a test contradict each other: under one pressure a deflection falls or stays. Null where noise, drift and what
 * the case still gives explain them. µm, drift taken off already.
 */
function twoFiguresContradict(
  { startUm, endUm, seconds }: TwoFigures,
  noiseUm: number,
  drift: DriftBound | null,
): readonly string[] | null {
  const size = Math.abs(startUm);
  const driftUm =
    drift === null ? (UNKNOWN_DRIFT_SHARE * size * seconds) / 60 : OVER_NOISE * drift.errorUmPerS * seconds;
  const roomUm = OVER_NOISE * Math.SQRT2 * noiseUm + driftUm;
  const kept = endUm / startUm;
  const end = `${figure(endUm, 2)} µm${drift === null ? '' : ' (drift removed)'}`;
  if ((kept - 1) * size > STILL_GIVES * size + roomUm)
    return [
      `The deflection grew from ${figure(startUm, 2)} to ${end}. While the pressure stands, it can only fall or stay the same.`,
      kept <= SWAPPED_UP_TO
        ? `Start and end were probably swapped. In the other order ${figure(100 / kept, 0)} % would be left.`
        : 'Start and end were probably swapped, or the pressure was raised between the two figures.',
    ];
  return kept * size < -roomUm
    ? [
        `The deflection went from ${figure(startUm, 2)} to ${end}, past its baseline. While the pressure stands, it never does that.`,
        'The second figure was probably read after venting, or has the wrong sign.',
      ]
    : null;
}

/** Cases whose volume nobody knows, from a small one to one for diving, cm³. Source: bench practice. */
const SIZES: readonly (readonly [cm3: number, words: string])[] = [
  [0.5, 'a small case'],
  [1.5, 'a usual case'],
  [3, 'a large case'],
  [8, 'a very large case'],
];

/**
 * What each size of case would mean, where neither its volume nor its size is known, and what to measure: no verdict, but for a
 * leak that is one in the smallest case, too. The flow reaches from the smallest to the largest.
 */
function ofEachSize(
  fit: Pick<LeakFit, 'best' | 'from' | 'to' | 'away' | 'within'>,
  { temperatureC }: LeakSetting,
  atBar: number,
  more: Pick<LeakJudgement, 'stiffnessUmPerBar' | 'noiseUm'>,
): [verdict: LeakVerdict, reasons: readonly string[], more: Partial<LeakJudgement>] {
  const flowIn = (cm3: number, overBar: number): Flow =>
    flowOf(
      fit,
      { cm3, factor: GUESS_FACTOR, how: 'from the case’s size' },
      Math.abs(massFlow(1, { volumeCm3: cm3, temperatureC }, overBar)),
    );
  const anyFlow = (overBar: number): Flow => {
    const flows = SIZES.map(([cm3]) => flowIn(cm3, overBar));
    return {
      likeliest: flows[1]?.likeliest ?? NaN,
      from: Math.min(...flows.map(({ from }) => from)),
      to: Math.max(...flows.map(({ to }) => to)),
    };
  };
  const flow = anyFlow(LIMIT_AT_BAR);
  return [
    verdictOf(flow) === 'leaks' ? 'leaks' : 'no verdict',
    [
      'Neither the free volume nor the size of the case is known. The larger the volume, the larger the leak.',
      ...SIZES.map(([cm3, words]) => {
        const ofSize = flowIn(cm3, LIMIT_AT_BAR);
        return `In ${words} of about ${figure(cm3)} cm³, ${flowWords(ofSize)} would pass at 2 bar: ${verdictOf(ofSize)}.`;
      }),
    ],
    {
      stiffnessUmPerBar: more.stiffnessUmPerBar,
      noiseUm: more.noiseUm,
      flow,
      flowAtTest: anyFlow(atBar),
      settles: [
        {
          what: 'volume',
          words:
            'Measure the diameter and thickness of the case, or its free volume, and record them. You do not have to repeat the test.',
        },
      ],
    },
  ];
}

function judgeTwoFigures(
  { startUm, endUm, seconds, overBar }: Exclude<LeakEvidence, { readonly record: LeakRecord }>,
  setting: LeakSetting,
): LeakJudgement {
  const told = (
    verdict: LeakVerdict,
    reasons: readonly string[],
    more: Partial<LeakJudgement> = {},
  ): LeakJudgement => ({ ...nothing, settles: [], working: [], atBar: overBar, ...more, verdict, reasons });
  if (
    ![startUm, endUm, seconds, overBar].every(Number.isFinite) ||
    seconds <= 0 ||
    overBar <= -AMBIENT_BAR ||
    Math.abs(overBar) < NO_PRESSURE_BAR
  )
    return noVerdict(
      ['Nothing can be worked out: pressure, time and both deflections are wanted as figures.'],
      overBar,
    );
  const noise = Math.max(setting.testerNoiseUm, LEAST_NOISE_UM);
  const stiffness = Math.abs(startUm / overBar);
  if (Math.abs(startUm) < OVER_NOISE * noise || startUm === 0)
    return told(
      'no verdict',
      [
        `The case gave ${figure(Math.abs(startUm))} µm, under ${OVER_NOISE} times the noise of ${figure(noise)} µm: very stiff, or flooded at once. No deflection is not a pass.`,
      ],
      { settles: [OTHER_WAY], noiseUm: noise },
    );
  if (setting.usualUmPerBar !== null && stiffness < OF_USUAL * Math.abs(setting.usualUmPerBar))
    return told(
      'no verdict',
      [
        `It gave ${figure(stiffness)} µm a bar, this case ${figure(Math.abs(setting.usualUmPerBar))} before: most of it may have gone at once.`,
      ],
      { settles: [OTHER_WAY], noiseUm: noise, stiffnessUmPerBar: stiffness },
    );
  const drifted = setting.drift === null ? 0 : setting.drift.umPerS * seconds;
  const contradiction = twoFiguresContradict(
    { startUm, endUm: endUm - drifted, seconds },
    noise,
    setting.drift,
  );
  if (contradiction !== null)
    return told('no verdict', contradiction, { settles: [AGAIN_WITH_RECORD], noiseUm: noise });
  const kept = (endUm - drifted) / startUm;
  const spread =
    Math.hypot(Math.SQRT2 * noise, (setting.drift?.errorUmPerS ?? 0) * seconds) / Math.abs(startUm);
  const within = 1.96;
  /** The share left after the time at a leak constant. */
  const left = (constant: number): number => {
    const outside = AMBIENT_BAR + overBar;
    return (outside - insideAfter(AMBIENT_BAR, outside, constant, seconds)) / overBar;
  };
  const constantAt = (share: number): number => {
    if (share >= 1) return 0;
    let [low, high] = [0, 50];
    for (let turn = 0; turn < 80; turn += 1) {
      const middle = (low + high) / 2;
      if (left(middle) > share) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  const best = constantAt(kept);
  const fit = {
    best,
    within,
    // A case that still gives hides what it loses: the upper end leaves room for it.
    away: (constant: number): number =>
      constant >= best
        ? Math.max(0, kept - STILL_GIVES - left(constant)) / spread
        : Math.max(0, left(constant) - Math.min(1, kept)) / spread,
    from: constantAt(kept + within * spread),
    to:
      kept - STILL_GIVES - within * spread <= 0 ? Infinity : constantAt(kept - STILL_GIVES - within * spread),
  };
  const of = { volumeCm3: setting.volume.cm3, temperatureC: setting.temperatureC };
  const flow = flowOf(fit, setting.volume, massFlow(1, of, LIMIT_AT_BAR));
  const flowAtTest = flowOf(fit, setting.volume, Math.abs(massFlow(1, of, overBar)));
  const more = {
    flow,
    flowAtTest,
    stiffnessUmPerBar: stiffness,
    noiseUm: noise,
    working: [
      {
        what: 'Leak constant from two figures',
        rule: 'the share of the deflection left after the time, by the law of the leak; noise by the tester’s book; crystal and case may still give by 2 %',
        figures: `${figure(100 * kept, 1)} % left after ${figure(seconds)} s at ${figure(overBar)} bar, known to ${figure(100 * within * spread, 1)} %`,
        source: SOURCE,
      },
      flowLine(fit, setting, flow),
    ],
  };
  if (setting.volume.how === 'guessed') return told(...ofEachSize(fit, setting, overBar, more));
  if (setting.drift === null)
    return told('not yet known', ['Two figures and no blank run: drift and decay cannot be told apart.'], {
      ...more,
      settles: [WITH_RECORD],
    });
  const verdict = verdictOf(flow);
  return told(
    verdict,
    [
      `${figure(100 * kept, 1)} % of the deflection was left: at 2 bar ${flowWords(flow)} pass, the limit is ${LIMIT_UG_PER_MIN}.`,
      ...carried(overBar, flow),
    ],
    { ...more, settles: verdict === 'not yet known' ? [WITH_RECORD] : [] },
  );
}
