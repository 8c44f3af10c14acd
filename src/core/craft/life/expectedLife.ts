import { quantileSorted } from 'simple-statistics';
import { chemistries, type Chemistry } from '../cells';
import { figure, type Judged } from '../judgement';
import { normalFrom, seededUniform } from './random';

const { exp, log, max, min } = Math;

/** Hours in a month of 730.5 h, in mAh for one µA. */
const MAH_PER_UA_MONTH = 0.7305;
const USABLE_SHARE = 0.9;
const SECONDS_PER_DAY = 86_400;
const FORECAST_LIMIT_MONTHS = 120;
/** The 95 % factor of the drain, by how well it is known. */
const DRAIN_FACTOR = { measured: 1.1, book: 1.25, family: 1.5 } as const;
const FUNCTION_SECONDS_FACTOR = 2;

export interface FunctionUse {
  readonly name: string;
  readonly drawUA: number;
  readonly secondsPerDay: number;
}

export interface LifeInput {
  readonly chemistry: Chemistry;
  readonly capacityMinMAh: number;
  readonly capacityMaxMAh: number;
  readonly baseUA: number;
  readonly drainKnownBy: keyof typeof DRAIN_FACTOR;
  readonly functions: readonly FunctionUse[];
  readonly yearsSinceMade: number;
  /** The age was worked back from the best-before date. */
  readonly ageAssumed: boolean;
  readonly seed: number;
}

/** The draws of a forecast by how long they last. */
export interface LifeBars {
  readonly monthsEach: number;
  /** The share that ends in each stretch, the first from nought. */
  readonly shares: readonly number[];
}

export type LifeForecast =
  | (Judged<'forecast'> & {
      readonly p10Months: number;
      readonly p50Months: number;
      readonly p90Months: number;
      /** Whole months to the next visit: before the early end. */
      readonly nextVisitMonths: number;
      /** The middle of the range lies beyond what is forecast. */
      readonly overTenYears: boolean;
      readonly bars: LifeBars;
    })
  | Judged<'no forecast'>;

/** The mean current in µA: the base and each function by its share of the day. */
export function averageCurrentUA(baseUA: number, functions: readonly FunctionUse[]): number {
  return functions.reduce((sum, use) => sum + (use.drawUA * use.secondsPerDay) / SECONDS_PER_DAY, baseUA);
}

/**
 * Months one cell lasts at a constant mean current: usable charge after shelf loss, over current and
 * self-discharge together. mAh, µA, years in; months out. Reasoning: charge balance over a month of 730.5 h.
 */
export function monthsOfLife(
  capacityMAh: number,
  averageUA: number,
  chemistry: Chemistry,
  yearsSinceMade: number,
): number {
  const { selfDischargePerYear } = chemistries[chemistry];
  const lossBeforeFitting = min(1, selfDischargePerYear * max(0, yearsSinceMade));
  return (
    (USABLE_SHARE * capacityMAh * (1 - lossBeforeFitting)) /
    (MAH_PER_UA_MONTH * averageUA + (capacityMAh * selfDischargePerYear) / 12)
  );
}

type Percentiles = [number, number, number];

/** Why an input cannot be forecast; null where it can. */
function unusable({ capacityMinMAh, capacityMaxMAh, baseUA }: LifeInput): string | null {
  if (!(capacityMinMAh > 0) || capacityMaxMAh < capacityMinMAh)
    return 'The capacity of this cell is not known.';
  if (!(baseUA > 0)) return 'The current is not known: measure it, or give the book’s figure.';
  return null;
}

export interface LifeDraws {
  /** Draws so many more; gives how many there are now. */
  draw(count: number): number;
  /** What the draws made so far say. */
  forecast(): LifeForecast;
}

/** How many draws a forecast takes. */
export const DRAWS = 10_000;

/**
 * A forecast being drawn, so that a worker can tell how far it is and stop: capacity uniform over its range, drain
 * lognormal, function seconds lognormal, each draw the life of one cell. Months; nothing is allocated while it draws.
 */
export function openDraws(input: LifeInput): LifeDraws {
  const uniform = seededUniform(input.seed);
  const sigma = log(DRAIN_FACTOR[input.drainKnownBy]) / 1.96;
  const secondsSigma = log(FUNCTION_SECONDS_FACTOR) / 1.96;
  const { selfDischargePerYear } = chemistries[input.chemistry];
  const kept = USABLE_SHARE * (1 - min(1, selfDischargePerYear * max(0, input.yearsSinceMade)));
  const lossPerMAh = selfDischargePerYear / 12;
  const shares = Float64Array.from(
    input.functions,
    ({ drawUA, secondsPerDay }) => (drawUA * secondsPerDay) / SECONDS_PER_DAY,
  );
  const span = input.capacityMaxMAh - input.capacityMinMAh;
  const months = new Float64Array(DRAWS);
  let made = 0;
  return {
    draw(count) {
      const until = min(DRAWS, made + count);
      for (; made < until; made += 1) {
        const capacity = input.capacityMinMAh + span * uniform();
        let current = input.baseUA * exp(sigma * normalFrom(uniform));
        for (let use = 0; use < shares.length; use += 1)
          current += (shares[use] as number) * exp(secondsSigma * normalFrom(uniform));
        months[made] = (kept * capacity) / (MAH_PER_UA_MONTH * current + capacity * lossPerMAh);
      }
      return made;
    },
    forecast: () => forecastOf(input, months.slice(0, made)),
  };
}

/** How many bars the chart of a forecast has. */
const BARS = 24;

/** How many of the draws end in each stretch of months, from nought to the last that one reaches. */
function barsOf(sorted: readonly number[]): LifeBars {
  const most = Math.max(1, Math.ceil(quantileSorted([...sorted], 0.995)));
  const each = most / BARS;
  const counts = Array.from({ length: BARS }, () => 0);
  for (const value of sorted) {
    const at = min(BARS - 1, Math.floor(value / each));
    counts[at] = (counts[at] ?? 0) + 1;
  }
  return { monthsEach: each, shares: counts.map((count) => count / sorted.length) };
}

/**
 * How long a cell will last, as a range: 10,000 seeded draws with capacity uniform over its range, drain
 * lognormal with a 95 % factor by how it is known, function seconds lognormal with a 95 % factor of 2.
 * The next visit is the early end (P10) rounded down to whole months, because a spent cell left inside leaks.
 * Never beyond ten years. Inputs that are missing or impossible give *no forecast* with the reason.
 */
export function expectedLife(input: LifeInput): LifeForecast {
  const draws = openDraws(input);
  draws.draw(DRAWS);
  return draws.forecast();
}

function forecastOf(input: LifeInput, drawn: Float64Array): LifeForecast {
  const refused = (reason: string): LifeForecast => ({
    verdict: 'no forecast',
    reasons: [reason],
    working: [],
  });
  const wrong = unusable(input);
  if (wrong !== null) return refused(wrong);
  const months = [...drawn.sort()];
  const [early, middle, late] = [0.1, 0.5, 0.9].map((share) => quantileSorted(months, share)) as Percentiles;
  if (late < 1)
    return refused('This cell would not last a month: it is too old, or the movement draws too much.');
  const averageUA = averageCurrentUA(input.baseUA, input.functions);
  const { selfDischargePerYear, words } = chemistries[input.chemistry];
  const capped = (value: number): number => Math.min(value, FORECAST_LIMIT_MONTHS);
  const reasons = [
    input.drainKnownBy === 'measured'
      ? 'The current was measured on this watch.'
      : `The current is the ${input.drainKnownBy} figure, not measured on this watch.`,
    ...(input.ageAssumed ? ['The cell’s age is assumed from its best-before date.'] : []),
    ...(middle > FORECAST_LIMIT_MONTHS ? ['Over 10 years: no cell is forecast further.'] : []),
  ];
  return {
    verdict: 'forecast',
    p10Months: capped(early),
    p50Months: capped(middle),
    p90Months: capped(late),
    nextVisitMonths: Math.floor(capped(early)),
    overTenYears: middle > FORECAST_LIMIT_MONTHS,
    bars: barsOf(months),
    reasons,
    working: [
      {
        what: 'mean current',
        rule: 'base + Σ function × seconds a day / 86 400',
        figures: `${figure(averageUA, 3)} µA`,
      },
      {
        what: 'life',
        rule: '0.90 × capacity × (1 − loss before fitting) / (0.7305 × current + capacity × self-discharge / 12)',
        figures: `${figure(input.capacityMinMAh)}–${figure(input.capacityMaxMAh)} mAh, ${figure(input.yearsSinceMade)} years old, ${words} loses ${figure(selfDischargePerYear * 100)} % a year → ${figure(capped(middle), 1)} months`,
        source: 'charge balance, month of 730.5 h',
      },
      {
        what: 'range',
        rule: `${DRAWS} draws: capacity over its range, drain within a factor ${DRAIN_FACTOR[input.drainKnownBy]}`,
        figures: `P10 ${figure(capped(early), 1)}, P50 ${figure(capped(middle), 1)}, P90 ${figure(capped(late), 1)} months`,
      },
    ],
  };
}
