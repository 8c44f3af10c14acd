/** So many starts stand for all of a range, and so many factors for each of them. */
export const [STARTS, FACTORS] = [12, 16];

/** Of one start that is known three factors tell all: what comes of it goes evenly with the factor. */
const ENDS_95 = [0.025, 0.5, 0.975] as const;

export interface Believed {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}

/** A factor of the book’s times in which what was seen leaves room, in spreads of its logarithm. */
export interface Room {
  readonly from: number;
  readonly to: number;
}

/** The factors of a lognormal one cut off at what was seen: how much of it that is, and the one below which a share of it lies. */
function factorsIn(
  sigma: number,
  room: Room,
): { readonly mass: number; readonly quantile: (share: number) => number } {
  const [a, b] = [Math.max(-Z_MOST, room.from), Math.min(Z_MOST, room.to)];
  const steps = 400;
  const at = (i: number): number => a + ((b - a) * (i + 0.5)) / steps;
  // Against the densest of them, so that a stretch far out is not lost to rounding.
  const nearest = Math.min(Math.max(0, a), b);
  const weights = Array.from({ length: steps }, (_, i) => Math.exp((nearest ** 2 - at(i) ** 2) / 2));
  const whole = weights.reduce((sum, each) => sum + each, 0);
  return {
    mass: (whole * Math.max(0, b - a) * Math.exp(-(nearest ** 2) / 2)) / steps / Math.sqrt(2 * Math.PI),
    quantile: (share) => {
      let sum = 0;
      for (const [i, weight] of weights.entries()) {
        if (sum + weight >= share * whole)
          return Math.exp(sigma * (a + ((b - a) * (i + (share * whole - sum) / weight)) / steps));
        sum += weight;
      }
      return Math.exp(sigma * b);
    },
  };
}

/** One way it may be: its charge at the start, how many times as long as the book has it, and how likely that is. */
export interface Way {
  readonly start: number;
  readonly factor: number;
  readonly weight: number;
}

/**
 * Every way it may be, start and factor together, each as likely as what was seen leaves it; the factors of one start stand for
 * equal parts of what is left of it.
 */
export function waysOf(
  starts: readonly number[],
  sigma: number,
  roomOf: (start: number) => Room,
): readonly Way[] {
  const parts = starts.map((start) => ({ start, ...factorsIn(sigma, roomOf(start)) }));
  const whole = parts.reduce((sum, { mass }) => sum + mass, 0);
  return parts.flatMap(({ start, mass, quantile }) =>
    (starts.length === 1 ? ENDS_95 : FACTOR_PARTS).map((share, _, { length }): Way => ({
      start,
      factor: quantile(share),
      // Where nothing is left of any start, each of them is as wrong as the other.
      weight: (whole > 0 ? mass / whole : 1 / starts.length) / length,
    })),
  );
}
const FACTOR_PARTS = Array.from({ length: FACTORS }, (_, i) => (i + 0.5) / FACTORS);

/** How much of all that may be is left where each start has so much room. */
export const massLeft = (starts: readonly number[], sigma: number, roomOf: (start: number) => Room): number =>
  starts.reduce((sum, start) => sum + factorsIn(sigma, roomOf(start)).mass, 0) / starts.length;

/** The three values that come of the three factors of a start that is known, in their order. */
export function endsOf(values: readonly (readonly [value: number, weight: number])[]): Believed {
  const [low, likely, high] = values.map(([value]) => value).sort((a, b) => a - b) as [
    number,
    number,
    number,
  ];
  return { low, likely, high };
}

/** What 95 of 100 of some weighed values lie within, and their middle; Infinity where it is never reached. */
export function within95(values: readonly (readonly [value: number, weight: number])[]): Believed {
  const ordered = [...values].sort(([a], [b]) => a - b);
  const quantile = (share: number): number => {
    let sum = 0;
    let last: readonly [value: number, upTo: number] | null = null;
    for (const [value, weight] of ordered) {
      // Each stands for the middle of its own part.
      const upTo = sum + weight / 2;
      if (upTo >= share) {
        if (last === null || !Number.isFinite(value)) return value;
        const [before, beforeUpTo] = last;
        return before + ((value - before) * (share - beforeUpTo)) / (upTo - beforeUpTo);
      }
      sum += weight;
      last = [value, upTo];
    }
    return last?.[0] ?? NaN;
  };
  return { low: quantile(0.025), likely: quantile(0.5), high: quantile(0.975) };
}

/** Factors farther out are not believed at all. */
export const Z_MOST = 6;
