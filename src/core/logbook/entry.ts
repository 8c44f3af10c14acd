import type { Envelope, FactKind, StandsFor } from './envelope';
import { type ArriveFacts, arriveKinds, type ArrivePayloads, noArriveFacts } from './facts/arrive';
import { type OpenFacts, openKinds, type OpenPayloads, noOpenFacts } from './facts/open';
import { type IdentifyFacts, identifyKinds, type IdentifyPayloads, noIdentifyFacts } from './facts/identify';
import { type CheckFacts, checkKinds, type CheckPayloads, noCheckFacts } from './facts/check';
import { type CellFacts, cellKinds, type CellPayloads, noCellFacts } from './facts/cell';
import { type SealFacts, sealKinds, type SealPayloads, noSealFacts } from './facts/seal';
import { type TestFacts, testKinds, type TestPayloads, noTestFacts } from './facts/waterTest';
import { type SetFacts, setKinds, type SetPayloads, noSetFacts } from './facts/set';
import { type HandbackFacts, handbackKinds, type HandbackPayloads, noHandbackFacts } from './facts/handback';
import { type LogbookFacts, logbookKinds, type LogbookPayloads, noLogbookFacts } from './facts/logbook';

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

/** The job's facts as they stand: the latest live entry in each place. Each stage declares its own. */
export interface JobFacts
  extends
    ArriveFacts,
    OpenFacts,
    IdentifyFacts,
    CheckFacts,
    CellFacts,
    SealFacts,
    TestFacts,
    SetFacts,
    HandbackFacts,
    LogbookFacts {}

export type EntryKind = keyof Payloads;
/** One recorded fact of a kind. */
export type EntryOf<K extends EntryKind> = Envelope<K, Payloads[K]>;
export type Entry = { [K in EntryKind]: EntryOf<K> }[EntryKind];

const kinds: { readonly [K in EntryKind]: FactKind<K, Payloads[K], JobFacts> } = {
  ...arriveKinds,
  ...openKinds,
  ...identifyKinds,
  ...checkKinds,
  ...cellKinds,
  ...sealKinds,
  ...testKinds,
  ...setKinds,
  ...handbackKinds,
  ...logbookKinds,
};

type KindAndPayload<K extends EntryKind> = Pick<EntryOf<K>, 'kind' | 'payload'>;
/** What is told of something, without who, when and where. */
type AnyKindAndPayload = { [K in EntryKind]: KindAndPayload<K> }[EntryKind];

function kindOf<K extends EntryKind>(entry: Pick<EntryOf<K>, 'kind'>): FactKind<K, Payloads[K], JobFacts> {
  return kinds[entry.kind];
}

function wordsOf<K extends EntryKind>(entry: KindAndPayload<K>): string {
  return kindOf<K>(entry).words(entry.payload);
}

/** Every fact of a job of which nothing is known; its lists and maps belong to nobody. */
const NOTHING_KNOWN: JobFacts = {
  ...noArriveFacts(),
  ...noOpenFacts(),
  ...noIdentifyFacts(),
  ...noCheckFacts(),
  ...noCellFacts(),
  ...noSealFacts(),
  ...noTestFacts(),
  ...noSetFacts(),
  ...noHandbackFacts(),
  ...noLogbookFacts(),
};

/** A list, map or set of the same kind, empty; anything else as it is. */
function emptied<T>(value: T): T {
  if (Array.isArray(value)) return [] as T;
  if (value instanceof Set) return new Set() as T;
  return value instanceof Map ? (new Map() as T) : value;
}

function renew<K extends keyof JobFacts>(facts: JobFacts, name: K): void {
  facts[name] = emptied(NOTHING_KNOWN[name]);
}

const HELD = (Object.keys(NOTHING_KNOWN) as (keyof JobFacts)[]).filter(
  (name) => NOTHING_KNOWN[name] !== emptied(NOTHING_KNOWN[name]),
);

/** A job of which nothing is known. Copied from one: put together of its stages anew it would take longer than a fold. */
export function noFacts(): JobFacts {
  const facts = { ...NOTHING_KNOWN };
  for (const name of HELD) renew(facts, name);
  return facts;
}

/** An entry in a few words, e.g. `fitted: SR621SW, lot N-204`. */
export function entryInWords(entry: AnyKindAndPayload): string {
  return wordsOf(entry);
}

/** Whether the entry, coming after the signature, reopens the job. */
export function reopens(entry: Entry): boolean {
  return kindOf(entry).afterSigning === 'reopens';
}

/** Puts one entry into the facts. */
export function foldEntry(facts: JobFacts, entry: Entry, standsFor: StandsFor): void {
  kindOf(entry).fold(facts, entry, standsFor);
}
