import type { NewJob } from '../../../contract';
import { Refusal, refusal } from './outcomes';
import { keepOwner } from './owners';
import type { LogbookParts } from './parts';
import { type JobRow, offeredTo, sameBody } from './rows';
import { openJob } from './write';

/** What of a taking in stands in no entry. */
function headOfTakenIn({ id, visitId, watchId, customer, followsJobId }: NewJob) {
  const { id: customerId, name, phone, email } = customer;
  return {
    id,
    visitId,
    watchId,
    customer: { customerId, name, phone, email },
    follows: followsJobId ?? null,
  };
}

/** Whether a job that is here was taken in with just this: sent again it is the same, whatever was recorded since. */
export function isTakenInSo(parts: LogbookParts, job: JobRow, given: NewJob): boolean {
  const { entries, once } = parts;
  return (
    once.seen('job', headOfTakenIn(given)) !== 'other body under this id' &&
    job.visitId === given.visitId &&
    job.watchId === given.watchId &&
    given.entries.every((entry) => {
      const known = entries.byId(entry.id);
      return known?.verdict === 'read' && sameBody(known.entry, offeredTo(job.id, entry));
    })
  );
}

/** Inside a write: a watch taken in at the counter, with owner, visit and first entries. */
export function takeIn(parts: LogbookParts, given: NewJob): JobRow {
  const { jobs, people, once, clock } = parts;
  const { customer, entries } = given;
  const [first, ...rest] = entries;
  if (!first) throw refusal('The job holds no entry.', 'Record at least what the watch is.');
  if (!people.isTechnician(first.technicianId)) throw new Refusal({ outcome: 'no such technician' });
  const head = headOfTakenIn(given);
  // No job has the id, but something else was written under it.
  if (once.seen('job', head) !== null) throw new Refusal({ outcome: 'other body under this id' });
  once.note('job', head);
  keepOwner(parts, customer, given.customerSeen, first.technicianId);
  jobs.openVisit(given.visitId, customer.id, clock.nowUtc());
  if (jobs.customerOfVisit(given.visitId) !== customer.id)
    throw refusal('This visit belongs to another customer.', 'Open a new visit for this customer.');
  const follows = given.followsJobId ?? null;
  if (follows !== null && jobs.byId(follows)?.watchId !== given.watchId)
    throw refusal(
      'The earlier job it comes back about is not of this watch.',
      'Pick the watch again, then the job.',
    );
  return openJob(parts, {
    id: given.id,
    visitId: given.visitId,
    watchId: given.watchId,
    customerId: customer.id,
    follows: follows === null ? null : { jobId: follows, why: 'comeback' },
    entries: [first, ...rest],
  });
}
