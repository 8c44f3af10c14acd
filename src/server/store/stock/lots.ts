import type { ShopLife } from '../../../core/craft/life';
import type { Lot, StockItem } from '../../../core/craft/stock';
import type { Db } from '../database';

export interface LotRow {
  id: string;
  item: StockItem;
  code: string;
  supplier: string;
  lotCode: string;
  madeOn: string | null;
  bestBefore: string | null;
  priceMinor: number;
  balance: number;
  unbooked: number;
  quarantined: string | null;
}

const LOT_COLUMNS = `id, item, code, supplier, lot_code AS lotCode, made_on AS madeOn,
  best_before AS bestBefore, price_minor AS priceMinor, balance, to_be_counted AS unbooked, quarantined`;

/** A lot that is still to be seen. */
export const IN_USE = 'balance > 0 OR to_be_counted > 0 OR quarantined IS NOT NULL';
const LOTS_A_PAGE = 100;

/** A lot about to be booked in. */
export type LotBookedIn = Omit<Lot, 'balance' | 'unbooked' | 'quarantined' | 'toBeCounted' | 'lasts'>;

/** The lots of this stock, as they stand. */
export interface LotTable {
  readonly all: () => Lot[];
  readonly inUse: () => Lot[];
  readonly empty: (page: number) => Lot[];
  readonly emptyCount: () => number;
  readonly get: (id: string) => LotRow | undefined;
  readonly named: (ids: Iterable<string>) => Lot[];
  /** The same, without what their cells did: for a write that only asks how old they are. */
  readonly datesOf: (ids: Iterable<string>) => LotRow[];
  /** The lot of a supplier that is booked in under this code already. */
  readonly same: (supplier: string, lotCode: string, code: string) => string | undefined;
  readonly insert: (lot: LotBookedIn) => void;
}

/** What the cells of a type from a supplier did in this shop. */
export type LastsHere = (cells: Pick<Lot, 'code' | 'supplier'>) => ShopLife;

export function lotTable(db: Db, lastsHere: LastsHere): LotTable {
  const toLot = (row: LotRow): Lot => ({
    ...row,
    toBeCounted: row.unbooked > 0,
    // Worked out where it is asked for: most writes do not.
    get lasts() {
      return row.item === 'cell' ? lastsHere(row) : null;
    },
  });
  const lotsInUse = db.prepare<[], LotRow>(
    `SELECT ${LOT_COLUMNS} FROM stock_lot WHERE ${IN_USE} ORDER BY item, code, best_before`,
  );
  const allLots = db.prepare<[], LotRow>(
    `SELECT ${LOT_COLUMNS} FROM stock_lot ORDER BY item, code, best_before`,
  );
  const emptyLots = db.prepare<[number, number], LotRow>(
    `SELECT ${LOT_COLUMNS} FROM stock_lot WHERE NOT (${IN_USE}) ORDER BY item, code, best_before LIMIT ? OFFSET ?`,
  );
  const lotCounts = db
    .prepare<[], number>(
      `SELECT (SELECT count(*) FROM stock_lot) - (SELECT count(*) FROM stock_lot WHERE ${IN_USE})`,
    )
    .pluck();
  const lot = db.prepare<[string], LotRow>(`SELECT ${LOT_COLUMNS} FROM stock_lot WHERE id = ?`);
  const insertLot = db.prepare<
    [string, StockItem, string, string, string, string | null, string | null, number]
  >(
    'INSERT INTO stock_lot (id, item, code, supplier, lot_code, made_on, best_before, price_minor) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
  );
  const sameLot = db
    .prepare<[string, string, string], string>(
      'SELECT id FROM stock_lot WHERE supplier = ? AND lot_code = ? AND code = ?',
    )
    .pluck();
  const rowsNamed = (ids: Iterable<string>): LotRow[] => [...new Set(ids)].flatMap((id) => lot.get(id) ?? []);
  return {
    all: () => allLots.all().map(toLot),
    inUse: () => lotsInUse.all().map(toLot),
    empty: (page) => emptyLots.all(LOTS_A_PAGE, page * LOTS_A_PAGE).map(toLot),
    emptyCount: () => lotCounts.get() ?? 0,
    get: (id) => lot.get(id),
    named: (ids) => rowsNamed(ids).map(toLot),
    datesOf: rowsNamed,
    same: (supplier, lotCode, code) => sameLot.get(supplier, lotCode, code),
    insert: ({ id, item, code, supplier, lotCode, madeOn, bestBefore, priceMinor }) =>
      void insertLot.run(id, item, code, supplier, lotCode, madeOn, bestBefore, priceMinor),
  };
}
