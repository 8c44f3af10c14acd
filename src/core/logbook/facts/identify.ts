import type { FactKinds } from '../entry';

export interface IdentifyPayloads {
  'identify.engraving': { readonly text: string };
  'identify.movement': {
    /** Null: not in the book. */
    readonly calibreId: string | null;
    readonly code: string;
    readonly by: 'engraving' | 'hand';
    readonly note: string;
  };
}

export const identifyFacts: FactKinds<IdentifyPayloads> = {
  'identify.engraving': {
    words: ({ text }) => `engraving: ${text}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.engraving = entry),
  },
  'identify.movement': {
    words: ({ code, calibreId }) => `movement: ${code}${calibreId === null ? ', not in the book' : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.movement = entry),
  },
};
