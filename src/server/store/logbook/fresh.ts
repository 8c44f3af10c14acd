import { setImmediate } from 'node:timers/promises';
import { inTransaction } from '../database';
import { DatabaseLost } from '../guard';
import type { LogbookParts } from './parts';
import { updateProjections } from './projections';

/** Stored answers, worked out anew where what they rest on has changed since. */
export interface Fresh {
  /** Those of the jobs on the rack. */
  readonly rack: () => Promise<void>;
  /** Those of all jobs, the rack first. */
  readonly all: () => Promise<void>;
  /** The same where that takes less than a second; else they are worked out meanwhile. */
  readonly soon: () => Promise<void>;
  /** Those of a few jobs, at once. */
  readonly of: (jobIds: readonly string[]) => void;
}

/** So many jobs in one write; between two the server answers. */
const AT_ONCE = 10;
/** So many are worked out in less than a second. */
const SOON_AT_MOST = 400;

/** Whether database or disk fail: that is no fault of a job. */
const isOfTheDisk = (error: unknown): boolean =>
  error instanceof DatabaseLost ||
  (error instanceof Error &&
    'code' in error &&
    /^SQLITE_(BUSY|LOCKED|FULL|IOERR|CORRUPT|NOTADB|READONLY|CANTOPEN)/.test(String(error.code)));

/**
 * The answers kept beside the jobs (rack, tables of what was seen, next visits, lives) rest on the entries, the program,
 * the policy and the book. Written with each entry, they are stale once any of the others changes: before they are next
 * shown they are worked out anew.
 */
export function freshener(parts: LogbookParts): Fresh {
  const { db, jobs, entries, summaries, fold, contextNow, basisOf } = parts;
  const basisNow = (): string => basisOf(contextNow());
  /** What all answers, and those of the rack, are known to rest on. */
  const known = { all: '', rack: '' };
  const workOutOne = inTransaction(db, (id: string) => {
    const job = jobs.byId(id);
    if (job) updateProjections(parts, job, fold(entries.of(id)));
  });
  const workOut = inTransaction(db, (jobIds: readonly string[]) => {
    for (const id of jobIds) {
      try {
        workOutOne(id);
      } catch (error) {
        if (isOfTheDisk(error)) throw error;
        // What stood stays, and no other job waits for this one.
        process.emitWarning(`The answers of job ${id} could not be recalculated: ${String(error)}`);
        summaries.noteBasis(id, basisNow());
      }
    }
  });
  let last: Promise<void> = Promise.resolve();

  const freshen = async (which: 'all' | 'rack'): Promise<void> => {
    for (;;) {
      if (!db.open) return;
      const basis = basisNow();
      if (known[which] === basis) return;
      const stale = summaries.stale(basis, which === 'rack' ? 1 : null, AT_ONCE);
      if (stale.length === 0) {
        known[which] = basis;
        return;
      }
      workOut(stale);
      await setImmediate();
    }
  };
  /** One after the other: two at once would work the same answers out twice. */
  const inTurn = (which: 'all' | 'rack'): Promise<void> => {
    if (known[which] === basisNow()) return Promise.resolve();
    last = last.catch(() => undefined).then(() => freshen(which));
    return last;
  };
  return {
    rack: () => inTurn('rack'),
    all: () => inTurn('all'),
    soon() {
      const all = inTurn('all');
      if (known.all === basisNow()) return all;
      // Whoever asks later is told of what fails.
      all.catch(() => undefined);
      return summaries.stale(basisNow(), null, SOON_AT_MOST).length < SOON_AT_MOST ? all : Promise.resolve();
    },
    of(jobIds) {
      const basis = basisNow();
      if (known.all === basis) return;
      const stale = jobIds.filter((id) => summaries.written(id)?.basis !== basis);
      if (stale.length > 0) workOut(stale);
    },
  };
}
