import type { FunctionKind } from '../../movements';
import type { FactKinds } from '../entry';

/** What every watch has or may have beside its movement's functions. */
export const OUTSIDE = [
  'crown in every position',
  'pushers',
  'bezel',
  'bracelet seated, gentle pull',
] as const;
export type Outside = (typeof OUTSIDE)[number];

export interface SetPayloads {
  'set.runs': { readonly runs: boolean; readonly watchedSeconds: number };
  'set.time': { readonly set: boolean };
  'set.functions': { readonly proved: Readonly<Partial<Record<FunctionKind, 'works' | 'does not work'>>> };
  'set.outside': { readonly proved: Readonly<Partial<Record<Outside, 'works' | 'does not work'>>> };
  /** The hands' reading against the signal, `HH:mm:ss`; seconds left out where there is no seconds hand. */
  'set.run-began': { readonly shows: string };
  'set.run-ended': { readonly shows: string; readonly stillRuns: boolean };
}

const failing = (proved: Readonly<Record<string, string>>): string[] =>
  Object.entries(proved)
    .filter(([, result]) => result !== 'works')
    .map(([name]) => name);

export const setFacts: FactKinds<SetPayloads> = {
  'set.runs': {
    words: ({ runs, watchedSeconds }) => `${runs ? 'runs' : 'does not run'}, watched ${watchedSeconds} s`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.runs = entry),
  },
  'set.time': {
    words: ({ set }) => (set ? 'time set' : 'time not set'),
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.timeSet = entry),
  },
  'set.functions': {
    words: ({ proved }) => {
      const failed = failing(proved);
      return failed.length === 0 ? 'functions proved' : `does not work: ${failed.join(', ')}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.functions = entry),
  },
  'set.outside': {
    words: ({ proved }) => {
      const failed = failing(proved);
      return failed.length === 0
        ? `proved: ${Object.keys(proved).join(', ') || 'nothing'}`
        : `does not work: ${failed.join(', ')}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.outside = entry),
  },
  'set.run-began': {
    words: ({ shows }) => `proving run began, the watch showed ${shows}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.runBegan = entry;
      facts.runEnded = null;
    },
  },
  'set.run-ended': {
    words: ({ shows, stillRuns }) =>
      `proving run ended, ${stillRuns ? `the watch showed ${shows}` : 'stopped'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.runEnded = entry),
  },
};
