import type { Catalogue } from './book';
import { type CatalogueKind, catalogueOf, type RecordBodies } from './records';

/** A record as it was written last, or that it was removed then. */
export interface RecordChange {
  readonly revision: number;
  readonly kind: CatalogueKind;
  readonly id: string;
  /** Null: it was removed. */
  readonly body: RecordBodies[CatalogueKind] | null;
}

/** The records of a book as they are held somewhere, brought up to date by what changed. */
export interface HeldRecords {
  /** Takes in changes, those of earlier revisions first. */
  take(changes: Iterable<RecordChange>): void;
  /** The catalogue of what is held: the records of each kind in the order in which they were written last. */
  catalogue(revision: number): Catalogue;
  /** Everything that is held, each with the revision it was written at. */
  all(): Iterable<RecordChange>;
}

/** Holds the records of a book, none at first. */
export function holdRecords(): HeldRecords {
  const held = new Map<CatalogueKind, Map<string, RecordChange>>();
  const of = (kind: CatalogueKind): Map<string, RecordChange> => {
    const known = held.get(kind) ?? new Map<string, RecordChange>();
    held.set(kind, known);
    return known;
  };
  return {
    take(changes) {
      for (const change of changes) {
        const records = of(change.kind);
        // Written anew, a record goes behind those of its kind.
        records.delete(change.id);
        if (change.body !== null) records.set(change.id, change);
      }
    },
    catalogue: (revision) =>
      catalogueOf(revision, <K extends CatalogueKind>(kind: K) =>
        // What is held under a kind is of that kind.
        [...of(kind).values()].map(({ body }) => body as RecordBodies[K]),
      ),
    *all() {
      for (const records of held.values()) yield* records.values();
    },
  };
}
