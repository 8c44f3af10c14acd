import { book, idOf, lot, takenIn } from '../../../testing/fixtures';
import type { Lot } from '../../craft/stock';
import { ringOffers } from './rings';

const ring = (code: string, balance = 3): Lot => ({ ...lot, id: idOf(code), item: 'gasket', code, balance });

describe('rings of the stock', () => {
  const [size = ''] = book.gasketsOf('C2140-3').map(({ code }) => code);
  const of = (lots: readonly Lot[], chosen: string | null = null) =>
    ringOffers(takenIn('cell and reseal').state(), book, lots, chosen, '2026-03-17').map(
      ({ lot: each, ofThisCase }) => [each.code, ofThisCase],
    );

  it('come with those of the case first, and cells not at all', () => {
    expect(size).not.toBe('');
    expect(of([ring('99 × 9'), lot, ring(size)])).toEqual([
      [size, true],
      ['99 × 9', false],
    ]);
  });

  it.each([
    ['used up', ring(size, 0)],
    ['set aside', { ...ring(size), quarantined: 'sticky' }],
    ['past its date', { ...ring(size), bestBefore: '2026-03-16' }],
  ])('are left out once %s, unless one is the one chosen', (_, one) => {
    expect(of([one])).toEqual([]);
    expect(of([one], idOf(size))).toEqual([[size, true]]);
  });
});
