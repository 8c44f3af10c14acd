import { linearRegression } from 'simple-statistics';
import { isMoment, yearsBetween } from '../time';
import { figure, type Judged } from '../judgement';

export interface TrendPoint {
  readonly atUtc: string;
  readonly value: number;
}

/** What a reading is held against; a rate either way, since a watch may lose as well as gain. */
export interface TrendLimit {
  readonly label: string;
  readonly value: number;
  readonly eitherWay: boolean;
}

export type Trend = Judged<'too few visits' | 'steady' | 'rising' | 'falling' | 'over the limit'> & {
  /** By how much it changes in a year; null with fewer than two visits. */
  readonly perYear: number | null;
  /** Months until the limit at that pace; null where it never comes, or has come. */
  readonly monthsToLimit: number | null;
};

/** Less than this share of the limit a year is no change. */
const STEADY = 0.05;
const FARTHEST_MONTHS = 120;
/** Visits closer together than this say nothing of a year. */
const LEAST_YEARS = 1 / 12;

/**
 * How a reading moves over the visits of a watch: the line of least squares through them, and when it would meet its
 * limit (above zero, or either side of it). Values and limit in one unit. Source: simple linear regression.
 */
export function trendOf(
  given: readonly TrendPoint[],
  against: Pick<TrendLimit, 'value' | 'eitherWay'> | null,
  unit: string,
): Trend {
  // What was read as no number, or on no day, is no point of a line.
  const points = given.filter(({ atUtc, value }) => Number.isFinite(value) && isMoment(atUtc));
  const limit = against && Number.isFinite(against.value) && against.value > 0 ? against : null;
  const left = given.length - points.length;
  const leftOut = [
    ...(left > 0
      ? [
          `${left === 1 ? 'One visit is' : `${left} visits are`} left out, because the value or the date is not valid.`,
        ]
      : []),
    ...(against && !limit ? ['The limit is not a number above 0, so it is not used.'] : []),
  ];
  const ordered = [...points].sort((a, b) => a.atUtc.localeCompare(b.atUtc));
  const [first, last] = [ordered[0], ordered.at(-1)];
  const span = first && last ? yearsBetween(first.atUtc, last.atUtc) : 0;
  if (points.length < 2 || !first || !(span >= LEAST_YEARS) || !last)
    return {
      verdict: 'too few visits',
      perYear: null,
      monthsToLimit: null,
      reasons: ['A trend needs two visits at least one month apart.', ...leftOut],
      working: [],
    };
  const { m: perYear } = linearRegression(
    ordered.map(({ atUtc, value }) => [yearsBetween(first.atUtc, atUtc), value]),
  );
  const scale = limit?.value ?? Math.max(...points.map(({ value }) => Math.abs(value)), Number.EPSILON);
  const over = limit !== null && (limit.eitherWay ? Math.abs(last.value) : last.value) > limit.value;
  const ahead = limit === null ? null : perYear > 0 ? limit.value : limit.eitherWay ? -limit.value : null;
  const months = ahead !== null && !over && perYear !== 0 ? ((ahead - last.value) / perYear) * 12 : null;
  const monthsToLimit = months !== null && months <= FARTHEST_MONTHS ? months : null;
  const verdict = over
    ? 'over the limit'
    : Math.abs(perYear) < scale * STEADY
      ? 'steady'
      : perYear > 0
        ? 'rising'
        : 'falling';
  return {
    verdict,
    perYear,
    monthsToLimit,
    reasons: [
      `${perYear >= 0 ? '+' : ''}${figure(perYear)} ${unit} a year over ${points.length} visits.`,
      ...(over
        ? [
            `${figure(last.value)} ${unit} is over its limit of ${figure(limit.value)} ${unit}${limit.eitherWay ? ' either way' : ''}.`,
          ]
        : ahead !== null && monthsToLimit !== null && verdict !== 'steady'
          ? [
              `At this rate it reaches its limit of ${figure(ahead)} ${unit} in ${figure(monthsToLimit, 0)} months.`,
            ]
          : []),
      ...leftOut,
    ],
    working: [
      {
        what: 'trend',
        rule: 'Σ(t − t̄)(x − x̄) ÷ Σ(t − t̄)²',
        figures: `${points.length} visits over ${figure(span, 1)} years: ${figure(perYear, 3)} ${unit} a year`,
        source: 'line of least squares',
      },
    ],
  };
}
