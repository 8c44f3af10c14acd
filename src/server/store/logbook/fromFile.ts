import type { JobFromFile, JobImported } from '../../../contract';
import { makeTicket } from '../../../core/craft/tickets';
import type { Entry } from '../../../core/logbook';
import { Refusal } from './outcomes';
import type { LogbookParts } from './parts';
import { type JobRow, offeredTo, type ReadRow, sameBody } from './rows';
import { summarise } from './summarise';

const isOnRecord = (known: ReadRow, offered: Entry): boolean =>
  known.verdict === 'read' && sameBody(known.entry, offered);

/** Whether a file says something else of an entry that is on record here, asked before anything of it is kept. */
export function contradicts({ entries }: LogbookParts, files: readonly JobFromFile[]): boolean {
  return files.some((file) =>
    file.entries.some(({ entry }) => {
      const known = entries.byId(entry.id);
      return known !== null && !isOnRecord(known, offeredTo(file.job.id, entry));
    }),
  );
}

/** People of a file who are not known here; who was erased where it was made stays so. */
function takePeople({ people, owners, clock }: LogbookParts, file: JobFromFile): void {
  const now = clock.nowUtc();
  for (const { id, name, initials } of file.technicians) people.addTechnician(id, name, initials, now);
  if (people.customer(file.customerId)) return;
  const owner = { id: file.customerId, name: '', phone: '', email: '', ...file.customer };
  people.writeCustomer({ ...owner, id: file.customerId }, now);
  if (file.customer) owners.remember({ ...file.customer, id: file.customerId });
  else people.erase(file.customerId, file.technicians[0]?.id ?? '', now);
}

/** The job of a file, under a ticket of this counter where it is new here. */
function takeJob({ jobs }: LogbookParts, { job: from, customerId }: JobFromFile): JobRow {
  jobs.openVisit(from.visitId, customerId, from.receivedAt);
  jobs.openWatch(from.watchId, from.receivedAt);
  const known = jobs.byId(from.id);
  if (known) return known;
  const number = jobs.nextNumber();
  const earlier = from.follows && jobs.byId(from.follows.jobId);
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

/** Entries this counter has not seen, as they were recorded; how many. */
function takeEntries({ entries }: LogbookParts, job: JobRow, file: JobFromFile): number {
  let added = 0;
  for (const { entry, recordedAt } of file.entries) {
    const known = entries.byId(entry.id);
    if (known && isOnRecord(known, offeredTo(job.id, entry))) continue;
    if (known) throw new Refusal({ outcome: 'other body under this id' });
    entries.insert(job.id, entry, recordedAt);
    added += 1;
  }
  return added;
}

/**
 * Inside a write: takes a job in that was made at another counter, its people with it: as new under a ticket of this one,
 * or the entries this counter has not seen. Its cells came from another stock, so no line of this ledger moves.
 */
export function takeFromFile(parts: LogbookParts, file: JobFromFile): JobImported {
  takePeople(parts, file);
  const isNew = parts.jobs.byId(file.job.id) === undefined;
  const job = takeJob(parts, file);
  const added = takeEntries(parts, job, file);
  if (added > 0) summarise(parts, job, parts.fold(parts.entries.of(job.id)));
  return {
    jobId: job.id,
    ticket: job.ticket,
    cameAs: file.job.ticket,
    outcome: isNew ? 'new here' : added > 0 ? 'entries added' : 'here already',
    entriesAdded: added,
  };
}
