import { AMBIENT_BAR, insideAfter } from './law';
import type { Sums } from './leastSquares';
import type { LeakRecord } from './record';

export interface DriftBound {
  readonly umPerS: number;
  /** Its standard error. */
  readonly errorUmPerS: number;
}

/** Crystal and case give by and by: each of these times, s, may have its share. Together they follow any settling. */
export const CREEP_S = [0.8, 2, 5, 12, 25, 50, 100, 200] as const;

/** Slower than this, s, creep goes by a share of its own. */
export const SLOW_S = 20;
export const [DRIFT, GIVES, BEND, FIRST_CREEP] = [1, 2, 3, 4] as const;
export const COLUMNS = FIRST_CREEP + CREEP_S.length;

/** Pressure that changes by this share of its range in a second is on its way. */
const ON_ITS_WAY = 0.02;

/** So many steps between two points are a gap: what came before says nothing of the noise after it. */
const GAP_STEPS = 4;

/** No tester is better than this share of its deflection. */
const LEAST_NOISE_SHARE = 0.0005;

/** A record made ready for fitting. */
export interface Prepared {
  readonly atS: Float64Array;
  readonly outsideBar: Float64Array;
  readonly deflectionUm: Float64Array;
  /** Points that are fitted. */
  readonly fitted: readonly number[];
  /** Of each of them, whether the point before it was fitted too, without a gap. */
  readonly follows: readonly boolean[];
  readonly rangeBar: number;
  readonly wholeS: number;
  /** About how far the case gave under the pressure of the range. */
  readonly amplitudeUm: number;
  readonly leastNoise2: number;
  readonly drift: DriftBound | null;
}

/** The smallest step between two readings: finer than half of it nothing was read. 0 for readings that never move. */
function stepOf(values: readonly number[]): number {
  const sorted = [...new Set(values)].sort((a, b) => a - b);
  return sorted.reduce(
    (step, each, i) => (i === 0 ? step : Math.min(step, each - (sorted[i - 1] ?? 0))),
    Infinity,
  );
}

/** Makes a record ready: at least two points, their times rising. */
export function prepare(record: LeakRecord, amplitudeUm: number, drift: DriftBound | null): Prepared {
  const count = record.atS.length;
  const begin = record.atS[0] ?? 0;
  const atS = Float64Array.from(record.atS, (at) => at - begin);
  const outsideBar = Float64Array.from(record.overBar, (over) => AMBIENT_BAR + over);
  const rangeBar = record.overBar.reduce((most, over) => Math.max(most, Math.abs(over)), 0) || 1;
  const stepS = (i: number): number => (atS[i] ?? 0) - (atS[i - 1] ?? 0);
  const steps = Float64Array.from({ length: count - 1 }, (_, i) => stepS(i + 1)).sort();
  const usualStepS = steps[steps.length >> 1] ?? 1;
  const moves = (i: number): boolean =>
    i > 0 &&
    i < count &&
    Math.abs((outsideBar[i] ?? 0) - (outsideBar[i - 1] ?? 0)) > ON_ITS_WAY * rangeBar * Math.max(1, stepS(i));
  const fitted: number[] = [];
  const follows: boolean[] = [];
  for (let i = 0; i < count; i += 1) {
    // Between two points on the way nobody saw how the pressure went; neither before the first nor after the last.
    if (moves(i) || moves(i + 1) || moves(i - 1)) continue;
    follows.push(i > 0 && fitted.at(-1) === i - 1 && stepS(i) < GAP_STEPS * usualStepS);
    fitted.push(i);
  }
  const step = stepOf(record.deflectionUm);
  return {
    atS,
    outsideBar,
    deflectionUm: Float64Array.from(record.deflectionUm),
    fitted,
    follows,
    rangeBar,
    wholeS: atS[count - 1] || 1,
    amplitudeUm,
    leastNoise2: Math.max((LEAST_NOISE_SHARE * amplitudeUm) ** 2, Number.isFinite(step) ? step ** 2 / 12 : 0),
    drift,
  };
}

/**
 * The columns of the model at one leak constant: level, drift, what the case gives at once, the bend of drift, what it gives
 * by and by in each time, and last the deflection itself. The pressure inside runs through the whole record.
 */
export function columnsAt(of: Prepared, constantPerBarS: number): readonly Float64Array[] {
  const { atS, outsideBar, rangeBar, wholeS, deflectionUm } = of;
  const count = atS.length;
  const columns = Array.from({ length: COLUMNS }, () => new Float64Array(count));
  const [level, time, gives, bend, ...delayed] = columns as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    ...Float64Array[],
  ];
  const state = new Float64Array(CREEP_S.length);
  let insideBar = AMBIENT_BAR;
  let lastOutside = outsideBar[0] as number;
  let lastDifference = 0;
  let lastAt = 0;
  let [shareOfStepS, shares] = [-1, new Float64Array(CREEP_S.length)];
  for (let i = 0; i < count; i += 1) {
    const [at, outside] = [atS[i] as number, outsideBar[i] as number];
    const seconds = at - lastAt;
    if (seconds > 0)
      insideBar = insideAfter(insideBar, (outside + lastOutside) / 2, constantPerBarS, seconds);
    const difference = (outside - insideBar) / rangeBar;
    if (seconds !== shareOfStepS) {
      shareOfStepS = seconds;
      shares = Float64Array.from(CREEP_S, (tau) => 1 - Math.exp(-seconds / tau));
    }
    const mean = (difference + lastDifference) / 2;
    for (let j = 0; j < state.length; j += 1) {
      const before = state[j] as number;
      const after = before + (mean - before) * (shares[j] as number);
      state[j] = after;
      (delayed[j] as Float64Array)[i] = after;
    }
    const share = at / wholeS;
    level[i] = 1;
    time[i] = share;
    gives[i] = difference;
    bend[i] = 4 * share * (1 - share);
    [lastOutside, lastDifference, lastAt] = [outside, difference, at];
  }
  return [...columns, deflectionUm];
}

/** A column at the points that are fitted, one after the other: the sums below run along memory. */
function packed({ fitted }: Prepared, column: Float64Array): Float64Array {
  const rows = new Float64Array(fitted.length);
  for (let at = 0; at < rows.length; at += 1) rows[at] = column[fitted[at] as number] as number;
  return rows;
}

/** Sums over columns freed of what each reading has of the noise of the one before it. */
export function freed(of: Prepared, columns: readonly Float64Array[], correlation: number): Sums {
  const { follows } = of;
  const alone = Math.sqrt(1 - correlation ** 2);
  return sumsOf(
    columns.map((column) => {
      const rows = packed(of, column);
      // From the last to the first, so that the one before is still as it was.
      for (let at = rows.length - 1; at >= 0; at -= 1)
        rows[at] = follows[at]
          ? (rows[at] as number) - correlation * (rows[at - 1] as number)
          : (rows[at] as number) * alone;
      return rows;
    }),
  );
}

function sumsOf(rows: readonly Float64Array[]): Sums {
  const size = rows.length;
  const values = new Float64Array(size * size);
  for (let c = 0; c < size; c += 1)
    for (let d = 0; d <= c; d += 1) {
      const sum = product(rows[c] as Float64Array, rows[d] as Float64Array);
      values[c * size + d] = sum;
      values[d * size + c] = sum;
    }
  return { size, values };
}

function product(first: Float64Array, second: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < first.length; at += 1) sum += (first[at] as number) * (second[at] as number);
  return sum;
}

/** The same sums for any correlation, from sums taken once: those that follow, those before them, both across, and those alone. */
export function freedForAny(of: Prepared, columns: readonly Float64Array[]): (correlation: number) => Sums {
  const now = columns.map((column) => packed(of, column));
  const split = (following: boolean, shift: number) =>
    now.map((rows) => {
      const part = new Float64Array(rows.length);
      for (let at = 0; at < part.length; at += 1)
        if (of.follows[at] === following) part[at] = rows[at - shift] as number;
      return part;
    });
  const [own, earlier] = [split(true, 0), split(true, 1)];
  const [ownSums, earlierSums, aloneSums] = [sumsOf(own), sumsOf(earlier), sumsOf(split(false, 0))];
  const size = columns.length;
  const across = new Float64Array(size * size);
  for (let c = 0; c < size; c += 1)
    for (let d = 0; d < size; d += 1) {
      const sum = product(own[c] as Float64Array, earlier[d] as Float64Array);
      across[c * size + d] = (across[c * size + d] as number) + sum;
      across[d * size + c] = (across[d * size + c] as number) + sum;
    }
  return (correlation) => ({
    size,
    values: ownSums.values.map(
      (value, at) =>
        value -
        correlation * (across[at] as number) +
        correlation ** 2 * (earlierSums.values[at] as number) +
        (1 - correlation ** 2) * (aloneSums.values[at] as number),
    ),
  });
}
