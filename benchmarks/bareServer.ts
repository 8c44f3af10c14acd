import type { AddressInfo } from 'node:net';
import express from 'express';
import { openConnection } from '../src/server/store/database';

/** The yardstick: the same SQL behind Express, without validation, folding, or anything else. */
const db = openConnection(process.argv[2] ?? '');
const app = express();
app.use(express.json());

const columns = `sequence, id, job_id AS jobId, kind, payload_version AS payloadVersion, payload,
  occurred_at AS occurredAt, recorded_at AS recordedAt, technician_id AS technicianId, bench, well, supersedes, withdraws`;
const jobById = db.prepare(
  'SELECT job.id, ticket, visit_id AS visitId, watch_id AS watchId, job.created_at AS createdAt FROM job WHERE id = ?',
);
const customerOfJob = db.prepare(
  `SELECT customer.id, name, phone, email FROM job JOIN visit ON visit.id = job.visit_id
   JOIN customer ON customer.id = visit.customer_id WHERE job.id = ?`,
);
const entriesOf = db.prepare(`SELECT ${columns} FROM entry WHERE job_id = ? ORDER BY sequence`);
const entryById = db.prepare(`SELECT ${columns} FROM entry WHERE id = ?`);
const technicianKnown = db.prepare('SELECT 1 FROM technician WHERE id = ?');
const insertEntry = db.prepare(
  `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, well, supersedes, withdraws)
   VALUES (@id, @jobId, @kind, @payloadVersion, @payload, @occurredAt, @recordedAt, @technicianId, @bench, @well, @supersedes, @withdraws)`,
);
const writeSummary = db.prepare('UPDATE job_summary SET promised_at = ? WHERE job_id = ?');

type Row = { payload: string; supersedes: string };
const toEntry = (row: unknown) => ({
  ...(row as Row),
  payload: JSON.parse((row as Row).payload) as unknown,
  supersedes: JSON.parse((row as Row).supersedes) as unknown,
});

app.get('/api/jobs/:id', (request, response) => {
  const { id } = request.params;
  response.json({
    job: jobById.get(id),
    customer: customerOfJob.get(id),
    entries: entriesOf.all(id).map(toEntry),
  });
});

const append = db.transaction((jobId: string, entry: Record<string, unknown>) => {
  jobById.get(jobId);
  entriesOf.all(jobId).map(toEntry);
  entryById.get(entry.id);
  technicianKnown.get(entry.technicianId);
  const row = {
    ...entry,
    jobId,
    payload: JSON.stringify(entry.payload),
    supersedes: '[]',
    recordedAt: new Date().toISOString(),
  };
  const { lastInsertRowid } = insertEntry.run(row);
  customerOfJob.get(jobId);
  writeSummary.run('2026-03-17T11:00:00.000Z', jobId);
  return { ...entry, sequence: Number(lastInsertRowid) };
});

app.post('/api/jobs/:id/entries', (request, response) => {
  response.status(201).json(append.immediate(request.params.id, request.body as Record<string, unknown>));
});

const server = app.listen(0, '127.0.0.1', () => {
  console.log(`http://127.0.0.1:${(server.address() as AddressInfo).port}`);
});
