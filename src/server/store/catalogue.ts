import { asToday, type RecordRevision } from '../../contract';
import {
  type Book,
  type Catalogue,
  catalogueOf,
  type CatalogueKind,
  openBook,
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
}

export function catalogueStore(db: Db, clock: Clock): CatalogueStore {
  const insert = db.prepare<[string, string, string, 0 | 1, string | null, string]>(
    'INSERT INTO catalogue_record (kind, record_id, body, removed, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?)',
  );
  const newest = db.prepare<[], { kind: CatalogueKind; body: string }>(
    `SELECT kind, body FROM catalogue_record
     WHERE removed = 0 AND revision IN (SELECT max(revision) FROM catalogue_record GROUP BY kind, record_id)
     ORDER BY kind, revision`,
  );
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
  let open: Book | null = null;

  const read = (): Catalogue => {
    const rows = newest.all();
    return catalogueOf(revision.get() ?? 0, (kind) =>
      rows.filter((row) => row.kind === kind).map((row) => toBody(kind, row.body)),
    );
  };
  const put = (
    kind: CatalogueKind,
    id: string,
    body: object,
    removed: boolean,
    by: string | null,
  ): number => {
    open = null;
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
      // Never older than the database, whoever wrote there.
      if (open?.revision !== (revision.get() ?? 0)) open = openBook(read());
      return open;
    },
  };
}
