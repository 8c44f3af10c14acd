import type { Policy } from '../../craft/policy';
import type { RunPurpose } from '../../craft/setting';

/** A watch that runs to be read again. */
export interface RunningWatch {
  readonly entryId: string;
  readonly toSee: RunPurpose;
  readonly sinceUtc: string;
  /** What the hands showed at the start; blank where nobody read them. */
  readonly shows: string;
  /** How long its own step interval needs, seconds. */
  readonly watchForS: number;
}

export interface RunDue {
  /** Null: the shop asks for no length. */
  readonly dueUtc: string | null;
  /** Seconds until then, negative once it is due; null where there is no due time. */
  readonly leftS: number | null;
  /** Seconds since it began. */
  readonly ranS: number;
}

/** When a run is read again: after its own steps, or as long as the shop's policy asks. */
export function dueOf(
  { toSee, sinceUtc, watchForS }: RunningWatch,
  { provingRunHours }: Pick<Policy, 'provingRunHours'>,
  nowUtc: string,
): RunDue {
  const since = Date.parse(sinceUtc);
  const now = Date.parse(nowUtc);
  const forS = toSee === 'that it runs' ? watchForS : provingRunHours * 3600;
  const ranS = Math.max(0, Math.round((now - since) / 1000));
  if (forS <= 0) return { dueUtc: null, leftS: null, ranS };
  const due = since + forS * 1000;
  return { dueUtc: new Date(due).toISOString(), leftS: Math.ceil((due - now) / 1000), ranS };
}

/** Runs in the order in which they are due, those without a length last, the longest running first. */
export function orderRuns<T extends { readonly due: RunDue }>(runs: readonly T[]): readonly T[] {
  return [...runs].sort(
    (a, b) =>
      (a.due.leftS ?? Number.POSITIVE_INFINITY) - (b.due.leftS ?? Number.POSITIVE_INFINITY) ||
      b.due.ranS - a.due.ranS,
  );
}

/** What runs of all jobs, each with its job and when it is due, the first due first. */
export function runsOfRack<J extends { readonly running: readonly RunningWatch[] }>(
  jobs: readonly J[],
  policy: Pick<Policy, 'provingRunHours'>,
  nowUtc: string,
): readonly { readonly job: J; readonly run: RunningWatch; readonly due: RunDue }[] {
  return orderRuns(
    jobs.flatMap((job) => job.running.map((run) => ({ job, run, due: dueOf(run, policy, nowUtc) }))),
  );
}
