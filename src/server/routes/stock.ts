import { Router } from 'express';
import { z } from 'zod';
import {
  collection,
  type DayResource,
  type LotCount,
  lotCount,
  lotQuarantine,
  lotReturn,
  lotSample,
  newDayClose,
  newDelivery,
  newLot,
  newOrder,
} from '../../contract';
import { deliveryNoteCsv, readDeliveryNote } from '../documents/deliveryNote';
import { carriedCsv } from '../documents/lists';
import { mayCloseDay } from '../../core/logbook';
import { doubtfulDates, type Lot, sinceCounted } from '../../core/craft/stock';
import { localDay } from '../../core/craft/time';
import { conflict, notFound, notKept, parsed, unreadable } from '../problem';
import type { Store } from '../store/store';

const page = z.object({ page: z.coerce.number().int().min(0).max(100_000).default(0) });
const ofLot = z.object({
  supplier: z.string().trim().min(1, 'Supplier: whose lot.').max(80),
  lot: z.string().trim().min(1, 'Lot: its code.').max(40),
});

/** The stock by lot, orders and deliveries, the bin, and the close of the day. */
export function stockRoutes(store: Store): Router {
  const router = Router();
  const { stock } = store;
  const known = (technicianId: string): void => {
    if (!store.shops.technician(technicianId)) throw notKept({ outcome: 'no such technician' });
  };
  const told = (): void => store.publish({ jobId: null, what: 'stock' });
  const today = (): string => localDay(store.clock.nowUtc(), store.shops.shop().zone);
  /** A cell's code as the book has it; refused where no name of the table is meant. */
  const codeOf = (item: Lot['item'], code: string): string => {
    const read = item === 'cell' ? store.catalogue.book().cell(code)?.code : code;
    if (read === undefined)
      throw notKept({
        outcome: 'refused',
        reasons: [`“${code}” is not a cell of the table.`],
        whatToDo: 'Give the name as on the blister, e.g. SR621SW or 364.',
      });
    return read;
  };
  const datesOf = (lot: Pick<Lot, 'madeOn' | 'bestBefore'>): void => {
    const doubt = doubtfulDates(lot, today());
    if (doubt !== null)
      throw notKept({
        outcome: 'refused',
        reasons: [doubt],
        whatToDo: 'Read the blister again, and write the day as year-month-day.',
      });
  };

  const refuseOtherBody = (outcome: string | null): void => {
    if (outcome === 'other body under this id') throw notKept({ outcome });
  };
  const movedWords = (count: LotCount): string => {
    const [lot = { balance: 0, unbooked: 0 }] = stock.lotsNamed([count.lotId]);
    return sinceCounted(lot, stock.ledgerOfLot(count.lotId), count);
  };

  router.get('/stock', (_request, response) => {
    response.json(stock.resource());
  });

  router.get('/lots/empty', (request, response) => {
    response.json(stock.emptyLots(parsed(page, request.query).page));
  });

  router.get('/lots/carried', (request, response) => {
    const { supplier, lot } = parsed(ofLot, request.query);
    response.json(store.cells.carrying(supplier, lot));
  });

  router.get('/lots/carried.csv', (request, response) => {
    const { supplier, lot } = parsed(ofLot, request.query);
    response
      .attachment('watches-of-lot.csv')
      .type('text/csv')
      .send(carriedCsv(store.cells.carrying(supplier, lot)));
  });

  router.get('/lots/:id/ledger', (request, response) => {
    if (stock.lotsNamed([request.params.id]).length === 0) throw notFound('such lot');
    response.json(stock.ledgerOfLot(request.params.id));
  });

  router.post('/lots', (request, response) => {
    const delivery = parsed(newLot, request.body);
    known(delivery.technicianId);
    datesOf(delivery);
    const outcome = stock.receive({ ...delivery, code: codeOf(delivery.item, delivery.code) });
    refuseOtherBody(outcome);
    if (outcome === 'same lot again') {
      throw conflict(
        `Lot ${delivery.lotCode} of ${delivery.supplier} is in stock already.`,
        'If it is another delivery, give it its own lot code.',
      );
    }
    told();
    response.status(outcome === 'received' ? 201 : 200).json({ id: delivery.id });
  });

  router.post('/lots/count', (request, response) => {
    const count = parsed(lotCount, request.body);
    known(count.technicianId);
    const outcome = stock.count(count);
    if (outcome === 'no such lot') throw notFound('such lot');
    refuseOtherBody(outcome);
    if (outcome === 'moved since')
      throw conflict(movedWords(count), 'Count what lies there now, and record that.');
    told();
    response.status(outcome === 'counted' ? 201 : 200).json({ id: count.lotId });
  });

  router.post('/lots/quarantine', (request, response) => {
    const given = parsed(lotQuarantine, request.body);
    known(given.technicianId);
    if (stock.quarantine(given) === 'no such lot') throw notFound('such lot');
    told();
    response.status(201).json({ id: given.lotId });
  });

  router.post('/lots/sample', (request, response) => {
    const given = parsed(lotSample, request.body);
    known(given.technicianId);
    const sampled = stock.sample(given);
    if (sampled.outcome === 'no such lot') throw notFound('such lot');
    if (sampled.outcome === 'not a cell')
      throw notKept({
        outcome: 'refused',
        reasons: ['Only a lot of cells is sampled.'],
        whatToDo: 'Choose a lot of cells.',
      });
    told();
    response.status(sampled.outcome === 'sampled' ? 201 : 200).json(sampled);
  });

  router.post('/lots/give-away', (request, response) => {
    const given = parsed(lotReturn, request.body);
    known(given.technicianId);
    const outcome = stock.giveAway(given);
    if (outcome === 'no such lot') throw notFound('such lot');
    refuseOtherBody(outcome);
    if (outcome === 'more than there are')
      throw notKept({
        outcome: 'refused',
        reasons: [`The ledger has fewer than ${given.count} in that lot.`],
        whatToDo: 'Count the lot first, then take out what lies there.',
      });
    told();
    response.status(outcome === 'done' ? 201 : 200).json({ id: given.lotId });
  });

  router.post('/orders', async (request, response) => {
    const order = parsed(newOrder, request.body);
    known(order.technicianId);
    refuseOtherBody(stock.orderSentBefore(order));
    const lines = order.lines.map((line) => ({ ...line, code: codeOf(line.item, line.code) }));
    const before = stock.order(order.id);
    if (before) {
      response.json(before);
      return;
    }
    const asked = { ask: 'order' as const, order: { ...order, lines }, technicianId: order.technicianId };
    for await (const says of store.devices.ask('supplier', asked)) {
      if (says.says === 'fault')
        throw notKept({ outcome: 'refused', reasons: [says.words], whatToDo: says.whatToDo });
      if (says.says === 'order taken') stock.placeOrder({ ...order, lines }, says, order);
    }
    told();
    response.status(201).json(stock.order(order.id));
  });

  /** The delivery note that came with an order, as the file a supplier sends. */
  router.get('/orders/:id/note.csv', (request, response) => {
    const order = stock.order(request.params.id);
    if (!order?.note) throw notFound('such delivery note');
    response
      .attachment(`${order.note.noteNumber}.csv`)
      .type('text/csv')
      .send(deliveryNoteCsv({ supplier: order.supplier, ...order.note }));
  });

  /** Reads a delivery note without booking anything. */
  router.post('/deliveries/read', (request, response) => {
    const { csv } = parsed(z.strictObject({ csv: z.string().max(400_000) }), request.body);
    const read = readDeliveryNote(csv);
    if (read.outcome === 'unreadable') throw unreadable(read.reason, read.whatToDo);
    response.json(read.note);
  });

  router.post('/deliveries', (request, response) => {
    const delivery = parsed(newDelivery, request.body);
    known(delivery.technicianId);
    for (const { line, take } of delivery.lines) {
      if (take === 'sent back') continue;
      codeOf(line.item, line.code);
      datesOf(line);
    }
    const outcome = stock.receiveDelivery(delivery);
    refuseOtherBody(outcome);
    if (outcome === 'note booked before' || outcome === 'order received before')
      throw conflict(
        `Delivery note ${delivery.noteNumber} of ${delivery.supplier} is booked in already.`,
        'Nothing was changed. If it is another delivery, look for its own number.',
      );
    if (outcome === 'no such order') throw notFound('such order');
    if (outcome === 'lot on two lines')
      throw notKept({
        outcome: 'refused',
        reasons: ['One lot stands on two lines of this note.'],
        whatToDo: 'Make one line of them with the count of both, and book it in again. Nothing was changed.',
      });
    if (outcome === 'lot booked before')
      throw conflict(
        `A lot of ${delivery.supplier} in this note is in stock already.`,
        'Nothing was changed. If it is another delivery of that lot, give it a code of its own.',
      );
    told();
    response.status(outcome === 'received' ? 201 : 200).json({ id: delivery.id });
  });

  router.post('/collections', (request, response) => {
    const given = parsed(collection, request.body);
    known(given.technicianId);
    const outcome = stock.collect(given);
    refuseOtherBody(outcome);
    if (outcome === 'more than in the bin') {
      throw notKept({
        outcome: 'refused',
        reasons: [`The bin holds ${stock.spentInBin()} spent cells, not ${given.count}.`],
        whatToDo:
          'Count the bin again. What is missing is loose somewhere: find it before it is found by a child.',
      });
    }
    told();
    response.status(outcome === 'collected' ? 201 : 200).json(given);
  });

  const dayNow = (): DayResource => ({
    day: today(),
    loose: store.logbook
      .rack()
      .flatMap(({ id, ticket, watch, looseCells }) =>
        looseCells.map((cell) => ({ jobId: id, ticket, watch, cell })),
      ),
    toBeCounted: stock.lotsInUse().filter(({ toBeCounted }) => toBeCounted),
    spentInBin: stock.spentInBin(),
    closed: stock.isClosed(today()),
  });

  router.get('/day', (_request, response) => {
    response.json(dayNow());
  });

  router.post('/day/close', (request, response) => {
    const { day, technicianId } = parsed(newDayClose, request.body);
    known(technicianId);
    const now = dayNow();
    if (day !== now.day)
      throw notKept({
        outcome: 'refused',
        reasons: [`Today is ${now.day}, not ${day}.`],
        whatToDo: 'Load the page again and close today.',
      });
    const may = mayCloseDay(now.loose);
    if (may.verdict !== 'close')
      throw notKept({
        outcome: 'refused',
        reasons: may.reasons,
        whatToDo: 'Say of each where it is. Swallowed, one can kill a child or an animal within hours.',
      });
    if (!now.closed) {
      stock.closeDay(day, `no cell loose, ${now.spentInBin} spent in the bin`, technicianId);
      told();
    }
    response.status(now.closed ? 200 : 201).json({ ...now, closed: true });
  });

  return router;
}
