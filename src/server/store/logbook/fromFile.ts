import type { Attachment, JobFromFile, JobImported } from '../../../contract';
import { judgeAddedByFile, judgeHistory } from '../../../core/admission';
import { makeTicket } from '../../../core/craft/tickets';
import type { Entry } from '../../../core/logbook';
import { Refusal, refusal } from './outcomes';
import { addOwner } from './owners';
import type { LogbookParts } from './parts';
import { type JobRow, offeredTo, sameBody } from './rows';
import { updateProjections } from './projections';
import { mustWrite } from './write';

/** A job of a file, its files on this disk already. */
export type JobInHand = Omit<JobFromFile, 'attachments'> & { readonly files: readonly Attachment[] };

/** So many facts nobody records at another counter between two files; each is judged by itself. */
const MOST_ADDED = 500;

/** People and files of a job that are not known here; who was erased where it was made stays so. */
function takePeopleAndFiles(parts: LogbookParts, file: JobInHand): void {
  const { people, owners, files, clock } = parts;
  const now = clock.nowUtc();
  for (const { id, name, initials } of file.technicians) people.addTechnician(id, name, initials, now);
  for (const each of file.files) {
    const namedBy = file.entries.find(({ entry }) => entry.attachments.includes(each.hash));
    files.enter(each, namedBy?.entry.technicianId ?? file.technicians[0]?.id ?? '');
  }
  if (people.customer(file.customerId)) return;
  const owner = { name: '', phone: '', email: '', ...file.customer, id: file.customerId };
  const by = file.technicians[0]?.id ?? '';
  addOwner(parts, owner, by);
  if (!file.customer) {
    people.erase(file.customerId, by, now);
    owners.forget(file.customerId);
  }
}

/** The visit of a job that is new here: one this counter opened takes no watch that nobody here took in. */
function takeVisit({ jobs }: LogbookParts, { job: from, customerId }: JobInHand): void {
  const owner = jobs.customerOfVisit(from.visitId);
  if (owner === undefined) {
    jobs.openVisit(from.visitId, customerId, from.receivedAt);
    return;
  }
  if (owner !== customerId || jobs.ofVisit(from.visitId).some(({ cameAs }) => cameAs === null))
    throw refusal(
      `${from.ticket} would stand in a visit of this counter, as if its watch had been taken in here.`,
      'Take the watch in at this counter. Nothing of the file was taken in.',
    );
}

/** The job of a file under a ticket of this counter. */
function takeJob(parts: LogbookParts, file: JobInHand): JobRow {
  const { jobs } = parts;
  const { job: from } = file;
  const earlier = from.follows && jobs.byId(from.follows.jobId);
  if (earlier && earlier.watchId !== from.watchId)
    throw refusal(
      `${from.ticket} says it follows ${earlier.ticket}, which is of another watch.`,
      'Save the job file again at the other counter. Nothing of the file was taken in.',
    );
  takeVisit(parts, file);
  jobs.openWatch(from.watchId, from.receivedAt);
  const number = jobs.nextNumber();
  const job: JobRow = {
    id: from.id,
    number,
    ticket: makeTicket(number),
    visitId: from.visitId,
    watchId: from.watchId,
    createdAt: from.receivedAt,
    followsJobId: earlier?.id ?? null,
    followsWhy: earlier ? (from.follows?.why ?? null) : null,
    cameAs: from.ticket,
  };
  jobs.insert(job);
  return job;
}

/** Entries of a job that is new here, as the other counter recorded and judged them. */
function takeHistory(parts: LogbookParts, job: JobRow, file: JobInHand): number {
  const { entries, fold } = parts;
  const offered = file.entries.map(({ entry, recordedAt }) => ({ ...offeredTo(job.id, entry), recordedAt }));
  const of = { customerId: file.customerId, watchId: job.watchId, visitId: job.visitId };
  const judged = judgeHistory(offered, of, new Set(file.unreadable), {
    receivedAt: file.job.receivedAt,
    nowUtc: parts.clock.nowUtc(),
  });
  if (judged.verdict === 'refused') throw refusedOf(file, judged.at, judged);
  for (const { entry, recordedAt, counter } of file.entries) {
    if (entries.byId(entry.id)) throw new Refusal({ outcome: 'other body under this id' });
    entries.insert(job.id, entry, { recordedAt, counter });
  }
  updateProjections(parts, job, fold(entries.of(job.id)));
  return file.entries.length;
}

function refusedOf(
  file: JobInHand,
  at: number,
  { reasons, whatToDo }: { readonly reasons: readonly string[]; readonly whatToDo: string },
): Refusal {
  return new Refusal({
    outcome: 'refused',
    reasons: [`${file.job.ticket}, entry ${at + 1}:`, ...reasons],
    whatToDo: `${whatToDo} Nothing of the file was taken in.`,
  });
}

/** Entries added to a job that is here: each judged like one typed here, and moving this stock. */
function takeAdded(parts: LogbookParts, job: JobRow, file: JobInHand): number {
  const { entries, jobs, fold } = parts;
  const { job: from, customerId } = file;
  if (
    from.visitId !== job.visitId ||
    from.watchId !== job.watchId ||
    jobs.customerOfVisit(job.visitId) !== customerId
  )
    throw refusal(
      `${from.ticket} names another owner, watch or visit than ${job.ticket}, which it claims to be.`,
      'Save the job file again at the other counter. Nothing of the file was taken in.',
    );
  const fresh = file.entries.flatMap((given, at) => {
    const known = entries.byId(given.entry.id);
    if (known === null) return [{ ...given, at }];
    if (known.verdict === 'read' && sameBody(known.entry, offeredTo(job.id, given.entry))) return [];
    throw new Refusal({ outcome: 'other body under this id' });
  });
  if (fresh.length > MOST_ADDED)
    throw refusal(
      `${from.ticket} adds ${fresh.length} entries to a job that is here; at most ${MOST_ADDED} are taken at once.`,
      'Record here what this counter must know. Nothing of the file was taken in.',
    );
  const before = entries.of(job.id);
  const asItIsHere = fold(before);
  const written: Entry[] = [...before];
  for (const { entry, counter, at } of fresh) {
    const judged = judgeAddedByFile(offeredTo(job.id, entry), asItIsHere);
    if (judged.verdict === 'refused') throw refusedOf(file, at, judged);
    try {
      written.push(mustWrite(parts, job, entry, written, counter));
    } catch (error) {
      if (error instanceof Refusal && error.notKept.outcome === 'refused')
        throw refusedOf(file, at, error.notKept);
      throw error;
    }
  }
  return fresh.length;
}

/**
 * Inside a write: takes a job in that was made at another counter, its people and files with it: as new under a ticket
 * of this one, or the entries this counter has not seen. All of it stands as that counter's.
 */
export function takeFromFile(parts: LogbookParts, file: JobInHand): JobImported {
  takePeopleAndFiles(parts, file);
  const known = parts.jobs.byId(file.job.id);
  const job = known ?? takeJob(parts, file);
  const added = known ? takeAdded(parts, known, file) : takeHistory(parts, job, file);
  return {
    jobId: job.id,
    ticket: job.ticket,
    cameAs: file.job.ticket,
    outcome: known === undefined ? 'new here' : added > 0 ? 'entries added' : 'here already',
    entriesAdded: added,
  };
}
