import { randomUUID } from 'node:crypto';
import { type FOLLOWS, makeEntry, type NewEntry } from '../../../contract';
import { judgeEntry } from '../../../core/admission';
import { makeTicket } from '../../../core/craft/tickets';
import { type Entry, type EntryKind, movesBetween, type Payloads, stockMoves } from '../../../core/logbook';
import { type Appended, Refusal } from './outcomes';
import type { LogbookParts } from './parts';
import { type JobRow, lotsNamedIn, offeredTo, sameBody } from './rows';
import { updateProjections } from './projections';

/**
 * Inside a write: judges one entry against the job as it stands and writes it with all that follows. `counter`: where it
 * was recorded, if it comes from another one.
 */
export function writeEntry(
  parts: LogbookParts,
  job: JobRow,
  given: NewEntry,
  before: readonly Entry[],
  counter: string | null = null,
): Appended {
  const { entries, people, files, stock, clock, contextNow, fold } = parts;
  const offered = offeredTo(job.id, given);
  const known = entries.byId(given.id);
  if (known)
    return known.verdict === 'read' && sameBody(known.entry, offered)
      ? { outcome: 'same again', entry: known.entry, also: [] }
      : { outcome: 'other body under this id' };
  if (!people.isTechnician(given.technicianId)) return { outcome: 'no such technician' };
  if (given.attachments.some((hash) => !files.find(hash)))
    return {
      outcome: 'refused',
      reasons: ['A file it names is not here.'],
      whatToDo: 'Add the file first, then record what it belongs to.',
    };
  const context = contextNow();
  const stateBefore = fold(before, context);
  const admission = judgeEntry(
    offered,
    stateBefore,
    before,
    () => stock.lotsNamed(lotsNamedIn([...before, offered])),
    context,
  );
  if (admission.verdict === 'refused') return { ...admission, outcome: 'refused' };
  const entry = entries.add(job.id, given, { recordedAt: clock.nowUtc(), counter });
  const stateAfter = fold([...before, entry], context);
  stock.applyEntry(entry, movesBetween(stockMoves(stateBefore), stockMoves(stateAfter)));
  updateProjections(parts, job, stateAfter, stateBefore);
  return { outcome: 'recorded', entry, also: [] };
}

/** Inside a write: the same, where being refused undoes the whole write. */
export function mustWrite(
  parts: LogbookParts,
  job: JobRow,
  given: NewEntry,
  before: readonly Entry[],
  counter: string | null = null,
): Entry {
  const appended = writeEntry(parts, job, given, before, counter);
  if (!('entry' in appended)) throw new Refusal(appended);
  return appended.entry;
}

type ByTheServer = Pick<Entry, 'occurredAt' | 'technicianId' | 'bench'>;

/** An entry the server writes because of another: by the same hand, at the same bench and time. */
export function consequentEntry<K extends EntryKind>(
  { occurredAt, technicianId, bench }: ByTheServer,
  kind: K,
  payload: Payloads[K],
): NewEntry {
  return makeEntry(kind, payload, { id: randomUUID(), occurredAt, technicianId, bench });
}

export interface JobToOpen {
  readonly id: string;
  readonly visitId: string;
  readonly watchId: string;
  readonly customerId: string;
  readonly follows: { readonly jobId: string; readonly why: (typeof FOLLOWS)[number] } | null;
  /** At least one: by its hand, bench and time the watch was received. */
  readonly entries: readonly [NewEntry, ...NewEntry[]];
}

/** Inside a write: a new job with its first entries, all or none, since half a job is worse than none. */
export function openJob(parts: LogbookParts, given: JobToOpen): JobRow {
  const { jobs, clock } = parts;
  const { id, visitId, watchId, customerId, follows } = given;
  const createdAt = clock.nowUtc();
  jobs.openWatch(watchId, createdAt);
  const number = jobs.nextNumber();
  const job: JobRow = {
    id,
    number,
    ticket: makeTicket(number),
    visitId,
    watchId,
    createdAt,
    followsJobId: follows?.jobId ?? null,
    followsWhy: follows?.why ?? null,
    cameAs: null,
  };
  jobs.insert(job);
  const received = consequentEntry(given.entries[0], 'arrive.received', { customerId, watchId, visitId });
  const written: Entry[] = [];
  for (const entry of [received, ...given.entries]) written.push(mustWrite(parts, job, entry, written));
  return job;
}
