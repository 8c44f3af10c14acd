import type { Router } from 'express';
import { z } from 'zod';
import { newDelivery, newOrder } from '../../contract';
import { deliveryNoteCsv, readDeliveryNote } from '../documents/deliveryNote';
import { conflict, notFound, notKept, parsed, unreadable } from '../problem';
import type { Store } from '../store/store';
import type { StockDoor } from './stockDoor';

/** Orders to a supplier and the delivery notes that come with them. */
export function orderRoutes(
  router: Router,
  store: Store,
  { known, announce, codeOf, refuseOtherBody }: StockDoor,
): void {
  const { stock } = store;
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
    announce();
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
}

/** Goods in by delivery note. */
export function deliveryRoutes(
  router: Router,
  { stock }: Store,
  { known, announce, codeOf, datesOf, refuseOtherBody }: StockDoor,
): void {
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
        'Nothing was changed. If this is another delivery, enter the number of its own delivery note.',
      );
    if (outcome === 'no such order') throw notFound('such order');
    if (outcome === 'lot on two lines')
      throw notKept({
        outcome: 'refused',
        reasons: ['Two lines of this delivery note have the same lot code.'],
        whatToDo:
          'Nothing was saved. Combine the two lines into one with the total count, then save the note again.',
      });
    if (outcome === 'lot booked before')
      throw conflict(
        `A lot of ${delivery.supplier} in this note is in stock already.`,
        'Nothing was changed. If this is another delivery of that lot, give it a separate lot code.',
      );
    announce();
    response.status(outcome === 'received' ? 201 : 200).json({ id: delivery.id });
  });
}
