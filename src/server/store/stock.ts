import type { CellLot } from '../../core/stock';
import type { Entry } from '../../core/logbook';
import type { NewLot } from '../../contract';
import type { Clock } from './clock';
import type { Db } from './database';

interface LotRow {
  id: string;
  cellCode: string;
  supplier: string;
  lotCode: string;
  madeOn: string | null;
  bestBefore: string | null;
  priceMinor: number;
  balance: number;
  toBeCounted: 0 | 1;
}

const LOT_COLUMNS = `id, cell_code AS cellCode, supplier, lot_code AS lotCode, made_on AS madeOn,
  best_before AS bestBefore, price_minor AS priceMinor, balance, to_be_counted AS toBeCounted`;

/** Which facts stopped or began to stand when an entry was written. */
export interface Turnover {
  readonly fallen: readonly Entry[];
  readonly risen: readonly Entry[];
}

/** Cells by lot and the bin of spent ones. Lines are written only inside the transaction of their entry. */
export function stockStore(db: Db, clock: Clock) {
  const lots = db.prepare<[], LotRow>(`SELECT ${LOT_COLUMNS} FROM stock_lot ORDER BY cell_code, best_before`);
  const lot = db.prepare<[string], LotRow>(`SELECT ${LOT_COLUMNS} FROM stock_lot WHERE id = ?`);
  const insertLot = db.prepare<[string, string, string, string, string | null, string | null, number]>(
    'INSERT INTO stock_lot (id, cell_code, supplier, lot_code, made_on, best_before, price_minor) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const sameLot = db
    .prepare<[string, string, string], string>(
      'SELECT id FROM stock_lot WHERE supplier = ? AND lot_code = ? AND cell_code = ?',
    )
    .pluck();
  const line = db.prepare<[string, number, string, string | null, string | null, string, string]>(
    'INSERT INTO stock_ledger (lot_id, delta, reason, fact_id, cause_id, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const linesOf = db.prepare<[string], { lotId: string; taken: number }>(
    'SELECT lot_id AS lotId, sum(delta) AS taken FROM stock_ledger WHERE fact_id = ? GROUP BY lot_id HAVING sum(delta) <> 0',
  );
  const mustCount = db.prepare<[string]>('UPDATE stock_lot SET to_be_counted = 1 WHERE id = ?');
  const spentLine = db.prepare<[string, string, number, string]>(
    'INSERT INTO spent_ledger (fact_id, cause_id, delta, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const spentOf = db
    .prepare<[string], number>('SELECT coalesce(sum(delta), 0) FROM spent_ledger WHERE fact_id = ?')
    .pluck();
  const spentTotal = db.prepare<[], number>('SELECT coalesce(sum(delta), 0) FROM spent_ledger').pluck();
  const toLot = (row: LotRow): CellLot => ({ ...row, toBeCounted: row.toBeCounted === 1 });

  const take = (fact: Entry, cause: Entry): void => {
    if (fact.kind === 'cell.fitted' && fact.payload.lotId !== null) {
      const from = lot.get(fact.payload.lotId);
      if (!from) return;
      // The cell was fitted whatever the ledger says: an empty lot keeps the fact and asks for a count.
      if (from.balance < 1) mustCount.run(from.id);
      else line.run(from.id, -1, 'fitted', fact.id, cause.id, cause.technicianId, clock.nowUtc());
    }
    if (fact.kind === 'cell.old-settled' && fact.payload.to === 'spent bin') {
      spentLine.run(fact.id, cause.id, 1, clock.nowUtc());
    }
  };
  const giveBack = (fact: Entry, cause: Entry): void => {
    if (fact.kind === 'cell.fitted') {
      for (const { lotId, taken } of linesOf.all(fact.id)) {
        line.run(lotId, -taken, 'fitting withdrawn', fact.id, cause.id, cause.technicianId, clock.nowUtc());
      }
    }
    if (fact.kind === 'cell.old-settled') {
      const inBin = spentOf.get(fact.id) ?? 0;
      if (inBin !== 0) spentLine.run(fact.id, cause.id, -inBin, clock.nowUtc());
    }
  };

  return {
    lots: (): CellLot[] => lots.all().map(toLot),
    spentInBin: (): number => spentTotal.get() ?? 0,
    /** Takes a delivery into stock; a lot that is there already is refused, so that one delivery is not booked twice. */
    receive: db.transaction((delivery: NewLot): 'received' | 'same lot again' => {
      if (lot.get(delivery.id) || sameLot.get(delivery.supplier, delivery.lotCode, delivery.cellCode))
        return 'same lot again';
      insertLot.run(
        delivery.id,
        delivery.cellCode,
        delivery.supplier,
        delivery.lotCode,
        delivery.madeOn,
        delivery.bestBefore,
        delivery.priceMinor,
      );
      line.run(delivery.id, delivery.count, 'goods in', null, null, delivery.technicianId, clock.nowUtc());
      return 'received';
    }),
    /** Writes the lines an entry causes: cells taken by fittings that now stand, and given back by those that fell. */
    follow(cause: Entry, { fallen, risen }: Turnover): boolean {
      for (const fact of fallen) giveBack(fact, cause);
      for (const fact of risen) take(fact, cause);
      return [...fallen, ...risen].some(
        (fact) => fact.kind === 'cell.fitted' || fact.kind === 'cell.old-settled',
      );
    },
  };
}
