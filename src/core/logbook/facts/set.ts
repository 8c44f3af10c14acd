import { figure } from '../../craft/judgement';
import type { Outside, Proof, ProofResult, RunPurpose } from '../../craft/setting';
import type { Closing, Envelope, FactKinds } from '../envelope';

/** What was tried, and what it showed; where something fails and the watch goes back so, why. */
interface Proved<What extends string> {
  readonly proved: Readonly<Partial<Record<What, ProofResult>>>;
  readonly handedBackSo: string;
}

export interface SetPayloads {
  'set.runs': { readonly runs: boolean; readonly watchedSeconds: number };
  'set.time': { readonly set: boolean };
  /** Whether a crown that screws down was seen down, after it was touched last. */
  'set.crown-down': { readonly down: boolean };
  'set.functions': Proved<Proof>;
  'set.outside': Proved<Outside>;
  /** The hands' reading against the signal, `HH:mm:ss`; seconds left out where there is no seconds hand, blank: not read. */
  'set.run-began': { readonly toSee: RunPurpose; readonly shows: string };
  'set.run-ended': { readonly toSee: RunPurpose; readonly shows: string; readonly stillRuns: boolean };
}

const named = (proved: Readonly<Partial<Record<string, string>>>, result: ProofResult): string =>
  Object.entries(proved)
    .filter(([, each]) => each === result)
    .map(([name]) => name)
    .join(', ');

function provedWords({ proved, handedBackSo }: Proved<string>): string {
  const [works, fails, none] = [
    named(proved, 'works'),
    named(proved, 'does not work'),
    named(proved, 'not applicable'),
  ];
  return (
    [
      works && `works: ${works}`,
      fails && `does not work: ${fails}`,
      none && `not applicable: ${none}`,
      handedBackSo && `handed back with this fault: ${handedBackSo}`,
    ]
      .filter(Boolean)
      .join('; ') || 'nothing checked'
  );
}

type Fact<K extends keyof SetPayloads> = Envelope<K, SetPayloads[K]>;

/** A run: since when, and how it ended. */
export interface Run {
  readonly began: Fact<'set.run-began'>;
  readonly ended: Fact<'set.run-ended'> | null;
  /** What was done with the crown meanwhile, in words; null: nothing. */
  readonly disturbed: string | null;
}

/** What was proved of a watch, the latest of each. */
export interface Proofs {
  runs: Fact<'set.runs'> | null;
  timeSet: Fact<'set.time'> | null;
  functions: Fact<'set.functions'> | null;
  outside: Fact<'set.outside'> | null;
  /** Since the time was set or the crown tried last. */
  crownDown: Fact<'set.crown-down'> | null;
  /** Watched by its own step interval. */
  watched: Run | null;
  /** Left running to see how it keeps time. */
  proving: Run | null;
  /** By a look at stage 4 it stands still, and nobody has seen it run since. */
  stood: boolean;
}

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface SetFacts extends Proofs {
  /** What was proved before it was closed as it is now: shown as such, and asked again. Null: nothing. */
  beforeClosing: Readonly<Proofs> | null;
}

const noProofs = (): Proofs => ({
  runs: null,
  timeSet: null,
  functions: null,
  outside: null,
  crownDown: null,
  watched: null,
  proving: null,
  stood: false,
});

export const noSetFacts = (): SetFacts => ({ ...noProofs(), beforeClosing: null });

/** The latest of each proof, since the last closing or before it. */
export function latestProofs({ beforeClosing: before, ...now }: Readonly<SetFacts>): Proofs {
  return {
    runs: now.runs ?? before?.runs ?? null,
    timeSet: now.timeSet ?? before?.timeSet ?? null,
    functions: now.functions ?? before?.functions ?? null,
    outside: now.outside ?? before?.outside ?? null,
    crownDown: now.crownDown ?? before?.crownDown ?? null,
    watched: now.watched ?? before?.watched ?? null,
    proving: now.proving ?? before?.proving ?? null,
    stood: now.stood,
  };
}

/** Closed, or closed anew: what was proved until then is older than the closing. */
export function provedBeforeClosing(facts: SetFacts): void {
  facts.beforeClosing = latestProofs(facts);
  Object.assign(facts, noProofs());
}

/** Opened again: nothing proved before still counts. */
export function proofsVoided(facts: SetFacts): void {
  Object.assign(facts, noSetFacts());
}

/** Where the facts hold a run, by what it is to show. */
export const RUN_PLACE = { 'that it runs': 'watched', 'how it keeps time': 'proving' } as const;

/** A crown pulled or a time set while a watch runs: however often it is set again, that run tells no rate. */
function disturb(facts: SetFacts, at: string, how: string): void {
  for (const place of ['watched', 'proving'] as const) {
    const run = facts[place];
    if (run && at > run.began.occurredAt && (run.ended === null || at < run.ended.occurredAt))
      facts[place] = { ...run, disturbed: how };
  }
}

export const setKinds: FactKinds<SetPayloads, SetFacts & Closing> = {
  'set.runs': {
    words: ({ runs, watchedSeconds }) =>
      `${runs ? 'runs' : 'does not run'}, watched ${figure(watchedSeconds)} s`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.runs = entry;
      facts.stood = false;
    },
  },
  'set.time': {
    words: ({ set }) => (set ? 'time set' : 'time not set'),
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.timeSet = entry;
      // Set with the crown: whether it is down is seen after that.
      if (entry.payload.set) facts.crownDown = null;
      if (entry.payload.set) disturb(facts, entry.occurredAt, 'the time was set in between');
    },
  },
  'set.functions': {
    words: provedWords,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.functions = entry),
  },
  'set.outside': {
    words: provedWords,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.outside = entry;
      const crown = entry.payload.proved['crown in every position'];
      if (crown === 'works' || crown === 'does not work') {
        disturb(facts, entry.occurredAt, 'the crown was pulled in between');
        facts.crownDown = null;
      }
    },
  },
  'set.crown-down': {
    words: ({ down }) => (down ? 'crown screwed down' : 'crown not screwed down'),
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.crownDown = entry),
  },
  'set.run-began': {
    words: ({ toSee, shows }) =>
      `${toSee === 'that it runs' ? 'watched' : 'proving run began'}${shows && `, the watch showed ${shows}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) =>
      void (facts[RUN_PLACE[entry.payload.toSee]] = { began: entry, ended: null, disturbed: null }),
  },
  'set.run-ended': {
    words: ({ toSee, shows, stillRuns }) =>
      `${toSee === 'that it runs' ? 'watched to the end' : 'proving run ended'}, ${stillRuns ? `still running${shows && `, the watch showed ${shows}`}` : 'stopped'}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      const place = RUN_PLACE[entry.payload.toSee];
      const run = facts[place];
      // An end alone, its beginning withdrawn or before the closing, tells of no run.
      if (!run) return;
      facts[place] = { ...run, ended: entry };
      facts.stood = false;
    },
  },
};
