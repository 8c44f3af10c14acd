import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { z } from 'zod';
import {
  type BookHead,
  type BookLine,
  eraseCustomer,
  type LiveNews,
  newTechnician,
  ownerRevision,
  type ShopResource,
} from '../../contract';
import { catalogueOf, type RecordChange, recordsIn } from '../../core/craft/book';
import { jobsCsv, listCsv, LISTS } from '../documents/lists';
import { conflict, notFound, notKept, notReady, parsed } from '../problem';
import type { Store } from '../store/store';

const query = z.object({
  q: z.string().trim().min(1, 'Type something to find.').max(80, 'At most 80 characters to find.'),
});

const changesQuery = z.object({
  since: z.coerce.number().int().min(0).default(0),
  mark: z.string().max(300).default(''),
});

/** Records are sent in pieces of so many: the loop answers others in between. */
const RECORDS_A_PIECE = 200;

/** What changed in the book, in lines. */
async function* bookInLines(head: BookHead, changes: Iterable<RecordChange>): AsyncGenerator<string> {
  const line = (each: BookLine): string => `${JSON.stringify(each)}\n`;
  let [piece, count] = [line(head), 0];
  for (const change of changes) {
    piece += line(change);
    count += 1;
    if (count % RECORDS_A_PIECE > 0) continue;
    yield piece;
    piece = '';
    await new Promise((resolve) => setImmediate(resolve));
  }
  yield piece + line({ count });
}

/** A line through the live stream now and then keeps proxies and half-open connections honest. */
const HEARTBEAT_MS = 20_000;

/** Whether the counter can write, and what its last look at its files found. */
function healthRoute(router: Router, store: Store): void {
  router.get('/health', async (_request, response) => {
    try {
      await store.health.tryWrite();
    } catch (error) {
      const problem = notReady(error);
      response
        .status(problem.status)
        .type('application/problem+json')
        .send(JSON.stringify({ ready: false, ...problem }));
      return;
    }
    const look = store.health.lastLook();
    response.json({
      ready: true,
      nowUtc: store.clock.nowUtc(),
      files: look && {
        lookedAtUtc: look.atUtc,
        gone: look.gone.length,
        damaged: look.damaged.length,
        swept: look.brokenOff.length + look.unnamed.length,
      },
    });
  });
}

/** The shop, its people, its book and its lists. */
function shopItself(router: Router, store: Store): void {
  router.get('/shop', (_request, response) => {
    const resource: ShopResource = {
      shop: store.shops.shop(),
      policy: store.shops.policy(),
      technicians: store.shops.technicians(),
      catalogueRevision: store.catalogue.book().revision,
      nowUtc: store.clock.nowUtc(),
      demo: store.demo,
    };
    response.json(resource);
  });

  router.post('/technicians', (request, response) => {
    const person = parsed(newTechnician, request.body);
    const outcome = store.shops.addTechnician(person);
    if (outcome === 'taken')
      throw conflict('Another technician has this id.', 'Send it again with a new id.');
    store.publish({ jobId: null, what: 'shop' });
    response.status(outcome === 'added' ? 201 : 200).json(person);
  });

  router.get('/catalogue', (_request, response) => {
    const book = store.catalogue.book();
    response.json(catalogueOf(book.revision, (kind) => recordsIn(kind, book)));
  });

  router.get('/catalogue/changes', async (request, response) => {
    const { since, mark } = parsed(changesQuery, request.query);
    const { head, changes } = store.catalogue.since(since, mark);
    response.writeHead(200, { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' });
    // A window that went away in the middle asks again.
    await pipeline(Readable.from(bookInLines(head, changes)), response).catch(() => response.destroy());
  });

  router.get('/tools/served', (_request, response) => {
    response.json(store.logbook.toolsServed(store.clock.nowUtc()));
  });

  router.get('/lists/:list.csv', (request, response) => {
    const list = LISTS.find((each) => each === request.params.list);
    if (!list) throw notFound('such list');
    response.attachment(`${list}.csv`).type('text/csv').send(listCsv(store, list));
  });
}

/** Owners and watches, their visits, and what is done to the details of an owner. */
function ownersAndWatches(router: Router, store: Store): void {
  router.get('/customers/:id', (request, response) => {
    const customer = store.logbook.customer(request.params.id);
    if (!customer) throw notFound('such owner');
    response.json(customer);
  });

  router.get('/customers/:id/jobs.csv', (request, response) => {
    const customer = store.logbook.customer(request.params.id);
    if (!customer) throw notFound('such owner');
    response.attachment('jobs-of-owner.csv').type('text/csv').send(jobsCsv(customer.jobs));
  });

  router.get('/watches/:id/visits.csv', (request, response) => {
    const visits = store.logbook.summariesOfWatch(request.params.id);
    if (visits.length === 0) throw notFound('such watch');
    response.attachment('visits-of-watch.csv').type('text/csv').send(jobsCsv(visits));
  });

  router.get('/watches/:id', (request, response) => {
    const watch = store.logbook.watch(request.params.id);
    if (!watch) throw notFound('such watch');
    response.json(watch);
  });

  router.post('/customers/:id/details', (request, response) => {
    const given = parsed(ownerRevision, request.body);
    const revised = store.logbook.reviseOwner(request.params.id, given);
    if (revised.outcome === 'no such customer') throw notFound('such owner');
    if (revised.outcome !== 'revised' && revised.outcome !== 'same again') throw notKept(revised);
    if (revised.outcome === 'revised') store.publish({ jobId: null, what: 'job' });
    response
      .status(revised.outcome === 'revised' ? 201 : 200)
      .json(store.logbook.customer(request.params.id));
  });

  router.post('/customers/:id/erase', (request, response) => {
    const { technicianId } = parsed(eraseCustomer, request.body);
    const outcome = store.logbook.erase(request.params.id, technicianId);
    if (outcome === 'no such customer') throw notFound('such owner');
    if (outcome === 'no such technician') throw notKept({ outcome });
    store.acknowledged.forget(request.params.id);
    store.publish({ jobId: null, what: 'job' });
    response.json(store.logbook.customer(request.params.id));
  });
}

/** The search, and the live stream. */
function searchAndNews(router: Router, store: Store): void {
  router.get('/find', (request, response) => {
    const { q } = parsed(query, request.query);
    response.json(store.logbook.find(q));
  });

  router.get('/news', (request, response) => {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    const send = (item: LiveNews | null): void =>
      void response.write(`id: ${store.newsMark()}\ndata: ${JSON.stringify(item)}\n\n`);
    // That it stands, and as of when.
    send(null);
    const unsubscribe = store.subscribe(send, () => response.end());
    const heartbeat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
    request.on('close', () => {
      clearInterval(heartbeat);
      unsubscribe();
    });
  });
}

/** The shop, its people, its book and stock, the search, and the live stream. */
export function shopRoutes(store: Store): Router {
  const router = Router();
  healthRoute(router, store);
  shopItself(router, store);
  ownersAndWatches(router, store);
  searchAndNews(router, store);
  return router;
}
