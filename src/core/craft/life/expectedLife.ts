import { quantileSorted } from 'simple-statistics';
import { chemistries, type Chemistry } from '../cells';
import { figure, type Judged } from '../judgement';
import { normalFrom, seededUniform } from './random';

const { exp, log, max, min } = Math;

/** Hours in a month of 730.5 h, in mAh for one µA. */
export const MAH_PER_UA_MONTH = 0.7305;
const USABLE_SHARE = 0.9;
const SECONDS_PER_DAY = 86_400;
/** No cell is forecast beyond this. */
export const FORECAST_LIMIT_MONTHS = 120;
/** What a cell gives before its voltage no longer runs a movement, share of its capacity: from and to. Ours, from bench practice. */
const USABLE: Readonly<Record<Chemistry, readonly [number, number]>> = {
  'silver-oxide': [0.8, 0.97],
  lithium: [0.85, 0.97],
  alkaline: [0.6, 0.9],
  mercury: [0.8, 0.97],
  'zinc-air': [0.6, 0.9],
  accumulator: [0.6, 0.9],
};
/** As oil ages the base drain rises over a life by up to this; its mean by half of that. Ours. */
const DRAIN_RISES_BY = 0.15;
/** The 95 % factor of self-discharge at 20 °C; it doubles every 10 °C. Ours. */
const SELF_DISCHARGE_FACTOR = 1.5;
const [REFERENCE_C, DOUBLES_EVERY_C] = [20, 10];
/** How warm a cell is, °C: on a wrist, in a drawer, or nobody knows which. */
const WARMTH_C = { worn: [23, 33], 'in a drawer': [18, 26], 'not known': [18, 33] } as const;
export type Kept = keyof typeof WARMTH_C;
/** How far an age is off, years either side, by what it is known from. */
const AGE_OFF_YEARS = { 'its date': 0.1, 'its best-before': 1 } as const;
/** The 95 % factor of the drain, by how well it is known. */
const DRAIN_FACTOR = { measured: 1.1, book: 1.25, family: 1.5, general: 1.9 } as const;
/** The early end the next visit goes by: earlier where only general figures are known. */
const EARLY_SHARE = { measured: 0.1, book: 0.1, family: 0.1, general: 0.05 } as const;
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
  /** Null: no date is known, and it may be of any age within its shelf life. */
  readonly yearsSinceMade: number | null;
  readonly ageKnownBy: keyof typeof AGE_OFF_YEARS;
  readonly kept: Kept;
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
      /** What it rests on, for the owner, where that is no figure of this watch or its movement; null elsewhere. */
      readonly estimated: string | null;
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

/** Whether its ends and its middle are one forecast: in their order, and none beyond what is forecast. */
export function isForecast({
  p10Months,
  p50Months,
  p90Months,
}: {
  readonly p10Months: number;
  readonly p50Months: number;
  readonly p90Months: number;
}): boolean {
  return (
    p10Months >= 0 && p50Months >= p10Months && p90Months >= p50Months && p90Months <= FORECAST_LIMIT_MONTHS
  );
}

/** A life as it is told, each end by itself: `34 months`, and never beyond what is forecast. */
export function lifeWords(months: number): string {
  if (!(months >= 0)) return 'not known';
  return months >= FORECAST_LIMIT_MONTHS ? 'over 10 years' : `${figure(months, 0)} months`;
}

/** From its early to its late end: `30 to 41 months`, `100 months to over 10 years`. */
export function lifeRange({
  p10Months,
  p90Months,
}: {
  readonly p10Months: number;
  readonly p90Months: number;
}): string {
  if (p10Months >= FORECAST_LIMIT_MONTHS) return lifeWords(p10Months);
  if (!(p10Months >= 0 && p90Months >= p10Months)) return 'not known';
  return p90Months >= FORECAST_LIMIT_MONTHS
    ? `${lifeWords(p10Months)} to ${lifeWords(p90Months)}`
    : `${figure(p10Months, 0)} to ${lifeWords(p90Months)}`;
}

type Percentiles = [number, number, number];

/** No cell is kept so long, years. Ours. */
const OLDEST_YEARS = 30;

/** No watch cell holds more, mAh, and no meter of the bench reads more, µA. */
const [MOST_MAH, MOST_UA] = [5000, 5000];

/** No light or alarm of a watch draws more, µA. */
const MOST_OF_A_FUNCTION_UA = 1e6;

/** Why an input cannot be forecast; null where it can. */
export function unusable({
  capacityMinMAh,
  capacityMaxMAh,
  baseUA,
  yearsSinceMade,
  functions,
}: Pick<LifeInput, 'capacityMinMAh' | 'capacityMaxMAh' | 'baseUA' | 'yearsSinceMade' | 'functions'>):
  string | null {
  if (!(capacityMinMAh > 0 && capacityMaxMAh >= capacityMinMAh && capacityMaxMAh < Infinity))
    return 'The capacity of this cell is not known.';
  if (capacityMaxMAh > MOST_MAH)
    return `No watch cell has ${figure(capacityMaxMAh, 0)} mAh. Correct the capacity in the book.`;
  if (yearsSinceMade !== null && !(yearsSinceMade <= OLDEST_YEARS && yearsSinceMade >= -1))
    return `This cell cannot be ${figure(yearsSinceMade)} years old. Correct the date of its lot.`;
  if (
    functions.some(
      ({ drawUA, secondsPerDay }) =>
        !(
          drawUA >= 0 &&
          drawUA <= MOST_OF_A_FUNCTION_UA &&
          secondsPerDay >= 0 &&
          secondsPerDay <= SECONDS_PER_DAY
        ),
    )
  )
    return 'The current or daily use of a function is not possible. Correct it in the book.';
  if (!(baseUA > 0 && baseUA <= MOST_UA))
    return 'The current is not known. Measure it, or enter it in the book.';
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
 * A forecast being drawn, so that a worker can tell how far it is and stop. Each draw is the life of one cell: capacity and what
 * of it is usable uniform over their ranges, drain lognormal and rising as oil ages, function seconds lognormal, self-discharge
 * lognormal and by how warm it is kept, age as it is known. Months; nothing is allocated while it draws.
 */
export function openDraws(input: LifeInput): LifeDraws {
  const uniform = seededUniform(input.seed);
  const sigma = log(DRAIN_FACTOR[input.drainKnownBy]) / 1.96;
  const secondsSigma = log(FUNCTION_SECONDS_FACTOR) / 1.96;
  const { selfDischargePerYear, shelfYears } = chemistries[input.chemistry];
  const dischargeSigma = log(SELF_DISCHARGE_FACTOR) / 1.96;
  const [usableFrom, usableTo] = USABLE[input.chemistry];
  const [coolC, warmC] = WARMTH_C[input.kept];
  const ageOff = AGE_OFF_YEARS[input.ageKnownBy];
  const { yearsSinceMade } = input;
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
        const usable = usableFrom + (usableTo - usableFrom) * uniform();
        const rises = 1 + (DRAIN_RISES_BY * uniform()) / 2;
        let current = input.baseUA * rises * exp(sigma * normalFrom(uniform));
        for (let use = 0; use < shares.length; use += 1)
          current += (shares[use] as number) * exp(secondsSigma * normalFrom(uniform));
        const years =
          yearsSinceMade === null
            ? shelfYears * uniform()
            : max(0, yearsSinceMade + ageOff * (2 * uniform() - 1));
        // On the shelf and in the watch it is the same cell; the shelf is at 20 °C.
        const discharge = selfDischargePerYear * exp(dischargeSigma * normalFrom(uniform));
        const warmth = 2 ** ((coolC + (warmC - coolC) * uniform() - REFERENCE_C) / DOUBLES_EVERY_C);
        const left = usable * capacity * (1 - min(1, discharge * years));
        months[made] = left / (MAH_PER_UA_MONTH * current + (capacity * discharge * warmth) / 12);
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
 * How long a cell will last, as a range: 10,000 seeded draws of what nobody knows of it (`openDraws`). The next visit is the early
 * end (P10) rounded down to whole months, because a spent cell left inside leaks; under one month there is none. Never
 * beyond ten years. Inputs that are missing or impossible give *no forecast* with the reason. Source: charge balance; the
 * spreads are ours, from bench practice.
 */
export function expectedLife(input: LifeInput): LifeForecast {
  const draws = openDraws(input);
  draws.draw(DRAWS);
  return draws.forecast();
}

/** Said wherever a date rests on it. */
const GENERAL_DRAIN =
  'This date is an early estimate: the movement was not identified, and its current was not measured.';

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
    return refused('This cell would not last a month. It is too old, or the movement draws too much.');
  const averageUA = averageCurrentUA(input.baseUA, input.functions);
  const { selfDischargePerYear, shelfYears, words } = chemistries[input.chemistry];
  const { yearsSinceMade } = input;
  const capped = (value: number): number => Math.min(value, FORECAST_LIMIT_MONTHS);
  const reasons = [
    input.drainKnownBy === 'measured'
      ? 'The current was measured on this watch.'
      : input.drainKnownBy === 'general'
        ? GENERAL_DRAIN
        : `The current is the ${input.drainKnownBy} figure, not measured on this watch.`,
    ...(yearsSinceMade === null
      ? [`Its age is not known, so 0 to ${shelfYears} years are assumed.`]
      : input.ageKnownBy === 'its best-before'
        ? ['The age is estimated from the best-before date, within one year.']
        : []),
    ...(late > FORECAST_LIMIT_MONTHS ? ['Forecasts end at 10 years.'] : []),
  ];
  return {
    verdict: 'forecast',
    p10Months: capped(early),
    p50Months: capped(middle),
    p90Months: capped(late),
    nextVisitMonths: Math.floor(capped(quantileSorted(months, EARLY_SHARE[input.drainKnownBy]))),
    estimated: input.drainKnownBy === 'general' ? GENERAL_DRAIN : null,
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
        rule: 'usable × capacity × (1 − loss before fitting) / (0.7305 × current + capacity × self-discharge / 12)',
        figures: `${figure(input.capacityMinMAh)}–${figure(input.capacityMaxMAh)} mAh, ${yearsSinceMade === null ? 'age not known' : `${figure(yearsSinceMade)} years old`}, ${words} loses ${figure(selfDischargePerYear * 100)} % a year at 20 °C; with 0.90 of it usable, ${figure(monthsOfLife((input.capacityMinMAh + input.capacityMaxMAh) / 2, averageUA, input.chemistry, yearsSinceMade ?? 0), 1)} months`,
        source: 'charge balance, month of 730.5 h',
      },
      {
        what: 'range',
        rule: `${DRAWS} draws: capacity over its range, ${USABLE[input.chemistry].map((share) => figure(share)).join('–')} of it usable; drain within a factor ${DRAIN_FACTOR[input.drainKnownBy]} and up to ${DRAIN_RISES_BY * 100} % more as oil ages; self-discharge within ${SELF_DISCHARGE_FACTOR}, doubling every ${DOUBLES_EVERY_C} °C, ${WARMTH_C[input.kept].join('–')} °C`,
        figures: `P10 ${lifeWords(early)}, P50 ${lifeWords(middle)}, P90 ${lifeWords(late)}`,
        source: 'spreads from bench practice',
      },
    ],
  };
}
