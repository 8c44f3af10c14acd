import { deepEqual } from 'fast-equals';
import { randomUUID } from 'node:crypto';
import {
  type Customer,
  type CustomerResource,
  type FindResult,
  type FOLLOWS,
  type JobFromFile,
  type JobImported,
  type JobResource,
  type JobSummary,
  kindDefinition,
  type LinkedJob,
  type NewEntry,
  type NewJob,
  raisePayload,
  type ToolsServed,
  type WatchResource,
} from '../../contract';
import { waitsFor } from '../../core/advice/dayplan';
import { findable, rankFound } from '../../core/craft/find';
import {
  awaitedParts,
  type Entry,
  type EntryKind,
  foldJob,
  type JobContext,
  type JobState,
  looseCells,
  lyingOpen,
  movesBetween,
  openedBeside,
  type Payloads,
  stockMoves,
} from '../../core/logbook';
import { judgeEntry } from '../../core/admission';
import { makeTicket } from '../../core/craft/tickets';
import { addMinutes } from '../../core/craft/time';
import type { attachmentStore } from '../attachments/attachments';
import type { Clock } from './clock';
import type { Db } from './database';
import { jobFinder, ownerFinder } from './finder';
import type { cellsInWatchesStore } from './cellsInWatches';
import type { movementsSeenStore } from './movementsSeen';
import type { stockStore } from './stock';
import { toSummary } from './summary';

interface EntryRow {
  sequence: number;
  id: string;
  jobId: string;
  kind: EntryKind;
  payloadVersion: number;
  payload: string;
  occurredAt: string;
  recordedAt: string;
  technicianId: string;
  bench: string;
  well: string | null;
  supersedes: string;
  withdraws: string | null;
  attachments: string;
}

interface JobRow {
  id: string;
  number: number;
  ticket: string;
  visitId: string;
  watchId: string;
  createdAt: string;
  followsJobId: string | null;
  followsWhy: (typeof FOLLOWS)[number] | null;
  /** The ticket it had at the counter it came from. */
  cameAs: string | null;
}

interface Kept {
  readonly outcome: 'recorded' | 'same again';
  readonly entry: Entry;
  /** Other jobs in which the same fact wrote an entry. */
  readonly also: readonly string[];
}

export type NotKept =
  | { readonly outcome: 'other body under this id' }
  | { readonly outcome: 'no such job' }
  | { readonly outcome: 'no such technician' }
  | { readonly outcome: 'refused'; readonly reasons: readonly string[]; readonly whatToDo: string };

export type Appended = Kept | NotKept;

export type Taken =
  { readonly outcome: 'taken in' | 'same again'; readonly job: JobResource['job'] } | NotKept;

const ENTRY_COLUMNS = `sequence, id, job_id AS jobId, kind, payload_version AS payloadVersion, payload,
  occurred_at AS occurredAt, recorded_at AS recordedAt, technician_id AS technicianId, bench, well, supersedes, withdraws, attachments`;

/** A stored row as an entry of today: an older payload is raised to the current version. */
function toEntry(row: EntryRow): Entry {
  const definition = kindDefinition(row.kind);
  const stored: unknown = JSON.parse(row.payload);
  const { payloadVersion, ...rest } = row;
  return {
    ...rest,
    payload:
      payloadVersion === definition.version ? stored : raisePayload(definition, payloadVersion, stored),
    supersedes: JSON.parse(row.supersedes) as string[],
    attachments: JSON.parse(row.attachments) as string[],
  } as Entry;
}

/** Whether an entry sent again is the one on record, but for what the server added. */
function sameBody(a: Entry, b: Entry): boolean {
  return deepEqual({ ...a, sequence: null, recordedAt: null }, { ...b, sequence: null, recordedAt: null });
}

const MOST_CUSTOMERS = 8;
const YEAR_MINUTES = 365 * 24 * 60;

export type Erased = 'erased' | 'erased before' | 'no such customer' | 'no such technician';

class Refusal extends Error {
  constructor(readonly notKept: NotKept) {
    super(notKept.outcome);
  }
}

/** Jobs and their entries. Every write is one immediate transaction: entry, ledger, the job's summary. */
/** The lots that entries name. */
export function lotsNamedIn(entries: readonly Entry[]): readonly string[] {
  return entries.flatMap(({ payload }) =>
    'lotId' in payload && payload.lotId !== null ? [payload.lotId] : [],
  );
}

export function logbookStore(
  db: Db,
  clock: Clock,
  stock: ReturnType<typeof stockStore>,
  files: Pick<ReturnType<typeof attachmentStore>, 'find' | 'forgetNames'>,
  movements: Pick<ReturnType<typeof movementsSeenStore>, 'follow'>,
  cells: Pick<ReturnType<typeof cellsInWatchesStore>, 'follow'>,
  contextNow: () => JobContext,
) {
  const jobColumns =
    'job.id, number, ticket, visit_id AS visitId, watch_id AS watchId, job.created_at AS createdAt, follows_job_id AS followsJobId, follows_why AS followsWhy, came_as AS cameAs';
  const entriesOf = db.prepare<[string], EntryRow>(
    `SELECT ${ENTRY_COLUMNS} FROM entry WHERE job_id = ? ORDER BY sequence`,
  );
  const entryById = db.prepare<[string], EntryRow>(`SELECT ${ENTRY_COLUMNS} FROM entry WHERE id = ?`);
  const insertEntry = db.prepare(
    `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, well, supersedes, withdraws, attachments)
     VALUES (@id, @jobId, @kind, @payloadVersion, @payload, @occurredAt, @recordedAt, @technicianId, @bench, @well, @supersedes, @withdraws, @attachments)`,
  );
  const technicianKnown = db.prepare<[string], number>('SELECT 1 FROM technician WHERE id = ?').pluck();
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
  const customerById = db.prepare<[string], Customer & { erasedAt: string | null }>(
    'SELECT id, name, phone, email, erased_at AS erasedAt FROM customer WHERE id = ?',
  );
  const eraseCustomer = db.prepare<[string, string, string]>(
    `UPDATE customer SET name = '', phone = '', email = '', erased_at = ?, erased_by = ? WHERE id = ?`,
  );
  const jobsOfCustomer = db.prepare<[string], JobRow>(
    `SELECT ${jobColumns} FROM job JOIN visit ON visit.id = job.visit_id WHERE visit.customer_id = ? ORDER BY number DESC`,
  );
  const jobsOfWatch = db.prepare<[string], JobRow>(
    `SELECT ${jobColumns} FROM job WHERE watch_id = ? ORDER BY number DESC`,
  );
  const summaryOf = db.prepare<[string], string>('SELECT summary FROM job_summary WHERE job_id = ?').pluck();
  const writeCustomer = db.prepare<[string, string, string, string, string]>(
    `INSERT INTO customer (id, name, phone, email, created_at) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET name = excluded.name, phone = excluded.phone, email = excluded.email`,
  );
  const customerOfJob = db.prepare<[string], Customer>(
    `SELECT customer.id, name, phone, email FROM job JOIN visit ON visit.id = job.visit_id
     JOIN customer ON customer.id = visit.customer_id WHERE job.id = ? AND erased_at IS NULL`,
  );
  const writeSummary = db.prepare<[string, number, string | null, string, string]>(
    `INSERT INTO job_summary (job_id, on_rack, promised_at, search, summary) VALUES (?, ?, ?, ?, ?)
     ON CONFLICT (job_id) DO UPDATE SET on_rack = excluded.on_rack, promised_at = excluded.promised_at,
       search = excluded.search, summary = excluded.summary`,
  );
  const rack = db
    .prepare<[], string>('SELECT summary FROM job_summary WHERE on_rack = 1 ORDER BY promised_at')
    .pluck();
  const allSummaries = db
    .prepare<[], string>(
      'SELECT summary FROM job_summary JOIN job ON job.id = job_summary.job_id ORDER BY number DESC',
    )
    .pluck();
  const addTechnician = db.prepare<[string, string, string, string]>(
    'INSERT INTO technician (id, name, initials, created_at) VALUES (?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
  );
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
  const finder = jobFinder(db);
  const owners = ownerFinder(db);
  const searchOf = db.prepare<[string], string>('SELECT search FROM job_summary WHERE job_id = ?').pluck();

  const readEntries = (jobId: string): Entry[] => entriesOf.all(jobId).map(toEntry);
  /** What the files are that entries name, each once. */
  const attachmentsOf = (entries: readonly Entry[]) =>
    [...new Set(entries.flatMap((entry) => entry.attachments))].flatMap((hash) => files.find(hash) ?? []);

  const summarise = (job: JobRow, state: JobState, customer: Customer | undefined): void => {
    const { facts } = state;
    const watch = facts.watch?.payload;
    const summary: JobSummary = {
      id: job.id,
      ticket: job.ticket,
      customerName: customer?.name ?? '',
      watch: [watch?.maker, watch?.reference].filter(Boolean).join(' ') || 'unmarked watch',
      movement: facts.movement?.payload.code ?? null,
      service: facts.service?.payload.service ?? null,
      promisedAt: facts.promise?.payload.promisedAt ?? null,
      waitsFor: waitsFor(state),
      current: state.current,
      stages: state.progress.map(({ stage, status }) => ({ stage, status })),
      conflict: state.conflicts.length > 0,
      signedBy: state.signature.state === 'signed' ? state.signature.entry.payload.initials : null,
      collected: facts.collected !== null,
      receivedAt: job.createdAt,
      looseCells: looseCells(state),
      lyingOpen: lyingOpen(facts),
      partsExpectedOn: awaitedParts(facts)?.payload.expectedOn ?? null,
    };
    const search = [
      job.ticket,
      job.cameAs,
      customer?.name,
      customer?.phone.replaceAll(' ', ''),
      watch?.maker,
      watch?.reference,
      watch?.serial,
      watch?.engraved,
      facts.engraving?.payload.text,
      facts.movement?.payload.code,
      ...[...facts.cellsFitted.values()].map((fitted) => fitted.payload.cellCode),
      facts.accumulator?.payload.kitCode,
    ];
    const onRack = !(facts.collected && state.signature.state === 'signed');
    const text = search.filter(Boolean).join(' ');
    if (searchOf.get(job.id) !== text) finder.remember(job.number, findable(text));
    writeSummary.run(job.id, onRack ? 1 : 0, summary.promisedAt, text, JSON.stringify(summary));
    forgetTools.run(job.id);
    forgetWanted.run(job.id);
    const { back, decision } = facts;
    if (back)
      for (const toolId of new Set(back.payload.toolIds)) useTool.run(job.id, toolId, back.occurredAt);
    movements.follow(job.id, state);
    cells.follow(job, state);
    if (decision?.payload.reason === 'no suitable opener') wantOpener.run(job.id, decision.occurredAt);
  };

  const summariseJobsOf = (customerId: string): void => {
    for (const job of jobsOfCustomer.all(customerId)) {
      summarise(job, foldJob(readEntries(job.id), contextNow()), customerOfJob.get(job.id));
    }
  };

  const erase = db.transaction((customerId: string, technicianId: string): Erased => {
    const onFile = customerById.get(customerId);
    if (!onFile) return 'no such customer';
    if (technicianKnown.get(technicianId) === undefined) return 'no such technician';
    if (onFile.erasedAt) return 'erased before';
    eraseCustomer.run(clock.nowUtc(), technicianId, customerId);
    owners.forget(customerId);
    for (const job of jobsOfCustomer.all(customerId))
      files.forgetNames(readEntries(job.id).flatMap((entry) => entry.attachments));
    summariseJobsOf(customerId);
    finder.tidy();
    return 'erased';
  });

  /** Inside a transaction: judges one entry against the job as it stands and writes it with all that follows. */
  const writeEntry = (job: JobRow, given: NewEntry, before: Entry[]): Appended => {
    const known = entryById.get(given.id);
    const { payloadVersion, ...told } = given;
    const offered = { ...told, jobId: job.id, sequence: null, recordedAt: null } as Entry;
    if (known) {
      const recorded = toEntry(known);
      return sameBody(recorded, offered)
        ? { outcome: 'same again', entry: recorded, also: [] }
        : { outcome: 'other body under this id' };
    }
    if (technicianKnown.get(given.technicianId) === undefined) return { outcome: 'no such technician' };
    if (given.attachments.some((hash) => !files.find(hash))) {
      return {
        outcome: 'refused',
        reasons: ['A file it names is not here.'],
        whatToDo: 'Add the file first, then record what it belongs to.',
      };
    }
    const context = contextNow();
    const stateBefore = foldJob(before, context);
    const admission = judgeEntry(
      offered,
      stateBefore,
      before,
      () => stock.lotsNamed(lotsNamedIn([...before, offered])),
      context,
    );
    if (admission.verdict === 'refused') return { ...admission, outcome: 'refused' };
    const recordedAt = clock.nowUtc();
    const { lastInsertRowid } = insertEntry.run({
      ...told,
      jobId: job.id,
      payloadVersion,
      payload: JSON.stringify(given.payload),
      supersedes: JSON.stringify(given.supersedes),
      attachments: JSON.stringify(given.attachments),
      recordedAt,
    });
    const entry = { ...offered, sequence: Number(lastInsertRowid), recordedAt } as Entry;
    const stateAfter = foldJob([...before, entry], context);
    stock.follow(entry, movesBetween(stockMoves(stateBefore), stockMoves(stateAfter)));
    summarise(job, stateAfter, customerOfJob.get(job.id));
    return { outcome: 'recorded', entry, also: [] };
  };

  /** Inside a transaction: a new job with its first entries, all or none, since half a job is worse than none. */
  const openJob = (given: {
    readonly id: string;
    readonly visitId: string;
    readonly watchId: string;
    readonly customerId: string;
    readonly follows: { readonly jobId: string; readonly why: (typeof FOLLOWS)[number] } | null;
    readonly entries: readonly NewEntry[];
  }): JobRow => {
    const createdAt = clock.nowUtc();
    insertWatch.run(given.watchId, createdAt);
    const number = (lastNumber.get() ?? 0) + 1;
    const job: JobRow = {
      id: given.id,
      number,
      ticket: makeTicket(number),
      visitId: given.visitId,
      watchId: given.watchId,
      createdAt,
      followsJobId: given.follows?.jobId ?? null,
      followsWhy: given.follows?.why ?? null,
      cameAs: null,
    };
    insertJob.run(job);
    const written: Entry[] = [];
    const received: NewEntry = {
      ...(given.entries[0] as NewEntry),
      id: randomUUID(),
      kind: 'arrive.received',
      payloadVersion: kindDefinition('arrive.received').version,
      payload: { customerId: given.customerId, watchId: given.watchId, visitId: given.visitId },
      well: null,
      supersedes: [],
      withdraws: null,
      attachments: [],
    };
    for (const entry of [received, ...given.entries]) {
      const appended = writeEntry(job, entry, written);
      if (!('entry' in appended)) throw new Refusal(appended);
      written.push(appended.entry);
    }
    return job;
  };

  /** An entry the server writes because of another: by the same hand, at the same bench and time. */
  const following = <K extends EntryKind>(cause: Entry, kind: K, payload: Payloads[K]): NewEntry =>
    ({
      id: randomUUID(),
      kind,
      payloadVersion: kindDefinition(kind).version,
      payload,
      occurredAt: cause.occurredAt,
      technicianId: cause.technicianId,
      bench: cause.bench,
      well: null,
      supersedes: [],
      withdraws: null,
      attachments: [],
    }) as unknown as NewEntry;

  /** The job that waits for the part, once a watch was closed interim. One interim closing, one follow-up. */
  const followUp = (job: JobRow, cause: Entry, entries: readonly Entry[]): void => {
    if (jobsFollowing.all(job.id).some(({ followsWhy }) => followsWhy === 'interim closing')) return;
    const { facts } = foldJob(entries, contextNow());
    if (!facts.received || !facts.watch) return;
    const request = facts.partsRequest?.payload;
    const { services } = contextNow().policy;
    const entry = <K extends EntryKind>(kind: K, payload: Payloads[K]): NewEntry =>
      following(cause, kind, payload);
    openJob({
      id: randomUUID(),
      visitId: job.visitId,
      watchId: job.watchId,
      customerId: facts.received.payload.customerId,
      follows: { jobId: job.id, why: 'interim closing' },
      entries: [
        entry('arrive.watch', facts.watch.payload),
        entry('arrive.complaint', {
          picked: [],
          words: `closed interim on ${job.ticket}, to be sealed when the part is here`,
        }),
        entry('arrive.service', {
          service: 'reseal and test',
          priceMinor: services['reseal and test'].priceMinor,
        }),
        ...(request ? [entry('arrive.parts-request', request)] : []),
      ],
    });
  };

  /**
   * A watch opened while another with a serial inside its back lay open: each is told of the other, once, so that both
   * are paired when they are closed. The serial may be read after both are open.
   */
  const tellTogether = (job: JobRow, cause: Entry): string[] => {
    const here = toSummary(summaryOf.get(job.id) ?? '{}').lyingOpen;
    const told: string[] = [];
    if (here === null) return told;
    for (const text of rack.all()) {
      const other = toSummary(text);
      if (other.id === job.id || other.lyingOpen === null) continue;
      if (!openedBeside(here, other.lyingOpen)) continue;
      const otherJob = jobById.get(other.id);
      if (!otherJob) continue;
      tell(job, cause, {
        otherJobId: other.id,
        otherTicket: other.ticket,
        otherSerial: other.lyingOpen.insideSerial,
      });
      tell(otherJob, cause, {
        otherJobId: job.id,
        otherTicket: job.ticket,
        otherSerial: here.insideSerial,
      });
      told.push(other.id);
    }
    return told;
  };
  const tell = (job: JobRow, cause: Entry, together: Payloads['open.together']): void => {
    const entries = readEntries(job.id);
    const { facts } = foldJob(entries, contextNow());
    const known = facts.together.filter(({ payload }) => payload.otherJobId === together.otherJobId);
    if (known.some(({ payload }) => payload.otherSerial === together.otherSerial)) return;
    const appended = writeEntry(
      job,
      {
        ...following(cause, 'open.together', together),
        supersedes: known.map(({ id }) => id),
      },
      entries,
    );
    if (!('entry' in appended)) throw new Refusal(appended);
  };

  const append = db.transaction((jobId: string, given: NewEntry): Appended => {
    const job = jobById.get(jobId);
    if (!job) return { outcome: 'no such job' };
    const before = readEntries(jobId);
    const appended = writeEntry(job, given, before);
    if (
      appended.outcome === 'recorded' &&
      appended.entry.kind === 'seal.closed' &&
      appended.entry.payload.interim
    )
      followUp(job, appended.entry, [...before, appended.entry]);
    if (
      appended.outcome === 'recorded' &&
      (appended.entry.kind === 'open.back' || appended.entry.kind === 'open.inside-serial')
    )
      return { ...appended, also: tellTogether(job, appended.entry) };
    return appended;
  });

  const linked = (job: JobRow): LinkedJob => {
    const summary = summaryOf.get(job.id);
    return {
      jobId: job.id,
      ticket: job.ticket,
      watch: summary === undefined ? '' : toSummary(summary).watch,
    };
  };

  /** A job as its own resource tells it, with the jobs it is tied to. */
  const resourceOf = (job: JobRow): JobResource['job'] => {
    const earlier = job.followsJobId === null ? undefined : jobById.get(job.followsJobId);
    return {
      id: job.id,
      ticket: job.ticket,
      visitId: job.visitId,
      watchId: job.watchId,
      cameAs: job.cameAs,
      follows: earlier && job.followsWhy ? { ...linked(earlier), why: job.followsWhy } : null,
      followedBy: jobsFollowing
        .all(job.id)
        .flatMap((later) => (later.followsWhy ? [{ ...linked(later), why: later.followsWhy }] : [])),
      sameVisit: jobsOfVisit
        .all(job.visitId)
        .filter((other) => other.id !== job.id)
        .map(linked),
    };
  };

  const takeIn = db.transaction((given: NewJob): Taken => {
    const known = jobById.get(given.id);
    if (known) return { outcome: 'same again', job: resourceOf(known) };
    const now = clock.nowUtc();
    const { customer } = given;
    const onFile = customerById.get(customer.id);
    if (onFile?.erasedAt) {
      throw new Refusal({
        outcome: 'refused',
        reasons: ['This owner was erased.'],
        whatToDo: 'Take the owner in as a new one.',
      });
    }
    writeCustomer.run(customer.id, customer.name, customer.phone, customer.email, now);
    owners.remember(customer);
    // A new name or number belongs on the envelopes of the owner's other jobs too.
    if (onFile && (onFile.name !== customer.name || onFile.phone !== customer.phone))
      summariseJobsOf(customer.id);
    insertVisit.run(given.visitId, customer.id, now);
    if (visitCustomer.get(given.visitId) !== customer.id) {
      throw new Refusal({
        outcome: 'refused',
        reasons: ['This visit belongs to another customer.'],
        whatToDo: 'Open a new visit for this customer.',
      });
    }
    const follows = given.followsJobId ?? null;
    if (follows !== null && jobById.get(follows)?.watchId !== given.watchId) {
      throw new Refusal({
        outcome: 'refused',
        reasons: ['The earlier job it comes back about is not of this watch.'],
        whatToDo: 'Pick the watch again, then the job.',
      });
    }
    const job = openJob({
      id: given.id,
      visitId: given.visitId,
      watchId: given.watchId,
      customerId: customer.id,
      follows: follows === null ? null : { jobId: follows, why: 'comeback' },
      entries: given.entries,
    });
    return { outcome: 'taken in', job: resourceOf(job) };
  });

  /**
   * Takes a job in that was made at another counter: as new under a ticket of this one, or the entries this counter
   * has not seen. Its cells came from another stock, so no line of this ledger moves.
   */
  const takeFromFile = db.transaction((files: readonly JobFromFile[]): JobImported[] | NotKept => {
    const done: JobImported[] = [];
    for (const file of files) {
      for (const { id, name, initials } of file.technicians)
        addTechnician.run(id, name, initials, clock.nowUtc());
      if (!customerById.get(file.customerId)) {
        const owner = file.customer;
        const now = clock.nowUtc();
        writeCustomer.run(file.customerId, owner?.name ?? '', owner?.phone ?? '', owner?.email ?? '', now);
        // Who was erased where the file was made stays so here.
        if (owner) owners.remember({ ...owner, id: file.customerId });
        else eraseCustomer.run(now, file.technicians[0]?.id ?? '', file.customerId);
      }
      insertVisit.run(file.job.visitId, file.customerId, file.job.receivedAt);
      insertWatch.run(file.job.watchId, file.job.receivedAt);
      let job = jobById.get(file.job.id);
      const isNew = job === undefined;
      if (!job) {
        const number = (lastNumber.get() ?? 0) + 1;
        const follows = file.job.follows;
        const earlier = follows && jobById.get(follows.jobId);
        job = {
          id: file.job.id,
          number,
          ticket: makeTicket(number),
          visitId: file.job.visitId,
          watchId: file.job.watchId,
          createdAt: file.job.receivedAt,
          followsJobId: earlier?.id ?? null,
          followsWhy: earlier ? (follows?.why ?? null) : null,
          cameAs: file.job.ticket,
        };
        insertJob.run(job);
      }
      let added = 0;
      for (const { entry, recordedAt } of file.entries) {
        const { payloadVersion, ...told } = entry;
        const offered = { ...told, jobId: job.id, sequence: null, recordedAt: null } as Entry;
        const known = entryById.get(entry.id);
        if (known && sameBody(toEntry(known), offered)) continue;
        if (known) throw new Refusal({ outcome: 'other body under this id' });
        insertEntry.run({
          ...told,
          jobId: job.id,
          payloadVersion,
          payload: JSON.stringify(entry.payload),
          supersedes: JSON.stringify(entry.supersedes),
          attachments: JSON.stringify(entry.attachments),
          recordedAt,
        });
        added += 1;
      }
      if (added > 0) summarise(job, foldJob(readEntries(job.id), contextNow()), customerOfJob.get(job.id));
      done.push({
        jobId: job.id,
        ticket: job.ticket,
        cameAs: file.job.ticket,
        outcome: isNew ? 'new here' : added > 0 ? 'entries added' : 'here already',
        entriesAdded: added,
      });
    }
    return done;
  });

  return {
    append: (jobId: string, given: NewEntry): Appended => append.immediate(jobId, given),
    takeIn(given: NewJob): Taken {
      try {
        return takeIn.immediate(given);
      } catch (error) {
        if (error instanceof Refusal) return error.notKept;
        throw error;
      }
    },
    job(jobId: string): JobResource | null {
      const job = jobById.get(jobId);
      if (!job) return null;
      const entries = readEntries(jobId);
      return {
        job: resourceOf(job),
        customer: customerOfJob.get(jobId) ?? null,
        entries,
        attachments: attachmentsOf(entries),
        lots: stock.lotsNamed(lotsNamedIn(entries)),
      };
    },
    jobIdOfTicket: (ticket: string): string | null => jobByTicket.get(ticket)?.id ?? null,
    /** Whether a file says something else of an entry that is on record here, asked before anything of it is kept. */
    contradicts: (files: readonly JobFromFile[]): boolean =>
      files.some((file) =>
        file.entries.some(({ entry: { payloadVersion: _, ...told } }) => {
          const known = entryById.get(told.id);
          const offered = { ...told, jobId: file.job.id, sequence: null, recordedAt: null } as Entry;
          return known !== undefined && !sameBody(toEntry(known), offered);
        }),
      ),
    takeFromFile(files: readonly JobFromFile[]): JobImported[] | NotKept {
      try {
        return takeFromFile.immediate(files);
      } catch (error) {
        if (error instanceof Refusal) return error.notKept;
        throw error;
      }
    },
    /** The jobs of one watch, the newest first. */
    summariesOfWatch: (watchId: string): JobSummary[] =>
      jobsOfWatch.all(watchId).flatMap(({ id }) => {
        const summary = summaryOf.get(id);
        return summary === undefined ? [] : [toSummary(summary)];
      }),
    /** What each tool did, and how often one was missing in the year before an instant. */
    toolsServed: (nowUtc: string): ToolsServed => ({
      served: toolsServed.all(),
      wantedInYear: openersWantedSince.get(addMinutes(nowUtc, -YEAR_MINUTES)) ?? 0,
    }),
    /** Every job, the newest first. */
    all: (): JobSummary[] => allSummaries.all().map(toSummary),
    /** The jobs of one visit, in the order they were taken in. */
    jobIdsOfVisit: (visitId: string): string[] => jobsOfVisit.all(visitId).map(({ id }) => id),
    rack: (): JobSummary[] => rack.all().map((row) => toSummary(row)),
    customer(id: string): CustomerResource | null {
      const onFile = customerById.get(id);
      if (!onFile) return null;
      const { erasedAt, ...customer } = onFile;
      const jobs = jobsOfCustomer.all(id).flatMap((job) => {
        const summary = summaryOf.get(job.id);
        return summary === undefined ? [] : [toSummary(summary)];
      });
      const latest = new Map(
        jobsOfCustomer
          .all(id)
          .reverse()
          .map((job) => [job.watchId, job]),
      );
      const watches = [...latest.values()].flatMap((job) => {
        const { watch } = foldJob(readEntries(job.id), contextNow()).facts;
        return watch
          ? [{ watchId: job.watchId, jobId: job.id, ticket: job.ticket, watch: watch.payload }]
          : [];
      });
      return { customer, erasedAt, jobs, watches };
    },
    watch(watchId: string): WatchResource | null {
      const visits = jobsOfWatch.all(watchId).map(({ id, ticket, createdAt }) => ({
        jobId: id,
        ticket,
        receivedAt: createdAt,
        entries: readEntries(id),
      }));
      return visits.length === 0
        ? null
        : { watchId, visits, attachments: attachmentsOf(visits.flatMap(({ entries }) => entries)) };
    },
    /** Empties a person, and takes them off every envelope and out of the search, in one transaction. The entries stay. */
    erase: (customerId: string, technicianId: string): Erased => erase.immediate(customerId, technicianId),
    /** Jobs by what is typed, and owners as typed, then those whose name is nearly so, through their jobs. */
    find(query: string): FindResult {
      const jobs = finder.find(query);
      const asTyped = owners.find(query);
      const known = new Set(asTyped.map((each) => each.id));
      const near = jobs.flatMap((job) => customerOfJob.get(job.id) ?? []);
      const fresh = [
        ...new Map(near.filter((each) => !known.has(each.id)).map((each) => [each.id, each])).values(),
      ];
      const alike = rankFound(
        query,
        fresh.map((each) => ({ ...each, text: each.name })),
        MOST_CUSTOMERS,
      );
      return {
        jobs,
        customers: [...asTyped, ...alike.map(({ text: _, ...each }) => each)].slice(0, MOST_CUSTOMERS),
      };
    },
  };
}
