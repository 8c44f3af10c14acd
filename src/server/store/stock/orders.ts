import { v5 } from 'uuid';
import type { NewDelivery, NewOrder, Order } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { checkDelivery, type DeliveryLine, type OrderLine } from '../../../core/craft/stock';
import type { Clock } from '../clock';
import { type Db, inTransaction } from '../database';
import type { IdempotencyStore, SentBefore } from '../idempotencyStore';
import type { Doubts } from './doubts';
import type { LotTable } from './lots';

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

export type Delivered =
  | 'received'
  | SentBefore
  | 'note booked before'
  | 'lot booked before'
  | 'lot on two lines'
  | 'no such order'
  | 'order received before';

/** What the supplier will send, and when. */
interface ComingNote {
  readonly dueAt: string;
  readonly noteNumber: string;
  readonly lines: readonly DeliveryLine[];
}

const MOST_ORDERS = 40;

/** Orders placed, and the deliveries that answer them. */
export interface Orders {
  readonly newest: () => Order[];
  readonly get: (id: string) => Order | null;
  /** `sent`: as it was sent, by which the same sent again is known. */
  readonly place: (order: NewOrder, note: ComingNote, sent?: NewOrder) => 'placed' | 'same again';
  /** Takes a delivery in by its note: all of it, or nothing. The same note is never booked twice. */
  readonly receive: (delivery: NewDelivery) => Delivered;
}

/** What orders stand on. */
interface Ground {
  readonly db: Db;
  readonly clock: Clock;
  readonly bookNow: () => Book;
  readonly lots: LotTable;
  readonly once: IdempotencyStore['once'];
  readonly note: IdempotencyStore['note'];
  readonly setAside: Doubts['setAside'];
  readonly bookIn: (
    lot: DeliveryLine & { readonly id: string; readonly supplier: string },
    technicianId: string,
  ) => void;
}

function orderIn(row: OrderRow, nowUtc: string, cellOf: Book['cell']): Order {
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
      row.dueAt <= nowUtc
        ? {
            noteNumber: row.noteNumber,
            lines: noteLines,
            checked: checkDelivery(lines, noteLines, cellOf),
          }
        : null,
  };
}

type TakenLine = NewDelivery['lines'][number];

/** The lines of a delivery under the names of the book, those that stay, and why they cannot be booked. */
function linesIn(
  given: NewDelivery,
  cellOf: Book['cell'],
  lots: LotTable,
): {
  readonly lines: readonly TakenLine[];
  readonly kept: readonly TakenLine[];
  readonly refused: 'lot on two lines' | 'lot booked before' | null;
} {
  const lines = given.lines.map(({ line: { code, ...rest }, take }) => ({
    take,
    line: { ...rest, code: rest.item === 'cell' ? (cellOf(code)?.code ?? code) : code },
  }));
  const kept = lines.filter(({ take }) => take !== 'sent back');
  if (new Set(kept.map(({ line: each }) => `${each.code} ${each.lotCode}`)).size < kept.length)
    return { lines, kept, refused: 'lot on two lines' };
  if (kept.some(({ line: each }) => lots.same(given.supplier, each.lotCode, each.code) !== undefined))
    return { lines, kept, refused: 'lot booked before' };
  return { lines, kept, refused: null };
}

function statementsOf(db: Db) {
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
  return { orders, orderOf, insertOrder, deliveryKnown, noteKnown, insertDelivery };
}

export function ordersOf({
  db,
  clock,
  bookNow,
  lots,
  once,
  note: noteOnce,
  setAside,
  bookIn,
}: Ground): Orders {
  const { orders, orderOf, insertOrder, deliveryKnown, noteKnown, insertDelivery } = statementsOf(db);
  const toOrder = (row: OrderRow): Order => orderIn(row, clock.nowUtc(), bookNow().cell);

  return {
    newest: () => orders.all(MOST_ORDERS).map(toOrder),
    get: (id) => {
      const row = orderOf.get(id);
      return row ? toOrder(row) : null;
    },
    place: inTransaction(
      db,
      (order: NewOrder, note: ComingNote, sent: NewOrder = order): 'placed' | 'same again' => {
        const { id, supplier, lines, technicianId } = order;
        if (orderOf.get(id)) return 'same again';
        noteOnce('order', sent);
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
    receive: inTransaction(
      db,
      once('delivery', 'received', (given: NewDelivery): Delivered => {
        const { id, supplier, noteNumber, orderId, technicianId } = given;
        if (deliveryKnown.get(id) !== undefined) return 'same again';
        if (noteKnown.get(supplier, noteNumber) !== undefined) return 'note booked before';
        const order = orderId === null ? null : (orderOf.get(orderId) ?? null);
        if (orderId !== null && order === null) return 'no such order';
        if (order?.received === 1) return 'order received before';
        const cellOf = bookNow().cell;
        const { lines, kept, refused } = linesIn(given, cellOf, lots);
        if (refused !== null) return refused;
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
            setAside(lotId, `set aside at goods-in, note ${noteNumber}`, technicianId);
        });
        return 'received';
      }),
    ),
  };
}
