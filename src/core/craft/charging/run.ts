import type { Lit } from './lit';

const HOUR_MS = 3_600_000;

/** How fast a charge goes up in the light and down in the dark, shares of full an hour. */
export interface Rates {
  readonly upPerH: number;
  readonly downPerH: number;
}

/** A stretch over which the charge goes evenly. */
interface Leg {
  readonly fromMs: number;
  readonly toMs: number;
  readonly perH: number;
}

function* legsOf(
  lit: readonly Lit[],
  fromMs: number,
  toMs: number,
  { upPerH, downPerH }: Rates,
): Generator<Leg> {
  let at = fromMs;
  for (const each of lit) {
    if (each.fromMs > at) yield { fromMs: at, toMs: each.fromMs, perH: -downPerH };
    yield { fromMs: Math.max(at, each.fromMs), toMs: each.toMs, perH: upPerH };
    at = each.toMs;
  }
  if (at < toMs) yield { fromMs: at, toMs, perH: -downPerH };
}

/**
 * When a charge first comes to each of the shares, milliseconds since the epoch; null: not in this time. Exact: between light
 * and dark it goes evenly, never under nothing nor over full. Shares that are reached from the start come at the start.
 */
export function reachedAt(
  start: number,
  shares: readonly number[],
  lit: readonly Lit[],
  [fromMs, toMs]: readonly [number, number],
  rates: Rates,
): readonly (number | null)[] {
  const reached: (number | null)[] = shares.map((share) => (start >= share ? fromMs : null));
  let charge = start;
  for (const leg of legsOf(lit, fromMs, toMs, rates)) {
    const hours = (leg.toMs - leg.fromMs) / HOUR_MS;
    if (leg.perH > 0)
      shares.forEach((share, i) => {
        if (reached[i] === null && charge + leg.perH * hours >= share)
          reached[i] = leg.fromMs + ((share - charge) / leg.perH) * HOUR_MS;
      });
    charge = Math.min(1, Math.max(0, charge + leg.perH * hours));
    if (!reached.includes(null)) break;
  }
  return reached;
}

/** The charge at each of the instants, share of full. */
export function chargeAt(
  start: number,
  atMs: readonly number[],
  lit: readonly Lit[],
  [fromMs, toMs]: readonly [number, number],
  rates: Rates,
): readonly number[] {
  const legs = [...legsOf(lit, fromMs, toMs, rates)];
  const given: number[] = [];
  let [charge, next] = [start, 0];
  for (const leg of legs) {
    const to = (ms: number): number =>
      Math.min(1, Math.max(0, charge + (leg.perH * (ms - leg.fromMs)) / HOUR_MS));
    while (next < atMs.length && (atMs[next] as number) <= leg.toMs) {
      given.push(to(Math.max(leg.fromMs, atMs[next] as number)));
      next += 1;
    }
    charge = to(leg.toMs);
  }
  while (given.length < atMs.length) given.push(charge);
  return given;
}
