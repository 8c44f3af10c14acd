import type { Lot, StockItem } from '../../core/stock';
import type { Entry } from '../../core/logbook';
import type { Collection, LotCount, NewLot } from '../../contract';
import type { Clock } from './clock';
import type { Db } from './database';

interface LotRow {
  id: string;
  item: StockItem;
  code: string;
  supplier: string;
  lotCode: string;
  madeOn: string | null;
  bestBefore: string | null;
  priceMinor: number;
  balance: number;
  toBeCounted: 0 | 1;
}

const LOT_COLUMNS = `id, item, code, supplier, lot_code AS lotCode, made_on AS madeOn,
  best_before AS bestBefore, price_minor AS priceMinor, balance, to_be_counted AS toBeCounted`;

/** Which facts stopped or began to stand when an entry was written. */
export interface Turnover {
  readonly fallen: readonly Entry[];
  readonly risen: readonly Entry[];
}

/** One line of the ledger as a list shows it. */
interface LedgerLine {
  readonly sequence: number;
  readonly recorded_at: string;
  readonly item: string;
  readonly code: string;
  readonly lot: string;
  readonly delta: number;
  readonly reason: string;
  readonly ticket: string;
  readonly technician: string;
  readonly [column: string]: string | number;
}

/** The lot a fact takes one thing from, if it takes any. */
function lotTakenFrom(fact: Entry): string | null {
  if (fact.kind === 'cell.fitted' || fact.kind === 'cell.accumulator') return fact.payload.lotId;
  if (fact.kind === 'seal.gasket' && fact.payload.state === 'renewed') return fact.payload.lotId;
  return null;
}

/** Stock by lot and the bin of spent ones. Lines are written only inside the transaction of their entry. */
export function stockStore(db: Db, clock: Clock) {
  const lots = db.prepare<[], LotRow>(
    `SELECT ${LOT_COLUMNS} FROM stock_lot ORDER BY item, code, best_before`,
  );
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
  const ledger = db.prepare<[], LedgerLine>(
    `SELECT stock_ledger.sequence, stock_ledger.recorded_at, item, code, lot_code AS lot, delta, reason,
       coalesce(job.ticket, '') AS ticket, technician.initials AS technician
     FROM stock_ledger JOIN stock_lot ON stock_lot.id = lot_id
       JOIN technician ON technician.id = stock_ledger.technician_id
       LEFT JOIN entry ON entry.id = cause_id LEFT JOIN job ON job.id = entry.job_id
     ORDER BY stock_ledger.sequence DESC`,
  );
  const counted = db.prepare<[string]>('UPDATE stock_lot SET to_be_counted = 0 WHERE id = ?');
  const collections = db.prepare<[], Collection>(
    `SELECT id, count, weight_g AS weightG, collected_on AS collectedOn, receipt, technician_id AS technicianId
     FROM spent_collection ORDER BY collected_on DESC, recorded_at DESC`,
  );
  const insertCollection = db.prepare<Collection & { readonly recordedAt: string }>(
    `INSERT INTO spent_collection (id, count, weight_g, collected_on, receipt, technician_id, recorded_at)
     VALUES (@id, @count, @weightG, @collectedOn, @receipt, @technicianId, @recordedAt)`,
  );
  const collectedTotal = db
    .prepare<[], number>('SELECT coalesce(sum(count), 0) FROM spent_collection')
    .pluck();
  const spentInBin = (): number => (spentTotal.get() ?? 0) - (collectedTotal.get() ?? 0);
  const toLot = (row: LotRow): Lot => ({ ...row, toBeCounted: row.toBeCounted === 1 });

  const take = (fact: Entry, cause: Entry): void => {
    const lotId = lotTakenFrom(fact);
    if (lotId !== null) {
      const from = lot.get(lotId);
      if (!from) return;
      // It was fitted whatever the ledger says: an empty lot keeps the fact and asks for a count.
      if (from.balance < 1) mustCount.run(from.id);
      else line.run(from.id, -1, 'fitted', fact.id, cause.id, cause.technicianId, clock.nowUtc());
    }
    if (fact.kind === 'cell.old-settled' && fact.payload.to === 'spent bin') {
      spentLine.run(fact.id, cause.id, 1, clock.nowUtc());
    }
  };
  const giveBack = (fact: Entry, cause: Entry): void => {
    if (lotTakenFrom(fact) !== null) {
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
    lots: (): Lot[] => lots.all().map(toLot),
    spentInBin,
    /** Every line of the ledger with what it moved, the newest first. */
    ledger: (): LedgerLine[] => ledger.all(),
    collections: (): Collection[] => collections.all(),
    /** Puts the count of a lot right: the difference becomes a line of the ledger, and the lot is counted. */
    count: db.transaction((count: LotCount): 'counted' | 'no such lot' => {
      const of = lot.get(count.lotId);
      if (!of) return 'no such lot';
      if (count.counted !== of.balance) {
        line.run(
          of.id,
          count.counted - of.balance,
          count.reason,
          null,
          null,
          count.technicianId,
          clock.nowUtc(),
        );
      }
      counted.run(of.id);
      return 'counted';
    }),
    /** Empties the bin of spent cells, or part of it. Never more than lies in it. */
    collect: db.transaction((collection: Collection): 'collected' | 'same again' | 'more than in the bin' => {
      if (collections.all().some(({ id }) => id === collection.id)) return 'same again';
      if (collection.count > spentInBin()) return 'more than in the bin';
      insertCollection.run({ ...collection, recordedAt: clock.nowUtc() });
      return 'collected';
    }),
    /** Takes a delivery into stock; a lot that is there already is refused, so that one delivery is not booked twice. */
    receive: db.transaction((delivery: NewLot): 'received' | 'same lot again' => {
      if (lot.get(delivery.id) || sameLot.get(delivery.supplier, delivery.lotCode, delivery.code))
        return 'same lot again';
      insertLot.run(
        delivery.id,
        delivery.item,
        delivery.code,
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
        (fact) => lotTakenFrom(fact) !== null || fact.kind === 'cell.old-settled',
      );
    },
  };
}
