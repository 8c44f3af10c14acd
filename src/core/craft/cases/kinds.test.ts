import { BACK_KINDS, backs, prySpot } from './kinds';
import fc from 'fast-check';
describe('what every kind is told', () => {
  it('has an opener, one caution with its reason, and a way of closing for each kind of back', () => {
    for (const kind of BACK_KINDS) {
      expect(backs[kind].opener).toBeTruthy();
      expect(backs[kind].caution.length).toBeGreaterThan(30);
      expect(backs[kind].closes.length).toBeGreaterThan(0);
    }
  });
});

describe('where the knife goes', () => {
  it('goes to the lip where there is one', () => {
    expect(prySpot({ crownClock: 3, lipClock: 6.5 })).toMatchObject({ verdict: 'at the lip', clock: 6.5 });
  });

  it('asks for the crown before it chooses a spot', () => {
    expect(prySpot({ crownClock: null, lipClock: null })).toMatchObject({
      verdict: 'not yet known',
      clock: null,
    });
  });

  it('keeps away from the crown, seen from behind, and from every lug', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 24 }).map((halves) => halves / 2),
        (crownClock) => {
          const { clock } = prySpot({ crownClock, lipClock: null });
          const apart = (a: number, b: number): number => Math.min(Math.abs(a - b), 12 - Math.abs(a - b));
          const crown = (12 - crownClock) % 12 || 12;
          return (
            clock !== null && apart(clock, crown) >= 2 && [1, 5, 7, 11].every((lug) => apart(clock, lug) >= 1)
          );
        },
      ),
    );
  });
});
