import { judgeEntry } from '../core/admission';
import { handback } from '../core/advice/handback';
import type { Payloads } from '../core/logbook';
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

/** The signature the screen would send for a job as it stands. */
export function signatureOf(job: Logbook): Payloads['handback.signed'] {
  const state = job.state();
  return {
    initials: 'EV',
    catalogueRevision: context.catalogue.revision,
    policyRevision: context.policy.revision,
    restsOnSequence: state.lastSequence,
    statement: handback(state, [lot], context).statement,
  };
}
