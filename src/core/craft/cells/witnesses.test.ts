import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import type { CellType } from './types';
import { saidTogether, liesInWell, weighWitnesses } from './witnesses';
import { lookAlikesHere } from './lookAlikes';
import { openFinder } from './finder';
import { wantedFromType } from './crossReference';
const cell = (name: string): CellType => {
  const type = book.cell(name);
  if (!type) throw new Error(name);
  return type;
};
const place = (name: string) => wantedFromType(cell(name), { drain: 'low' });
const none = { book: null, print: null, found: null, well: null };
const weigh = (question: Partial<Parameters<typeof weighWitnesses>[0]>) =>
  weighWitnesses({ ...none, ...question }, book.cellTable);

describe('evidence combined', () => {
  it('hears nobody, or one alone, and says so', () => {
    expect(weigh({})).toMatchObject({ verdict: 'no witness', code: null });
    const alone = weigh({ book: place('SR621SW') });
    expect(alone).toMatchObject({ verdict: 'one witness', code: 'SR621SW' });
    expect(saidTogether(alone)).toBeNull();
    expect(saidTogether({ ...alone, verdict: 'they agree' })).toBe('SR621SW');
  });

  it('agrees where sizes and voltages do, whatever the names', () => {
    expect(weigh({ book: place('SR621SW'), found: cell('AG1'), print: cell('363') })).toMatchObject({
      verdict: 'they agree',
      code: 'SR621SW',
    });
  });

  it('says that the last hand took a look-alike, and how to tell', () => {
    const said = weigh({ book: place('SR621SW'), found: cell('SR521SW') });
    expect(said).toMatchObject({ verdict: 'one differs', code: 'SR621SW' });
    expect(said.said.filter(({ agrees }) => !agrees).map(({ kind }) => kind)).toEqual(['cell found']);
    expect(said.reasons.join(' ')).toContain('easily confused');
    expect(said.howToTell.join(' ')).toContain('Measure across the well');
  });

  it('says that the book is probably for another movement where cell, print and well speak against it', () => {
    const said = weigh({
      book: place('SR616SW'),
      print: cell('SR621SW'),
      found: cell('364'),
      well: { diameterMm: 7.05, depthMm: 2.3 },
    });
    expect(said).toMatchObject({ verdict: 'one differs', code: 'SR621SW' });
    expect(said.reasons.join(' ')).toContain('another revision');
  });

  it('cannot tell from two that disagree and are unlike, and names the measure that would', () => {
    const said = weigh({ book: place('SR626SW'), found: cell('CR1216') });
    expect(said).toMatchObject({ verdict: 'cannot tell', code: null });
    expect(said.howToTell.join(' ')).toContain('depth of the well');
    expect(
      weigh({ book: place('SR626SW'), found: cell('CR1216'), well: { diameterMm: 7, depthMm: 2.8 } }),
    ).toMatchObject({ verdict: 'one differs', code: 'SR626SW' });
  });

  it('doubts the caliper where all others agree', () => {
    const said = weigh({
      book: place('SR621SW'),
      print: cell('SR621SW'),
      found: cell('SR621SW'),
      well: { diameterMm: 7, depthMm: 1.7 },
    });
    expect(said).toMatchObject({ verdict: 'one differs', code: 'SR621SW' });
    expect(said.reasons.join(' ')).toContain('measured wrongly');
  });

  it('lets every cell lie in a well made for it, and none 0.5 mm thicker', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...book.cellTable.types.filter(({ diameterMm }) => diameterMm !== null)),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        ({ diameterMm, heightMm }, across, deep) => {
          const size = { diameterMm: diameterMm ?? 0, heightMm: heightMm ?? 0 };
          const well = { diameterMm: size.diameterMm + across, depthMm: size.heightMm + deep };
          return (
            liesInWell(size, well) && !liesInWell({ ...size, heightMm: size.heightMm + deep + 0.5 }, well)
          );
        },
      ),
    );
  });

  it('never gives a cell that no witness named or measured', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...book.cellTable.types),
        fc.constantFrom(...book.cellTable.types),
        fc.constantFrom(...book.cellTable.types),
        (inBook, print, found) => {
          const said = weigh({ book: wantedFromType(inBook, { drain: 'low' }), print, found });
          return said.code === null || said.said.some(({ says, agrees }) => agrees && says === said.code);
        },
      ),
    );
  });
});

describe('look-alikes here', () => {
  it('warns where one matters and only lists it elsewhere', () => {
    const alone = lookAlikesHere(cell('CR1216'), {}, book.cellTable);
    expect(alone.warn).toEqual([]);
    expect(alone.list.map(({ cell: { code } }) => code)).toContain('CR1612');
    const ordered = lookAlikesHere(cell('CR1216'), { ordered: [cell('CR1612')] }, book.cellTable);
    expect(ordered.warn).toMatchObject([{ cell: { code: 'CR1612' }, because: 'what was ordered' }]);
    expect(ordered.list.map(({ cell: { code } }) => code)).not.toContain('CR1612');
    expect(lookAlikesHere(cell('364'), { movement: cell('SR621SW') }, book.cellTable).warn).toEqual([]);
  });
});

describe('the finder', () => {
  const finder = openFinder(book.cellTable);
  const found = (query: Partial<Parameters<typeof finder.find>[0]>) =>
    finder.find({ name: '', diameterMm: null, heightMm: null, ...query });

  it('finds every cell first by any of its names, however it is spelt', () => {
    for (const [name, type] of book.cellTable.byName) {
      // What is no longer made is read, and not offered.
      if (!book.cellTable.types.includes(type)) continue;
      const [first] = found({ name: ` ${name.toLowerCase().split('').join('-')}` });
      expect([name, first?.cell]).toEqual([name, type]);
    }
  });

  it('puts what begins so before what holds it', () => {
    const names = found({ name: '37' }).map(({ name }) => name);
    expect(names[0]?.startsWith('37')).toBe(true);
    expect(found({ name: '626' }).map(({ cell: { code } }) => code)).toContain('SR626SW');
    expect(found({ name: 'zz' })).toEqual([]);
    expect(found({})).toEqual([]);
  });

  it('finds by what a caliper says, the nearest first, and by one measure alone', () => {
    const both = found({ diameterMm: 6.83, heightMm: 2.13 });
    expect(both[0]).toMatchObject({ cell: { diameterMm: 6.8, heightMm: 2.15 } });
    expect(both.every(({ offMm }) => offMm !== null && offMm <= 0.15)).toBe(true);
    const across = found({ diameterMm: 20.05 }).map(({ cell: { code } }) => code);
    expect(across).toEqual(expect.arrayContaining(['CR2016', 'CR2025', 'CR2032']));
    expect(found({ name: 'CR', diameterMm: 6.8 })).toEqual([]);
  });
});
