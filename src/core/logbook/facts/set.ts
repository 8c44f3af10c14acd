import type { FunctionKind } from '../../movements';
import type { FactKinds } from '../entry';

export interface SetPayloads {
  'set.runs': { readonly runs: boolean; readonly watchedSeconds: number };
  'set.time': { readonly set: boolean };
  'set.functions': { readonly proved: Readonly<Partial<Record<FunctionKind, 'works' | 'does not work'>>> };
}

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
      const failed = Object.entries(proved).filter(([, result]) => result !== 'works');
      return failed.length === 0
        ? 'functions proved'
        : `does not work: ${failed.map(([name]) => name).join(', ')}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.functions = entry),
  },
};
