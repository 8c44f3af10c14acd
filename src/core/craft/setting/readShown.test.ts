import { readShown } from './readShown';

const TYPED = { hands: '9:42', half: null, weekday: 1, date: 17, language: null } as const;

describe('what a watch shows, as it was typed', () => {
  it('is read on the twelve hours of the dial; past noon it tells its half by itself', () => {
    expect(readShown(TYPED, true)).toEqual({
      dialMinutes: 582,
      half: null,
      weekday: 1,
      date: 17,
      language: null,
    });
    expect(readShown({ ...TYPED, hands: '12:05', half: 'a.m.' }, true)).toMatchObject({
      dialMinutes: 5,
      half: 'a.m.',
    });
    expect(readShown({ ...TYPED, hands: '21.30' }, true)).toMatchObject({ dialMinutes: 570, half: 'p.m.' });
  });
  it.each([
    { hands: '' },
    { hands: '25:00' },
    { hands: '9:75' },
    { hands: 'noon' },
    { date: null },
    { date: 32 },
    { date: 1.5 },
  ])('%j is none', (more) => expect(readShown({ ...TYPED, ...more }, false)).toBeNull());
  it('waits for the day of a watch that has one, since without it the fewest midnights would be too few', () => {
    expect(readShown({ ...TYPED, weekday: null }, true)).toBeNull();
    expect(readShown({ ...TYPED, weekday: null }, false)).toMatchObject({ weekday: null });
  });
});
