import type { CellType } from '../cells';
import type { FunctionKind } from '../movements';
import { MAH_PER_UA_MONTH } from './expectedLife';

/** Months a cell lasts in a movement nobody knows, by what is seen of it. Ours, general figures. */
const USUAL_MONTHS = {
  small: 24,
  'hands without seconds': 40,
  'hands with seconds': 30,
  'chronograph or alarm': 30,
  'display, silver cell': 24,
  'display, lithium cell': 60,
  'light module': 36,
} as const;
/** A cell narrower than this is a small one, mm. */
const SMALL_UNDER_MM = 6;

export interface UsualDrainQuestion {
  readonly cell: Pick<CellType, 'capacityMinMAh' | 'capacityMaxMAh' | 'diameterMm' | 'chemistry'>;
  /** What the movement was seen to do. */
  readonly functions: readonly FunctionKind[];
  /** Whether nobody looked yet whether it has a display or counters. */
  readonly notLookedAt: boolean;
  /** How many cells the movement has. */
  readonly cells: number;
}

/**
 * What a movement nobody knows draws from its cell, base and functions together, µA: the middle of the cell’s capacity over the
 * months one usually lasts in such a movement; where nobody looked, over the shortest it can be. Null where the table has no
 * capacity. Source: general figures, ours, marked as such wherever they are shown.
 *
 * @example
 * usualDrainUA({
 *   cell: { capacityMinMAh: 20, capacityMaxMAh: 24, diameterMm: 9.5, chemistry: 'silver-oxide' },
 *   functions: ['hands', 'seconds hand'],
 *   notLookedAt: false,
 *   cells: 1,
 * }) // 1.00
 */
export function usualDrainUA({
  cell: { capacityMinMAh, capacityMaxMAh, diameterMm, chemistry },
  functions,
  notLookedAt,
  cells,
}: UsualDrainQuestion): number | null {
  if (capacityMinMAh === null || capacityMaxMAh === null) return null;
  const display = USUAL_MONTHS[chemistry === 'lithium' ? 'display, lithium cell' : 'display, silver cell'];
  const ofHands =
    USUAL_MONTHS[functions.includes('seconds hand') ? 'hands with seconds' : 'hands without seconds'];
  const heavy = (['chronograph', 'alarm', 'light'] as const).some((each) => functions.includes(each));
  const likely =
    diameterMm !== null && diameterMm < SMALL_UNDER_MM
      ? [USUAL_MONTHS.small]
      : [
          ...(heavy ? [USUAL_MONTHS['chronograph or alarm']] : []),
          ...(functions.includes('digital display') ? [display] : []),
          ...(functions.includes('hands') ? [ofHands] : []),
          // Any of several cells may feed a light.
          ...(cells > 1 ? [USUAL_MONTHS['light module']] : []),
          // What nobody looked for may be there.
          ...(notLookedAt
            ? [display, USUAL_MONTHS['hands with seconds'], USUAL_MONTHS['chronograph or alarm']]
            : []),
        ];
  const months = Math.min(...(likely.length > 0 ? likely : [USUAL_MONTHS.small]));
  const drainUA = (capacityMinMAh + capacityMaxMAh) / 2 / (MAH_PER_UA_MONTH * months);
  return drainUA > 0 && drainUA < Infinity ? drainUA : null;
}
