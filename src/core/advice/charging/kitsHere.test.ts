import { book, context, idOf, lot, takenIn } from '../../../testing/fixtures';
import type { Lot } from '../../craft/stock';
import { needsOf } from '../arrival';
import { kitLots, kitsHere } from './kitsHere';
import { chargesItself } from './renewal';

const DAY = '2026-03-17';
const kits = (name: string, change: Partial<Lot> = {}): Lot => ({
  ...lot,
  id: idOf(name),
  item: 'kit',
  code: 'KT-V21',
  lotCode: name,
  balance: 2,
  bestBefore: null,
  ...change,
});
const charge = book.calibre('vessarin-210s')?.charge;

describe('the kits of a movement in this shop', () => {
  const here = (...lots: Lot[]) => {
    if (!charge) throw new Error('no charge');
    return kitsHere(charge, lots, DAY)[0];
  };

  it('counts what can be used, however it is written, and takes first what ends first', () => {
    const answer = here(
      kits('A'),
      kits('B', { bestBefore: '2027-01-31', code: 'kt v21' }),
      kits('C', { bestBefore: '2026-09-30' }),
      kits('other', { code: 'KT-V33' }),
      kits('a cell', { item: 'cell' }),
    );
    expect(answer).toMatchObject({ kitCode: 'KT-V21', left: 6, aside: [] });
    expect(answer?.lots.map(({ lotCode }) => lotCode)).toEqual(['C', 'B', 'A']);
  });

  it('counts nothing that was set aside, is past its date or used up, and says which', () => {
    const answer = here(
      kits('A', { quarantined: 'tabs bent' }),
      kits('B', { bestBefore: '2026-03-16' }),
      kits('C', { balance: 0 }),
    );
    expect(answer).toMatchObject({ left: 0, lots: [] });
    expect(answer?.aside).toEqual([
      'Lot A of KT-V21 is in quarantine: tabs bent.',
      'Lot B of KT-V21 is past its best-before date (16 Mar 2026).',
    ]);
    expect(kitLots([kits('A', { quarantined: 'tabs bent' }), kits('D')], null, DAY)).toHaveLength(1);
  });

  it('is available only where it can be used', () => {
    const need = (one: Lot) =>
      needsOf({
        state: takenIn('recharge or new accumulator', 'vessarin-210s').state(),
        history: null,
        book,
        lots: [one],
        records: [],
        policy: context.policy,
        day: DAY,
      }).find(({ of }) => of === 'cell');
    expect(need(kits('A'))?.status).toBe('available');
    expect(need(kits('A', { quarantined: 'tabs bent' }))?.status).toBe('not available');
    expect(need(kits('A', { bestBefore: '2026-03-16' }))).toMatchObject({
      status: 'not available',
      order: { what: 'kit KT-V21', count: 1 },
    });
  });
});

describe('whether a watch charges itself', () => {
  it('is told by the book, and where that is silent by a charge that brought it to run', () => {
    expect(chargesItself(takenIn('cell only', 'vessarin-210s').state())).toBe(true);
    expect(chargesItself(takenIn('cell only').state())).toBe(false);
    const nobodys = takenIn('cell only', null);
    nobodys.add('cell.charged', { by: 'charger', hours: 2, outcome: 'does not run' });
    expect(chargesItself(nobodys.state())).toBe(false);
    nobodys.add('cell.charged', { by: 'charger', hours: 2, outcome: 'low-supply steps' });
    expect(chargesItself(nobodys.state())).toBe(true);
  });
});
