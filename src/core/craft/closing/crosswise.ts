/** No plate has more screws; a slip of the finger may. */
const MOST_SCREWS = 48;

/** How far apart two places on a round of so many are. */
function apart(a: number, b: number, count: number): number {
  const between = Math.abs(a - b);
  return Math.min(between, count - between);
}

/** An even round, in pairs that lie across from each other: the next pair as far as may be from all that are tight. */
function inPairs(count: number): readonly number[] {
  const half = count / 2;
  const order = [0, half];
  let left = Array.from({ length: half - 1 }, (_, at) => at + 1);
  while (left.length > 0) {
    const clearance = (at: number): number => Math.min(...order.map((tight) => apart(at, tight, count)));
    const next = left.reduce((best, each) => (clearance(each) > clearance(best) ? each : best));
    const last = order.at(-1) ?? 0;
    const across = next + half;
    order.push(...(apart(across, last, count) > apart(next, last, count) ? [across, next] : [next, across]));
    left = left.filter((each) => each !== next);
  }
  return order;
}

/**
 * The order in which screws round a plate are tightened: each next one across from the one before, so that the plate comes
 * down evenly and its ring is not squeezed on one side. Places 1 to `count`, clockwise from 12; none where it is no count. Source: bench practice, as
 * for any flange.
 *
 * @example
 * crosswise(4) // [1, 3, 2, 4]
 */
export function crosswise(count: number): readonly number[] {
  if (!Number.isInteger(count) || count < 1 || count > MOST_SCREWS) return [];
  const star = (count - 1) / 2;
  const order =
    count % 2 === 0
      ? inPairs(count)
      : Array.from({ length: count }, (_, at) => (at * Math.max(star, 1)) % count);
  return order.map((at) => at + 1);
}

/** What a plate is taken to have until somebody counts them. */
export const USUAL_SCREWS = 4;

/** Rounds in which they are tightened: seated, then snug, then looked at again. */
export const SCREW_ROUNDS = [
  'until each touches',
  'a quarter turn each',
  'snug, none turns any more',
] as const;
