import type { FunctionKind } from '../../craft/movements';
import type { Closing, Envelope, FactKinds } from '../envelope';

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

type Fact<K extends keyof SetPayloads> = Envelope<K, SetPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface SetFacts {
  runs: Fact<'set.runs'> | null;
  /** It was seen running before it was closed as it is now. */
  ranBeforeClosing: boolean;
  timeSet: Fact<'set.time'> | null;
  functions: Fact<'set.functions'> | null;
  outside: Fact<'set.outside'> | null;
  /** Crown, bezel and bracelet were proved before it was closed as it is now. */
  outsideBeforeClosing: boolean;
  runBegan: Fact<'set.run-began'> | null;
  runEnded: Fact<'set.run-ended'> | null;
}

export const noSetFacts = (): SetFacts => ({
  runs: null,
  ranBeforeClosing: false,
  timeSet: null,
  functions: null,
  outside: null,
  outsideBeforeClosing: false,
  runBegan: null,
  runEnded: null,
});

export const setKinds: FactKinds<SetPayloads, SetFacts & Closing> = {
  'set.runs': {
    words: ({ runs, watchedSeconds }) => `${runs ? 'runs' : 'does not run'}, watched ${watchedSeconds} s`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.runs = entry;
      facts.ranBeforeClosing = facts.closed === null;
    },
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
    fold: (facts, entry) => {
      facts.outside = entry;
      facts.outsideBeforeClosing = facts.closed === null;
    },
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
