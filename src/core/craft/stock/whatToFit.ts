import type { PricedItem } from '../policy';
import {
  type CellTable,
  type CellType,
  type CellWanted,
  type CrossReference,
  crossReference,
  mayBeFitted,
} from '../cells';
import { figure, type WorkingLine } from '../judgement';
import { dayInWords, noMoments } from '../time';
import { isPastDate, type Lot, REORDER_UNDER } from './lots';
import { bestSupplier, leakShare, leaksMore, recordWords, type SupplierRecord } from './suppliers';

/** The month a lot is usable to; one without a date comes last. */
const monthOf = (lot: Lot): string => (lot.bestBefore ?? '9999-12').slice(0, 7);

export interface LotOffer {
  readonly lot: Lot;
  readonly cell: CellType;
  readonly verdict: 'take' | 'blocked';
  readonly cross: CrossReference;
  readonly reasons: readonly string[];
}

interface ChooseOptions {
  readonly alkalineAgreed: boolean;
  /** What is known of each supplier; of those not named, nothing. */
  readonly records?: readonly SupplierRecord[];
  /** How many are to come from one lot: a set of alike cells in one module. */
  readonly together?: number;
  /** The lot the other cell of the set came from. */
  readonly sameLotAs?: string | null;
  /** The cell the other place of the set holds by now; null: none, or no set. */
  readonly setHolds?: { readonly cellCode: string; readonly lotCode: string } | null;
}

/** Whether cells like those of a lot surely died before their forecast in this shop. */
const diesEarly = ({ lasts }: Pick<Lot, 'lasts'>): boolean =>
  lasts?.verdict === 'factor' && lasts.to !== null && lasts.to < 1;

/**
 * How far behind each supplier stands by its leaks: 0 for those that leaked no more than the best by more than chance, 1
 * for those that leaked more than these, and so on.
 */
function leakRanks(
  suppliers: Iterable<string>,
  recordOf: (supplier: string) => SupplierRecord | null,
): ReadonlyMap<string, number> {
  const ordered = [...new Set(suppliers)].sort((a, b) => leakShare(recordOf(a)) - leakShare(recordOf(b)));
  const ranks = new Map<string, number>();
  let [rank, firstOfRank] = [0, ordered[0] ?? ''];
  for (const supplier of ordered) {
    if (leaksMore(recordOf(supplier), recordOf(firstOfRank))) [rank, firstOfRank] = [rank + 1, supplier];
    ranks.set(supplier, rank);
  }
  return ranks;
}

/**
 * Which lots of the stock may go into this place, best first: *equal* before *accepted*, then the lot the rest of a set
 * came from, then those whose supplier’s cells leaked no more than others’ and did not die early here, and only among such
 * equals the oldest month still usable. Lots past their date, in quarantine, with too few for the set or of another type or
 * lot than the rest of it, or of a cell that may not be fitted come after, blocked, with the reason.
 */
export function chooseLots(
  lots: readonly Lot[],
  wanted: CellWanted,
  cellOf: (code: string) => CellType | null,
  day: string,
  { alkalineAgreed, records = [], together = 1, sameLotAs = null, setHolds = null }: ChooseOptions,
): LotOffer[] {
  const offers = lots.flatMap((lot): LotOffer[] => {
    const cell = lot.item === 'cell' ? cellOf(lot.code) : null;
    // A lot used up long ago is no offer; one to be counted may hold a cell after all.
    if (!cell || (lot.balance <= 0 && !lot.toBeCounted)) return [];
    const cross = crossReference(wanted, cell, { alkalineAgreed });
    if (
      cross.verdict === 'never' &&
      Number.isFinite(wanted.diameterMm) &&
      cell.diameterMm !== wanted.diameterMm
    )
      return [];
    const none = noMoments([
      [`The best-before of ${lot.lotCode}`, lot.bestBefore],
      ['Today', day],
    ]);
    const blocked = [
      ...(mayBeFitted(cross.verdict) ? [] : [cross.reasons[0] ?? 'Not this cell.']),
      ...(lot.quarantined === null ? [] : [`In quarantine: ${lot.quarantined}.`]),
      ...(none.length > 0
        ? none
        : isPastDate(lot, day)
          ? [`Past its best-before date (${dayInWords(lot.bestBefore ?? '')}).`]
          : []),
      ...(!Number.isFinite(lot.balance)
        ? [`The stock of ${lot.lotCode} is not a number. Count it.`]
        : lot.balance <= 0
          ? ['None left.']
          : lot.balance < together && lot.id !== sameLotAs
            ? [`${lot.balance} left, but the set needs ${together} of one lot.`]
            : []),
      ...(setHolds !== null && lot.id !== sameLotAs
        ? [
            `The other cell of the set is ${setHolds.cellCode} of lot ${setHolds.lotCode}: both cells must be of one type and one lot. Fit both again from another lot.`,
          ]
        : []),
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
  const recordOf = (supplier: string): SupplierRecord | null =>
    records.find((record) => record.supplier === supplier) ?? null;
  const ranks = leakRanks(
    offers.map(({ lot }) => lot.supplier),
    recordOf,
  );
  const behind = ({ lot }: LotOffer): number => (ranks.get(lot.supplier) ?? 0) * 2 + (diesEarly(lot) ? 1 : 0);
  const fitness = ({ verdict, cross }: LotOffer): number =>
    (verdict === 'take' ? 0 : 10) + (cross.verdict === 'equal' ? 0 : 1);
  return offers.sort(
    (a, b) =>
      fitness(a) - fitness(b) ||
      Number(b.lot.id === sameLotAs) - Number(a.lot.id === sameLotAs) ||
      behind(a) - behind(b) ||
      monthOf(a.lot).localeCompare(monthOf(b.lot)) ||
      leakShare(recordOf(a.lot.supplier)) - leakShare(recordOf(b.lot.supplier)) ||
      (a.lot.bestBefore ?? '').localeCompare(b.lot.bestBefore ?? ''),
  );
}

/** Why a lot comes first, as `chooseLots` ranks them. */
function whyFirst(
  best: LotOffer,
  takeable: readonly LotOffer[],
  sameLotAs: string | null,
  records: readonly SupplierRecord[],
): string[] {
  const { lot } = best;
  const named = `Lot ${lot.lotCode}, best before ${lot.bestBefore === null ? 'not printed' : dayInWords(lot.bestBefore)}`;
  const older = takeable.find((other) => monthOf(other.lot) < monthOf(lot));
  if (!older)
    return [`${named}: ${lot.bestBefore === null ? 'no dated one is left' : 'the oldest still in date'}.`];
  const why = (): string => {
    if (older.cross.verdict !== best.cross.verdict)
      return `${older.lot.lotCode} is older, but ${older.cross.verdict}, not ${best.cross.verdict}`;
    if (lot.id === sameLotAs) return 'the other cell of the set is from this lot';
    const theirs = records.find(({ supplier }) => supplier === older.lot.supplier);
    return diesEarly(older.lot) && !diesEarly(lot)
      ? `${older.lot.lotCode} is older, but its cells ran down early in this shop`
      : `${older.lot.lotCode} is older, but cells from ${older.lot.supplier} leaked more often${theirs ? ` (${recordWords(theirs)})` : ''}`;
  };
  return [`${named}: ${why()}.`];
}

/** A cheaper cell and what a leak of it would cost, side by side. */
export interface PriceBesideLeak {
  readonly cheaper: LotOffer;
  readonly savesMinor: number;
  /** From cleaning to a new circuit; null where the price list has no line. */
  readonly leakMinor: { readonly cleaned: number | null; readonly circuit: number | null };
}

export interface WhatToFit {
  readonly offers: readonly LotOffer[];
  readonly best: LotOffer | null;
  /** Why this lot comes before the others that can be used; empty where none may. */
  readonly bestBecause: readonly string[];
  /** Null where nothing cheaper that could go in lies in stock. */
  readonly saving: PriceBesideLeak | null;
  /** Cells of the table that may go in as well, named for ordering or asking about: none of them is in stock. */
  readonly substitutes: readonly { readonly cell: CellType; readonly cross: CrossReference }[];
  /** What to order, and from whom it leaked least; null while enough usable ones lie in stock. */
  readonly order: { readonly code: string; readonly supplier: string | null; readonly reason: string } | null;
  readonly working: readonly WorkingLine[];
}

interface FitQuestion extends ChooseOptions {
  readonly wanted: CellWanted;
  readonly lots: readonly Lot[];
  readonly table: CellTable;
  readonly cellOf: (code: string) => CellType | null;
  readonly day: string;
  readonly priceOf: (item: PricedItem) => number | null;
}

/**
 * What to fit from the stock, and what beside it: the lots ranked; a cheaper one next to what a leak of it costs;
 * substitutes where nothing usable is left; what to order and from whom. Money in minor units. Source: bench practice.
 */
export function whatToFit(question: FitQuestion): WhatToFit {
  const { wanted, lots, table, cellOf, day, alkalineAgreed, records = [], priceOf } = question;
  const offers = chooseLots(lots, wanted, cellOf, day, question);
  const takeable = offers.filter(({ verdict }) => verdict === 'take');
  const best = takeable[0] ?? null;
  // Also what only the customer's word would let in: that is what the difference is asked about.
  const agreed = chooseLots(lots, wanted, cellOf, day, { ...question, alkalineAgreed: true });
  const cheapest = agreed
    .filter(({ verdict, cell }) => verdict === 'take' && cell.chemistry !== wanted.chemistry)
    .sort((a, b) => a.lot.priceMinor - b.lot.priceMinor)[0];
  const silver = best && best.cell.chemistry === wanted.chemistry ? best : null;
  const saves = cheapest && silver ? silver.lot.priceMinor - cheapest.lot.priceMinor : 0;
  const left = takeable
    .filter(({ cell }) => cell.chemistry === wanted.chemistry)
    .reduce((sum, { lot }) => sum + lot.balance, 0);
  const inStock = new Set(takeable.map(({ cell }) => cell.code));
  return {
    offers,
    best,
    bestBecause: best === null ? [] : whyFirst(best, takeable, question.sameLotAs ?? null, records),
    saving:
      cheapest && saves > 0
        ? {
            cheaper: cheapest,
            savesMinor: saves,
            leakMinor: { cleaned: priceOf('contacts-cleaned'), circuit: priceOf('new-circuit') },
          }
        : null,
    substitutes:
      best === null
        ? table.types.flatMap((cell) => {
            const cross = crossReference(wanted, cell, { alkalineAgreed });
            return mayBeFitted(cross.verdict) && !inStock.has(cell.code) ? [{ cell, cross }] : [];
          })
        : [],
    order:
      left < REORDER_UNDER
        ? {
            code: wanted.code,
            supplier: bestSupplier(records.filter(({ supplies }) => supplies.includes(wanted.code))),
            reason: left === 0 ? 'No cell that can be fitted is left.' : `Only ${left} left.`,
          }
        : null,
    working: [
      {
        what: 'which lot',
        rule: 'equal before accepted; then suppliers whose cells leaked no more than others and did not run down early; then the oldest month in date',
        figures: takeable
          .slice(0, 4)
          .map(({ lot, cross }) => {
            const share = leaks(records, lot.supplier);
            return `${lot.lotCode}: ${cross.verdict}, ${dayInWords(lot.bestBefore ?? '')}, ${lot.supplier} ${figure(share * 100, 1)} % leaked`;
          })
          .join('; '),
        source: 'bench practice',
      },
    ],
  };
}

const leaks = (records: readonly SupplierRecord[], supplier: string): number =>
  leakShare(records.find((each) => each.supplier === supplier) ?? null);
