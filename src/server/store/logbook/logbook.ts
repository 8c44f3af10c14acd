import type {
  CustomerResource,
  FindResult,
  JobImported,
  JobResource,
  JobSummary,
  NewEntry,
  NewJob,
  NewOwnerRevision,
  ToolsServed,
  WatchResource,
} from '../../../contract';
import { addMinutes } from '../../../core/craft/time';
import { emptyLog, inTransaction } from '../database';
import { toSummary } from '../summary';
import { recordConsequences } from './consequences';
import { type Fresh, freshener } from './fresh';
import { type JobInHand, takeFromFile } from './fromFile';
import { type Appended, type Erased, type NotKept, refusable, type Taken } from './outcomes';
import { type Revised, reviseOwner } from './owners';
import { type LogbookGround, type LogbookParts, logbookParts } from './parts';
import { find, headOf, readCustomer, readJob, readWatch, summariesOfWatch } from './read';
import { updateProjectionsOfOwner } from './projections';
import { isTakenInSo, takeIn } from './takeIn';
import { writeEntry } from './write';

const YEAR_MINUTES = 365 * 24 * 60;

/** Jobs and their entries. Every write is one immediate transaction: entry, ledger, the job's summary. */
export interface LogbookStore {
  append: (jobId: string, given: NewEntry) => Appended;
  takeIn: (given: NewJob) => Taken;
  /** Jobs made at another counter: all of them, or none. */
  takeFromFile: (files: readonly JobInHand[]) => JobImported[] | NotKept;
  /** An owner's details put right. */
  reviseOwner: (customerId: string, given: NewOwnerRevision) => Revised;
  /** Empties a person, and takes them off every envelope and out of the search. The entries stay. */
  erase: (customerId: string, technicianId: string) => Erased;
  job: (jobId: string) => JobResource | null;
  jobIdOfTicket: (ticket: string) => string | null;
  /** The jobs of one visit, in the order they were taken in. */
  jobIdsOfVisit: (visitId: string) => string[];
  /** Every job, the newest first. */
  all: () => JobSummary[];
  rack: () => JobSummary[];
  /** The jobs of one watch, the newest first. */
  summariesOfWatch: (watchId: string) => JobSummary[];
  customer: (id: string) => CustomerResource | null;
  watch: (watchId: string) => WatchResource | null;
  find: (query: string) => FindResult;
  /** What each tool did, and how often one was missing in the year before an instant. */
  toolsServed: (nowUtc: string) => ToolsServed;
  /** Awaited before answers kept beside the jobs are shown. */
  fresh: Fresh;
}

function append(parts: LogbookParts, jobId: string, given: NewEntry): Appended {
  const job = parts.jobs.byId(jobId);
  if (!job) return { outcome: 'no such job' };
  const before = parts.entries.of(jobId);
  const appended = writeEntry(parts, job, given, before);
  return appended.outcome === 'recorded'
    ? { ...appended, also: recordConsequences(parts, job, appended.entry, before) }
    : appended;
}

function erase(parts: LogbookParts, customerId: string, technicianId: string): Erased {
  const { people, owners, jobs, entries, files, finder, clock } = parts;
  const onFile = people.customer(customerId);
  if (!onFile) return 'no such customer';
  if (!people.isTechnician(technicianId)) return 'no such technician';
  if (onFile.erasedAt) return 'erased before';
  people.erase(customerId, technicianId, clock.nowUtc());
  owners.forget(customerId);
  for (const job of jobs.ofCustomer(customerId))
    files.forgetNames(entries.of(job.id).flatMap((entry) => entry.attachments));
  updateProjectionsOfOwner(parts, customerId);
  finder.tidy();
  return 'erased';
}

export function logbookStore(ground: LogbookGround): LogbookStore {
  const parts = logbookParts(ground);
  const { db, jobs, summaries } = parts;
  const fresh = freshener(parts);
  const eraseAtOnce = inTransaction(db, (customerId: string, technicianId: string) =>
    erase(parts, customerId, technicianId),
  );
  return {
    append: inTransaction(db, (jobId: string, given: NewEntry) => append(parts, jobId, given)),
    takeIn: refusable(
      inTransaction(db, (given: NewJob) => {
        const known = jobs.byId(given.id);
        if (!known) return { outcome: 'taken in' as const, job: headOf(parts, takeIn(parts, given)) };
        return isTakenInSo(parts, known, given)
          ? { outcome: 'same again' as const, job: headOf(parts, known) }
          : { outcome: 'other body under this id' as const };
      }),
    ),
    takeFromFile: refusable(
      inTransaction(db, (files: readonly JobInHand[]) => files.map((file) => takeFromFile(parts, file))),
    ),
    reviseOwner: inTransaction(db, (customerId: string, given: NewOwnerRevision) =>
      reviseOwner(parts, customerId, given),
    ),
    erase(customerId, technicianId) {
      const outcome = eraseAtOnce(customerId, technicianId);
      if (outcome === 'erased') emptyLog(db);
      return outcome;
    },
    job: (jobId) => readJob(parts, jobId),
    jobIdOfTicket: (ticket) => jobs.byTicket(ticket)?.id ?? null,
    jobIdsOfVisit: (visitId) => jobs.ofVisit(visitId).map(({ id }) => id),
    all: () => summaries.all().map(toSummary),
    rack: () => summaries.onRack().map(toSummary),
    summariesOfWatch(watchId) {
      fresh.of(jobs.ofWatch(watchId).map(({ id }) => id));
      return summariesOfWatch(parts, watchId);
    },
    customer(id) {
      fresh.of(jobs.ofCustomer(id).map((job) => job.id));
      return readCustomer(parts, id);
    },
    watch: (watchId) => readWatch(parts, watchId),
    find: (query) => find(parts, query),
    fresh,
    toolsServed: (nowUtc) => summaries.toolsServed(addMinutes(nowUtc, -YEAR_MINUTES)),
  };
}
