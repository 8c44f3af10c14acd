import { randomUUID } from 'node:crypto';
import { followUpOf } from '../../../core/advice/handback';
import { type Entry, openedBeside, type Payloads, tellsOfInside } from '../../../core/logbook';
import { toSummary } from '../summary';
import type { LogbookParts } from './parts';
import type { JobRow } from './rows';
import { consequentEntry, mustWrite, openJob } from './write';

/** The job that waits for the part, once a watch was closed interim. One interim closing, one follow-up. */
function followUp(parts: LogbookParts, job: JobRow, cause: Entry, entries: readonly Entry[]): void {
  const { jobs, contextNow, fold } = parts;
  if (jobs.following(job.id).some(({ followsWhy }) => followsWhy === 'interim closing')) return;
  const state = fold(entries);
  const { received } = state.facts;
  const [first, ...more] = followUpOf(state, job.ticket, contextNow().policy) ?? [];
  if (!received || !first) return;
  openJob(parts, {
    id: randomUUID(),
    visitId: job.visitId,
    watchId: job.watchId,
    customerId: received.payload.customerId,
    follows: { jobId: job.id, why: 'interim closing' },
    entries: [
      consequentEntry(cause, first.kind, first.payload),
      ...more.map(({ kind, payload }) => consequentEntry(cause, kind, payload)),
    ],
  });
}

/** Writes into a job that another watch lay open beside it, unless it says so already. */
function noteTogether(
  parts: LogbookParts,
  job: JobRow,
  cause: Entry,
  together: Payloads['open.together'],
): void {
  const entries = parts.entries.of(job.id);
  const known = parts
    .fold(entries)
    .facts.together.filter(({ payload }) => payload.otherJobId === together.otherJobId);
  if (known.some(({ payload }) => payload.otherSerial === together.otherSerial)) return;
  const entry = consequentEntry(cause, 'open.together', together);
  mustWrite(parts, job, { ...entry, supersedes: known.map(({ id }) => id) }, entries);
}

/**
 * A watch opened while another with a serial inside its back lay open: it is noted in both, once, so that both are
 * paired when they are closed. The serial may be read after both are open. Gives the other jobs.
 */
function openTogether(parts: LogbookParts, job: JobRow, cause: Entry): string[] {
  const { summaries, jobs } = parts;
  const here = toSummary(summaries.textOf(job.id) ?? '{}').lyingOpen;
  if (here === null) return [];
  const noted: string[] = [];
  for (const other of summaries.onRack().map(toSummary)) {
    if (other.id === job.id || other.lyingOpen === null || !openedBeside(here, other.lyingOpen)) continue;
    const otherJob = jobs.byId(other.id);
    if (!otherJob) continue;
    noteTogether(parts, job, cause, {
      otherJobId: other.id,
      otherTicket: other.ticket,
      otherSerial: other.lyingOpen.insideSerial,
    });
    noteTogether(parts, otherJob, cause, {
      otherJobId: job.id,
      otherTicket: job.ticket,
      otherSerial: here.insideSerial,
    });
    noted.push(other.id);
  }
  return noted;
}

/** Inside a write: what an entry just recorded brings with it. Gives the other jobs it wrote to. */
export function recordConsequences(
  parts: LogbookParts,
  job: JobRow,
  entry: Entry,
  before: readonly Entry[],
): string[] {
  if (entry.kind === 'seal.closed') {
    if (entry.payload.interim) followUp(parts, job, entry, [...before, entry]);
    return [];
  }
  return tellsOfInside(entry.kind) ? openTogether(parts, job, entry) : [];
}
