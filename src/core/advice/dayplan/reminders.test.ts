import fc from 'fast-check';
import { addDays } from '../../craft/time';
import { dueWords, isToRemind, remindedOf, remindFrom } from './reminders';

describe('whom the shop reminds', () => {
  it.each([
    ['2026-04-17', true],
    ['2026-04-18', false],
    ['2026-03-17', true],
    ['2025-09-17', true],
    ['2025-09-16', false],
    ['no date', false],
  ])('a visit due on %s: %p', (dueOn, is) => {
    expect(isToRemind(dueOn, '2026-03-17')).toBe(is);
  });

  it('a visit at the end of a month is reminded of at the end of the month before', () => {
    expect(remindFrom('2026-03-31')).toBe('2026-02-28');
    expect(isToRemind('2026-03-31', '2026-02-28')).toBe(true);
  });

  it('lies between the days that are looked up', () => {
    const day = fc.integer({ min: 0, max: 4000 }).map((days) => addDays('2020-01-01', days));
    fc.assert(
      fc.property(day, day, (dueOn, today) => {
        const { from, to } = remindedOf(today);
        if (isToRemind(dueOn, today)) expect(from <= dueOn && dueOn <= to).toBe(true);
      }),
    );
  });

  it.each([
    ['2026-04-14', 'due on 14 Apr 2026, in 4 weeks'],
    ['2026-03-24', 'due on 24 Mar 2026, in 1 week'],
    ['2026-03-19', 'due on 19 Mar 2026, in 2 d'],
    ['2026-03-17', 'due on 17 Mar 2026, today'],
    ['2026-03-03', 'due on 3 Mar 2026, 2 weeks ago'],
  ])('%s is told', (dueOn, words) => {
    expect(dueWords(dueOn, '2026-03-17')).toBe(words);
  });
});
