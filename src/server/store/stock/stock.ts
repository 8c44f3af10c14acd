import type {
  Collection,
  LedgerLine,
  LotCount,
  LotReturn,
  NewLot,
  NewOrder,
  Order,
  StockResource,
} from '../../../contract';
import type { Book } from '../../../core/craft/book';
import type { DeliveryLine, Lot, SupplierRecord } from '../../../core/craft/stock';
import type { Clock } from '../clock';
import { type Db, inTransaction } from '../database';
import { type IdempotencyStore, idempotencyStore, type SentBefore } from '../idempotencyStore';
import { spentBin, type SpentBin } from './bin';
import { type Doubts, doubtsOf } from './doubts';
import { type Ledger, stockLedger } from './ledger';
import { type LastsHere, type LotTable, lotTable } from './lots';
import { type Orders, ordersOf } from './orders';
import { supplierRecords } from './suppliers';

const MOST_COLLECTIONS = 12;

/** Stock by lot and the bin of spent ones. Lines an entry causes are written only inside its transaction. */
export interface StockStore {
  /** Every lot ever booked in: for lists and files, not for pages. */
  readonly lots: () => Lot[];
  readonly lotsInUse: () => Lot[];
  readonly lotsNamed: LotTable['named'];
  readonly datesOfLots: LotTable['datesOf'];
  readonly emptyLots: LotTable['empty'];
  /** What the stock page shows. */
  readonly resource: () => StockResource;
  readonly suppliers: () => SupplierRecord[];
  readonly ledger: () => LedgerLine[];
  readonly ledgerOfLot: Ledger['ofLot'];
  readonly applyEntry: Ledger['applyEntry'];
  /** Puts the count of a lot right: the difference becomes a line of the ledger, and the lot is counted. */
  readonly count: (count: LotCount) => 'counted' | 'no such lot' | 'moved since' | SentBefore;
  /** Takes things out of a lot that nobody fitted: back to the supplier, or into the bin. */
  readonly giveAway: (given: LotReturn) => 'done' | 'no such lot' | 'more than there are' | SentBefore;
  /** Takes one lot into stock; one that is there already is refused, so that one delivery is not booked twice. */
  readonly receive: (delivery: NewLot) => 'received' | 'same lot again' | SentBefore;
  readonly quarantine: Doubts['quarantine'];
  readonly sample: Doubts['sample'];
  readonly order: (id: string) => Order | null;
  /** Whether an order was sent before under its id. */
  readonly orderSentBefore: (order: NewOrder) => SentBefore | null;
  readonly placeOrder: Orders['place'];
  readonly receiveDelivery: Orders['receive'];
  readonly spentInBin: () => number;
  readonly collections: () => Collection[];
  readonly collect: SpentBin['collect'];
  readonly isClosed: SpentBin['isClosed'];
  readonly closeDay: SpentBin['closeDay'];
}

/** What changes a lot without a watch: counting it, and taking out of it what nobody fitted. */
function countsOf(
  db: Db,
  once: IdempotencyStore['once'],
  lots: LotTable,
  ledger: Ledger,
  bin: SpentBin,
): Pick<StockStore, 'count' | 'giveAway'> {
  return {
    count: inTransaction(
      db,
      once('count', 'counted', (given: LotCount): 'counted' | 'no such lot' | 'moved since' => {
        const { lotId, counted, balanceSeen, unbookedSeen, reason, technicianId } = given;
        const of = lots.get(lotId);
        if (!of) return 'no such lot';
        if (of.balance !== balanceSeen || of.unbooked !== unbookedSeen) return 'moved since';
        if (counted !== of.balance) ledger.write(of.id, counted - of.balance, reason, technicianId);
        ledger.markCounted(of.id);
        return 'counted';
      }),
    ),
    giveAway: inTransaction(
      db,
      once('give-away', 'done', (given: LotReturn): 'done' | 'no such lot' | 'more than there are' => {
        const of = lots.get(given.lotId);
        if (!of) return 'no such lot';
        if (given.count > of.balance) return 'more than there are';
        const reason = `${given.to === 'supplier' ? 'sent back' : 'binned'}: ${given.reason}`;
        ledger.write(of.id, -given.count, reason, given.technicianId);
        if (given.to === 'spent bin' && of.item === 'cell') bin.putUnused(given.count);
        return 'done';
      }),
    ),
  };
}

export function stockStore(db: Db, clock: Clock, bookNow: () => Book, lastsHere: LastsHere): StockStore {
  const { once, seen, note } = idempotencyStore(db, clock);
  const lots = lotTable(db, lastsHere);
  const bin = spentBin(db, clock, once);
  const ledger = stockLedger(db, clock, lots, bin);
  const doubts = doubtsOf(db, clock, lots, bookNow);
  const suppliers = supplierRecords(db, lots);
  const bookIn = (
    lot: DeliveryLine & { readonly id: string; readonly supplier: string },
    technicianId: string,
  ): void => {
    lots.insert(lot);
    ledger.write(lot.id, lot.count, 'goods in', technicianId);
  };
  const orders = ordersOf({ db, clock, bookNow, lots, once, note, setAside: doubts.setAside, bookIn });

  return {
    lots: lots.all,
    lotsInUse: lots.inUse,
    lotsNamed: lots.named,
    datesOfLots: lots.datesOf,
    emptyLots: lots.empty,
    resource: () => ({
      lots: lots.inUse(),
      emptyLots: lots.emptyCount(),
      spentInBin: bin.count(),
      collections: bin.collections(MOST_COLLECTIONS),
      suppliers: suppliers(),
      orders: orders.newest(),
      samples: doubts.samples(),
      lastClosed: bin.lastClosed(),
    }),
    suppliers,
    ledger: ledger.all,
    ledgerOfLot: ledger.ofLot,
    applyEntry: ledger.applyEntry,
    ...countsOf(db, once, lots, ledger, bin),
    receive: inTransaction(
      db,
      once('goods in', 'received', (delivery: NewLot): 'received' | 'same lot again' => {
        if (lots.get(delivery.id) || lots.same(delivery.supplier, delivery.lotCode, delivery.code))
          return 'same lot again';
        bookIn(delivery, delivery.technicianId);
        return 'received';
      }),
    ),
    quarantine: doubts.quarantine,
    sample: doubts.sample,
    order: orders.get,
    orderSentBefore: (order) => seen('order', order),
    placeOrder: orders.place,
    receiveDelivery: orders.receive,
    spentInBin: bin.count,
    collections: () => bin.collections(),
    collect: bin.collect,
    isClosed: bin.isClosed,
    closeDay: bin.closeDay,
  };
}
