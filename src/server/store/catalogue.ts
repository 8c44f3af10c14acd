import { asToday, type BookHead, type RecordRevision } from '../../contract';
import {
  type Book,
  type CatalogueKind,
  type HeldRecords,
  holdRecords,
  openBook,
  type RecordChange,
  recordId,
  type RecordBodies,
} from '../../core/craft/book';
import type { Clock } from './clock';
import { type Db, inTransaction } from './database';

function toBody<K extends CatalogueKind>(kind: K, stored: string): RecordBodies[K] {
  return asToday(kind, JSON.parse(stored) as RecordBodies[K]);
}

export type RecordWritten =
  { readonly outcome: 'written'; readonly revision: number } | { readonly outcome: 'moved on' };

interface RevisionRow {
  readonly revision: number;
  readonly body: string;
  readonly removed: 0 | 1;
  readonly technicianId: string | null;
  readonly recordedAt: string;
}

/** A record as somebody wrote it, resting on the revision they saw; null for a new one. */
interface Written {
  readonly kind: CatalogueKind;
  readonly id: string;
  readonly body: object;
  readonly removed: boolean;
  readonly basedOn: number | null;
  readonly technicianId: string;
}

interface ChangedRow {
  readonly revision: number;
  readonly kind: CatalogueKind;
  readonly id: string;
  readonly body: string;
  readonly removed: 0 | 1;
}

/** The catalogue: every record with its revisions, the newest of each making the book of today. */
export interface CatalogueStore {
  /** Writes records, all or none. */
  write<K extends CatalogueKind>(
    kind: K,
    bodies: readonly RecordBodies[K][],
    technicianId?: string | null,
  ): void;
  /** Writes one record, if its newest revision is still the one its writer saw. */
  revise(given: Written): RecordWritten;
  /** Every revision of a record, the newest first. */
  history(kind: CatalogueKind, id: string): RecordRevision[];
  /** The book of today, its look-ups built once per revision. */
  book(): Book;
  /**
   * What changed since a revision, which is known again by its mark: of a book that was another one then, and where none is
   * named, everything.
   */
  since(
    revision: number,
    mark: string,
  ): { readonly head: BookHead; readonly changes: Iterable<RecordChange> };
}

function statementsOf(db: Db) {
  const insert = db.prepare<[string, string, string, 0 | 1, string | null, string]>(
    'INSERT INTO catalogue_record (kind, record_id, body, removed, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?)',
  );
  const changedSince = db.prepare<[number], ChangedRow>(
    `SELECT revision, kind, record_id AS id, body, removed FROM catalogue_record AS written
     WHERE revision > ? AND NOT EXISTS (
       SELECT 1 FROM catalogue_record AS later
       WHERE later.kind = written.kind AND later.record_id = written.record_id AND later.revision > written.revision)
     ORDER BY revision`,
  );
  const markOf = db
    .prepare<[number], string>(
      "SELECT recorded_at || ' ' || kind || ' ' || record_id FROM catalogue_record WHERE revision = ?",
    )
    .pluck();
  const revision = db.prepare<[], number | null>('SELECT max(revision) FROM catalogue_record').pluck();
  const revisionsOf = db.prepare<[string, string], RevisionRow>(
    `SELECT revision, body, removed, technician_id AS technicianId, recorded_at AS recordedAt
     FROM catalogue_record WHERE kind = ? AND record_id = ? ORDER BY revision DESC`,
  );
  const newestOf = db
    .prepare<[string, string], number | null>(
      'SELECT max(revision) FROM catalogue_record WHERE kind = ? AND record_id = ?',
    )
    .pluck();
  return { insert, changedSince, markOf, revision, revisionsOf, newestOf };
}

export function catalogueStore(db: Db, clock: Clock): CatalogueStore {
  const { insert, changedSince, markOf, revision, revisionsOf, newestOf } = statementsOf(db);
  let open: Book | null = null;
  let held = holdRecords();
  /** Within a transaction that wrote: it may yet be rolled back. */
  let within: Book | null = null;

  const changes = (since: number): RecordChange[] =>
    changedSince.all(since).map(({ kind, id, body, removed, ...row }) => ({
      revision: row.revision,
      kind,
      id,
      body: removed === 1 ? null : toBody(kind, body),
    }));
  /** The book at a revision, and what it holds: only what changed since the open one is read and parsed. */
  const upTo = (now: number): readonly [Book, HeldRecords] => {
    const next = holdRecords();
    const known = open !== null && open.revision <= now ? open.revision : 0;
    if (known > 0) next.take(held.all());
    next.take(changes(known));
    return [openBook(next.catalogue(now)), next];
  };
  const put = (
    kind: CatalogueKind,
    id: string,
    body: object,
    removed: boolean,
    by: string | null,
  ): number => {
    within = null;
    const { lastInsertRowid } = insert.run(
      kind,
      id,
      JSON.stringify(body),
      removed ? 1 : 0,
      by,
      clock.nowUtc(),
    );
    return Number(lastInsertRowid);
  };

  return {
    write: inTransaction(
      db,
      <K extends CatalogueKind>(
        kind: K,
        bodies: readonly RecordBodies[K][],
        technicianId: string | null = null,
      ) => {
        for (const body of bodies) put(kind, recordId(body), body, false, technicianId);
      },
    ),
    revise: inTransaction(db, (given: Written): RecordWritten => {
      if ((newestOf.get(given.kind, given.id) ?? null) !== given.basedOn) return { outcome: 'moved on' };
      const written = put(given.kind, given.id, given.body, given.removed, given.technicianId);
      return { outcome: 'written', revision: written };
    }),
    history: (kind: CatalogueKind, id: string): RecordRevision[] =>
      revisionsOf
        .all(kind, id)
        .map((row) => ({ ...row, body: toBody(kind, row.body), removed: row.removed === 1 })),
    book() {
      const now = revision.get() ?? 0;
      // Never older than the database, whoever wrote there.
      if (open?.revision === now) return open;
      if (db.inTransaction) {
        if (within?.revision !== now) [within] = upTo(now);
        return within;
      }
      [open, held] = upTo(now);
      return open;
    },
    since(from, mark) {
      const { revision: now } = this.book();
      const known = from > 0 && from <= now && markOf.get(from) === mark ? from : 0;
      return {
        head: { revision: now, mark: markOf.get(now) ?? '', since: known },
        changes: known > 0 ? changes(known) : held.all(),
      };
    },
  };
}
