import type { ReadingVerdict } from './reading';

/** The scale a reading is shown on: its ends, and what stands on it. All in the unit of the measure. */
export interface Gauge {
  readonly from: number;
  readonly to: number;
  /** The range it is held against, cut at the ends of the scale; null where nobody has one. */
  readonly range: { readonly from: number; readonly to: number } | null;
  readonly limits: readonly number[];
  readonly value: number;
  /** What was read at earlier visits, the oldest first. */
  readonly earlier: readonly number[];
}

/** Free at each end of a scale, as a share of what stands on it. */
const ROOM = 0.15;

/**
 * The scale of a reading: wide enough for the reading, its range and what earlier visits read, with room at both ends; a
 * quantity that is never below nought begins there at the least, and a rate has nought in its middle.
 */
export function gaugeOf(
  { measure, value, reference }: Pick<ReadingVerdict, 'measure' | 'value' | 'reference'>,
  earlier: readonly number[],
): Gauge {
  const [min, max] = [reference.min, reference.max].map((each) =>
    each !== null && Number.isFinite(each) ? each : null,
  ) as [number | null, number | null];
  const limits = [min, max].filter((each) => each !== null && Number.isFinite(each)) as number[];
  const all = [value, ...limits, ...earlier].filter(Number.isFinite);
  if (all.length === 0) return { from: 0, to: 1, range: null, limits, value, earlier };
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = (high - low) * ROOM || Math.abs(high) * ROOM || 1;
  const most = Math.max(...all.map(Math.abs)) * (1 + ROOM) || 1;
  const isRate = measure === 'rateSPerDay';
  const from = isRate ? -most : Math.max(0, low - room);
  const to = isRate ? most : high + room;
  return {
    from,
    to,
    range: limits.length === 0 ? null : { from: min ?? from, to: max ?? to },
    limits,
    value,
    earlier,
  };
}
