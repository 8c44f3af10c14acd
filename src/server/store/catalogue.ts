import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import { type Book, type Catalogue, openBook } from '../../core/catalogue';
import type { CellRow } from '../../core/cells';
import type { Calibre, CaseType, Maker } from '../../core/movements';
import { here } from '../here';
import type { Clock } from './clock';
import type { Db } from './database';

interface Bodies {
  readonly cell: CellRow;
  readonly maker: Maker;
  readonly calibre: Calibre;
  readonly caseType: CaseType;
}
export type CatalogueKind = keyof Bodies;

/** The standard cell table that ships with the application, as rows of the core. */
export function readShippedCells(): CellRow[] {
  const records = parse(readFileSync(here(import.meta.url, 'catalogue', 'cells.csv')), {
    columns: true,
    skip_empty_lines: true,
  }) as Record<string, string>[];
  return records.map((row) => ({
    chemistry: row.chemistry as CellRow['chemistry'],
    iec: row.iec ?? '',
    diameterMm: Number(row.diameter_mm),
    heightMm: Number(row.height_mm),
    tradeLow: row.trade_low ?? '',
    tradeHigh: row.trade_high ?? '',
    numberLow: row.number_low ?? '',
    numberHigh: row.number_high ?? '',
    alkaline: row.alkaline ?? '',
    card: row.card ?? '',
    capacityMinMAh: Number(row.capacity_mAh_min),
    capacityMaxMAh: Number(row.capacity_mAh_max),
  }));
}

/** The catalogue: every record with its revisions, the newest of each making the book of today. */
export function catalogueStore(db: Db, clock: Clock) {
  const insert = db.prepare<[string, string, string, string]>(
    'INSERT INTO catalogue_record (kind, record_id, body, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const newest = db.prepare<[], { kind: CatalogueKind; body: string }>(
    `SELECT kind, body FROM catalogue_record
     WHERE revision IN (SELECT max(revision) FROM catalogue_record GROUP BY kind, record_id)
     ORDER BY kind, revision`,
  );
  const revision = db.prepare<[], number | null>('SELECT max(revision) FROM catalogue_record').pluck();
  let open: Book | null = null;

  const read = (): Catalogue => {
    const rows = newest.all();
    const of = <K extends CatalogueKind>(kind: K): Bodies[K][] =>
      rows.filter((row) => row.kind === kind).map((row) => JSON.parse(row.body) as Bodies[K]);
    return {
      revision: revision.get() ?? 0,
      cells: of('cell'),
      makers: of('maker'),
      calibres: of('calibre'),
      caseTypes: of('caseType'),
    };
  };

  return {
    /** Writes records, all or none. */
    write: db.transaction(
      <K extends CatalogueKind>(kind: K, records: readonly { id: string; body: Bodies[K] }[]) => {
        for (const { id, body } of records) insert.run(kind, id, JSON.stringify(body), clock.nowUtc());
        open = null;
      },
    ),
    /** The book of today, its look-ups built once per revision. */
    book(): Book {
      open ??= openBook(read());
      return open;
    },
  };
}

/** A stable id for a row of the cell table. */
export function cellRowId(row: CellRow): string {
  return `${row.chemistry}-${row.diameterMm}x${row.heightMm}`;
}
