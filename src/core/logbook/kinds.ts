import type { Entry, EntryKind, EntryOf, FactKind, FactKinds, JobFacts, Payloads, StandsFor } from './entry';
import { arriveFacts } from './facts/arrive';
import { cellFacts } from './facts/cell';
import { checkFacts } from './facts/check';
import { handbackFacts } from './facts/handback';
import { identifyFacts } from './facts/identify';
import { logbookFacts } from './facts/logbook';
import { openFacts } from './facts/open';
import { sealFacts } from './facts/seal';
import { setFacts } from './facts/set';
import { testFacts } from './facts/test';

const kinds: FactKinds<Payloads> = {
  ...arriveFacts,
  ...openFacts,
  ...identifyFacts,
  ...checkFacts,
  ...cellFacts,
  ...sealFacts,
  ...testFacts,
  ...setFacts,
  ...handbackFacts,
  ...logbookFacts,
};

function kindOf<K extends EntryKind>(entry: EntryOf<K>): FactKind<K> {
  // The table is keyed by kind, so the value under an entry's own kind takes that entry.
  return kinds[entry.kind] as unknown as FactKind<K>;
}

/** An entry in a few words, e.g. `fitted: SR621SW, lot N-204`. */
export function entryInWords(entry: Entry): string {
  return kindOf(entry).words(entry.payload);
}

/** Whether the entry, coming after the signature, reopens the job. */
export function reopens(entry: Entry): boolean {
  return kindOf(entry).afterSigning === 'reopens';
}

/** Puts one entry into the facts. */
export function foldEntry(facts: JobFacts, entry: Entry, standsFor: StandsFor): void {
  kindOf(entry).fold(facts, entry, standsFor);
}
