import { STAGE_WORDS, type StageId } from '../../craft/policy';
import type { Envelope, FactKinds } from '../envelope';

export interface LogbookPayloads {
  'logbook.withdrawn': { readonly reason: string };
  'logbook.stage-skipped': { readonly stage: StageId; readonly reason: string };
}

type Fact<K extends keyof LogbookPayloads> = Envelope<K, LogbookPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface LogbookFacts {
  skips: Map<string, Fact<'logbook.stage-skipped'>>;
}

export const noLogbookFacts = (): LogbookFacts => ({
  skips: new Map(),
});

export const logbookKinds: FactKinds<LogbookPayloads, LogbookFacts> = {
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
