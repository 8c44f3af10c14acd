import { chemistries, type CellType } from '../cells';
import type { ShopLife } from '../life';
import { dayInWords, isMoment, noMoments, yearsBetween } from '../time';

export const STOCK_ITEMS = ['cell', 'kit', 'gasket'] as const;
export type StockItem = (typeof STOCK_ITEMS)[number];

/** A lot as the stock ledger knows it. Dates are calendar days; money in minor units. */
export interface Lot {
  readonly id: string;
  readonly item: StockItem;
  /** A cell's standard name, a kit's code, or a gasket's size, e.g. `30.5 × 0.70`. */
  readonly code: string;
  readonly supplier: string;
  readonly lotCode: string;
  readonly madeOn: string | null;
  readonly bestBefore: string | null;
  readonly priceMinor: number;
  readonly balance: number;
  /** A fact says something left this lot that the ledger could not take: someone must count. */
  readonly toBeCounted: boolean;
  /** How many were taken so since it was counted last. */
  readonly unbooked: number;
  /** Why nothing is taken from it; null: it may be. */
  readonly quarantined: string | null;
  /** What cells of its type from its supplier did in this shop; null: nothing is followed, as of a ring. */
  readonly lasts: ShopLife | null;
}

export interface LotAge {
  readonly years: number | null;
  readonly assumed: boolean;
}

/** Years since a lot was made on a given day; worked back from best-before and shelf life where no date is printed. */
export function lotAge(lot: Pick<Lot, 'madeOn' | 'bestBefore'>, cell: CellType, day: string): LotAge {
  const years = (from: string, to: string): number | null => {
    const between = yearsBetween(from, to);
    return Number.isFinite(between) ? between : null;
  };
  // A date that is none tells no age.
  const since = lot.madeOn === null ? null : years(lot.madeOn, day);
  if (since !== null) return { years: Math.max(0, since), assumed: false };
  if (lot.bestBefore === null) return { years: null, assumed: true };
  const left = years(day, lot.bestBefore);
  if (left === null) return { years: null, assumed: true };
  return { years: Math.max(0, chemistries[cell.chemistry].shelfYears - left), assumed: true };
}

/** Whether a lot's best-before has passed on a day; one that is no date is not relied upon. */
export function isPastDate(lot: Pick<Lot, 'bestBefore'>, day: string): boolean {
  return lot.bestBefore !== null && !(isMoment(lot.bestBefore) && lot.bestBefore >= day);
}

/** Why nothing can be used from a lot on a day, as it follows *the lot is*; null where it may. */
export function setAside(lot: Pick<Lot, 'quarantined' | 'bestBefore'>, day: string): string | null {
  if (lot.quarantined !== null) return `in quarantine: ${lot.quarantined}`;
  return isPastDate(lot, day) ? `past its best-before date (${dayInWords(lot.bestBefore ?? '')})` : null;
}

/** Fewer usable cells of a kind than this are too few. */
export const REORDER_UNDER = 3;

/** Cells of which lots lie here, but too few that may still be fitted, and none on order. `ordered`: codes on order. */
export function runningLow(
  lots: readonly Lot[],
  ordered: readonly string[],
  day: string,
): readonly { readonly code: string; readonly left: number }[] {
  const left = new Map<string, number>();
  for (const lot of lots)
    if (lot.item === 'cell') {
      // What is no number of pieces is not there to be fitted.
      const usable =
        setAside(lot, day) === null && lot.balance > 0 && lot.balance < Infinity ? lot.balance : 0;
      left.set(lot.code, (left.get(lot.code) ?? 0) + usable);
    }
  return [...left]
    .filter(([code, count]) => count < REORDER_UNDER && !ordered.includes(code))
    .map(([code, count]) => ({ code, left: count }))
    .sort((a, b) => a.left - b.left || a.code.localeCompare(b.code));
}

/** A date on a blister farther from today than this is a slip of the pen or the wrong century, years. */
const PRINTED_WITHIN = { made: 15, bestBefore: 15 } as const;

/** What is wrong with the dates of a lot, in words; null where nothing is. Days as year-month-day. */
export function doubtfulDates(
  { madeOn, bestBefore }: Pick<Lot, 'madeOn' | 'bestBefore'>,
  day: string,
): string | null {
  const [none] = noMoments([
    ['The day it was made', madeOn],
    ['Its best-before', bestBefore],
    ['Today', day],
  ]);
  if (none !== undefined) return none;
  if (madeOn !== null) {
    const years = yearsBetween(madeOn, day);
    if (years < 0) return `Made on ${dayInWords(madeOn)}, a day in the future.`;
    if (years > PRINTED_WITHIN.made)
      return `Made on ${dayInWords(madeOn)}: over ${PRINTED_WITHIN.made} years ago. Is that the right century?`;
  }
  if (bestBefore !== null && Math.abs(yearsBetween(day, bestBefore)) > PRINTED_WITHIN.bestBefore)
    return `Best before ${dayInWords(bestBefore)}: more than ${PRINTED_WITHIN.bestBefore} years from today. Is that the right century?`;
  return null;
}
