import type { Router } from 'express';
import { z } from 'zod';
import { type LotCount, lotCount, lotQuarantine, lotReturn, lotSample, newLot } from '../../contract';
import { sinceCounted } from '../../core/craft/stock';
import { carriedCsv } from '../documents/lists';
import { conflict, notFound, notKept, parsed } from '../problem';
import type { Store } from '../store/store';
import type { StockDoor } from './stockDoor';

const page = z.object({ page: z.coerce.number().int().min(0).max(100_000).default(0) });
const ofLot = z.object({
  supplier: z.string().trim().min(1, 'Supplier: whose lot.').max(80),
  lot: z.string().trim().min(1, 'Lot: its code.').max(40),
});

/** What there is, lot by lot, and where its cells went. */
export function readLots(router: Router, store: Store): void {
  const { stock } = store;
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
}

/** Lots taken in, counted, set apart, sampled and given away. */
export function writeLots(
  router: Router,
  { stock }: Store,
  { known, announce, codeOf, datesOf, refuseOtherBody }: StockDoor,
): void {
  const movedWords = (count: LotCount): string => {
    const [lot = { balance: 0, unbooked: 0 }] = stock.lotsNamed([count.lotId]);
    return sinceCounted(lot, stock.ledgerOfLot(count.lotId), count);
  };

  router.post('/lots', (request, response) => {
    const delivery = parsed(newLot, request.body);
    known(delivery.technicianId);
    datesOf(delivery);
    const outcome = stock.receive({ ...delivery, code: codeOf(delivery.item, delivery.code) });
    refuseOtherBody(outcome);
    if (outcome === 'same lot again') {
      throw conflict(
        `Lot ${delivery.lotCode} of ${delivery.supplier} is in stock already.`,
        'If this is another delivery, give it a separate lot code.',
      );
    }
    announce();
    response.status(outcome === 'received' ? 201 : 200).json({ id: delivery.id });
  });

  router.post('/lots/count', (request, response) => {
    const count = parsed(lotCount, request.body);
    known(count.technicianId);
    const outcome = stock.count(count);
    if (outcome === 'no such lot') throw notFound('such lot');
    refuseOtherBody(outcome);
    if (outcome === 'moved since')
      throw conflict(movedWords(count), 'Count the lot again and record the new count.');
    announce();
    response.status(outcome === 'counted' ? 201 : 200).json({ id: count.lotId });
  });

  router.post('/lots/quarantine', (request, response) => {
    const given = parsed(lotQuarantine, request.body);
    known(given.technicianId);
    if (stock.quarantine(given) === 'no such lot') throw notFound('such lot');
    announce();
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
        reasons: ['Only lots of cells can be sampled.'],
        whatToDo: 'Choose a lot of cells.',
      });
    announce();
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
        reasons: [`The ledger shows fewer than ${given.count} in this lot.`],
        whatToDo: 'Count the lot first, then take out at most that many.',
      });
    announce();
    response.status(outcome === 'done' ? 201 : 200).json({ id: given.lotId });
  });
}
