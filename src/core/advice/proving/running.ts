import type { Book } from '../../craft/book';
import { watchSeconds } from '../../craft/setting';
import type { JobState, Run } from '../../logbook';
import { seenMovement } from '../identify';
import type { RunningWatch } from './runs';

/** The runs of a job that were begun and not ended. */
export function runningOf(state: JobState, book: Book): readonly RunningWatch[] {
  const { facts, calibre } = state;
  const open = [facts.watched, facts.proving].filter((run): run is Run => run !== null && run.ended === null);
  if (open.length === 0) return [];
  const watchForS = watchSeconds(calibre ?? (facts.movement ? seenMovement(state, book) : null));
  return open.map(({ began }) => ({
    entryId: began.id,
    toSee: began.payload.toSee,
    sinceUtc: began.occurredAt,
    shows: began.payload.shows,
    watchForS,
  }));
}
