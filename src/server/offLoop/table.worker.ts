import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
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

const say = (says: TableSays): void => parentPort?.postMessage(JSON.stringify(says));

function linesIn(bytes: Uint8Array): number {
  let lines = 1;
  for (const byte of bytes) if (byte === NEWLINE) lines += 1;
  return lines;
}

async function read({ path, table: name, catalogue, mostLines }: TableTask): Promise<void> {
  const bytes = readFileSync(path);
  const lines = linesIn(bytes);
  const table = CATALOGUE_TABLES.find((each) => each.name === name);
  // One for the heading, one for the end of the last line.
  if (!table || lines > mostLines + 2) return say({ tooManyLines: lines });
  const reading = readTable(table, bytes.toString('utf8'), openBook(catalogue));
  let step = await reading.next();
  while (!step.done) {
    say({ progress: step.value });
    step = await reading.next();
  }
  const { report, bodies } = step.value;
  for (let at = 0; at < bodies.length; at += AT_ONCE) say({ bodies: bodies.slice(at, at + AT_ONCE) });
  say({ report });
}

await read(workerData as TableTask);
