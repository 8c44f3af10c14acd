import { book, idOf, lot } from '../../../testing/fixtures';
import { wantedFromType } from '../cells';
import { chooseLots } from './whatToFit';
import { isPastDate, type Lot, lotAge } from './lots';
describe('which lot to take', () => {
  const wanted = wantedFromType(book.cell('SR621SW') as never, { drain: 'low' }) as never;
  const choose = (lots: Lot[]) =>
    chooseLots(lots, wanted, book.cell, '2026-03-17', { alkalineAgreed: false });
  const other = (name: string, change: Partial<Lot>): Lot => ({
    ...lot,
    id: idOf(name),
    lotCode: name,
    ...change,
  });

  it('takes the oldest in date of the equal cell before an accepted one', () => {
    const offers = choose([
      other('new', { bestBefore: '2029-01-01' }),
      other('high', { code: 'SR621W', bestBefore: '2027-01-01' }),
      other('old', { bestBefore: '2027-06-01' }),
    ]);
    expect(offers.filter((offer) => offer.verdict === 'take').map((offer) => offer.lot.lotCode)).toEqual([
      'old',
      'new',
      'high',
    ]);
  });

  it('blocks what is past its date or not the cell, each with its reason, and leaves out what is used up', () => {
    const offers = choose([
      other('past', { bestBefore: '2026-03-16' }),
      other('empty', { balance: 0 }),
      other('alkaline', { code: 'LR621' }),
      other('unrelated', { code: 'CR2016' }),
    ]);
    expect(offers.every((offer) => offer.verdict === 'blocked')).toBe(true);
    expect(offers.some((offer) => offer.lot.lotCode === 'empty')).toBe(false);
    expect(choose([other('to count', { balance: 0, toBeCounted: true })])[0]).toMatchObject({
      verdict: 'blocked',
      reasons: ['None left.'],
    });
    expect(offers.map((offer) => offer.reasons[0])).toEqual(
      expect.arrayContaining([
        expect.stringContaining('Past its best-before date'),
        expect.stringContaining('Alkaline'),
      ]),
    );
    expect(offers.some((offer) => offer.lot.lotCode === 'unrelated')).toBe(false);
  });

  it('is usable on the very day printed', () => {
    expect(isPastDate({ bestBefore: '2026-03-17' }, '2026-03-17')).toBe(false);
  });

  it('works the age back from best before, and says it is assumed', () => {
    const cell = book.cell('SR621SW') as never;
    expect(lotAge({ madeOn: null, bestBefore: '2028-03-17' }, cell, '2026-03-17')).toMatchObject({
      assumed: true,
      years: expect.closeTo(1, 1) as number,
    });
    expect(lotAge({ madeOn: '2024-03-17', bestBefore: null }, cell, '2026-03-17')).toMatchObject({
      assumed: false,
      years: expect.closeTo(2, 1) as number,
    });
    expect(lotAge({ madeOn: null, bestBefore: null }, cell, '2026-03-17')).toEqual({
      years: null,
      assumed: true,
    });
  });
});
