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
  /** Files that belong to it, by the SHA-256 of their bytes. */
  readonly attachments: readonly string[];
}

export type Entry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

/** The id of the entry that stands in the place of another: itself, or the last correction of it. */
export type StandsFor = (entryId: string) => string;

/** What the program must know of a kind to fold it, name it and order it after a signature. */
export interface FactKind<K extends EntryKind> {
  /** The fact in a few words, for the history, the undo and the waiting list. */
  readonly words: (payload: Payloads[K]) => string;
  /** Whether the fact, recorded after the signature, reopens the job. */
  readonly afterSigning: 'reopens' | 'keeps';
  /** Puts the fact into the job's facts; `standsFor` gives what stands now for an entry it names. */
  readonly fold: (facts: JobFacts, entry: EntryOf<K>, standsFor: StandsFor) => void;
}

export type FactKinds<P> = { readonly [K in keyof P & EntryKind]: FactKind<K> };

export interface PartOff {
  readonly off: EntryOf<'open.part'>;
  readonly settled: EntryOf<'open.part-settled'> | null;
}

export interface CellOut {
  readonly out: EntryOf<'cell.out'>;
  readonly settled: EntryOf<'cell.out-settled'> | null;
}

export interface CellDropped {
  readonly dropped: EntryOf<'cell.dropped'>;
  readonly settled: EntryOf<'cell.dropped-settled'> | null;
}

/** The job's facts as they stand: the latest live entry in each place. */
export interface JobFacts {
  received: EntryOf<'arrive.received'> | null;
  watch: EntryOf<'arrive.watch'> | null;
  complaint: EntryOf<'arrive.complaint'> | null;
  cellHistory: EntryOf<'arrive.cell-history'> | null;
  wear: EntryOf<'arrive.wear'> | null;
  originality: EntryOf<'arrive.originality'> | null;
  marks: EntryOf<'arrive.mark'>[];
  service: EntryOf<'arrive.service'> | null;
  estimate: EntryOf<'arrive.estimate'> | null;
  agreements: EntryOf<'arrive.agreement'>[];
  decision: EntryOf<'arrive.decision'> | null;
  ready: EntryOf<'arrive.ready'> | null;
  partsRequest: EntryOf<'arrive.parts-request'> | null;
  partsArrived: EntryOf<'arrive.parts-arrived'> | null;
  promise: EntryOf<'arrive.promise'> | null;
  consent: EntryOf<'arrive.consent'> | null;
  back: EntryOf<'open.back'> | null;
  asFound: EntryOf<'open.as-found'> | null;
  techniques: EntryOf<'open.technique'>[];
  prints: EntryOf<'open.print'>[];
  seals: EntryOf<'open.seals'> | null;
  measured: EntryOf<'open.measured'> | null;
  /** Steps of the opening plan, each with the entry that ticked it. */
  stepsDone: Map<string, EntryOf<'open.steps'>>;
  photoMarks: EntryOf<'open.photo-mark'>[];
  insideSerial: EntryOf<'open.inside-serial'> | null;
  together: EntryOf<'open.together'>[];
  paired: EntryOf<'seal.paired'> | null;
  now: EntryOf<'seal.now'> | null;
  parts: Map<string, PartOff>;
  engraving: EntryOf<'identify.engraving'> | null;
  /** What was seen of the movement, by look. */
  evidence: Map<string, EntryOf<'identify.evidence'>>;
  movement: EntryOf<'identify.movement'> | null;
  readings: Map<string, EntryOf<'check.reading'>>;
  pulses: EntryOf<'check.pulses'> | null;
  looked: EntryOf<'check.looked'> | null;
  leakages: EntryOf<'check.leakage'>[];
  diagnosis: EntryOf<'check.diagnosis'> | null;
  cellsFound: Map<string, EntryOf<'cell.found'>>;
  cellsFitted: Map<string, EntryOf<'cell.fitted'>>;
  putBack: Map<string, EntryOf<'cell.put-back'>>;
  accumulator: EntryOf<'cell.accumulator'> | null;
  charges: EntryOf<'cell.charged'>[];
  oldSettled: Map<string, EntryOf<'cell.old-settled'>>;
  wellsMeasured: Map<string, EntryOf<'cell.well-measured'>>;
  usage: EntryOf<'cell.usage'> | null;
  /** Fresh cells out of their blister, by the entry that says so. */
  cellsOut: Map<string, CellOut>;
  dropped: Map<string, CellDropped>;
  /** Steps of the fitting guide by well and step. */
  fittingDone: Map<string, EntryOf<'cell.steps'>>;
  gasket: EntryOf<'seal.gasket'> | null;
  otherSeals: EntryOf<'seal.other'> | null;
  closed: EntryOf<'seal.closed'> | null;
  tests: EntryOf<'test.made'>[];
  runs: EntryOf<'set.runs'> | null;
  timeSet: EntryOf<'set.time'> | null;
  functions: EntryOf<'set.functions'> | null;
  outside: EntryOf<'set.outside'> | null;
  runBegan: EntryOf<'set.run-began'> | null;
  runEnded: EntryOf<'set.run-ended'> | null;
  price: EntryOf<'handback.price'> | null;
  signed: EntryOf<'handback.signed'> | null;
  collected: EntryOf<'handback.collected'> | null;
  skips: Map<string, EntryOf<'logbook.stage-skipped'>>;
}

/** The well an entry concerns, where the movement has only one. */
export const MAIN_WELL = 'main';

export function wellOf(entry: { readonly well: string | null }): string {
  return entry.well ?? MAIN_WELL;
}

/** How an entry names a well: not at all where there is one. The other way round than `wellOf`. */
export function wellKey({ name }: { readonly name: string }): string | null {
  return name === MAIN_WELL ? null : name;
}
