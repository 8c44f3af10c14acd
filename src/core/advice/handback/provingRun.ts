import { judgeRun, type RunVerdict } from '../../craft/setting';
import type { JobState } from '../../logbook';

/** What the proving run of a job says. */
export function provingRun(facts: Pick<JobState['facts'], 'runBegan' | 'runEnded'>): RunVerdict {
  const { runBegan, runEnded } = facts;
  return judgeRun(
    runBegan && { shows: runBegan.payload.shows, atUtc: runBegan.occurredAt },
    runEnded && { ...runEnded.payload, atUtc: runEnded.occurredAt },
  );
}
