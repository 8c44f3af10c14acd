import fc from 'fast-check';
import {
  CATALOGUE_KINDS,
  type CatalogueKind,
  openBook,
  type RecordBodies,
  recordId,
  recordsIn,
} from '../../core/craft/book';
import { book } from '../../testing/fixtures';
import { fieldsOf } from '..';
import { asToday, CATALOGUE_TABLES, readField, recordOf, RECORDS, valueAt, writeField } from '.';

const LISTS = Object.fromEntries(CATALOGUE_KINDS.map((kind) => [kind, recordsIn(kind, book)])) as Record<
  CatalogueKind,
  readonly RecordBodies[CatalogueKind][]
>;

describe('records on the wire', () => {
  it.each(Object.keys(LISTS) as CatalogueKind[])('every %s of the book is one by its schema', (kind) => {
    for (const body of LISTS[kind]) {
      const parsed = RECORDS[kind].schema.safeParse(JSON.parse(JSON.stringify(body)));
      expect([recordId(body), parsed.success ? [] : fieldsOf(parsed.error)]).toEqual([recordId(body), []]);
    }
  });

  it.each(Object.keys(LISTS) as CatalogueKind[])(
    'a %s with a field too many or too few is refused',
    (kind) => {
      const body = LISTS[kind][0] as unknown as Record<string, unknown>;
      expect(RECORDS[kind].schema.safeParse({ ...body, more: 1 }).success).toBe(false);
      for (const field of Object.keys(body)) {
        const { [field]: _, ...rest } = body;
        expect([field, RECORDS[kind].schema.safeParse(rest).success]).toEqual([field, false]);
      }
    },
  );
});

describe('tables of the book', () => {
  it('hold between them every field of every record', () => {
    for (const kind of Object.keys(LISTS) as CatalogueKind[]) {
      const own = CATALOGUE_TABLES.filter((table) => table.kind === kind);
      const held = new Set(
        own.flatMap((table) =>
          table.within === null ? table.columns.map((column) => column.key.split('.')[0]) : [table.within],
        ),
      );
      expect(held).toEqual(new Set(Object.keys(LISTS[kind][0] as object)));
    }
  });

  it('have headings that nobody can confuse', () => {
    for (const table of CATALOGUE_TABLES) {
      const headings = table.columns.map((column) => column.name);
      expect(new Set(headings).size).toBe(headings.length);
      for (const heading of headings) expect(heading).toMatch(/^[a-z0-9_]+$/);
    }
    expect(new Set(CATALOGUE_TABLES.map((table) => table.name)).size).toBe(CATALOGUE_TABLES.length);
  });

  it.each(CATALOGUE_TABLES.map((table) => [table.name, table] as const))(
    '%s: what is written is read back as it was',
    (_, table) => {
      const records = LISTS[table.kind].flatMap((body) =>
        table.within === null ? [body] : (valueAt(body, table.within) as readonly object[]),
      );
      expect(records.length).toBeGreaterThan(0);
      for (const record of records) {
        const fields = table.columns.map((column) => writeField(valueAt(record, column.key)));
        const read = recordOf(table, fields);
        for (const key of Object.keys(read)) expect([key, read[key]]).toEqual([key, valueAt(record, key)]);
      }
    },
  );
});

describe('one field of a file', () => {
  it.each([
    ['number', '14.2', 14.2],
    ['number', '14,2', 14.2],
    ['number', ' 3 ', 3],
    ['number', '', null],
    ['text', ' SR621SW ', 'SR621SW'],
    ['text or nothing', '', null],
    ['text or nothing', 'AC', 'AC'],
    ['list', '', []],
    ['list', 'hands | date', ['hands', 'date']],
    ['numbers', '1.65 | 2,1', [1.65, 2.1]],
    ['flag', 'yes', true],
    ['flag', 'no', false],
    ['flag', 'maybe', 'maybe'],
  ] as const)('a %s %p is %p', (kind, field, value) => {
    expect(readField(kind, field)).toEqual(value);
  });

  it('that is no number stays none, for the schema to name', () => {
    expect(readField('number', 'wide')).toBeNaN();
    expect(readField('numbers', '1 | x')).toEqual([1, Number.NaN]);
  });

  it('reads back any list, number or flag as it was written', () => {
    const item = fc
      .string({ minLength: 1, maxLength: 12 })
      .filter((text) => text.trim() === text && !text.includes('|'));
    fc.assert(
      fc.property(
        fc.array(item, { maxLength: 6 }),
        fc.double({ noNaN: true, noDefaultInfinity: true }),
        fc.boolean(),
        (list, number, flag) => {
          expect(readField('list', writeField(list))).toEqual(list);
          expect(readField('number', writeField(number))).toEqual(Object.is(number, -0) ? 0 : number);
          expect(readField('flag', writeField(flag))).toBe(flag);
        },
      ),
    );
  });
});

describe('a part of which every field is empty', () => {
  it('is nothing: a calibre on primary cells has no charge', () => {
    const table = CATALOGUE_TABLES.find((each) => each.name === 'calibres');
    if (!table) throw new Error('no calibres');
    const read = (code: string) => {
      const calibre = openBook(book).calibres.find((each) => each.code === code);
      return recordOf(
        table,
        table.columns.map((column) => writeField(valueAt(calibre, column.key))),
      );
    };
    expect(read('OR 41.2').charge).toBeNull();
    expect(read('V-210S').charge).toMatchObject({ by: 'light', kitCode: 'KT-V21', reserveDays: 180 });
  });
});

it('an older record means what it does not know of yet, in its parts too', () => {
  const [calibre] = book.calibres;
  if (!calibre) throw new Error('no calibre');
  const { aboveCell: _, ...older } = calibre;
  const wells = calibre.wells.map(({ feeds: __, typicalUA: ___, limitUA: ____, ...well }) => well);
  const stored = { ...older, wells } as unknown as typeof calibre;
  expect(asToday('calibre', stored)).toEqual({
    ...calibre,
    aboveCell: [],
    wells: wells.map((well) => ({ ...well, feeds: [], typicalUA: null, limitUA: null })),
  });
  expect(RECORDS.calibre.schema.safeParse(asToday('calibre', stored)).success).toBe(true);
});
