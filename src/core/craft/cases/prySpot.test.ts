import fc from 'fast-check';
import { prySpot, type PryQuestion, strikes, workedFrom } from './prySpot';
import { VIEWS } from './clock';

const ask = (own: Partial<PryQuestion>) =>
  prySpot({
    from: 'behind',
    crownClock: 3,
    noCrown: false,
    lipClock: null,
    pusherClocks: [],
    seenFrom: 'behind',
    ...own,
  });
// Mirrored by hand, beside what the core does: the test shares no rule with it.
const MIRROR = [12, 11, 10, 9, 8, 7, 6, 5, 4, 3, 2, 1, 0];
const mirrored = (clock: number): number => {
  const at = MIRROR[Math.floor(clock)] ?? 0;
  return (at - (clock % 1) + 12) % 12 || 12;
};
const seen = (clock: number, from: string, to: string): number => (from === to ? clock : mirrored(clock));
const apart = (a: number, b: number): number => {
  const hours = Math.abs(a - b) % 12;
  return Math.min(hours, 12 - hours);
};

describe('where the knife goes', () => {
  it('goes to the lip where there is one, seen from the side the hand works on', () => {
    expect(ask({ lipClock: 6.5 })).toMatchObject({ verdict: 'at the lip', clock: 6.5, from: 'behind' });
    expect(ask({ lipClock: 5.5, seenFrom: 'the dial' })).toMatchObject({ clock: 6.5, from: 'behind' });
    expect(ask({ lipClock: 5.5, seenFrom: 'behind', from: 'the dial' })).toMatchObject({ clock: 6.5 });
  });

  it('asks for the crown before it chooses a spot, unless there is none', () => {
    expect(ask({ crownClock: null })).toMatchObject({ verdict: 'not yet known', clock: null });
    expect(ask({ crownClock: null, noCrown: true }).verdict).toBe('chosen spot');
  });

  it('is not sent to 3 on a case that opens from the front with its crown there', () => {
    expect(workedFrom('opens from the front')).toBe('the dial');
    expect(ask({ from: 'the dial' })).toMatchObject({ verdict: 'chosen spot', clock: 9 });
    expect(ask({ from: 'behind' })).toMatchObject({ verdict: 'chosen spot', clock: 3 });
    const wrong = ask({ from: 'the dial', lipClock: 3, seenFrom: 'the dial' });
    expect(wrong).toMatchObject({ verdict: 'look again', clock: null });
    expect(wrong.reasons[0]).toContain('onto the crown at 3');
    // The same lip, seen from behind, is on the other side of the dial.
    expect(ask({ from: 'the dial', lipClock: 3, seenFrom: 'behind' })).toMatchObject({ clock: 9 });
  });

  it('takes a crown nobody noted for one anywhere on its usual side', () => {
    expect(ask({ crownClock: null, lipClock: 9 }).verdict).toBe('look again');
    expect(ask({ crownClock: null, lipClock: 9, noCrown: true }).verdict).toBe('at the lip');
    expect(ask({ crownClock: null, lipClock: 6 }).reasons.join(' ')).toContain(
      'Its position is not recorded',
    );
  });

  it('says so where nothing is clear', () => {
    const crowded = ask({ pusherClocks: [12, 1.5, 3, 4.5, 6, 7.5, 10.5] });
    expect(crowded).toMatchObject({ verdict: 'no clear spot', clock: null });
  });

  it.each([1, 5, 7, 11])(
    'goes in at a lip beside a lug, at %s, and says which way the blade goes',
    (lipClock) => {
      for (const seenFrom of VIEWS) {
        const spot = ask({ lipClock, seenFrom });
        expect(spot).toMatchObject({ verdict: 'at the lip', clock: seen(lipClock, seenFrom, spot.from) });
        expect(spot.reasons.join(' ')).toContain('hits neither lug nor crown');
        // Held from the side of the crown it would slip onto it.
        const [, towards = ''] = /from the side of ([\d.]+)/.exec(spot.reasons.join(' ')) ?? [];
        expect(apart(Number(towards), seen(3, 'the dial', spot.from))).toBeGreaterThan(1);
      }
    },
  );

  it('looks again where a lip was noted at the crown or a pusher', () => {
    expect(ask({ lipClock: 3, seenFrom: 'the dial', crownClock: 3 }).verdict).toBe('look again');
    expect(ask({ lipClock: 8, pusherClocks: [8] }).verdict).toBe('look again');
  });

  it('never answers with crown, pusher or lug, whatever side anything was seen from', () => {
    const halves = fc.integer({ min: 1, max: 24 }).map((half) => half / 2);
    fc.assert(
      fc.property(
        fc.record({
          from: fc.constantFrom(...VIEWS),
          seenFrom: fc.constantFrom(...VIEWS),
          crownClock: fc.option(halves),
          noCrown: fc.boolean(),
          lipClock: fc.option(halves),
          pusherClocks: fc.array(halves, { maxLength: 5 }),
        }),
        (question) => {
          const { clock, from } = prySpot(question);
          expect(from).toBe(question.from);
          if (clock === null) return;
          expect(strikes(clock, question)).toBeNull();
          // A lip may lie beside a lug; a spot that is chosen never does.
          if (question.lipClock === null)
            for (const lug of [1, 5, 7, 11]) expect(apart(clock, lug)).toBeGreaterThanOrEqual(0.5);
          for (const pusher of question.pusherClocks)
            expect(apart(clock, seen(pusher, question.seenFrom, from))).toBeGreaterThanOrEqual(1);
          if (question.crownClock !== null && !question.noCrown)
            expect(apart(clock, seen(question.crownClock, 'the dial', from))).toBeGreaterThanOrEqual(1);
        },
      ),
    );
  });
});
