import { CATALOGUE_TABLES, RECORDS } from '../../../contract';
import { CATALOGUE_KINDS, type CatalogueKind } from '../../../core/craft/book';
import { book } from '../../../testing/fixtures';
import { BOOK_VIEWS, type RecordView, TOOL_VIEWS } from './records';
const RECORD_VIEWS = [...BOOK_VIEWS, ...TOOL_VIEWS];

const viewOf = (kind: CatalogueKind): RecordView => {
  const view = RECORD_VIEWS.find((each) => each.kind === kind);
  if (!view) throw new Error(kind);
  return view;
};

describe('the forms of the book', () => {
  it('are one for each kind of record, under addresses of their own', () => {
    expect(RECORD_VIEWS.map((view) => view.kind).sort()).toEqual([...CATALOGUE_KINDS].sort());
    expect(new Set(RECORD_VIEWS.map((view) => view.segment)).size).toBe(RECORD_VIEWS.length);
  });

  it.each(CATALOGUE_KINDS)('%s: a blank form is refused, a filled one taken', (kind) => {
    const view = viewOf(kind);
    expect(RECORDS[kind].schema.safeParse(view.blank).success).toBe(false);
    for (const { body } of view.listed(book)) expect(RECORDS[kind].schema.safeParse(body).success).toBe(true);
  });

  it.each(CATALOGUE_KINDS)('%s: every record has a name and its columns say something', (kind) => {
    const view = viewOf(kind);
    for (const { id, name, says } of view.listed(book)) {
      expect(name.length).toBeGreaterThan(0);
      expect(says).toHaveLength(view.heads.length);
      for (const text of says)
        expect([id, text]).toEqual([id, expect.not.stringMatching(/undefined|NaN|\[object/)]);
    }
  });

  it('offer every table the program knows, each once', () => {
    expect(RECORD_VIEWS.flatMap((view) => view.tables).sort()).toEqual(
      CATALOGUE_TABLES.map((table) => table.name).sort(),
    );
  });
});
