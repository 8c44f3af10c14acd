import { STAGE_WORDS, type StageId } from '../../policy';
import type { FactKinds } from '../entry';

export interface LogbookPayloads {
  'logbook.withdrawn': { readonly reason: string };
  'logbook.stage-skipped': { readonly stage: StageId; readonly reason: string };
}

export const logbookFacts: FactKinds<LogbookPayloads> = {
  // What a withdrawal takes away is decided before folding; it puts nothing in its place.
  'logbook.withdrawn': {
    words: ({ reason }) => `withdrawn: ${reason}`,
    afterSigning: 'reopens',
    fold: () => undefined,
  },
  'logbook.stage-skipped': {
    words: ({ stage, reason }) => `${STAGE_WORDS[stage]} skipped: ${reason}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.skips.set(entry.payload.stage, entry),
  },
};
