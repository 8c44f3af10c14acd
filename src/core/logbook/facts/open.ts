import type { BackKind } from '../../backs';
import type { FactKinds } from '../entry';

export const PARTS = [
  'spring bar',
  'bracelet pin',
  'back',
  'screw',
  'gasket',
  'movement ring',
  'spacer',
  'insulator',
  'cover',
  'spring',
] as const;
export type Part = (typeof PARTS)[number];

export const AS_FOUND = [
  'nothing unusual',
  'tool marks',
  'bent contact',
  'insulator missing',
  'residue',
  'worn screw heads',
  'scratched notes of an earlier repairer',
] as const;
export type AsFound = (typeof AS_FOUND)[number];

export const PROTECTIONS = ['film', 'bare tool', 'not noted'] as const;
export const OPENED_HOW = ['freely', 'resisted', 'bound half way', 'not noted'] as const;

export interface OpenPayloads {
  'open.back': {
    readonly kind: BackKind;
    readonly openedWith: string;
    readonly protection: (typeof PROTECTIONS)[number];
    readonly went: (typeof OPENED_HOW)[number];
    /** Where the tool went in, seen from the back. */
    readonly spotClock: number | null;
    readonly lipClock: number | null;
  };
  'open.part': { readonly part: Part; readonly position: string; readonly count: number };
  'open.part-settled': {
    readonly partEntryId: string;
    readonly outcome: 'back in place' | 'replaced' | 'lost';
    readonly note: string;
  };
  'open.as-found': { readonly found: readonly AsFound[]; readonly note: string };
  /** Text printed inside back or module: cell, polarity, reset. Evidence for what follows. */
  'open.print': { readonly text: string };
  /** Each is accounted for at closing. */
  'open.seals': { readonly rim: number; readonly innerCover: number; readonly hatch: number };
  /** What to do the same, or not, when this watch comes back. */
  'open.technique': { readonly note: string };
}

export const openFacts: FactKinds<OpenPayloads> = {
  'open.back': {
    words: (back) =>
      `back opened: ${back.kind}, with ${back.openedWith}${back.went === 'freely' || back.went === 'not noted' ? '' : `, ${back.went}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      // Opening again in the same visit voids what was proved on the closed watch.
      if (facts.closed) {
        facts.closed = null;
        facts.runs = null;
        facts.functions = null;
        facts.outside = null;
        facts.runBegan = null;
        facts.runEnded = null;
        facts.tests = [];
      }
      facts.back = entry;
    },
  },
  'open.part': {
    words: ({ part, count, position }) =>
      `off: ${count > 1 ? `${count} × ` : ''}${part}${position ? `, ${position}` : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.parts.set(entry.id, { off: entry, settled: null }),
  },
  'open.part-settled': {
    words: ({ outcome }) => `part ${outcome}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      const part = facts.parts.get(entry.payload.partEntryId);
      if (part) facts.parts.set(entry.payload.partEntryId, { ...part, settled: entry });
    },
  },
  'open.print': {
    words: ({ text }) => `printed inside: ${text}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.prints.push(entry),
  },
  'open.seals': {
    words: ({ rim, innerCover, hatch }) =>
      `seals: ${rim} at the rim, ${innerCover} inner cover, ${hatch} hatch`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.seals = entry),
  },
  'open.technique': {
    words: ({ note }) => `for next time: ${note}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.techniques.push(entry),
  },
  'open.as-found': {
    words: ({ found, note }) => `as found: ${[...found, note].filter(Boolean).join(', ')}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.asFound = entry),
  },
};
