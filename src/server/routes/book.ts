import { leakReport } from '../../core/advice/leaks';
import { rm } from 'node:fs/promises';
import { Router } from 'express';
import { z } from 'zod';
import {
  CATALOGUE_TABLES,
  type CatalogueTable,
  type ImportNews,
  type ImportReport,
  policyWrite,
  RECORDS,
  recordWrite,
} from '../../contract';
import {
  type Book,
  CATALOGUE_KINDS,
  catalogueOf,
  type CatalogueKind,
  judgeRecord,
  openBook,
  type RecordBodies,
  recordId,
  recordsIn,
  withoutRecord,
} from '../../core/craft/book';
import { type RecordBody, tableCsv } from '../catalogue/tables';
import { takeBody } from '../offLoop/bodies';
import { offLoop } from '../offLoop/offLoop';
import type { TableTask } from '../offLoop/table.task';
import { contradicted, movedOn, notFound, notTaken, parsed, tooLarge, unreadable } from '../problem';
import type { Store } from '../store/store';
import { knownTo } from './known';

const CSV_LIMIT_BYTES = 20 * 1024 * 1024;
const MOST_LINES = 100_000;
const MOVED_ON = { line: 1, column: null, reason: 'Someone changed the book meanwhile: import it again.' };

const importQuery = z.object({
  technicianId: z.uuid({ error: 'Who imports it: a technician of this shop.' }),
  dryRun: z.enum(['yes', 'no'], { error: 'dryRun: yes or no.' }),
});

const ofCase = z.object({
  case: z
    .string()
    .trim()
    .min(1, 'Case: the reference of a case type.')
    .max(80, 'Case: at most 80 characters.'),
});

function tableOf(name: string | undefined): CatalogueTable {
  const table = CATALOGUE_TABLES.find((each) => each.name === name);
  if (!table) throw notFound('such table');
  return table;
}

/** The policy and its revisions. */
function policyRoutes(router: Router, store: Store): void {
  const known = knownTo(store);
  router.post('/policy', (request, response) => {
    const given = parsed(policyWrite, request.body);
    known(given.technicianId);
    if (store.shops.decide(given) === 'moved on') throw movedOn('the policy');
    store.publish({ jobId: null, what: 'shop' });
    response.status(201).json(store.shops.policy());
  });

  router.get('/policy/revisions', (_request, response) => {
    response.json(store.shops.policyRevisions());
  });
}

/** What the book and the watches seen here tell. */
function seenRoutes(router: Router, store: Store): void {
  router.get('/catalogue/:kind/:id/history', (request, response) => {
    const kind = parsed(z.enum(CATALOGUE_KINDS), request.params.kind);
    const history = store.catalogue.history(kind, request.params.id);
    if (history.length === 0) throw notFound('such record');
    response.json(history);
  });

  router.get('/movements/seen', (_request, response) => {
    response.json(store.movements.before());
  });

  router.get('/leaks', (_request, response) => {
    response.json(leakReport(store.leaks.all()));
  });

  router.get('/leaks/usual', (request, response) => {
    const { case: caseCode } = parsed(ofCase, request.query);
    response.json(store.leaks.usual(caseCode));
  });

  router.get('/calibres/:id/history', (request, response) => {
    response.json(store.movements.history(request.params.id));
  });
}

/** A record of the book, written by hand. */
function recordRoutes(router: Router, store: Store): void {
  const known = knownTo(store);
  router.post('/catalogue/records', (request, response) => {
    const given = parsed(recordWrite, request.body);
    known(given.technicianId);
    const book = store.catalogue.book();
    const { id, body, problems } = judgedBody(given.kind, given.body, book);
    if (id !== given.id && given.basedOn !== null)
      throw contradicted([{ path: 'id', message: 'A record keeps its id: enter a new one instead.' }]);
    if (!given.removed) {
      if (problems.length > 0)
        throw contradicted(problems.map(({ path, reason }) => ({ path, message: reason })));
    } else {
      const orphans = orphansWithout(given.kind, id, book);
      if (orphans.length > 0) {
        throw contradicted([
          { path: 'id', message: `Still named by ${orphans.slice(0, 5).join(', ')}: change those first.` },
        ]);
      }
    }
    const written = store.catalogue.revise({ ...given, id, body });
    if (written.outcome === 'moved on') throw movedOn('this record');
    store.publish({ jobId: null, what: 'shop' });
    response.status(201).json({ id, revision: written.revision });
  });
}

/** The tables of the book, out and in. */
function tableRoutes(router: Router, store: Store): void {
  const known = knownTo(store);
  router.get('/catalogue/tables/:table.csv', (request, response) => {
    const table = tableOf(request.params.table);
    response.attachment(`${table.name}.csv`).type('text/csv').send(tableCsv(table, store.catalogue.book()));
  });

  router.post('/catalogue/tables/:table', async (request, response) => {
    const table = tableOf(request.params.table);
    const { technicianId, dryRun } = parsed(importQuery, request.query);
    known(technicianId);
    if (!/^text\/csv\b/.test(request.headers['content-type'] ?? ''))
      throw unreadable('No table came.', 'Send the table as text/csv.');
    const path = store.attachments.wayIn();
    try {
      const body = await takeBody(request, path, CSV_LIMIT_BYTES);
      if (body.outcome !== 'taken') throw notTaken(body.outcome, { most: '20 MB' });
      const say = (news: ImportNews): void => {
        if (!response.headersSent)
          response.writeHead(200, { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' });
        response.write(`${JSON.stringify(news)}\n`);
      };
      const before = store.catalogue.book();
      const catalogue = catalogueOf(before.revision, (kind) => recordsIn(kind, before));
      const bodies: RecordBody[] = [];
      const task: TableTask = { path, table: table.name, catalogue, mostLines: MOST_LINES };
      for await (const says of offLoop('table', task)) {
        if ('tooManyLines' in says)
          throw tooLarge(`The table has ${says.tooManyLines} lines; at most ${MOST_LINES} are taken.`);
        if ('progress' in says) say(says);
        if ('bodies' in says) bodies.push(...says.bodies);
        if ('report' in says) say({ report: settled(says.report, before.revision, bodies) });
      }
      response.end();
    } finally {
      await rm(path, { force: true });
    }

    /** The report of a table that was read, its records written where that was asked for and nothing speaks against it. */
    function settled(report: ImportReport, readAt: number, bodies: readonly RecordBody[]): ImportReport {
      const wanted = dryRun === 'no' && report.errorsFound === 0;
      // Judged against the book as it was: where someone wrote meanwhile, nothing is applied.
      const moved = wanted && store.catalogue.book().revision !== readAt;
      const applied = wanted && !moved;
      if (applied && bodies.length > 0) {
        store.catalogue.write(table.kind, bodies, technicianId);
        store.publish({ jobId: null, what: 'shop' });
      }
      const errors = moved ? [MOVED_ON] : report.errors;
      return {
        ...report,
        dryRun: dryRun === 'yes',
        applied,
        errors,
        errorsFound: moved ? 1 : report.errorsFound,
        linesWrong: moved ? 1 : report.linesWrong,
      };
    }
  });
}

/** The book and the policy: their records, revisions and tables. */
export function bookRoutes(store: Store): Router {
  const router = Router();
  policyRoutes(router, store);
  seenRoutes(router, store);
  recordRoutes(router, store);
  tableRoutes(router, store);
  return router;
}

/** A record as it was sent: whether it is one at all, under which id, and what in it contradicts the book. */
function judgedBody<K extends CatalogueKind>(kind: K, given: unknown, book: Book) {
  const body: RecordBodies[K] = parsed(RECORDS[kind].schema, given);
  return { id: recordId(body), body, problems: judgeRecord(kind, body, book) };
}

/** Records that would name what is not in the book any more. */
function orphansWithout(kind: CatalogueKind, id: string, book: Book): string[] {
  const without = openBook(withoutRecord(kind, id, book));
  return [
    ...without.calibres.filter((each) => judgeRecord('calibre', each, without).length > 0),
    ...without.caseTypes.filter((each) => judgeRecord('caseType', each, without).length > 0),
    ...without.gaskets.filter((each) => judgeRecord('gasket', each, without).length > 0),
  ].map((each) => each.code);
}
