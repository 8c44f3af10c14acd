import type { ArrivePayloads } from './facts/arrive';
import type { CellPayloads } from './facts/cell';
import type { CheckPayloads } from './facts/check';
import type { HandbackPayloads } from './facts/handback';
import type { IdentifyPayloads } from './facts/identify';
import type { LogbookPayloads } from './facts/logbook';
import type { OpenPayloads } from './facts/open';
import type { SealPayloads } from './facts/seal';
import type { SetPayloads } from './facts/set';
import type { TestPayloads } from './facts/test';

/** Every entry kind and what it carries. A kind is declared in the facts file of its stage. */
export interface Payloads
  extends
    ArrivePayloads,
    OpenPayloads,
    IdentifyPayloads,
    CheckPayloads,
    CellPayloads,
    SealPayloads,
    TestPayloads,
    SetPayloads,
    HandbackPayloads,
    LogbookPayloads {}

export type EntryKind = keyof Payloads;

/** One recorded fact. Never changed: a later entry supersedes or withdraws it. */
export interface EntryOf<K extends EntryKind> {
  readonly id: string;
  readonly jobId: string;
  readonly kind: K;
  readonly payload: Payloads[K];
  /** When it happened at the bench, UTC. */
  readonly occurredAt: string;
  /** The server's order; null while it still waits in the browser. */
  readonly sequence: number | null;
  readonly recordedAt: string | null;
  readonly technicianId: string;
  readonly bench: string;
  /** Which cell it concerns where the movement has several. */
  readonly well: string | null;
  readonly supersedes: readonly string[];
  readonly withdraws: string | null;
}

export type Entry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

/** What the program must know of a kind to fold it, name it and order it after a signature. */
export interface FactKind<K extends EntryKind> {
  /** The fact in a few words, for the history, the undo and the waiting list. */
  readonly words: (payload: Payloads[K]) => string;
  /** Whether the fact, recorded after the signature, reopens the job. */
  readonly afterSigning: 'reopens' | 'keeps';
  /** Puts the fact into the job's facts. */
  readonly fold: (facts: JobFacts, entry: EntryOf<K>) => void;
}

export type FactKinds<P> = { readonly [K in keyof P & EntryKind]: FactKind<K> };

export interface PartOff {
  readonly off: EntryOf<'open.part'>;
  readonly settled: EntryOf<'open.part-settled'> | null;
}

/** The job's facts as they stand: the latest live entry in each place. */
export interface JobFacts {
  received: EntryOf<'arrive.received'> | null;
  watch: EntryOf<'arrive.watch'> | null;
  complaint: EntryOf<'arrive.complaint'> | null;
  service: EntryOf<'arrive.service'> | null;
  promise: EntryOf<'arrive.promise'> | null;
  consent: EntryOf<'arrive.consent'> | null;
  back: EntryOf<'open.back'> | null;
  asFound: EntryOf<'open.as-found'> | null;
  techniques: EntryOf<'open.technique'>[];
  parts: Map<string, PartOff>;
  engraving: EntryOf<'identify.engraving'> | null;
  movement: EntryOf<'identify.movement'> | null;
  readings: Map<string, EntryOf<'check.reading'>>;
  cellsFound: Map<string, EntryOf<'cell.found'>>;
  cellsFitted: Map<string, EntryOf<'cell.fitted'>>;
  oldSettled: Map<string, EntryOf<'cell.old-settled'>>;
  gasket: EntryOf<'seal.gasket'> | null;
  closed: EntryOf<'seal.closed'> | null;
  tests: EntryOf<'test.made'>[];
  runs: EntryOf<'set.runs'> | null;
  timeSet: EntryOf<'set.time'> | null;
  functions: EntryOf<'set.functions'> | null;
  signed: EntryOf<'handback.signed'> | null;
  collected: EntryOf<'handback.collected'> | null;
  skips: Map<string, EntryOf<'logbook.stage-skipped'>>;
}

/** The well an entry concerns, where the movement has only one. */
export const MAIN_WELL = 'main';

export function wellOf(entry: { readonly well: string | null }): string {
  return entry.well ?? MAIN_WELL;
}
