import fc from 'fast-check';
import { clockDistance, clockWords, turnClock, VIEWS } from './clock';

const anyClock = fc.integer({ min: 1, max: 240 }).map((twentieths) => twentieths / 20);
const anyView = fc.constantFrom(...VIEWS);

it.each([
  [3, 9],
  [12, 12],
  [6, 6],
  [4.5, 7.5],
  [11.5, 0.5],
])('what is at %f from one side is at %f from the other', (clock, turned) => {
  expect(turnClock(clock, 'the dial', 'behind')).toBe(turned);
  expect(turnClock(turned, 'behind', 'the dial')).toBe(clock);
});

it('turned and turned back it is where it was, and always on the clock', () => {
  fc.assert(
    fc.property(anyClock, anyView, anyView, (clock, from, to) => {
      const there = turnClock(clock, from, to);
      expect(there).toBeGreaterThan(0);
      expect(there).toBeLessThanOrEqual(12);
      expect(turnClock(there, to, from)).toBeCloseTo(clock, 9);
    }),
  );
});

it('keeps how far two places are apart, whichever side they are seen from', () => {
  fc.assert(
    fc.property(anyClock, anyClock, (a, b) => {
      const turned = [a, b].map((clock) => turnClock(clock, 'the dial', 'behind'));
      expect(clockDistance(turned[0] ?? 0, turned[1] ?? 0)).toBeCloseTo(clockDistance(a, b), 9);
    }),
  );
});

it('says the side, and that nobody noted it', () => {
  expect(clockWords(4, 'behind')).toBe('4 o’clock, seen from behind');
  expect(clockWords([2, 4], 'the dial')).toBe('2, 4 o’clock, seen from the dial');
  expect(clockWords(4, null)).toBe('4 o’clock, side not noted');
});
