import { z } from 'zod';
import type { LooseCell } from '../core/logbook';
import {
  type CheckedLine,
  type DeliveryLine,
  type Lot,
  type OrderLine,
  PRINT_STATES,
  type PrintState,
  STOCK_ITEMS,
  type SupplierRecord,
  TAKES,
} from '../core/craft/stock';
import { calendarDay, day, id, money, number, oneOf, optionalText, text } from './fields';

const supplierName = text({ words: 'Supplier', max: 80, example: 'Saltmarsh Wholesale' });

/** What any line of goods says, ordered or delivered. */
const goods = {
  item: oneOf('Type of goods', STOCK_ITEMS),
  code: text({ words: 'Code as printed', max: 40, example: 'SR621SW' }),
  count: number({ words: 'How many', min: 1, max: 10_000, example: 10 }).int(),
};
const lotFields = {
  lotCode: text({ words: 'Lot', max: 40, example: 'N-204' }),
  madeOn: day('Made on').nullable(),
  bestBefore: day('Best before').nullable(),
  priceMinor: money('Price each'),
};
const inOrder = {
  path: ['bestBefore'],
  error: 'Best before: after the day it was made, e.g. 2029-01-31.',
};
const madeFirst = (lot: { readonly madeOn: string | null; readonly bestBefore: string | null }): boolean =>
  lot.madeOn === null || lot.bestBefore === null || lot.madeOn < lot.bestBefore;

/** Goods booked in by lot, without a delivery note. */
export const newLot = z
  .strictObject({ id, supplier: supplierName, ...goods, ...lotFields, technicianId: id })
  .refine(madeFirst, inOrder);
export type NewLot = z.infer<typeof newLot>;

/** A lot counted by hand: what lies there, whatever the ledger says. */
export const lotCount = z.strictObject({
  id,
  lotId: id,
  /** What the ledger said when it was counted: where something was taken since, the count is of another day. */
  balanceSeen: number({ words: 'Balance seen', min: 0, max: 1_000_000, example: 7 }).int(),
  /** And how many were taken that it had no more of. */
  unbookedSeen: number({ words: 'Unbooked seen', min: 0, max: 1_000_000, example: 0 }).int(),
  counted: number({ words: 'Counted', min: 0, max: 10_000, example: 7 }).int(),
  reason: text({ words: 'Reason', max: 120, example: 'counted at closing' }),
  technicianId: id,
});
export type LotCount = z.infer<typeof lotCount>;

/** A lot set aside, or released again (an empty reason). */
export const lotQuarantine = z.strictObject({
  lotId: id,
  reason: optionalText({ words: 'Reason', max: 120, example: 'two of them leaked' }),
  technicianId: id,
});
export type LotQuarantine = z.infer<typeof lotQuarantine>;

/** One fresh cell of a lot, measured and looked at. */
export const lotSample = z.strictObject({
  id,
  lotId: id,
  restVoltageV: number({ words: 'Rest voltage', min: 0, max: 4.5, unit: 'V', example: 1.58 }),
  print: oneOf('Print on the cell', PRINT_STATES),
  technicianId: id,
});
export type LotSample = z.infer<typeof lotSample>;

/** Things one lot gave back to its supplier. */
export const lotReturn = z.strictObject({
  id,
  lotId: id,
  count: number({ words: 'How many', min: 1, max: 10_000, example: 4 }).int(),
  reason: text({ words: 'Reason', max: 120, example: 'delivered wrong' }),
  to: oneOf('Where to', ['supplier', 'spent bin']),
  technicianId: id,
});
export type LotReturn = z.infer<typeof lotReturn>;

/** Spent cells handed to the collector. */
export const collection = z.strictObject({
  id,
  count: number({ words: 'Cells', min: 1, max: 100_000, example: 240 }).int(),
  weightG: number({ words: 'Weight', min: 0.1, max: 1_000_000, unit: 'g', example: 310 }),
  collectedOn: day('Collected on'),
  receipt: text({ words: 'Receipt', max: 60, example: 'VH-2207' }),
  technicianId: id,
});
export type Collection = z.infer<typeof collection>;

export const orderLine = z.strictObject({
  ...goods,
  // Nothing is printed yet: it is called by what it is.
  code: text({ words: 'Cell or ring', max: 40, example: 'SR621SW' }),
});
export const newOrder = z.strictObject({
  id,
  supplier: supplierName,
  lines: z.array(orderLine).min(1, 'Order at least one line.').max(60, 'At most 60 lines in one order.'),
  technicianId: id,
});
export type NewOrder = z.infer<typeof newOrder>;

const deliveryLine = z.strictObject({ ...goods, ...lotFields }).refine(madeFirst, inOrder);
/** Goods in by delivery note; the lines told to be kept become lots. */
export const newDelivery = z.strictObject({
  id,
  supplier: supplierName,
  noteNumber: text({ words: 'Delivery note', max: 40, example: 'SW-20418' }),
  orderId: id.nullable(),
  lines: z
    .array(
      z.strictObject({
        line: deliveryLine,
        /** In quarantine from the start, or not taken in at all. */
        take: oneOf('What becomes of it', TAKES),
      }),
    )
    .min(1, 'A delivery holds at least one line.')
    .max(200, 'At most 200 lines in one delivery.'),
  technicianId: id,
});
export type NewDelivery = z.infer<typeof newDelivery>;

/** Where a loose cell is, asked when the day is closed. */
export const newDayClose = z.strictObject({ day: calendarDay, technicianId: id });

export interface Sampled {
  readonly id: string;
  readonly lotId: string;
  readonly restVoltageV: number;
  readonly print: PrintState;
  readonly verdict: 'good' | 'doubtful';
  readonly recordedAt: string;
}

export interface Order {
  readonly id: string;
  readonly supplier: string;
  readonly lines: readonly OrderLine[];
  readonly placedAt: string;
  readonly dueAt: string;
  /** What came with it, once it is due; null while it is on its way. */
  readonly note: {
    readonly noteNumber: string;
    readonly lines: readonly DeliveryLine[];
    readonly checked: readonly CheckedLine[];
  } | null;
  readonly received: boolean;
}

export interface StockResource {
  /** Lots in use: something left, to be counted, or in quarantine. */
  readonly lots: readonly Lot[];
  /** How many lots were used up. */
  readonly emptyLots: number;
  readonly spentInBin: number;
  readonly collections: readonly Collection[];
  readonly suppliers: readonly SupplierRecord[];
  readonly orders: readonly Order[];
  /** The last sample of each lot in use that has one. */
  readonly samples: readonly Sampled[];
  /** The day closed last; null: none yet. */
  readonly lastClosed: string | null;
}

/** A lot and every watch that carries a cell of it now. */
export interface CarriedLot {
  readonly supplier: string;
  readonly lotCode: string;
  readonly fitted: number;
  readonly leaked: number;
  readonly watches: readonly {
    readonly watchId: string;
    readonly jobId: string;
    readonly ticket: string;
    readonly well: string;
    readonly watch: string;
    readonly cellCode: string;
    readonly fittedAt: string;
    readonly customerName: string;
    readonly phone: string;
    readonly email: string;
    /** A cell that another counter says it fitted there later; this shop has not seen it. */
    readonly laterElsewhere: {
      readonly jobId: string;
      readonly cellCode: string;
      readonly fittedAt: string;
      readonly counter: string;
    } | null;
  }[];
}

/** What stands in the way of closing the day. */
export interface DayResource {
  readonly day: string;
  readonly loose: readonly {
    readonly jobId: string;
    readonly ticket: string;
    readonly watch: string;
    readonly cell: LooseCell;
  }[];
  readonly toBeCounted: readonly Lot[];
  readonly spentInBin: number;
  readonly closed: boolean;
}

/** One line of the ledger: what moved, why, and by whose hand. */
export interface LedgerLine {
  readonly sequence: number;
  readonly recordedAt: string;
  readonly item: string;
  readonly code: string;
  readonly lot: string;
  readonly delta: number;
  readonly reason: string;
  /** Empty where no job moved it. */
  readonly ticket: string;
  /** Initials. */
  readonly technician: string;
}
