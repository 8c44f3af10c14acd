import { judgeEntry } from '../core/admission';
import { context, type Logbook, lot } from './fixtures';

/** What is said of the entry that `add` puts into a job; the job stays without it. */
export const admit = (job: Logbook, add: () => void, lots = [lot]) => {
  const before = [...job.entries];
  const state = job.state();
  add();
  const entry = job.entries.pop();
  if (!entry) throw new Error('nothing was added');
  return judgeEntry(entry, state, before, () => lots, context);
};
