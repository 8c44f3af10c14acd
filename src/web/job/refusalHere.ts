import type { JobResource, NewEntry, StockResource } from '../../contract';
import { judgeEntry } from '../../core/admission';
import type { Lot } from '../../core/craft/stock';
import type { Entry, JobContext, JobState } from '../../core/logbook';

export type Refused = Extract<ReturnType<typeof judgeEntry>, { readonly verdict: 'refused' }>;

/** The lots of the stock, and those a job names that were used up since. */
export function lotsOf(
  stock: Pick<StockResource, 'lots'>,
  resource: Pick<JobResource, 'lots'>,
): readonly Lot[] {
  const known = new Set(stock.lots.map(({ id }) => id));
  return [...stock.lots, ...resource.lots.filter(({ id }) => !known.has(id))];
}

/** A job as this browser knows it: what the server has, and what waits here. */
export interface JobAsKnown {
  readonly jobId: string;
  readonly state: JobState;
  readonly entries: readonly Entry[];
  readonly lots: readonly Lot[];
  readonly context: JobContext;
}

/** Why an entry would not be admitted as the job stands, by the judge the server asks; null where it would. */
export function refusalHere(
  made: NewEntry,
  { jobId, state, entries, lots, context }: JobAsKnown,
): Refused | null {
  const entry = { ...made, jobId, sequence: null, recordedAt: null, counter: null } as Entry;
  const judged = judgeEntry(entry, state, entries, () => lots, context);
  return judged.verdict === 'refused' ? judged : null;
}
