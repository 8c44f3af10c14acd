import { type CellTable, lookAlikes } from '../cells';
import { seededUniform } from '../life';
import type { DeliveryLine, OrderLine } from '../stock';
import { addMonths } from '../time';

export interface SupplierWays {
  /** Of its lines, how many come with another cell, and how many short. */
  readonly wrongShare: number;
  readonly shortShare: number;
}

/** Shelf months a lot still has when it comes, and how long ago it was made. */
const SHELF_MONTHS = { silver: 24, lithium: 72 } as const;

/**
 * What a supplier sends for an order: each line with its lot and dates, now and then another cell easily taken for the
 * one ordered, or fewer. The same seed sends the same. `day` is the calendar day it leaves.
 */
export function simulateDelivery(
  ordered: readonly OrderLine[],
  { wrongShare, shortShare }: SupplierWays,
  table: CellTable,
  day: string,
  seed: number,
): DeliveryLine[] {
  const uniform = seededUniform(seed);
  // Nobody sends what is no count.
  const lines = ordered.filter(({ count }) => count > 0 && count < Infinity);
  return lines.map((line, index): DeliveryLine => {
    const [wrong, short, lot] = [uniform(), uniform(), Math.floor(uniform() * 9000) + 1000];
    const type = line.item === 'cell' ? (table.byName.get(line.code) ?? null) : null;
    const [alike] = type ? lookAlikes(type, table) : [];
    const code = wrong < wrongShare && alike ? alike.cell.code : line.code;
    const count =
      short < shortShare && line.count > 1 ? Math.max(1, Math.floor(line.count * 0.6)) : line.count;
    const lithium = table.byName.get(code)?.chemistry === 'lithium';
    return {
      item: line.item,
      code,
      count,
      lotCode: `D-${lot}-${index + 1}`,
      madeOn: addMonths(day, -5),
      bestBefore:
        line.item === 'gasket' ? null : addMonths(day, lithium ? SHELF_MONTHS.lithium : SHELF_MONTHS.silver),
      priceMinor: 40 + Math.floor(uniform() * 50),
    };
  });
}
