import { figure } from '../judgement';
import { type LeakFit, spreadOfConstant } from './fitLeak';
import { flowOf, verdictOf } from './flow';
import { type FreeVolume, LIMIT_AT_BAR, massFlow } from './law';
import { standardTest, WATCHED_S } from './watchTime';

/** What would settle a test that did not. */
export type Settles =
  'longer' | 'recovery' | 'volume' | 'two-sided' | 'higher pressure' | 'other way' | 'again';

/** One thing that would settle a test, in words and as figures. */
export interface SettlesBy {
  readonly what: Settles;
  readonly words: string;
  /** The chance that it settles the test, 0 to 1; absent where nothing was worked out. */
  readonly chance?: number;
  /** The watch under pressure, and again after venting, s. */
  readonly watchS?: number;
}

export interface SettlesQuestion {
  readonly fit: LeakFit;
  readonly setting: { readonly volume: FreeVolume; readonly temperatureC: number };
  /** What the case was held at, bar over the air outside, and for how long, s. */
  readonly overBar: number;
  readonly heldS: number;
  /** Noise of one reading, as a share of what the case gave. */
  readonly noiseShare: number;
  readonly recovered: boolean;
}

/** A free volume that was measured is known to this factor. */
const MEASURED_FACTOR = 1.1;
/** Measuring a free volume takes about so long, s. Source: bench practice. */
const MEASURED_IN_S = 600;
/** What settles fewer than this of 100 is not worth its time; what settles so many is enough. */
const WORTH = 0.1;
export const ENOUGH = 0.85;
/** A case that still gives makes a fit less sure than its times and noise alone; by no more than this. */
const [LEAST_WIDER, USUALLY_WIDER, MOST_WIDER] = [1, 1.4, 5];
const SPREADS_95 = 1.96;

/** Middles of equal parts of a normal distribution, in its spreads. */
const NORMAL_PARTS = [-1.645, -1.036, -0.674, -0.385, -0.126, 0.126, 0.385, 0.674, 1.036, 1.645] as const;
const CONSTANTS = 24;

/** Leak constants that this record leaves possible, with how likely each is; together one. */
function possible({ best, from, to, away, within }: LeakFit): readonly (readonly [number, number])[] {
  const least = Math.max(0, from - (best - from) / 2);
  const most = to + (to - best) / 2;
  const weighed = Array.from({ length: CONSTANTS }, (_, i) => {
    const constant = least + ((most - least) * (i + 0.5)) / CONSTANTS;
    return [constant, Math.exp(-0.5 * ((SPREADS_95 * away(constant)) / within) ** 2)] as const;
  });
  const whole = weighed.reduce((sum, [, weight]) => sum + weight, 0);
  return weighed.map(([constant, weight]) => [constant, weight / whole]);
}

/** The chance that a test of this spread, made of what is possible now, gives a verdict. */
function settledBy(spread: number, { fit, setting }: SettlesQuestion, perConstant: number): number {
  return possible(fit).reduce((chance, [constant, weight]) => {
    const settled = NORMAL_PARTS.filter((part) => {
      const best = Math.max(0, constant + part * spread);
      const ends = {
        best,
        within: SPREADS_95,
        away: (other: number) => Math.abs(other - best) / spread,
        from: Math.max(0, best - SPREADS_95 * spread),
        to: best + SPREADS_95 * spread,
      };
      return verdictOf(flowOf(ends, setting.volume, perConstant)) !== 'not yet known';
    });
    return chance + (weight * settled.length) / NORMAL_PARTS.length;
  }, 0);
}

/** The chance that the same test settles it once the free volume is measured. */
function settledByVolume({ fit, setting: { volume } }: SettlesQuestion, perConstant: number): number {
  const settled = NORMAL_PARTS.filter((part) => {
    const times = volume.factor ** (part / SPREADS_95);
    const measured = { ...volume, factor: Math.min(volume.factor, MEASURED_FACTOR) };
    return verdictOf(flowOf(fit, measured, perConstant * times)) !== 'not yet known';
  });
  return settled.length / NORMAL_PARTS.length;
}

/** The spread a standard test of this watch would tell the constant to, by its times and noise alone. */
function spreadAt(seconds: number, { fit, overBar, noiseShare }: SettlesQuestion): number {
  const test = standardTest(overBar, seconds);
  const step = (test.atS[1] ?? 1) - (test.atS[0] ?? 0);
  return spreadOfConstant(test, noiseShare / Math.sqrt(step), fit.correlation ** step, fit.best);
}

/** What this record told less than its times and noise promise, a longer one will tell less, too. */
function widerThanPromised(question: SettlesQuestion): number {
  const { fit, heldS, recovered } = question;
  // Before it was vented a record cannot tell that.
  if (!recovered) return USUALLY_WIDER;
  const spread = (fit.to - fit.from) / (2 * SPREADS_95);
  return Math.min(MOST_WIDER, Math.max(LEAST_WIDER, spread / spreadAt(heldS, question)));
}

/** The flow at 2 bar for each unit of the leak constant, µg/min. */
const flowPerConstant = ({ setting: { volume, temperatureC } }: SettlesQuestion): number =>
  massFlow(1, { volumeCm3: volume.cm3, temperatureC }, LIMIT_AT_BAR);

/** The chance, 0 to 1, that a standard test watched for so long settles it, by all that this record leaves possible. */
export function chanceSettled(question: SettlesQuestion, seconds: number): number {
  if (!Number.isFinite(question.fit.to)) return 0;
  return settledBy(
    widerThanPromised(question) * spreadAt(seconds, question),
    question,
    flowPerConstant(question),
  );
}

/** The watch time that settles it surely enough, or the one that settles it most often; null where none is worth it. */
export function longerWatch(
  question: SettlesQuestion,
): { readonly seconds: number; readonly chance: number } | null {
  if (!Number.isFinite(question.fit.to)) return null;
  const [wider, perConstant] = [widerThanPromised(question), flowPerConstant(question)];
  let best: { seconds: number; chance: number } | null = null;
  for (const seconds of WATCHED_S) {
    if (seconds <= question.heldS) continue;
    const chance = settledBy(wider * spreadAt(seconds, question), question, perConstant);
    if (best === null || chance > best.chance + 0.02) best = { seconds, chance };
    if (chance >= ENOUGH) break;
  }
  return best !== null && best.chance >= WORTH ? best : null;
}

export const inHundred = (chance: number): string =>
  `${figure(Math.round(100 * Math.min(chance, 0.99)), 0)} of 100`;

/** Where neither more time nor the volume brings the ends of a flow off the limit. */
export const OTHER_WAY = {
  what: 'other way',
  words:
    'Use another test. Raise the pressure if watch and tester allow it, or test under vacuum. Or take the movement out and make a wet test.',
} as const;

/**
 * What would bring the ends of a flow off the limit: a longer watch and, where nobody measured it, the free volume, each with
 * the chance that it settles the test, worked out over all that this record leaves possible. The cheaper of those that settle
 * four in five stands first, otherwise the one that settles more. Source: Bayes’ rule over the leak constant; information of
 * the standard test.
 */
export function settlesOf(question: SettlesQuestion): readonly SettlesBy[] {
  const { fit, setting, heldS, recovered } = question;
  const vent = {
    what: 'recovery',
    words: 'Vent the case, then watch it for as long as under pressure.',
  } as const;
  const first = recovered ? [] : [vent];
  if (!Number.isFinite(fit.to))
    return [
      ...first,
      {
        what: 'longer',
        words: `Watch for longer than ${figure(heldS, 0)} s. So far the record sets no upper limit to the leak.`,
      },
    ];
  const watch = longerWatch(question);
  const byVolume =
    setting.volume.how === 'measured' ? 0 : settledByVolume(question, flowPerConstant(question));
  const ways: { readonly by: SettlesBy; readonly chance: number; readonly costS: number }[] = [];
  if (watch !== null)
    ways.push({
      chance: watch.chance,
      costS: 2 * watch.seconds,
      by: {
        what: 'longer',
        chance: watch.chance,
        watchS: watch.seconds,
        words: `Run the test again. Watch it for ${figure(watch.seconds, 0)} s under pressure and as long after venting. This gives a result in ${inHundred(watch.chance)} such tests.`,
      },
    });
  if (byVolume >= WORTH)
    ways.push({
      chance: byVolume,
      costS: MEASURED_IN_S,
      by: {
        what: 'volume',
        chance: byVolume,
        words: `Measure the free volume. Now it is only known to a factor of ${figure(setting.volume.factor, 2)}. Measuring it gives a result in ${inHundred(byVolume)} such tests.`,
      },
    });
  ways.sort(
    (one, other) =>
      Number(other.chance >= ENOUGH) - Number(one.chance >= ENOUGH) ||
      (one.chance >= ENOUGH ? one.costS - other.costS : other.chance - one.chance),
  );
  return ways.length === 0 ? [...first, OTHER_WAY] : [...first, ...ways.map(({ by }) => by)];
}
