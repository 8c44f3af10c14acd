import { calibreWords } from '../../movements';
import { type Look, LOOKS, seenWords } from '../../identify';
import type { FactKinds } from '../entry';

export interface IdentifyPayloads {
  'identify.engraving': { readonly text: string };
  /** One thing seen of the movement; null: not to be counted, whatever was recorded elsewhere. */
  'identify.evidence': {
    readonly look: Look;
    readonly value: string | number | null;
    /** Half the step of a size said in quarter lignes, mm; 0 where a caliper gave it. */
    readonly withinMm: number;
  };
  'identify.movement': {
    /** Null: not in the book. */
    readonly calibreId: string | null;
    /** Null where there is one only, or nobody could tell. */
    readonly revision: string | null;
    readonly code: string;
    readonly by: 'engraving' | 'evidence' | 'hand';
    readonly note: string;
  };
}

export const identifyFacts: FactKinds<IdentifyPayloads> = {
  'identify.engraving': {
    words: ({ text }) => `engraving: ${text}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.engraving = entry),
  },
  'identify.evidence': {
    words: ({ look, value, withinMm }) =>
      value === null ? `not counted: ${LOOKS[look].words}` : `seen: ${seenWords({ look, value, withinMm })}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.evidence.set(entry.payload.look, entry),
  },
  'identify.movement': {
    words: ({ code, revision, calibreId }) =>
      `movement: ${calibreWords(code, revision)}${calibreId === null ? ', not in the book' : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.movement = entry),
  },
};
