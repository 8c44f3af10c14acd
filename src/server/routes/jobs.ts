import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { z } from 'zod';
import { newEntry, newJob, upcastNewEntry } from '../../contract';
import { readTicket } from '../../core/craft/tickets';
import { localDay } from '../../core/craft/time';
import { jobFile, savedSize, visitFile } from '../documents/jobFile';
import { LABEL_CODES, labelCodeSvg, labelPdf } from '../documents/labelPdf';
import { nextVisitCalendar } from '../documents/nextVisitCalendar';
import { receiptPdf } from '../documents/receiptPdf';
import { recordPdf } from '../documents/recordPdf';
import { type Dossier, dossierOf } from '../documents/dossier';
import { logbookCsv } from '../documents/lists';
import { notFound, notKept, parsed } from '../problem';
import type { Store } from '../store/store';

/** The rack, taking in, a job, and what is recorded of it. */
function jobsThemselves(router: Router, store: Store): void {
  const { logbook } = store;
  router.get('/rack', (_request, response) => {
    response.json(logbook.rack());
  });

  router.get('/reminders', (_request, response) => {
    const today = localDay(store.clock.nowUtc(), store.shops.shop().zone);
    response.json(store.visits.toRemind(today));
  });

  router.post('/jobs', (request, response) => {
    const body = request.body as { entries?: unknown };
    const entries = Array.isArray(body?.entries) ? body.entries.map(upcastNewEntry) : body?.entries;
    const given = parsed(newJob, { ...body, entries });
    const taken = logbook.takeIn(given);
    if (!('job' in taken)) throw notKept(taken);
    if (taken.outcome === 'taken in') store.publish({ jobId: taken.job.id, what: 'job' });
    response.status(taken.outcome === 'taken in' ? 201 : 200).json(taken.job);
  });

  router.get('/jobs/:id', (request, response) => {
    const job = logbook.job(request.params.id);
    if (!job) throw notFound('such job');
    response.json(job);
  });

  router.post('/jobs/:id/entries', (request, response) => {
    const given = parsed(newEntry, upcastNewEntry(request.body));
    const appended = logbook.append(request.params.id, given);
    if (!('entry' in appended)) throw notKept(appended);
    if (appended.outcome === 'recorded')
      for (const jobId of [request.params.id, ...appended.also]) store.publish({ jobId, what: 'entry' });
    response.status(appended.outcome === 'recorded' ? 201 : 200).json(appended.entry);
  });

  router.get('/tickets/:ticket', (request, response) => {
    const reading = readTicket(request.params.ticket);
    const jobId = reading.verdict === 'ticket' ? logbook.jobIdOfTicket(reading.ticket) : null;
    if (jobId === null)
      throw notFound(reading.verdict === 'misread' ? `ticket so: ${reading.reason}` : 'such ticket');
    response.json({ jobId });
  });
}

function visitDossiers(store: Store, visitId: string): Dossier[] {
  const dossiers = store.logbook.jobIdsOfVisit(visitId).map((jobId) => dossierOf(store, jobId));
  if (dossiers.length === 0) throw notFound('such visit');
  return dossiers;
}

/** What is printed of a job or visit. */
function papers(router: Router, store: Store): void {
  router.get('/visits/:id/receipt.pdf', async (request, response) => {
    const dossiers = visitDossiers(store, request.params.id);
    response.type('application/pdf').send(await receiptPdf(dossiers));
  });

  router.get('/jobs/:id/label.pdf', async (request, response) => {
    const dossier = dossierOf(store, request.params.id);
    response.type('application/pdf').send(await labelPdf(dossier));
  });

  router.get('/jobs/:id/label/:code.svg', async (request, response) => {
    const code = parsed(z.enum(LABEL_CODES, { error: 'Code: qr or bars.' }), request.params.code);
    const job = store.logbook.job(request.params.id);
    if (!job) throw notFound('such job');
    response.type('image/svg+xml').send(await labelCodeSvg(job.job.ticket, code));
  });

  router.get('/jobs/:id/record.pdf', async (request, response) => {
    const dossier = dossierOf(store, request.params.id);
    response.type('application/pdf').send(await recordPdf(dossier));
  });
}

/** Job and visit as files, and the lists beside them. */
function files(router: Router, store: Store): void {
  router.get('/jobs/:id/job.json', async (request, response) => {
    const dossier = dossierOf(store, request.params.id);
    response.attachment(`${dossier.resource.job.ticket}.json`).type('application/json');
    await pipeline(Readable.from(jobFile(store, dossier)), response);
  });

  router.get('/jobs/:id/job.json/size', (request, response) => {
    response.json(savedSize([dossierOf(store, request.params.id)]));
  });
  router.get('/visits/:id/visit.json/size', (request, response) => {
    response.json(savedSize(visitDossiers(store, request.params.id)));
  });

  router.get('/jobs/:id/logbook.csv', (request, response) => {
    const { ticket, text } = logbookCsv(store, request.params.id);
    response.attachment(`${ticket}-logbook.csv`).type('text/csv').send(text);
  });

  router.get('/visits/:id/visit.json', async (request, response) => {
    const dossiers = visitDossiers(store, request.params.id);
    const [first] = dossiers;
    response.attachment(`visit-${first?.resource.job.ticket ?? ''}.json`).type('application/json');
    await pipeline(Readable.from(visitFile(store, dossiers)), response);
  });

  router.get('/jobs/:id/next-visit.ics', (request, response) => {
    const dossier = dossierOf(store, request.params.id);
    const calendar = nextVisitCalendar(dossier);
    if (calendar === null) throw notFound('next visit for this job yet');
    response.attachment(`${dossier.resource.job.ticket}.ics`).type('text/calendar').send(calendar);
  });
}

/** Jobs: taking in, reading, recording entries, and the papers of a job. */
export function jobRoutes(store: Store): Router {
  const router = Router();
  jobsThemselves(router, store);
  papers(router, store);
  files(router, store);
  return router;
}
