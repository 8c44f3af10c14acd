import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import type { Calibre } from '../movements';
import { TOOL_KINDS } from '../tools';
import { CATALOGUE_KINDS, cellRowId, changedFields, judgeRecord, recordId, recordsIn } from './records';
import { openBook } from './openBook';
const calibre = book.calibre('quillbeck-22-4') as Calibre;
const problems = (change: Partial<Calibre>) => judgeRecord('calibre', { ...calibre, ...change }, book);
const [handsWell, displayWell] = calibre.wells;
if (!handsWell || !displayWell) throw new Error('two wells wanted');

describe('a record against the rest of the book', () => {
  it('finds nothing wrong in the book as it stands', () => {
    for (const each of book.calibres)
      expect([each.code, judgeRecord('calibre', each, book)]).toEqual([each.code, []]);
    for (const each of book.caseTypes) expect(judgeRecord('caseType', each, book)).toEqual([]);
    for (const each of book.gaskets) expect(judgeRecord('gasket', each, book)).toEqual([]);
    for (const each of book.cells) expect(judgeRecord('cell', each, book)).toEqual([]);
    for (const each of book.makers) expect(judgeRecord('maker', each, book)).toEqual([]);
    for (const kind of TOOL_KINDS)
      for (const each of recordsIn(kind, book))
        expect([each.id, judgeRecord(kind, each, book)]).toEqual([each.id, []]);
  });

  it.each<[string, Partial<Calibre>, string]>([
    ['an unknown maker', { makerId: 'nobody' }, 'makerId'],
    [
      'a cell that is in no table',
      { wells: [{ ...handsWell, cellCode: 'XY1' }, displayWell] },
      'wells.0.cellCode',
    ],
    [
      'a cell nobody knows, in a movement that is to be complete',
      { wells: [{ ...handsWell, cellCode: '' }, displayWell] },
      'wells.0.cellCode',
    ],
    ['two places of one name', { wells: [handsWell, { ...displayWell, name: handsWell.name }] }, 'wells'],
    ['a place outside the movement', { wells: [handsWell, { ...displayWell, xMm: 30 }] }, 'wells.1.xMm'],
    ['a limit under what is typical', { limitUA: (calibre.typicalUA ?? 0) / 2 }, 'limitUA'],
    ['half a coil range', { coilMinKOhm: null }, 'coilMaxKOhm'],
    ['a coil range turned round', { coilMinKOhm: 3, coilMaxKOhm: 2 }, 'coilMaxKOhm'],
    [
      'a primary cell where an accumulator is charged',
      { charge: book.calibre('vessarin-210s')?.charge ?? null },
      'wells.0.cellCode',
    ],
  ])('names %s', (_, change, path) => {
    const found = problems(change);
    expect(found.map((each) => each.path)).toContain(path);
    for (const { reason } of found) expect(reason).toMatch(/^[A-Z].{15,}\.$/);
  });

  it('takes the shop’s own without its cell until somebody knows', () => {
    const own = { shopsOwn: true, wells: [{ ...handsWell, cellCode: '' }, displayWell] };
    expect(problems(own)).toEqual([]);
    expect(problems({ ...own, wells: [{ ...handsWell, cellCode: 'XY1' }, displayWell] })).toHaveLength(1);
  });

  it('judges an oblong movement by its own outline', () => {
    const oblong = book.calibre('orrelin-47-1') as Calibre;
    const [well] = oblong.wells;
    const [widthMm, lengthMm] = [oblong.widthMm ?? 0, oblong.lengthMm ?? 0];
    if (!well) throw new Error('no well');
    const at = (xMm: number, yMm: number) =>
      judgeRecord('calibre', { ...oblong, wells: [{ ...well, xMm, yMm }] }, book).length;
    expect(at(widthMm / 2 - 0.1, lengthMm / 2 - 0.1)).toBe(0);
    expect(at(widthMm / 2 + 0.1, 0)).toBe(1);
    expect(at(0, lengthMm / 2 + 0.1)).toBe(1);
  });

  it('names a back of no kind, a case that is in no book, a capacity turned round', () => {
    const [type] = book.caseTypes;
    const [ring] = book.gaskets;
    const [cell] = book.cells;
    if (!type || !ring || !cell) throw new Error('an empty book');
    expect(judgeRecord('caseType', { ...type, backKind: 'welded' }, book)).toMatchObject([
      { path: 'backKind' },
    ]);
    expect(judgeRecord('caseType', { ...type, makerId: 'nobody' }, book)).toMatchObject([
      { path: 'makerId' },
    ]);
    expect(judgeRecord('gasket', { ...ring, caseCodes: ['Z9', type.code] }, book)).toMatchObject([
      { path: 'caseCodes', reason: expect.stringContaining('Z9') as string },
    ]);
    expect(judgeRecord('cell', { ...cell, capacityMinMAh: 9, capacityMaxMAh: 1 }, book)).toMatchObject([
      { path: 'capacityMaxMAh' },
    ]);
  });
});

describe('records and their ids', () => {
  it('stand under an id of their own, cells under their size', () => {
    const ids = CATALOGUE_KINDS.flatMap((kind) =>
      recordsIn(kind, book).map((body) => `${kind} ${recordId(body)}`),
    );
    expect(new Set(ids).size).toBe(ids.length);
    expect(new Set(ids.map((id) => id.split(' ')[0]))).toEqual(new Set(CATALOGUE_KINDS));
    const [row] = book.cells;
    if (row) expect(cellRowId(row)).toBe('silver-oxide-4.8x1.65');
  });
});

describe('what two revisions differ in', () => {
  it('is nothing for the same, and everything for a new one', () => {
    expect(changedFields(calibre, { ...calibre })).toEqual([]);
    expect(changedFields(null, { id: 'x', code: 'Y' })).toEqual([
      { field: 'id', before: '', after: 'x' },
      { field: 'code', before: '', after: 'Y' },
    ]);
  });

  it('names each field with both its values, nested ones as they are written', () => {
    expect(changedFields(calibre, { ...calibre, limitUA: 9, cautions: ['new'] })).toEqual([
      { field: 'limitUA', before: String(calibre.limitUA), after: '9' },
      { field: 'cautions', before: JSON.stringify(calibre.cautions), after: '["new"]' },
    ]);
  });

  it('turns round with its revisions', () => {
    const record = fc.dictionary(
      fc.constantFrom('a', 'b', 'c'),
      fc.oneof(fc.integer(), fc.string(), fc.constant(null)),
    );
    fc.assert(
      fc.property(record, record, (one, other) => {
        const there = changedFields(one, other).map(({ field, before, after }) =>
          [field, before, after].join('|'),
        );
        const back = changedFields(other, one).map(({ field, before, after }) =>
          [field, after, before].join('|'),
        );
        return there.sort().join('\n') === back.sort().join('\n');
      }),
    );
  });
});

describe('the rings of a case', () => {
  it('are found by its code however it is written', () => {
    expect(book.gasketsOf('c2140-3').map((ring) => ring.code)).toEqual(['30.5 × 0.70']);
    expect(book.gasketsOf('C 2140 3').map((ring) => ring.code)).toEqual(['30.5 × 0.70']);
    expect(book.gasketsOf('Z9')).toEqual([]);
    expect(openBook({ ...book, gaskets: [] }).gasketsOf('C2140-3')).toEqual([]);
  });
});
