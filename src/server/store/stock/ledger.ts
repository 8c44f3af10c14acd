import type { LedgerLine } from '../../../contract';
import type { Entry, StockMove } from '../../../core/logbook';
import type { Clock } from '../clock';
import type { Db } from '../database';
import type { SpentBin } from './bin';
import type { LotTable } from './lots';

const LINES_A_PAGE = 60;

/** What entries move in the stock: things taken by facts that now stand, and given back by those that fell. */
export interface Moves {
  readonly undone: Iterable<string>;
  readonly done: Iterable<readonly [string, StockMove]>;
}

/** Every movement of the stock, a line each; a balance is the sum of its lines. */
export interface Ledger {
  /** A line that no entry causes: goods in, a count put right, things given away. */
  readonly write: (lotId: string, delta: number, reason: string, technicianId: string) => void;
  /** Every line with what it moved, the newest first. */
  readonly all: () => LedgerLine[];
  readonly ofLot: (lotId: string) => LedgerLine[];
  readonly markCounted: (lotId: string) => void;
  /** Writes the lines an entry causes, in the transaction of that entry. */
  readonly applyEntry: (cause: Entry, moves: Moves) => void;
}

export function stockLedger(db: Db, clock: Clock, lots: LotTable, bin: SpentBin): Ledger {
  const line = db.prepare<[string, number, string, string | null, string | null, string, string]>(
    'INSERT INTO stock_ledger (lot_id, delta, reason, fact_id, cause_id, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const linesOf = db.prepare<[string], { lotId: string; taken: number }>(
    'SELECT lot_id AS lotId, sum(delta) AS taken FROM stock_ledger WHERE fact_id = ? GROUP BY lot_id HAVING sum(delta) <> 0',
  );
  const mustCount = db.prepare<[string]>(
    'UPDATE stock_lot SET to_be_counted = to_be_counted + 1 WHERE id = ?',
  );
  const ledgerColumns = `stock_ledger.sequence, stock_ledger.recorded_at AS recordedAt, item, code, lot_code AS lot, delta, reason,
       coalesce(job.ticket, '') AS ticket, technician.initials AS technician
     FROM stock_ledger JOIN stock_lot ON stock_lot.id = lot_id
       JOIN technician ON technician.id = stock_ledger.technician_id
       LEFT JOIN entry ON entry.id = cause_id LEFT JOIN job ON job.id = entry.job_id`;
  const ledger = db.prepare<[], LedgerLine>(`SELECT ${ledgerColumns} ORDER BY stock_ledger.sequence DESC`);
  const ledgerOfLot = db.prepare<[string, number], LedgerLine>(
    `SELECT ${ledgerColumns} WHERE lot_id = ? ORDER BY stock_ledger.sequence DESC LIMIT ?`,
  );
  const counted = db.prepare<[string]>('UPDATE stock_lot SET to_be_counted = 0 WHERE id = ?');

  const doMove = (factId: string, { lotId, delta, spent, givesBack }: StockMove, cause: Entry): void => {
    const write = (of: string, reason: string): void =>
      void line.run(of, delta, reason, factId, cause.id, cause.technicianId, clock.nowUtc());
    if (lotId !== null && delta < 0) {
      const from = lots.get(lotId);
      // It was taken whatever the ledger says: an empty lot keeps the fact and asks for a count.
      if (from && from.balance < 1) mustCount.run(from.id);
      else if (from) write(from.id, cause.kind === 'cell.out' ? 'out of its blister' : 'fitted');
    }
    if (lotId !== null && delta > 0 && givesBack !== null && linesOf.all(givesBack).length > 0)
      write(lotId, 'back, not fitted');
    if (spent > 0) bin.put(factId, cause.id, spent);
  };
  const undoMove = (factId: string, cause: Entry): void => {
    for (const { lotId, taken } of linesOf.all(factId)) {
      const from = lots.get(lotId);
      // What was put back and then taken elsewhere cannot be taken from the lot once more.
      if (from && from.balance - taken < 0) mustCount.run(lotId);
      else line.run(lotId, -taken, 'fitting withdrawn', factId, cause.id, cause.technicianId, clock.nowUtc());
    }
    const inBin = bin.of(factId);
    if (inBin !== 0) bin.put(factId, cause.id, -inBin);
  };

  return {
    write: (lotId, delta, reason, technicianId) =>
      void line.run(lotId, delta, reason, null, null, technicianId, clock.nowUtc()),
    all: () => ledger.all(),
    ofLot: (lotId) => ledgerOfLot.all(lotId, LINES_A_PAGE),
    markCounted: (lotId) => void counted.run(lotId),
    applyEntry(cause, { undone, done }) {
      for (const factId of undone) undoMove(factId, cause);
      for (const [factId, move] of done) doMove(factId, move, cause);
    },
  };
}
