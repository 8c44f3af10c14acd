import { readFileSync } from 'node:fs';
import { CATALOGUE_TABLES, type ImportReport } from '../../contract';
import { type Catalogue, openBook } from '../../core/craft/book';
import { type Progress, readTable, type RecordBody } from '../catalogue/tables';

export interface TableTask {
  readonly path: string;
  readonly table: string;
  /** The book it is read against. */
  readonly catalogue: Catalogue;
  readonly mostLines: number;
}

export type TableSays =
  | { readonly tooManyLines: number }
  | { readonly progress: Progress }
  | { readonly bodies: readonly RecordBody[] }
  | { readonly report: ImportReport };

/** So many records are handed over at once: who takes them answers others in between. */
const AT_ONCE = 500;
const NEWLINE = 0x0a;

function linesIn(bytes: Uint8Array): number {
  let lines = 1;
  for (const byte of bytes) if (byte === NEWLINE) lines += 1;
  return lines;
}

/** Reads a table of the book from a file on disk, saying how far it is, then the records that differ, then the report. */
export async function* readTableAt({
  path,
  table: name,
  catalogue,
  mostLines,
}: TableTask): AsyncGenerator<TableSays> {
  const bytes = readFileSync(path);
  const lines = linesIn(bytes);
  const table = CATALOGUE_TABLES.find((each) => each.name === name);
  // One for the heading, one for the end of the last line.
  if (!table || lines > mostLines + 2) {
    yield { tooManyLines: lines };
    return;
  }
  const reading = readTable(table, bytes.toString('utf8'), openBook(catalogue));
  let step = await reading.next();
  while (!step.done) {
    yield { progress: step.value };
    step = await reading.next();
  }
  const { report, bodies } = step.value;
  for (let at = 0; at < bodies.length; at += AT_ONCE) yield { bodies: bodies.slice(at, at + AT_ONCE) };
  yield { report };
}
