import { type Supply, SUPPLY_WORDS } from '../../craft/cells';
import { calibreWords } from '../../craft/movements';
import { type Look, LOOKS, seenWords } from '../../craft/identify';
import type { Envelope, FactKinds } from '../envelope';

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
  /** What the movement runs from, said against what is printed, found or told, or where the book does not know it. */
  'identify.supply': { readonly runsFrom: Supply; readonly reason: string };
}

type Fact<K extends keyof IdentifyPayloads> = Envelope<K, IdentifyPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface IdentifyFacts {
  engraving: Fact<'identify.engraving'> | null;
  /** What was seen of the movement, by look. */
  evidence: Map<string, Fact<'identify.evidence'>>;
  movement: Fact<'identify.movement'> | null;
  supply: Fact<'identify.supply'> | null;
}

export const noIdentifyFacts = (): IdentifyFacts => ({
  engraving: null,
  evidence: new Map(),
  movement: null,
  supply: null,
});

export const identifyKinds: FactKinds<IdentifyPayloads, IdentifyFacts> = {
  'identify.engraving': {
    words: ({ text }) => `engraving: ${text}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.engraving = entry),
  },
  'identify.evidence': {
    words: ({ look, value, withinMm }) =>
      value === null
        ? `excluded, or cannot be seen: ${LOOKS[look].words}`
        : `seen: ${seenWords({ look, value, withinMm })}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.evidence.set(entry.payload.look, entry),
  },
  'identify.movement': {
    words: ({ code, revision, calibreId }) =>
      `movement: ${calibreWords(code, revision)}${calibreId === null ? ', not in the book' : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.movement = entry),
  },
  'identify.supply': {
    words: ({ runsFrom, reason }) => `runs from ${SUPPLY_WORDS[runsFrom]}: ${reason}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.supply = entry),
  },
};
