import type { Flow } from '../../craft/tightness';
import type { JobState } from '../../logbook';
import { judgeTests } from './judgeTests';

/** One measured test of a watch, over its visits. */
export interface LeakPoint {
  readonly atUtc: string;
  readonly outcome: string;
  readonly flow: Flow;
}

/** What passed at 2 bar at each measured test of a watch, the oldest first; the tests of the job at hand come last. */
export function leakTrend(
  earlier: readonly { readonly atUtc: string; readonly outcome: string; readonly flow: Flow | null }[],
  now: Pick<JobState, 'facts' | 'standsFor'> | null,
): readonly LeakPoint[] {
  const here = now === null ? [] : judgeTests(now);
  return [
    ...earlier,
    ...here.map(({ test, shows, leak }) => ({
      atUtc: test.occurredAt,
      outcome: shows.verdict,
      flow: leak?.flow ?? null,
    })),
  ]
    .flatMap(({ atUtc, outcome, flow }) => (flow === null ? [] : [{ atUtc, outcome, flow }]))
    .toSorted((a, b) => a.atUtc.localeCompare(b.atUtc));
}
