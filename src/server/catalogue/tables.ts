import { isDeepStrictEqual } from 'node:util';
import { setImmediate } from 'node:timers/promises';
import { CsvError, parse } from 'csv-parse';
import { stringify } from 'csv-stringify/sync';
import {
  type CatalogueTable,
  fieldsOf,
  type ImportReport,
  MOST_NAMED,
  OWNER_COLUMN,
  recordOf,
  RECORDS,
  fieldsOfKind,
  silentFields,
  withLater,
  valueAt,
  writeField,
} from '../../contract';
import {
  type Book,
  type CatalogueKind,
  judgeRecord,
  openBook,
  recordId,
  type RecordBodies,
  recordsIn,
  withRecords,
} from '../../core/craft/book';

/** A record of the book of any kind. */
export type RecordBody = RecordBodies[CatalogueKind];

function headings(table: CatalogueTable): string[] {
  return [...(table.within === null ? [] : [OWNER_COLUMN]), ...table.columns.map((column) => column.name)];
}

/** A table of the book as CSV (RFC 4180), one line a record, or a line each part of one. */
export function tableCsv(table: CatalogueTable, book: Book): string {
  const line = (from: unknown): string[] =>
    table.columns.map((column) => writeField(valueAt(from, column.key)));
  const rows = recordsIn(table.kind, book).flatMap((body) =>
    table.within === null
      ? [line(body)]
      : (valueAt(body, table.within) as readonly unknown[]).map((part) => [recordId(body), ...line(part)]),
  );
  return stringify([headings(table), ...rows], { record_delimiter: '\r\n' });
}

interface Line {
  readonly number: number;
  readonly fields: readonly string[];
}

/** Every readable line of a file with its number, and every line that is not, with the reason. */
async function readLines(csv: string): Promise<{ readonly lines: Line[]; readonly errors: TableError[] }> {
  const lines: Line[] = [];
  const errors: TableError[] = [];
  const broken = (error: CsvError): void => {
    const at = typeof error.lines === 'number' ? error.lines : lines.length + 1;
    const quote = /QUOTE/.test(error.code);
    errors.push({
      line: at,
      column: null,
      reason: quote
        ? 'A quotation mark is not allowed here. Double it inside a quoted field, or remove it.'
        : 'The line cannot be read as CSV.',
    });
  };
  const parser = parse(csv, {
    bom: true,
    info: true,
    relax_column_count: true,
    skip_empty_lines: true,
    skip_records_with_error: true,
    on_skip: (error) => {
      if (error) broken(error);
    },
  });
  try {
    for await (const each of parser as AsyncIterable<{ info: { lines: number }; record: string[] }>) {
      lines.push({ number: each.info.lines, fields: each.record });
    }
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
    broken(error);
  }
  return { lines, errors };
}

export interface Progress {
  readonly done: number;
  readonly of: number;
}

/** Lines read between two words of progress; the server answers others meanwhile. */
const CHUNK = 500;

/** A record of a file over the one that stands: what the file has no column for stays, in a part of it too. */
function over(before: object | undefined, record: object): object {
  const stood = Object.entries(before ?? {});
  const said = Object.fromEntries(Object.entries(record));
  const isPart = (value: unknown): value is object =>
    value !== null && typeof value === 'object' && !Array.isArray(value);
  const parts = stood.flatMap(([name, was]) => {
    const now: unknown = said[name];
    return isPart(was) && isPart(now) ? [[name, { ...was, ...now }]] : [];
  });
  return { ...before, ...record, ...(Object.fromEntries(parts) as object) };
}

/** The part that stands under the name of a line, so that what the file does not speak of stays with it. */
function namedLike(stood: readonly { readonly name?: unknown }[], part: object): object | undefined {
  const name = valueAt(part, 'name');
  return name === undefined ? undefined : stood.find((each) => each.name === name);
}

type TableError = ImportReport['errors'][number];

/** A record of the file, and the lines it stands in. */
interface FromFile {
  readonly body: RecordBody;
  readonly lines: readonly number[];
}

/** What a file of a table is read into, line by line. */
interface Reading {
  readonly table: CatalogueTable;
  readonly known: ReadonlyMap<string, RecordBody>;
  readonly next: Map<string, FromFile>;
  /** Lines of the parts of a record, by the record they belong to. */
  readonly parts: Map<string, { readonly values: object[]; readonly lines: number[] }>;
  readonly errors: TableError[];
}

/** The column of a table a path within its record belongs to; null where it is none of them. */
function columnOf(table: CatalogueTable, path: string): string | null {
  const own = table.within === null ? path : path.replace(new RegExp(`^${table.within}\\.\\d+\\.?`), '');
  return (
    table.columns.find((column) => column.key === own)?.name ??
    table.columns.find((column) => own.startsWith(`${column.key}.`))?.name ??
    null
  );
}

function wrongAt({ table, errors }: Reading, line: number, path: string, reason: string): void {
  errors.push({ line, column: columnOf(table, path), reason });
}

/** Columns that are missing, and such as are none of this table. */
function headingError(table: CatalogueTable, given: readonly string[], line: number): TableError | null {
  const wanted = headings(table);
  const later = new Set(table.columns.flatMap((column) => (column.later ? column.name : [])));
  const missing = wanted.filter((name) => !given.includes(name) && !later.has(name));
  const unknown = given.filter((name) => !wanted.includes(name));
  if (missing.length === 0 && unknown.length === 0) return null;
  return {
    line,
    column: null,
    reason: [
      missing.length > 0 ? `Columns missing: ${missing.join(', ')}.` : '',
      unknown.length > 0 ? `Not columns of this table: ${unknown.join(', ')}.` : '',
    ]
      .filter(Boolean)
      .join(' '),
  };
}

/** A line that is part of a record of the book: kept until all of its parts are read. */
function takePart(
  { table, known, parts, errors }: Reading,
  line: number,
  fields: readonly (string | undefined)[],
): void {
  const [owner = '', ...own] = fields;
  const key = owner.trim();
  if (!known.has(key)) {
    errors.push({ line, column: OWNER_COLUMN, reason: `“${key}” is not in the book.` });
    return;
  }
  const part = parts.get(key) ?? { values: [], lines: [] };
  part.values.push(recordOf(table, own));
  part.lines.push(line);
  parts.set(key, part);
}

/** A line that is a record by itself. */
function takeRecord(reading: Reading, line: number, fields: readonly (string | undefined)[]): void {
  const { table, known, next } = reading;
  const record = recordOf(table, fields);
  const before = typeof record.id === 'string' ? known.get(record.id) : undefined;
  const today = withLater(fieldsOfKind(table.kind), { ...silentFields(table.kind), ...over(before, record) });
  const parsed = RECORDS[table.kind].schema.safeParse(today);
  if (!parsed.success) {
    for (const { path, message } of fieldsOf(parsed.error)) wrongAt(reading, line, path, message);
    return;
  }
  const id = recordId(parsed.data);
  const twin = next.get(id);
  if (twin) wrongAt(reading, line, 'id', `The same record is in line ${twin.lines[0]} too.`);
  else next.set(id, { body: parsed.data, lines: [line] });
}

/** Puts the parts read into the records they belong to. */
function joinParts(reading: Reading): void {
  const { table, known, next, parts } = reading;
  const within = table.within ?? '';
  for (const [key, part] of parts) {
    const before = known.get(key);
    const stood = (valueAt(before, within) ?? []) as readonly { readonly name?: unknown }[];
    const values = part.values.map((value) => over(namedLike(stood, value), value));
    const parsed = RECORDS[table.kind].schema.safeParse(
      withLater(fieldsOfKind(table.kind), { ...before, [within]: values }),
    );
    if (parsed.success) next.set(key, { body: parsed.data, lines: part.lines });
    else
      for (const { path, message } of fieldsOf(parsed.error)) {
        const at = Number(path.split('.')[1] ?? 0);
        wrongAt(reading, part.lines[at] ?? part.lines[0] ?? 1, path, message);
      }
  }
}

/** Judges every record of the file in the book as it would be with all of them. */
function judgeTogether(reading: Reading, book: Book): void {
  const { table, next } = reading;
  const bodies = [...next.values()].map(({ body }) => body);
  const prospective = openBook(withRecords(table.kind, bodies, book));
  for (const { body, lines: at } of next.values()) {
    for (const { path, reason } of judgeRecord(table.kind, body, prospective)) {
      const inner = table.within === null ? 0 : Number(path.split('.')[1] ?? 0);
      wrongAt(reading, at[inner] ?? at[0] ?? 1, path, reason);
    }
  }
}

/** What the records of the file change in the book. */
function changesOf({ known, next }: Reading): Pick<ImportReport, 'added' | 'changed' | 'same' | 'changes'> & {
  readonly bodies: RecordBody[];
} {
  const fresh = [...next].filter(([id]) => !known.has(id));
  const changed = [...next].filter(
    ([id, { body }]) => known.has(id) && !isDeepStrictEqual(known.get(id), body),
  );
  return {
    added: fresh.length,
    changed: changed.length,
    same: next.size - fresh.length - changed.length,
    changes: [...fresh, ...changed].slice(0, MOST_NAMED).map(([id, { body }]) => ({
      id,
      fields: Object.keys(body).filter(
        (field) => !isDeepStrictEqual(valueAt(known.get(id), field), valueAt(body, field)),
      ),
    })),
    bodies: [...fresh, ...changed].map(([, { body }]) => body),
  };
}

/**
 * Reads a table of the catalogue from CSV against the book as it stands, and says on the way how far it is. The
 * report names every bad line with its number; `bodies` are the records that differ, and empty with any error.
 * Lines are added or take the place of what stands under their id; what the file does not name stays as it is.
 */
export async function* readTable(
  table: CatalogueTable,
  csv: string,
  book: Book,
): AsyncGenerator<Progress, { report: ImportReport; bodies: RecordBody[] }> {
  const { lines, errors } = await readLines(csv);
  const unreadable = errors.length;
  const [head, ...rest] = lines;
  const given = (head?.fields ?? []).map((field) => field.trim());
  const report = (more: Partial<ImportReport>): ImportReport => ({
    table: table.name,
    dryRun: true,
    lines: rest.length + unreadable,
    added: 0,
    changed: 0,
    same: 0,
    changes: [],
    errors: errors.slice(0, MOST_NAMED),
    errorsFound: errors.length,
    linesWrong: new Set(errors.map(({ line }) => line)).size,
    applied: false,
    ...more,
  });
  const misnamed = headingError(table, given, head?.number ?? 1);
  if (misnamed !== null) {
    errors.unshift(misnamed);
    return { report: report({}), bodies: [] };
  }
  const order = headings(table).map((name) => given.indexOf(name));
  const reading: Reading = {
    table,
    known: new Map(recordsIn(table.kind, book).map((body) => [recordId(body), body])),
    next: new Map(),
    parts: new Map(),
    errors,
  };
  for (const [index, line] of rest.entries()) {
    if (index % CHUNK === 0) {
      yield { done: index, of: rest.length };
      await setImmediate();
    }
    if (line.fields.length !== given.length) {
      errors.push({
        line: line.number,
        column: null,
        reason: `${line.fields.length} fields where the heading has ${given.length}.`,
      });
      continue;
    }
    const fields = order.map((at) => (at === -1 ? undefined : (line.fields[at] ?? '')));
    (table.within === null ? takeRecord : takePart)(reading, line.number, fields);
  }
  joinParts(reading);
  yield { done: rest.length, of: rest.length };
  judgeTogether(reading, book);
  errors.sort((a, b) => a.line - b.line);
  const { bodies, ...changes } = changesOf(reading);
  return { report: report(changes), bodies: errors.length > 0 ? [] : bodies };
}
