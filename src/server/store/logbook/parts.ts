import { deepEqual } from 'fast-equals';
import { foldJob, type Entry, type JobContext, type JobState } from '../../../core/logbook';
import type { AttachmentStore } from '../../attachments/attachments';
import type { CellLivesStore } from '../cellLives';
import type { CellsInWatchesStore } from '../cellsInWatches';
import type { Clock } from '../clock';
import type { Db } from '../database';
import { jobFinder, ownerFinder } from '../finder';
import type { LeaksSeenStore } from '../leaksSeen';
import type { MovementsSeenStore } from '../movementsSeen';
import type { NextVisitsStore } from '../nextVisits';
import type { IdempotencyStore } from '../idempotencyStore';
import type { StockStore } from '../stock/stock';
import {
  entryTable,
  type EntryTable,
  jobTable,
  type JobTable,
  peopleTable,
  type PeopleTable,
  summaryTable,
  type SummaryTable,
} from './tables';

/** What the logbook stands on. */
export interface LogbookGround {
  readonly db: Db;
  readonly clock: Clock;
  readonly stock: StockStore;
  readonly files: Pick<AttachmentStore, 'find' | 'enter' | 'forgetNames'>;
  readonly once: Pick<IdempotencyStore, 'seen' | 'note'>;
  readonly movements: Pick<MovementsSeenStore, 'update'>;
  readonly cells: Pick<CellsInWatchesStore, 'update'>;
  readonly leaks: Pick<LeaksSeenStore, 'update'>;
  readonly visits: Pick<NextVisitsStore, 'update'>;
  readonly lives: Pick<CellLivesStore, 'update'>;
  readonly contextNow: () => JobContext;
  /** Which program works the answers out (`programId`). */
  readonly program: string;
}

/** What its parts share: the ground, the tables, the search, and the fold against book and policy of now. */
export interface LogbookParts extends LogbookGround {
  readonly entries: EntryTable;
  readonly jobs: JobTable;
  readonly people: PeopleTable;
  readonly summaries: SummaryTable;
  readonly finder: ReturnType<typeof jobFinder>;
  readonly owners: ReturnType<typeof ownerFinder>;
  /** What answers worked out now rest on beside the entries, as a text that changes with any of it. */
  readonly basisOf: (now: JobContext) => string;
  /** Against book and policy of now, where the writer does not hold them already. */
  readonly fold: (entries: readonly Entry[], context?: JobContext) => JobState;
}

/** States kept: of the jobs at hand, each as it stood before the entry that comes next. */
const MOST_KEPT = 64;

interface Kept {
  readonly entries: readonly Entry[];
  readonly context: JobContext;
  readonly state: JobState;
}

/** What was undone may come again under the same ids and places with another body: only the entries themselves tell. */
function sameEntries(a: readonly Entry[], b: readonly Entry[]): boolean {
  return a.length === b.length && a.every((entry, index) => entry === b[index] || deepEqual(entry, b[index]));
}

/** A fold that knows the state of entries folded lately: before each write it is the one after the write before. */
function keptFold(contextNow: () => JobContext): LogbookParts['fold'] {
  const kept = new Map<string, Kept>();
  return (entries, context = contextNow()) => {
    const jobId = entries[0]?.jobId;
    const before = jobId === undefined ? undefined : kept.get(jobId);
    if (
      before?.context.catalogue === context.catalogue &&
      before.context.policy === context.policy &&
      sameEntries(before.entries, entries)
    )
      return before.state;
    const state = foldJob(entries, context);
    if (kept.size >= MOST_KEPT) kept.clear();
    if (jobId !== undefined) kept.set(jobId, { entries, context, state });
    return state;
  };
}

export function logbookParts(ground: LogbookGround): LogbookParts {
  const { db, contextNow, program } = ground;
  return {
    ...ground,
    entries: entryTable(db),
    jobs: jobTable(db),
    people: peopleTable(db),
    summaries: summaryTable(db),
    finder: jobFinder(db),
    owners: ownerFinder(db),
    basisOf: ({ catalogue, policy, shop }) =>
      JSON.stringify([program, policy.revision, catalogue.revision, shop.zone]),
    fold: keptFold(contextNow),
  };
}
