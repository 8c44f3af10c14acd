import { CATALOGUE_KINDS, type CatalogueKind } from '../../core/craft/book';
import type { AnyField, AnyFields } from '../describe';
import { fieldsOfKind, RECORDS } from './records';

/** How a value stands in a CSV field. Lists are parted by `|`; an empty field is nothing. */
type ColumnKind = 'text' | 'number' | 'list' | 'numbers' | 'flag' | 'text or nothing';

export interface Column {
  /** The heading of the file. */
  readonly name: string;
  /** Where it stands in the record, e.g. `widthMm` or `charge.kitCode`. */
  readonly key: string;
  readonly kind: ColumnKind;
  /** The program learnt it later: a file written before need not have it, and what stands there stays. */
  readonly later: boolean;
  /** An empty field says nothing: what stands in the book stays. */
  readonly keeps: boolean;
}

export interface CatalogueTable {
  readonly name: string;
  readonly kind: CatalogueKind;
  /** The list of the record whose lines the file holds; null for the record itself. */
  readonly within: string | null;
  readonly columns: readonly Column[];
}

/** `widthMm` → `width_mm`, `charge.kitCode` → `charge_kit_code`. */
function heading(key: string): string {
  return key
    .replaceAll('.', '_')
    .replace(/([a-z0-9])([A-Z])/g, '$1_$2')
    .toLowerCase();
}

/** The heading under which a line of a nested table names its record. */
export const OWNER_COLUMN = 'of';

function columnKind(field: AnyField): ColumnKind {
  switch (field.as) {
    case 'text':
    case 'mono':
    case 'choice':
    case 'maker':
      return 'text';
    case 'text or nothing':
    case 'choice or nothing':
      return 'text or nothing';
    case 'number':
    case 'figure choice':
    case 'money':
      return 'number';
    case 'lines':
    case 'several':
      return 'list';
    case 'numbers':
      return 'numbers';
    case 'tick':
      return 'flag';
    case 'parts':
    case 'part or nothing':
      throw new TypeError(`${field.label}: a part cannot be a column.`);
  }
}

/** The columns of these fields: a part that is there or not lies flat beside them, lists of parts are left out. */
function columnsOf(fields: AnyFields, before = '', partIsLater = false): Column[] {
  return Object.entries(fields).flatMap(([name, field]) => {
    const key = `${before}${name}`;
    const later = field.later || partIsLater;
    if (field.as === 'parts') return [];
    if (field.as === 'part or nothing') return columnsOf(field.fields, `${key}.`, later);
    const own = columnKind(field);
    // In a part that may not be there an empty text is nothing, so that the part can be told to be missing.
    const kind = before !== '' && own === 'text' ? 'text or nothing' : own;
    const mustBe = kind === 'flag' || (field.as === 'number' && !field.optional);
    return [{ name: heading(key), key, kind, later, keeps: field.later && mustBe }];
  });
}

/** The files that hold the records of a kind: one for the records, one for each list of parts. */
export function tablesOf(kind: CatalogueKind): readonly [CatalogueTable, ...CatalogueTable[]] {
  const fields = fieldsOfKind(kind);
  return [
    { name: RECORDS[kind].table, kind, within: null, columns: columnsOf(fields) },
    ...Object.entries(fields).flatMap(([within, field]) =>
      field.as === 'parts' ? [{ name: field.table, kind, within, columns: columnsOf(field.fields) }] : [],
    ),
  ];
}

/** The files of the catalogue: one a table, nested data in files of its own. */
export const CATALOGUE_TABLES: readonly CatalogueTable[] = CATALOGUE_KINDS.flatMap(tablesOf);

/** What a line of a file may be silent about in a record that is new: lists that have a file of their own, and what came later. */
export function silentFields(kind: CatalogueKind): object {
  return Object.fromEntries(
    Object.entries(fieldsOfKind(kind)).flatMap(([name, field]) =>
      field.later || field.as === 'parts' ? [[name, field.blank]] : [],
    ),
  );
}

const SEPARATOR = '|';

/** A value as it stands in the file. */
export function writeField(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map(String).join(` ${SEPARATOR} `);
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** A field of the file as a value of the record. What is no number stays NaN, for the schema to name. */
export function readField(kind: ColumnKind, field: string): unknown {
  const text = field.trim();
  const figure = (each: string): number => (each === '' ? Number.NaN : Number(each.replace(',', '.')));
  const list = (): string[] => (text === '' ? [] : text.split(SEPARATOR).map((each) => each.trim()));
  switch (kind) {
    case 'number':
      return text === '' ? null : figure(text);
    case 'list':
      return list();
    case 'numbers':
      return list().map(figure);
    case 'flag':
      return text === 'yes' ? true : text === 'no' ? false : text;
    case 'text or nothing':
      return text === '' ? null : text;
    case 'text':
      return text;
  }
}

/** The value at a key of a record, `charge.kitCode` included. */
export function valueAt(record: unknown, key: string): unknown {
  return key
    .split('.')
    .reduce<unknown>((value, step) => (value as Record<string, unknown> | null | undefined)?.[step], record);
}

/**
 * A record from the fields of its line; a part of which every field is empty is nothing. A field that is undefined is
 * one the file has no column for: the record does not speak of it.
 */
export function recordOf(
  table: CatalogueTable,
  fields: readonly (string | undefined)[],
): Record<string, unknown> {
  const record: Record<string, unknown> = {};
  table.columns.forEach(({ key, kind, keeps }, index) => {
    const field = fields[index];
    if (field === undefined || (keeps && field.trim() === '')) return;
    const value = readField(kind, field);
    const [part, inner] = key.split('.') as [string, string | undefined];
    if (inner === undefined) record[part] = value;
    else record[part] = { ...(record[part] as object | undefined), [inner]: value };
  });
  for (const [part, value] of Object.entries(record)) {
    if (value !== null && typeof value === 'object' && !Array.isArray(value)) {
      if (Object.values(value).every((each) => each === null || (Array.isArray(each) && each.length === 0)))
        record[part] = null;
    }
  }
  return record;
}
