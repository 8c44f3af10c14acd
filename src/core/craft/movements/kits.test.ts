import { book } from '../../../testing/fixtures';
import { kitsFor, reserveWith } from './kits';

const charge = book.calibre('vessarin-330r')?.charge;
if (!charge) throw new Error('no charge');

describe('the kits of a movement', () => {
  it('are its own, and a modern one where the book foresees it, with what that gains', () => {
    expect(kitsFor(charge)).toEqual([
      { kitCode: 'KT-V33', reserveDays: 90, gainDays: 0 },
      { kitCode: 'KT-V33M', reserveDays: 160, gainDays: 70 },
    ]);
    expect(kitsFor({ ...charge, upgradeKitCode: null, upgradeReserveDays: null })).toHaveLength(1);
  });

  it('give the reserve of the one that is in it, however it is written', () => {
    expect(reserveWith(charge, 'kt v33m')).toBe(160);
    expect(reserveWith(charge, 'KT-V33')).toBe(90);
    expect(reserveWith(charge, null)).toBe(90);
    expect(reserveWith(charge, 'of another')).toBe(90);
  });
});
