import type { Calibre } from '../craft/movements';
import { provedWhenOut, type Served } from '../craft/parts';
import {
  type AddedProof,
  judgeRun,
  LEAST_WATCHED_S,
  type Proof,
  type ProofResult,
  proofsToMake,
  type ProofStep,
  type ProvedMovement,
  type RunPurpose,
  type RunVerdict,
  watchSeconds,
  wayBackOf,
  type WayBack,
} from '../craft/setting';
import type { JobFacts } from './entry';
import type { Complaint } from './facts/arrive';
import { type Run, RUN_PLACE } from './facts/set';
import { partsSettledAs, partsThatWereOut } from './parts';

type Facts = Readonly<JobFacts>;

/** What the owner complained of, and what shows whether it is mended. */
const SHOWN_BY: Readonly<Partial<Record<Complaint, readonly Proof[]>>> = {
  'hand steps in twos or fours': ['low-supply signal'],
  'low-cell sign shows': ['low-supply signal'],
  'display fading': ['digital display'],
  'light or alarm fails first': ['light', 'alarm'],
  'does not hold its charge': ['charging'],
};

const FUNCTION_OF: Readonly<Partial<Record<Served, Proof>>> = {
  date: 'date',
  light: 'light',
  alarm: 'alarm',
  'digital display': 'digital display',
};

/**
 * What is proved beyond what the movement is known for: what shows whether the owner's complaint is mended, and what a lost or
 * replaced part serves. Of light and alarm, which the owner names in one breath, those the book knows, where it knows one.
 */
export function addedProofs(
  facts: Pick<Facts, 'complaint' | 'parts' | 'above' | 'cellsFitted' | 'putBack'>,
  functions: Calibre['functions'],
): readonly AddedProof[] {
  const has = (what: Proof): boolean => (functions as readonly Proof[]).includes(what);
  const ofComplaint = (facts.complaint?.payload.picked ?? []).flatMap((complaint) => {
    const proofs = SHOWN_BY[complaint] ?? [];
    return (proofs.some(has) ? proofs.filter(has) : proofs).map((what) => ({
      what,
      because: `the owner: ${complaint}`,
    }));
  });
  const ofParts = partsSettledAs(facts, 'lost', 'replaced').flatMap(({ off, settled }) =>
    off.payload.serves.flatMap((served) => {
      const what = FUNCTION_OF[served];
      return what === undefined
        ? []
        : [{ what, because: `the ${off.payload.part} was ${settled?.payload.outcome ?? ''}` }];
    }),
  );
  const ofOut = partsThatWereOut(facts).flatMap(({ part }) =>
    provedWhenOut(part).flatMap((served) => {
      const what = FUNCTION_OF[served];
      return what === undefined ? [] : [{ what, because: `the ${part} was out` }];
    }),
  );
  return [...ofParts, ...ofOut, ...ofComplaint];
}

/** What of a watch is to be proved, of the movement in the book or as it was seen. */
export function proofsOf(
  facts: Pick<Facts, 'complaint' | 'parts' | 'above' | 'cellsFitted' | 'putBack'>,
  movement: ProvedMovement | null,
): readonly ProofStep[] {
  return proofsToMake(movement, addedProofs(facts, movement?.functions ?? []));
}

/** What is asked and has no result since the last closing. */
export function unproved(facts: Facts, movement: ProvedMovement | null): readonly Proof[] {
  const proved: Readonly<Partial<Record<Proof, ProofResult>>> = facts.functions?.payload.proved ?? {};
  return proofsOf(facts, movement)
    .map(({ what }) => what)
    .filter((what) => proved[what] === undefined);
}

/** Something that was tried and does not work, where to look, and whether it is handed back so all the same. */
export interface Failed extends WayBack {
  readonly what: string;
  readonly handedBackSo: string;
}

/** What does not work, by the last proof of each. */
export function failedProofs({
  functions,
  outside,
}: Pick<Facts, 'functions' | 'outside'>): readonly Failed[] {
  return [functions, outside].flatMap((fact) =>
    fact === null
      ? []
      : (Object.entries(fact.payload.proved) as [Parameters<typeof wayBackOf>[0], ProofResult][])
          .filter(([, result]) => result === 'does not work')
          .map(([what]) => ({ ...wayBackOf(what), what, handedBackSo: fact.payload.handedBackSo })),
  );
}

/** What a run of the job says, of those since the last closing. */
export function runOf(facts: Facts, toSee: RunPurpose): RunVerdict {
  const run = facts[RUN_PLACE[toSee]];
  if (run === null) return judgeRun(null, null);
  const { began, ended, disturbed } = run;
  return judgeRun(
    { shows: began.payload.shows, atUtc: began.occurredAt },
    ended && { ...ended.payload, atUtc: ended.occurredAt },
    disturbed,
  );
}

/** Whether a watch was seen running, and for how long. */
export interface SeenRunning {
  readonly runs: boolean;
  readonly watchedSeconds: number;
}

/**
 * Whether it was seen running, by what was seen last: said outright, or watched or left running to the end; a look that found it
 * standing still after that counts against it. Null where nobody proved it.
 */
export function seenRunning(facts: Facts): SeenRunning | null {
  const { runs, watched, proving, stood } = facts;
  const ofRun = (run: Run | null, toSee: RunPurpose) => {
    if (!run?.ended) return [];
    const { began, ended } = run;
    return [
      {
        entry: ended,
        runs: runOf(facts, toSee).verdict !== 'stopped',
        watchedSeconds: Math.round((Date.parse(ended.occurredAt) - Date.parse(began.occurredAt)) / 1000),
      },
    ];
  };
  const seen = [
    ...(runs === null ? [] : [{ entry: runs, ...runs.payload }]),
    ...ofRun(watched, 'that it runs'),
    ...ofRun(proving, 'how it keeps time'),
  ];
  const sequenceOf = (each: (typeof seen)[number]): number => each.entry.sequence ?? Number.MAX_SAFE_INTEGER;
  const last = seen.reduce<(typeof seen)[number] | null>(
    (latest, each) =>
      latest === null ||
      sequenceOf(each) > sequenceOf(latest) ||
      (sequenceOf(each) === sequenceOf(latest) && each.entry.occurredAt >= latest.entry.occurredAt)
        ? each
        : latest,
    null,
  );
  return last && { runs: last.runs && !stood, watchedSeconds: last.watchedSeconds };
}

/** The same, before it was closed as it is now. */
export function ranBeforeClosing(facts: Facts): SeenRunning | null {
  return facts.beforeClosing && seenRunning({ ...facts, ...facts.beforeClosing });
}

/** Whether what was seen is long enough for this movement's own step; of one nobody knows, for any at all. */
export function watchedLongEnough(
  { watchedSeconds }: Pick<SeenRunning, 'watchedSeconds'>,
  movement: ProvedMovement | null,
): boolean {
  return watchedSeconds >= (movement === null ? LEAST_WATCHED_S : watchSeconds(movement));
}
