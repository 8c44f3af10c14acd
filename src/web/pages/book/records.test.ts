import { CATALOGUE_TABLES, recordSchemas } from '../../../contract';
import { CATALOGUE_KINDS, type CatalogueKind } from '../../../core/craft/book';
import { book } from '../../../testing/fixtures';
import { type AnyRecordView, BOOK_VIEWS, type FieldSpec, recordsOf, TOOL_VIEWS } from './records';
const RECORD_VIEWS = [...BOOK_VIEWS, ...TOOL_VIEWS];

const viewOf = (kind: CatalogueKind): AnyRecordView => {
  const view = RECORD_VIEWS.find((each) => each.kind === kind);
  if (!view) throw new Error(kind);
  return view;
};

describe('the forms of the book', () => {
  it('are one for each kind of record, under addresses of their own', () => {
    expect(RECORD_VIEWS.map((view) => view.kind).sort()).toEqual([...CATALOGUE_KINDS].sort());
    expect(new Set(RECORD_VIEWS.map((view) => view.segment)).size).toBe(RECORD_VIEWS.length);
  });

  it.each(CATALOGUE_KINDS)('%s: asks for every field of its record, and starts with each of them', (kind) => {
    const view = viewOf(kind);
    const [first] = view.records(book);
    const fields = Object.keys(first ?? {}).sort();
    expect(view.fields.map((field) => field.name).sort()).toEqual(fields);
    expect(Object.keys(view.blank).sort()).toEqual(fields);
  });

  it.each(CATALOGUE_KINDS)('%s: a part added to a form is whole but for what must be typed', (kind) => {
    const inner = (spec: FieldSpec): void => {
      if (spec.as !== 'parts' && spec.as !== 'part or nothing') return;
      expect(Object.keys(spec.blank).sort()).toEqual(spec.fields.map((field) => field.name).sort());
      spec.fields.forEach(inner);
    };
    viewOf(kind).fields.forEach(inner);
  });

  it.each(CATALOGUE_KINDS)('%s: a blank form is refused, a filled one taken', (kind) => {
    const view = viewOf(kind);
    expect(recordSchemas[kind].safeParse(view.blank).success).toBe(false);
    for (const { body } of recordsOf(view, book))
      expect(recordSchemas[kind].safeParse(body).success).toBe(true);
  });

  it.each(CATALOGUE_KINDS)('%s: every record has a name and its columns say something', (kind) => {
    const view = viewOf(kind);
    for (const { id, body } of recordsOf(view, book)) {
      expect(view.name(body as never).length).toBeGreaterThan(0);
      for (const column of view.columns)
        expect([id, column.head, column.of(body as never, book)]).toEqual([
          id,
          column.head,
          expect.not.stringMatching(/undefined|NaN|\[object/),
        ]);
    }
  });

  it('offer every table the program knows, each once', () => {
    expect(RECORD_VIEWS.flatMap((view) => view.tables).sort()).toEqual(
      CATALOGUE_TABLES.map((table) => table.name).sort(),
    );
  });
});
