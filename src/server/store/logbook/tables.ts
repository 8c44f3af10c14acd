import { deepEqual } from 'fast-equals';
import type { Customer, ToolsServed, UnreadableEntry } from '../../../contract';
import type { Entry, OwnerRevision } from '../../../core/logbook';
import type { NewEntry } from '../../../contract';
import type { Db } from '../database';
import { type EntryRow, type JobRow, offeredTo, type ReadRow, readRow } from './rows';

const ENTRY_COLUMNS = `sequence, id, job_id AS jobId, kind, payload_version AS payloadVersion, payload,
  occurred_at AS occurredAt, recorded_at AS recordedAt, counter, technician_id AS technicianId, bench, well, supersedes, withdraws, attachments`;

/** Entries kept as read, a few hundred bytes each. */
const MOST_KEPT = 50_000;

/** Jobs kept whole: those at hand. */
const MOST_JOBS = 500;

/** What is kept beside a job for rack and search. */
export interface WrittenSummary {
  readonly onRack: 0 | 1;
  readonly promisedAt: string | null;
  readonly search: string;
  readonly summary: string;
  /** What it was worked out with, beside the entries (`LogbookParts.basisOf`). */
  readonly basis: string;
}

/** When an entry went on record, and at which other counter: null for this one. */
export type OnRecord = Pick<EntryRow, 'recordedAt' | 'counter'>;

/** Entries as rows: written once, never changed. */
export function entryTable(db: Db) {
  const entriesOf = db.prepare<[string], EntryRow>(
    `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = ? ORDER BY sequence`,
  );
  const entryById = db.prepare<[string], EntryRow>(`SELECT ${ENTRY_COLUMNS} FROM entry WHERE id = ?`);
  const insertEntry = db.prepare(
    `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, counter, technician_id, bench, well, supersedes, withdraws, attachments)
     VALUES (@id, @jobId, @kind, @payloadVersion, @payload, @occurredAt, @recordedAt, @counter, @technicianId, @bench, @well, @supersedes, @withdraws, @attachments)`,
  );
  const readBefore = new Map<number, { readonly row: EntryRow; readonly reading: ReadRow }>();
  const noteRead = (row: EntryRow, reading: ReadRow): ReadRow => {
    if (readBefore.size >= MOST_KEPT) readBefore.clear();
    readBefore.set(row.sequence, { row, reading });
    return reading;
  };
  const read = (row: EntryRow): ReadRow => {
    const before = readBefore.get(row.sequence);
    // A row on record never changes; one of a write that was undone leaves its place to another.
    return before && deepEqual(before.row, row) ? before.reading : noteRead(row, readRow(row));
  };
  const insert = (jobId: string, entry: NewEntry, { recordedAt, counter }: OnRecord): EntryRow => {
    const columns = {
      ...entry,
      jobId,
      payload: JSON.stringify(entry.payload),
      supersedes: JSON.stringify(entry.supersedes),
      attachments: JSON.stringify(entry.attachments),
      recordedAt,
      counter,
    };
    const { lastInsertRowid } = insertEntry.run(columns);
    return { ...columns, sequence: Number(lastInsertRowid) };
  };
  const countOf = db.prepare<[string], number>('SELECT count(*) FROM entry WHERE job_id = ?').pluck();
  const entriesFrom = db.prepare<[string, number], EntryRow>(
    `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = ? AND sequence >= ? ORDER BY sequence`,
  );
  const wholeJobs = new Map<string, { readonly last: EntryRow; readonly readings: readonly ReadRow[] }>();
  const keep = (
    jobId: string,
    last: EntryRow | undefined,
    readings: readonly ReadRow[],
  ): readonly ReadRow[] => {
    if (wholeJobs.size >= MOST_JOBS) wholeJobs.clear();
    if (last !== undefined) wholeJobs.set(jobId, { last, readings });
    return readings;
  };
  /** Rows never change: where the last one read before still stands in its place, only those after it are read. */
  const readAll = (jobId: string): readonly ReadRow[] => {
    const before = wholeJobs.get(jobId);
    if (before) {
      const [first, ...fresh] = entriesFrom.all(jobId, before.last.sequence);
      const isSame = first !== undefined && deepEqual(first, before.last);
      if (isSame && countOf.get(jobId) === before.readings.length + fresh.length)
        return fresh.length === 0
          ? before.readings
          : keep(jobId, fresh.at(-1), [...before.readings, ...fresh.map(read)]);
    }
    const rows = entriesOf.all(jobId);
    return keep(jobId, rows.at(-1), rows.map(read));
  };
  return {
    of: (jobId: string): Entry[] =>
      readAll(jobId).flatMap((reading) => (reading.verdict === 'read' ? [reading.entry] : [])),
    /** What this version of the program cannot read of a job. */
    unreadableOf: (jobId: string): UnreadableEntry[] =>
      readAll(jobId).flatMap((reading) => (reading.verdict === 'unreadable' ? [reading.line] : [])),
    byId(id: string): ReadRow | null {
      const row = entryById.get(id);
      return row ? read(row) : null;
    },
    /** Writes an entry as it came. */
    insert,
    /** Writes an entry that was judged here, and gives it as it is on record: what was just written need not be read. */
    add(jobId: string, given: NewEntry, onRecord: OnRecord): Entry {
      const row = insert(jobId, given, onRecord);
      const entry: Entry = { ...offeredTo(jobId, given), sequence: row.sequence, ...onRecord };
      noteRead(row, { verdict: 'read', entry });
      return entry;
    },
  };
}
export type EntryTable = ReturnType<typeof entryTable>;

/** Jobs, and the visits and watches they belong to. */
export function jobTable(db: Db) {
  const jobColumns =
    'job.id, number, ticket, visit_id AS visitId, watch_id AS watchId, job.created_at AS createdAt, follows_job_id AS followsJobId, follows_why AS followsWhy, came_as AS cameAs';
  const jobById = db.prepare<[string], JobRow>(`SELECT ${jobColumns} FROM job WHERE id = ?`);
  const jobByTicket = db.prepare<[string], JobRow>(`SELECT ${jobColumns} FROM job WHERE ticket = ?`);
  const lastNumber = db.prepare<[], number>('SELECT coalesce(max(number), 0) FROM job').pluck();
  const insertJob = db.prepare<JobRow>(
    `INSERT INTO job (id, number, ticket, visit_id, watch_id, created_at, follows_job_id, follows_why, came_as)
     VALUES (@id, @number, @ticket, @visitId, @watchId, @createdAt, @followsJobId, @followsWhy, @cameAs)`,
  );
  const jobsFollowing = db.prepare<[string], JobRow>(
    `SELECT ${jobColumns} FROM job WHERE follows_job_id = ? ORDER BY number`,
  );
  const jobsOfVisit = db.prepare<[string], JobRow>(
    `SELECT ${jobColumns} FROM job WHERE visit_id = ? ORDER BY number`,
  );
  const insertVisit = db.prepare<[string, string, string]>(
    'INSERT INTO visit (id, customer_id, created_at) VALUES (?, ?, ?) ON CONFLICT (id) DO NOTHING',
  );
  const visitCustomer = db.prepare<[string], string>('SELECT customer_id FROM visit WHERE id = ?').pluck();
  const insertWatch = db.prepare<[string, string]>(
    'INSERT INTO watch (id, created_at) VALUES (?, ?) ON CONFLICT (id) DO NOTHING',
  );
  const jobsOfCustomer = db.prepare<[string], JobRow>(
    `SELECT ${jobColumns} FROM job JOIN visit ON visit.id = job.visit_id WHERE visit.customer_id = ? ORDER BY number DESC`,
  );
  const jobsOfWatch = db.prepare<[string], JobRow>(
    `SELECT ${jobColumns} FROM job WHERE watch_id = ? ORDER BY number DESC`,
  );
  return {
    byId: (id: string): JobRow | undefined => jobById.get(id),
    byTicket: (ticket: string): JobRow | undefined => jobByTicket.get(ticket),
    nextNumber: (): number => (lastNumber.get() ?? 0) + 1,
    insert: (job: JobRow): void => void insertJob.run(job),
    following: (id: string): JobRow[] => jobsFollowing.all(id),
    ofVisit: (visitId: string): JobRow[] => jobsOfVisit.all(visitId),
    ofCustomer: (customerId: string): JobRow[] => jobsOfCustomer.all(customerId),
    ofWatch: (watchId: string): JobRow[] => jobsOfWatch.all(watchId),
    customerOfVisit: (visitId: string): string | undefined => visitCustomer.get(visitId),
    /** A visit or watch that is there already stays as it is. */
    openVisit: (id: string, customerId: string, at: string): void => void insertVisit.run(id, customerId, at),
    openWatch: (id: string, at: string): void => void insertWatch.run(id, at),
  };
}
export type JobTable = ReturnType<typeof jobTable>;

/** A revision with the owner it is of. */
export type RevisionOnFile = OwnerRevision & { readonly customerId: string };
type RevisionRow = Omit<RevisionOnFile, 'supersedes'> & { readonly supersedes: string };

const REVISION = `SELECT id, customer_id AS customerId, name, phone, email, supersedes,
  technician_id AS technicianId, recorded_at AS recordedAt FROM customer_revision`;

/** Owners and technicians. */
export function peopleTable(db: Db) {
  const technicianKnown = db.prepare<[string], number>('SELECT 1 FROM technician WHERE id = ?').pluck();
  const addTechnician = db.prepare<[string, string, string, string]>(
    'INSERT INTO technician (id, name, initials, created_at) VALUES (?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
  );
  const customerById = db.prepare<[string], Customer & { erasedAt: string | null }>(
    'SELECT id, name, phone, email, erased_at AS erasedAt FROM customer WHERE id = ?',
  );
  const eraseCustomer = db.prepare<[string, string, string]>(
    `UPDATE customer SET name = '', phone = '', email = '', erased_at = ?, erased_by = ? WHERE id = ?`,
  );
  const eraseRevisions = db.prepare<[string]>(
    `UPDATE customer_revision SET name = '', phone = '', email = '' WHERE customer_id = ?`,
  );
  const revisionsOf = db.prepare<[string], RevisionRow>(
    `${REVISION} WHERE customer_id = ? ORDER BY sequence`,
  );
  const revisionById = db.prepare<[string], RevisionRow>(`${REVISION} WHERE id = ?`);
  const insertRevision = db.prepare<RevisionRow>(
    `INSERT INTO customer_revision (id, customer_id, name, phone, email, supersedes, technician_id, recorded_at)
     VALUES (@id, @customerId, @name, @phone, @email, @supersedes, @technicianId, @recordedAt)`,
  );
  const toRevision = ({ supersedes, ...row }: RevisionRow): RevisionOnFile => ({
    ...row,
    supersedes: JSON.parse(supersedes) as string[],
  });
  const writeCustomer = db.prepare<[string, string, string, string, string]>(
    `INSERT INTO customer (id, name, phone, email, created_at) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET name = excluded.name, phone = excluded.phone, email = excluded.email`,
  );
  const customerOfJob = db.prepare<[string], Customer>(
    `SELECT customer.id, name, phone, email FROM job JOIN visit ON visit.id = job.visit_id
     JOIN customer ON customer.id = visit.customer_id WHERE job.id = ? AND erased_at IS NULL`,
  );
  return {
    isTechnician: (id: string): boolean => technicianKnown.get(id) !== undefined,
    addTechnician: (id: string, name: string, initials: string, at: string): void =>
      void addTechnician.run(id, name, initials, at),
    customer: (id: string) => customerById.get(id),
    customerOfJob: (jobId: string): Customer | null => customerOfJob.get(jobId) ?? null,
    writeCustomer: ({ id, name, phone, email }: Customer, at: string): void =>
      void writeCustomer.run(id, name, phone, email, at),
    /** An owner's details as each hand wrote them, in order. */
    revisions: (customerId: string): RevisionOnFile[] => revisionsOf.all(customerId).map(toRevision),
    revision: (id: string): RevisionOnFile | null => {
      const row = revisionById.get(id);
      return row ? toRevision(row) : null;
    },
    addRevision: ({ supersedes, ...revision }: RevisionOnFile): void =>
      void insertRevision.run({ ...revision, supersedes: JSON.stringify(supersedes) }),
    erase: (id: string, by: string, at: string): void => {
      eraseCustomer.run(at, by, id);
      eraseRevisions.run(id);
    },
  };
}
export type PeopleTable = ReturnType<typeof peopleTable>;

/** What is worked out of a job and kept beside it: its summary, and what its opening used or wanted. */
export function summaryTable(db: Db) {
  const summaryOf = db.prepare<[string], string>('SELECT summary FROM job_summary WHERE job_id = ?').pluck();
  const written = db.prepare<[string], WrittenSummary>(
    'SELECT on_rack AS onRack, promised_at AS promisedAt, search, summary, basis FROM job_summary WHERE job_id = ?',
  );
  const writeSummary = db.prepare<WrittenSummary & { readonly jobId: string }>(
    `INSERT INTO job_summary (job_id, on_rack, promised_at, search, summary, basis)
     VALUES (@jobId, @onRack, @promisedAt, @search, @summary, @basis)
     ON CONFLICT (job_id) DO UPDATE SET on_rack = excluded.on_rack, promised_at = excluded.promised_at,
       search = excluded.search, summary = excluded.summary, basis = excluded.basis`,
  );
  const noteBasis = db.prepare<[string, string]>('UPDATE job_summary SET basis = ? WHERE job_id = ?');
  const stale = db
    .prepare<{ basis: string; onRack: 1 | null; most: number }, string>(
      `SELECT job_id FROM job_summary WHERE basis <> @basis AND on_rack = coalesce(@onRack, on_rack)
       ORDER BY on_rack DESC LIMIT @most`,
    )
    .pluck();
  const rack = db
    .prepare<[], string>('SELECT summary FROM job_summary WHERE on_rack = 1 ORDER BY promised_at')
    .pluck();
  const allSummaries = db
    .prepare<[], string>(
      'SELECT summary FROM job_summary JOIN job ON job.id = job_summary.job_id ORDER BY number DESC',
    )
    .pluck();
  const forgetTools = db.prepare<[string]>('DELETE FROM tool_use WHERE job_id = ?');
  const useTool = db.prepare<[string, string, string]>(
    'INSERT INTO tool_use (job_id, tool_id, used_at) VALUES (?, ?, ?)',
  );
  const forgetWanted = db.prepare<[string]>('DELETE FROM opener_wanted WHERE job_id = ?');
  const wantOpener = db.prepare<[string, string]>(
    'INSERT INTO opener_wanted (job_id, wanted_at) VALUES (?, ?)',
  );
  const toolsServed = db.prepare<[], ToolsServed['served'][number]>(
    'SELECT tool_id AS toolId, count(*) AS jobs, max(used_at) AS lastAtUtc FROM tool_use GROUP BY tool_id ORDER BY tool_id',
  );
  const openersWantedSince = db
    .prepare<[string], number>('SELECT count(*) FROM opener_wanted WHERE wanted_at >= ?')
    .pluck();
  return {
    textOf: (jobId: string): string | undefined => summaryOf.get(jobId),
    /** What is kept beside a job; undefined before its first entry. */
    written: (jobId: string): WrittenSummary | undefined => written.get(jobId),
    write: (jobId: string, written: WrittenSummary): void => void writeSummary.run({ jobId, ...written }),
    /** Notes that the answers of a job count as worked out, though they are the older ones. */
    noteBasis: (jobId: string, basis: string): void => void noteBasis.run(basis, jobId),
    /** Jobs whose answers rest on something else than this; `onRack`: null for those on the rack and off it. */
    stale: (basis: string, onRack: 1 | null, most: number): string[] => stale.all({ basis, onRack, most }),
    onRack: (): string[] => rack.all(),
    all: (): string[] => allSummaries.all(),
    /** Which tools opened a job, and whether one was missing: in the place of what was there. */
    noteTools(jobId: string, toolIds: readonly string[], usedAt: string, wantedAt: string | null): void {
      forgetTools.run(jobId);
      forgetWanted.run(jobId);
      for (const toolId of new Set(toolIds)) useTool.run(jobId, toolId, usedAt);
      if (wantedAt !== null) wantOpener.run(jobId, wantedAt);
    },
    toolsServed: (sinceUtc: string): ToolsServed => ({
      served: toolsServed.all(),
      wantedInYear: openersWantedSince.get(sinceUtc) ?? 0,
    }),
  };
}
export type SummaryTable = ReturnType<typeof summaryTable>;
