import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import { RECORDS, recordOf, tablesOf } from '../../contract';
import type { CellRow } from '../../core/craft/cells';
import { here } from '../here';

/** The standard cell table that ships with the application, in the columns in which the book is exported. */
export function readShippedCells(): CellRow[] {
  const [table] = tablesOf('cell');
  const rows = parse<Record<string, string>>(readFileSync(here(import.meta.url, 'catalogue', 'cells.csv')), {
    columns: true,
    skip_empty_lines: true,
  });
  return rows.map((row) =>
    RECORDS.cell.schema.parse(
      recordOf(
        table,
        table.columns.map(({ name }) => row[name]),
      ),
    ),
  );
}
