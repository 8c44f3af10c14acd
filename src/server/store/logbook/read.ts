import type {
  Attachment,
  Customer,
  CustomerResource,
  FindResult,
  JobResource,
  JobSummary,
  LinkedJob,
  WatchResource,
} from '../../../contract';
import { rankFound } from '../../../core/craft/find';
import type { Entry } from '../../../core/logbook';
import { toSummary } from '../summary';
import type { LogbookParts } from './parts';
import { type JobRow, lotsNamedIn } from './rows';

const MOST_CUSTOMERS = 8;

/** What the files are that entries name, each once. */
function attachmentsOf({ files }: LogbookParts, entries: readonly Entry[]): Attachment[] {
  return [...new Set(entries.flatMap((entry) => entry.attachments))].flatMap(
    (hash) => files.find(hash) ?? [],
  );
}

function summariesOf({ summaries }: LogbookParts, jobs: readonly JobRow[]): JobSummary[] {
  return jobs.flatMap(({ id }) => {
    const summary = summaries.textOf(id);
    return summary === undefined ? [] : [toSummary(summary)];
  });
}

function linked({ summaries }: LogbookParts, job: JobRow): LinkedJob {
  const summary = summaries.textOf(job.id);
  return {
    jobId: job.id,
    ticket: job.ticket,
    watch: summary === undefined ? '' : toSummary(summary).watch,
  };
}

/** A job as its own resource tells it, with the jobs it is tied to. */
export function headOf(parts: LogbookParts, job: JobRow): JobResource['job'] {
  const { jobs } = parts;
  const earlier = job.followsJobId === null ? undefined : jobs.byId(job.followsJobId);
  return {
    id: job.id,
    ticket: job.ticket,
    visitId: job.visitId,
    watchId: job.watchId,
    cameAs: job.cameAs,
    follows: earlier && job.followsWhy ? { ...linked(parts, earlier), why: job.followsWhy } : null,
    followedBy: jobs
      .following(job.id)
      .flatMap((later) => (later.followsWhy ? [{ ...linked(parts, later), why: later.followsWhy }] : [])),
    sameVisit: jobs
      .ofVisit(job.visitId)
      .filter((other) => other.id !== job.id)
      .map((other) => linked(parts, other)),
  };
}

export function readJob(parts: LogbookParts, jobId: string): JobResource | null {
  const job = parts.jobs.byId(jobId);
  if (!job) return null;
  const entries = parts.entries.of(jobId);
  return {
    job: headOf(parts, job),
    customer: parts.people.customerOfJob(jobId),
    entries,
    unreadable: parts.entries.unreadableOf(jobId),
    attachments: attachmentsOf(parts, entries),
    lots: parts.stock.lotsNamed(lotsNamedIn(entries)),
  };
}

/** The jobs of one watch, the newest first. */
export function summariesOfWatch(parts: LogbookParts, watchId: string): JobSummary[] {
  return summariesOf(parts, parts.jobs.ofWatch(watchId));
}

export function readCustomer(parts: LogbookParts, id: string): CustomerResource | null {
  const { people, jobs, entries, fold } = parts;
  const onFile = people.customer(id);
  if (!onFile) return null;
  const { erasedAt, ...customer } = onFile;
  const own = jobs.ofCustomer(id);
  const latest = new Map([...own].reverse().map((job) => [job.watchId, job]));
  const watches = [...latest.values()].flatMap((job) => {
    const { watch } = fold(entries.of(job.id)).facts;
    return watch ? [{ watchId: job.watchId, jobId: job.id, ticket: job.ticket, watch: watch.payload }] : [];
  });
  const revisions = erasedAt === null ? people.revisions(id) : [];
  return { customer, erasedAt, revisions, jobs: summariesOf(parts, own), watches };
}

export function readWatch(parts: LogbookParts, watchId: string): WatchResource | null {
  const visits = parts.jobs.ofWatch(watchId).map(({ id, ticket, createdAt }) => ({
    jobId: id,
    ticket,
    receivedAt: createdAt,
    entries: parts.entries.of(id),
    unreadable: parts.entries.unreadableOf(id),
  }));
  if (visits.length === 0) return null;
  const entries = visits.flatMap((visit) => visit.entries);
  return { watchId, visits, attachments: attachmentsOf(parts, entries) };
}

/** Jobs by what is typed, and owners as typed, then those whose name is nearly so, through their jobs. */
export function find({ finder, owners, people }: LogbookParts, query: string): FindResult {
  const jobs = finder.find(query);
  const asTyped = owners.find(query);
  const known = new Set(asTyped.map((each) => each.id));
  const near = new Map<string, Customer>();
  for (const { id } of jobs) {
    const owner = people.customerOfJob(id);
    if (owner && !known.has(owner.id)) near.set(owner.id, owner);
  }
  const alike = rankFound(
    query,
    [...near.values()].map((each) => ({ ...each, text: each.name })),
    MOST_CUSTOMERS,
  );
  return {
    jobs,
    customers: [...asTyped, ...alike.map(({ text: _, ...each }) => each)].slice(0, MOST_CUSTOMERS),
  };
}
