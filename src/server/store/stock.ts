import { v5 } from 'uuid';
import type {
  Collection,
  LedgerLine,
  LotCount,
  LotQuarantine,
  LotReturn,
  LotSample,
  NewDelivery,
  NewLot,
  NewOrder,
  Order,
  Sampled,
  StockResource,
} from '../../contract';
import type { Book } from '../../core/craft/book';
import type { Entry, movesBetween, StockMove } from '../../core/logbook';
import {
  checkDelivery,
  type DeliveryLine,
  judgeSample,
  type Lot,
  type OrderLine,
  type StockItem,
  type SupplierRecord,
} from '../../core/craft/stock';
import type { Clock } from './clock';
import { type Db, inTransaction } from './database';

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
  unbooked: number;
  quarantined: string | null;
}

const LOT_COLUMNS = `id, item, code, supplier, lot_code AS lotCode, made_on AS madeOn,
  best_before AS bestBefore, price_minor AS priceMinor, balance, to_be_counted AS unbooked, quarantined`;

const IN_USE = 'balance > 0 OR to_be_counted > 0 OR quarantined IS NOT NULL';
const LOTS_A_PAGE = 100;
const LINES_A_PAGE = 60;
const MOST_ORDERS = 40;
const MOST_COLLECTIONS = 12;

interface OrderRow {
  readonly id: string;
  readonly supplier: string;
  readonly lines: string;
  readonly placedAt: string;
  readonly dueAt: string;
  readonly noteNumber: string;
  readonly noteLines: string;
  readonly received: 0 | 1;
}

/** Codes as the book has them, so that two names of one cell are one lot’s. */
export interface Taken extends DeliveryLine {
  readonly id: string;
}

export type Delivered =
  'received' | 'same again' | 'note booked before' | 'lot booked before' | 'order received before';

/** Stock by lot and the bin of spent ones. Lines are written only inside the transaction of their entry. */
export function stockStore(db: Db, clock: Clock, bookNow: () => Book) {
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
  const line = db.prepare<[string, number, string, string | null, string | null, string, string]>(
    'INSERT INTO stock_ledger (lot_id, delta, reason, fact_id, cause_id, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const linesOf = db.prepare<[string], { lotId: string; taken: number }>(
    'SELECT lot_id AS lotId, sum(delta) AS taken FROM stock_ledger WHERE fact_id = ? GROUP BY lot_id HAVING sum(delta) <> 0',
  );
  const mustCount = db.prepare<[string]>(
    'UPDATE stock_lot SET to_be_counted = to_be_counted + 1 WHERE id = ?',
  );
  const spentLine = db.prepare<[string, string, number, string]>(
    'INSERT INTO spent_ledger (fact_id, cause_id, delta, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const spentOf = db
    .prepare<[string], number>('SELECT coalesce(sum(delta), 0) FROM spent_ledger WHERE fact_id = ?')
    .pluck();
  const spentTotal = db.prepare<[], number>('SELECT total FROM spent_bin WHERE id = 1').pluck();
  const moreSpent = db.prepare<[number]>('UPDATE spent_bin SET total = total + ? WHERE id = 1');
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
  const collections = db.prepare<[number], Collection>(
    `SELECT id, count, weight_g AS weightG, collected_on AS collectedOn, receipt, technician_id AS technicianId
     FROM spent_collection ORDER BY collected_on DESC, recorded_at DESC LIMIT ?`,
  );
  const collectionKnown = db
    .prepare<[string], string>('SELECT id FROM spent_collection WHERE id = ?')
    .pluck();
  const insertCollection = db.prepare<Collection & { readonly recordedAt: string }>(
    `INSERT INTO spent_collection (id, count, weight_g, collected_on, receipt, technician_id, recorded_at)
     VALUES (@id, @count, @weightG, @collectedOn, @receipt, @technicianId, @recordedAt)`,
  );
  const collectedTotal = db
    .prepare<[], number>('SELECT coalesce(sum(count), 0) FROM spent_collection')
    .pluck();
  const setAside = db.prepare<[string, string | null, string, string]>(
    'INSERT INTO lot_quarantine (lot_id, reason, technician_id, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const insertSample = db.prepare<[string, string, number, string, string, string, string]>(
    'INSERT INTO lot_sample (id, lot_id, rest_voltage_v, print, verdict, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const sampleKnown = db.prepare<[string], string>('SELECT id FROM lot_sample WHERE id = ?').pluck();
  const samplesInUse = db.prepare<[], Sampled>(
    `SELECT id, lot_id AS lotId, rest_voltage_v AS restVoltageV, print, verdict, recorded_at AS recordedAt
     FROM lot_sample WHERE rowid IN (
       SELECT max(lot_sample.rowid) FROM stock_lot JOIN lot_sample ON lot_sample.lot_id = stock_lot.id
       WHERE ${IN_USE} GROUP BY lot_sample.lot_id
     )`,
  );
  const orderColumns = `stock_order.id, stock_order.supplier, lines, placed_at AS placedAt, due_at AS dueAt,
    stock_order.note_number AS noteNumber, note_lines AS noteLines,
    EXISTS (SELECT 1 FROM delivery WHERE delivery.order_id = stock_order.id) AS received FROM stock_order`;
  const orders = db.prepare<[number], OrderRow>(`SELECT ${orderColumns} ORDER BY placed_at DESC LIMIT ?`);
  const orderOf = db.prepare<[string], OrderRow>(`SELECT ${orderColumns} WHERE stock_order.id = ?`);
  const insertOrder = db.prepare<[string, string, string, string, string, string, string, string]>(
    'INSERT INTO stock_order (id, supplier, lines, placed_at, due_at, note_number, note_lines, technician_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
  );
  const deliveryKnown = db.prepare<[string], string>('SELECT id FROM delivery WHERE id = ?').pluck();
  const noteKnown = db
    .prepare<[string, string], string>('SELECT id FROM delivery WHERE supplier = ? AND note_number = ?')
    .pluck();
  const insertDelivery = db.prepare<[string, string, string, string | null, number, number, string, string]>(
    'INSERT INTO delivery (id, supplier, note_number, order_id, wrong, short, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
  );
  const deliveriesOf = db.prepare<[], { supplier: string; deliveries: number; wrong: number; short: number }>(
    'SELECT supplier, count(*) AS deliveries, sum(wrong) AS wrong, sum(short) AS short FROM delivery GROUP BY supplier',
  );
  const countsOf = db.prepare<[], { supplier: string; fitted: number; leaked: number }>(
    'SELECT supplier, fitted, leaked FROM supplier_count',
  );
  const lastClosed = db.prepare<[], string>('SELECT day FROM day_close ORDER BY day DESC LIMIT 1').pluck();
  const dayClosed = db.prepare<[string], string>('SELECT day FROM day_close WHERE day = ?').pluck();
  const insertDayClose = db.prepare<[string, number, string, string, string]>(
    'INSERT INTO day_close (day, bin, words, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?)',
  );
  const spentInBin = (): number => (spentTotal.get() ?? 0) - (collectedTotal.get() ?? 0);
  const toLot = (row: LotRow): Lot => ({ ...row, toBeCounted: row.unbooked > 0 });

  const doMove = (factId: string, { lotId, delta, spent, givesBack }: StockMove, cause: Entry): void => {
    const write = (of: string, reason: string): void =>
      void line.run(of, delta, reason, factId, cause.id, cause.technicianId, clock.nowUtc());
    if (lotId !== null && delta < 0) {
      const from = lot.get(lotId);
      // It was taken whatever the ledger says: an empty lot keeps the fact and asks for a count.
      if (from && from.balance < 1) mustCount.run(from.id);
      else if (from) write(from.id, cause.kind === 'cell.out' ? 'out of its blister' : 'fitted');
    }
    if (lotId !== null && delta > 0 && givesBack !== null && linesOf.all(givesBack).length > 0)
      write(lotId, 'back, not fitted');
    if (spent > 0) spentLine.run(factId, cause.id, spent, clock.nowUtc());
  };
  const undoMove = (factId: string, cause: Entry): void => {
    for (const { lotId, taken } of linesOf.all(factId)) {
      const from = lot.get(lotId);
      // What was put back and then taken elsewhere cannot be taken from the lot once more.
      if (from && from.balance - taken < 0) mustCount.run(lotId);
      else line.run(lotId, -taken, 'fitting withdrawn', factId, cause.id, cause.technicianId, clock.nowUtc());
    }
    const inBin = spentOf.get(factId) ?? 0;
    if (inBin !== 0) spentLine.run(factId, cause.id, -inBin, clock.nowUtc());
  };

  const toOrder = (row: OrderRow): Order => {
    const lines = JSON.parse(row.lines) as OrderLine[];
    const noteLines = JSON.parse(row.noteLines) as DeliveryLine[];
    return {
      id: row.id,
      supplier: row.supplier,
      lines,
      placedAt: row.placedAt,
      dueAt: row.dueAt,
      received: row.received === 1,
      note:
        row.dueAt <= clock.nowUtc()
          ? {
              noteNumber: row.noteNumber,
              lines: noteLines,
              checked: checkDelivery(lines, noteLines, bookNow().cell),
            }
          : null,
    };
  };

  const suppliers = (): SupplierRecord[] => {
    const supplies = new Map<string, Set<string>>();
    for (const { supplier, item, code } of lotsInUse.all())
      if (item === 'cell') supplies.set(supplier, (supplies.get(supplier) ?? new Set()).add(code));
    const deliveries = new Map(deliveriesOf.all().map((each) => [each.supplier, each]));
    const counts = new Map(countsOf.all().map((each) => [each.supplier, each]));
    return [...new Set([...supplies.keys(), ...deliveries.keys(), ...counts.keys()])]
      .sort()
      .map((supplier): SupplierRecord => ({
        supplier,
        deliveries: deliveries.get(supplier)?.deliveries ?? 0,
        wrong: deliveries.get(supplier)?.wrong ?? 0,
        short: deliveries.get(supplier)?.short ?? 0,
        fitted: counts.get(supplier)?.fitted ?? 0,
        leaked: counts.get(supplier)?.leaked ?? 0,
        supplies: [...(supplies.get(supplier) ?? [])],
      }));
  };

  const bookIn = (
    {
      id,
      item,
      code,
      supplier,
      lotCode,
      madeOn,
      bestBefore,
      priceMinor,
      count,
    }: Taken & { readonly supplier: string },
    technicianId: string,
  ): void => {
    insertLot.run(id, item, code, supplier, lotCode, madeOn, bestBefore, priceMinor);
    line.run(id, count, 'goods in', null, null, technicianId, clock.nowUtc());
  };

  return {
    /** Every lot ever booked in: for lists and files, not for pages. */
    lots: (): Lot[] => allLots.all().map(toLot),
    lotsInUse: (): Lot[] => lotsInUse.all().map(toLot),
    lotsNamed: (ids: Iterable<string>): Lot[] =>
      [...new Set(ids)].flatMap((id) => lot.get(id) ?? []).map(toLot),
    emptyLots: (page: number): Lot[] => emptyLots.all(LOTS_A_PAGE, page * LOTS_A_PAGE).map(toLot),
    /** What the stock page shows. */
    resource: (): StockResource => ({
      lots: lotsInUse.all().map(toLot),
      emptyLots: lotCounts.get() ?? 0,
      spentInBin: spentInBin(),
      collections: collections.all(MOST_COLLECTIONS),
      suppliers: suppliers(),
      orders: orders.all(MOST_ORDERS).map(toOrder),
      samples: samplesInUse.all(),
      lastClosed: lastClosed.get() ?? null,
    }),
    spentInBin,
    suppliers,
    /** Every line of the ledger with what it moved, the newest first. */
    ledger: (): LedgerLine[] => ledger.all(),
    ledgerOfLot: (lotId: string): LedgerLine[] => ledgerOfLot.all(lotId, LINES_A_PAGE),
    collections: (): Collection[] => collections.all(-1),
    /** Puts the count of a lot right: the difference becomes a line of the ledger, and the lot is counted. */
    count: inTransaction(db, (count: LotCount): 'counted' | 'no such lot' => {
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
    /** Sets a lot aside, or releases it where no reason is given. */
    quarantine: inTransaction(db, ({ lotId, reason, technicianId }: LotQuarantine): 'set' | 'no such lot' => {
      if (!lot.get(lotId)) return 'no such lot';
      setAside.run(lotId, reason === '' ? null : reason, technicianId, clock.nowUtc());
      return 'set';
    }),
    /** Records a sample of a lot; a doubtful one puts it in quarantine. */
    sample: inTransaction(
      db,
      ({
        id,
        lotId,
        restVoltageV,
        print,
        technicianId,
      }: LotSample):
        | { readonly outcome: 'no such lot' | 'not a cell' | 'same again' }
        | { readonly outcome: 'sampled'; readonly verdict: ReturnType<typeof judgeSample> } => {
        if (sampleKnown.get(id) !== undefined) return { outcome: 'same again' };
        const of = lot.get(lotId);
        if (!of) return { outcome: 'no such lot' };
        const cell = of.item === 'cell' ? bookNow().cell(of.code) : null;
        if (!cell) return { outcome: 'not a cell' };
        const verdict = judgeSample({ restVoltageV, print }, cell);
        insertSample.run(id, lotId, restVoltageV, print, verdict.verdict, technicianId, clock.nowUtc());
        if (verdict.verdict === 'doubtful')
          setAside.run(lotId, verdict.reasons.join(' '), technicianId, clock.nowUtc());
        return { outcome: 'sampled', verdict };
      },
    ),
    /** Takes things out of a lot that nobody fitted: back to the supplier, or into the bin. */
    giveAway: inTransaction(db, (given: LotReturn): 'done' | 'no such lot' | 'more than there are' => {
      const of = lot.get(given.lotId);
      if (!of) return 'no such lot';
      if (given.count > of.balance) return 'more than there are';
      line.run(
        of.id,
        -given.count,
        `${given.to === 'supplier' ? 'sent back' : 'binned'}: ${given.reason}`,
        null,
        null,
        given.technicianId,
        clock.nowUtc(),
      );
      if (given.to === 'spent bin' && of.item === 'cell') moreSpent.run(given.count);
      return 'done';
    }),
    /** Empties the bin of spent cells, or part of it. Never more than lies in it. */
    collect: inTransaction(
      db,
      (collection: Collection): 'collected' | 'same again' | 'more than in the bin' => {
        if (collectionKnown.get(collection.id) !== undefined) return 'same again';
        if (collection.count > spentInBin()) return 'more than in the bin';
        insertCollection.run({ ...collection, recordedAt: clock.nowUtc() });
        return 'collected';
      },
    ),
    /** Takes one lot into stock; a lot that is there already is refused, so that one delivery is not booked twice. */
    receive: inTransaction(db, (delivery: NewLot): 'received' | 'same lot again' => {
      if (lot.get(delivery.id) || sameLot.get(delivery.supplier, delivery.lotCode, delivery.code))
        return 'same lot again';
      bookIn(delivery, delivery.technicianId);
      return 'received';
    }),
    order: (id: string): Order | null => {
      const row = orderOf.get(id);
      return row ? toOrder(row) : null;
    },
    placeOrder: inTransaction(
      db,
      (
        { id, supplier, lines, technicianId }: NewOrder,
        note: {
          readonly dueAt: string;
          readonly noteNumber: string;
          readonly lines: readonly DeliveryLine[];
        },
      ): 'placed' | 'same again' => {
        if (orderOf.get(id)) return 'same again';
        insertOrder.run(
          id,
          supplier,
          JSON.stringify(lines),
          clock.nowUtc(),
          note.dueAt,
          note.noteNumber,
          JSON.stringify(note.lines),
          technicianId,
        );
        return 'placed';
      },
    ),
    /** Takes a delivery in by its note: all of it, or nothing. The same note is never booked twice. */
    receiveDelivery: inTransaction(db, (given: NewDelivery): Delivered => {
      const { id, supplier, noteNumber, orderId, technicianId } = given;
      if (deliveryKnown.get(id) !== undefined) return 'same again';
      if (noteKnown.get(supplier, noteNumber) !== undefined) return 'note booked before';
      const order = orderId === null ? null : (orderOf.get(orderId) ?? null);
      if (order?.received === 1) return 'order received before';
      const cellOf = bookNow().cell;
      const lines = given.lines.map(({ line: { code, ...rest }, take }) => ({
        take,
        line: { ...rest, code: rest.item === 'cell' ? (cellOf(code)?.code ?? code) : code },
      }));
      const kept = lines.filter(({ take }) => take !== 'sent back');
      if (kept.some(({ line: each }) => sameLot.get(supplier, each.lotCode, each.code) !== undefined))
        return 'lot booked before';
      const checked = order
        ? checkDelivery(
            JSON.parse(order.lines) as OrderLine[],
            lines.map((each) => each.line),
            cellOf,
          )
        : [];
      const any = (...verdicts: string[]): number =>
        checked.some(({ verdict }) => verdicts.includes(verdict)) ? 1 : 0;
      insertDelivery.run(
        id,
        supplier,
        noteNumber,
        orderId,
        any('another cell', 'not ordered'),
        any('short', 'not delivered'),
        technicianId,
        clock.nowUtc(),
      );
      kept.forEach(({ line: each, take }, index) => {
        const lotId = v5(String(index), id);
        bookIn({ ...each, id: lotId, supplier }, technicianId);
        if (take === 'into quarantine')
          setAside.run(lotId, `set aside at goods-in, note ${noteNumber}`, technicianId, clock.nowUtc());
      });
      return 'received';
    }),
    isClosed: (day: string): boolean => dayClosed.get(day) !== undefined,
    closeDay(day: string, words: string, technicianId: string): void {
      insertDayClose.run(day, spentInBin(), words, technicianId, clock.nowUtc());
    },
    /** Writes the lines an entry causes: things taken by facts that now stand, and given back by those that fell. */
    follow(cause: Entry, { undone, done }: ReturnType<typeof movesBetween>): void {
      for (const factId of undone) undoMove(factId, cause);
      for (const [factId, move] of done) doMove(factId, move, cause);
    },
  };
}

export type StockStore = ReturnType<typeof stockStore>;
