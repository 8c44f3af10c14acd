/** A share of some, and the ends 95 of 100 lie within. */
export interface Share {
  readonly of: number;
  readonly among: number;
  readonly from: number;
  readonly to: number;
}

const Z = 1.959964;

/**
 * A share with its 95 % interval, which a few cases leave wide; among none it is anything from 0 to 1. Source: Wilson (1927).
 *
 * @example
 * shareOf(8, 10) // { from: 0.490, to: 0.943 }
 */
export function shareOf(of: number, among: number): Share {
  // Of nothing, or of no number, nothing is known.
  if (!(among > 0 && of >= 0 && of <= among && among < Infinity))
    return { of: of || 0, among: among || 0, from: 0, to: 1 };
  const share = of / among;
  const middle = (share + Z ** 2 / (2 * among)) / (1 + Z ** 2 / among);
  const half =
    (Z * Math.sqrt((share * (1 - share)) / among + Z ** 2 / (4 * among ** 2))) / (1 + Z ** 2 / among);
  return { of, among, from: Math.max(0, middle - half), to: Math.min(1, middle + half) };
}

/** Whether two shares stand apart: their intervals do not meet. */
export function apart(a: Share, b: Share): boolean {
  return a.to < b.from || b.to < a.from;
}
