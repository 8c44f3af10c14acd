import {
  type CellType,
  type CellWanted,
  type CrossReference,
  chemistries,
  crossReference,
  mayBeFitted,
} from '../cells';
import { yearsBetween } from '../time';

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
}

export interface LotAge {
  readonly years: number | null;
  readonly assumed: boolean;
}

/** Years since a lot was made on a given day; worked back from best-before and shelf life where no date is printed. */
export function lotAge(lot: Pick<Lot, 'madeOn' | 'bestBefore'>, cell: CellType, day: string): LotAge {
  if (lot.madeOn !== null) return { years: Math.max(0, yearsBetween(lot.madeOn, day)), assumed: false };
  if (lot.bestBefore === null) return { years: null, assumed: true };
  const left = yearsBetween(day, lot.bestBefore);
  return { years: Math.max(0, chemistries[cell.chemistry].shelfYears - left), assumed: true };
}

/** Whether a lot's best-before has passed on a day. */
export function isPastDate(lot: Pick<Lot, 'bestBefore'>, day: string): boolean {
  return lot.bestBefore !== null && lot.bestBefore < day;
}

export interface LotOffer {
  readonly lot: Lot;
  readonly cell: CellType;
  readonly verdict: 'take' | 'blocked';
  readonly cross: CrossReference;
  readonly reasons: readonly string[];
}

/**
 * Which lots of the stock may go into this place, best first: *equal* before *accepted*, then the oldest still
 * usable. Lots past their date, to be counted, or of a cell that may not be fitted come after, blocked, with the reason.
 */
export function chooseLots(
  lots: readonly Lot[],
  wanted: CellWanted,
  cellOf: (code: string) => CellType | null,
  day: string,
  options: { readonly alkalineAgreed: boolean },
): LotOffer[] {
  const offers = lots.flatMap((lot): LotOffer[] => {
    const cell = lot.item === 'cell' ? cellOf(lot.code) : null;
    // A lot used up long ago is no offer; one to be counted may hold a cell after all.
    if (!cell || (lot.balance <= 0 && !lot.toBeCounted)) return [];
    const cross = crossReference(wanted, cell, options);
    if (cross.verdict === 'never' && cell.diameterMm !== wanted.diameterMm) return [];
    const blocked = [
      ...(mayBeFitted(cross.verdict) ? [] : [cross.reasons[0] ?? 'Not this cell.']),
      ...(isPastDate(lot, day) ? [`Past its date since ${lot.bestBefore}.`] : []),
      ...(lot.balance <= 0 ? ['None left.'] : []),
    ];
    return [
      {
        lot,
        cell,
        cross,
        verdict: blocked.length === 0 ? 'take' : 'blocked',
        reasons: blocked.length > 0 ? blocked : cross.reasons,
      },
    ];
  });
  const dateOf = (lot: Lot): string => lot.bestBefore ?? '9999-12-31';
  const order = (offer: LotOffer): number =>
    (offer.verdict === 'take' ? 0 : 10) + (offer.cross.verdict === 'equal' ? 0 : 1);
  return offers.sort((a, b) => order(a) - order(b) || dateOf(a.lot).localeCompare(dateOf(b.lot)));
}
