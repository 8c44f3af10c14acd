import fc from 'fast-check';
import { BACK_KINDS } from '../cases';
import { PARTS, toBeNoted } from '../parts';
import { type ClosingQuestion, closingPlan, type PartToReturn } from './closingPlan';
import { crosswise } from './crosswise';

const off = (id: string, part: PartToReturn['part'], position = '', count = 1): PartToReturn => ({
  id,
  part,
  position,
  count,
});
const question: ClosingQuestion = {
  kind: 'snap-on',
  wayBack: [],
  lipClock: null,
  lipSeenFrom: 'behind',
  crownClock: null,
  backNoted: null,
  screwCount: null,
  hatchOpens: null,
  panelLayers: [],
  inside: [],
  coverSealed: false,
  insulators: [],
  way: 'thumbs first',
  grease: 'pad',
  ring: 'renewed',
  greased: true,
  dies: null,
};
const plan = (change: Partial<ClosingQuestion>) => closingPlan({ ...question, ...change });
const ids = (change: Partial<ClosingQuestion>): readonly string[] => plan(change).map(({ id }) => id);
const stepOf = (change: Partial<ClosingQuestion>, id: string) => plan(change).find((each) => each.id === id);

describe('the order of closing', () => {
  it('puts back what came off last first, the strap after the seam', () => {
    expect(
      ids({
        wayBack: [
          off('i', 'insulator'),
          off('m', 'movement ring'),
          off('g', 'gasket', 'rim of the back'),
          off('b', 'back'),
          off('s', 'spring bar'),
        ],
      }),
    ).toEqual(['forgotten', 'part-i', 'part-m', 'dust', 'ring', 'cots', 'seat', 'press', 'seam', 'part-s']);
  });

  it('names first what is easily left out, the book’s insulators too', () => {
    expect(ids({})[0]).toBe('dust');
    const first = stepOf(
      { insulators: ['Under the cell.'], wayBack: [off('x', 'spacer', 'on the bridge', 2)] },
      'forgotten',
    );
    expect(first?.how).toBe('2 × spacer, on the bridge · the book: Under the cell');
  });

  it('shows the places that were noted', () => {
    const words = stepOf(
      { lipClock: 6.5, backNoted: 'notch over the stem: at 9', wayBack: [off('b', 'back', 'x')] },
      'seat',
    )?.how;
    expect(words).toContain('6.5');
    expect(words).toContain('notch over the stem: at 9');
    expect(stepOf({ crownClock: 9 }, 'seat')?.how).toContain('stem at 9');
    // Only a snap-on back has a notch over the stem.
    for (const step of plan({ kind: 'plate on screws', crownClock: 9 }))
      expect(step.how).not.toContain('notch');
  });

  it('waits for a place that was to be noted and is not', () => {
    const placeholder = [
      off('b', 'back', toBeNoted('notch over the stem')),
      off('c', 'cover', toBeNoted('tab')),
    ];
    expect(stepOf({ wayBack: placeholder }, 'seat')?.waits).toContain('notch over the stem');
    expect(stepOf({ wayBack: placeholder }, 'part-c')?.waits).toContain('tab');
    expect(stepOf({ wayBack: [off('b', 'back', 'notch over the stem: at 3')] }, 'seat')?.waits).toBeNull();
  });

  it('waits at the ring until somebody says what was done to it, and settles it so', () => {
    const ring = [off('g', 'gasket', 'rim of the back')];
    expect(stepOf({ ring: null, wayBack: ring }, 'ring')?.waits).not.toBeNull();
    expect(stepOf({ ring: 'renewed', wayBack: ring }, 'ring')).toMatchObject({
      partIds: ['g'],
      outcome: 'replaced',
    });
    expect(stepOf({ ring: 'reused', wayBack: ring }, 'ring')).toMatchObject({
      partIds: ['g'],
      outcome: 'back in place',
    });
    expect(ids({ ring: 'left in place' })).not.toContain('cots');
    // The ring of an inner cover goes back with it.
    expect(ids({ wayBack: [off('c', 'gasket', 'on the inner cover')] })).toContain('part-c');
  });

  it('presses at once where this shop does, and never on a die that does not fit', () => {
    const stack = ['ring die 28', 'film', 'crystal', 'case', 'back', 'flat die 30'];
    const none = {
      verdict: 'no die' as const,
      reasons: [],
      working: [],
      crystalSide: null,
      backSide: null,
      holder: null,
      stack: [],
    };
    const some = { ...none, verdict: 'press' as const, stack };
    const how = (change: Partial<ClosingQuestion>): string => stepOf(change, 'press')?.how ?? '';
    expect(how({ way: 'press', dies: some })).toMatch(
      /^Stack the press, from below: ring die 28, film, crystal, case, back, flat die 30/,
    );
    expect(how({ dies: some })).toMatch(/^Press all round until it clicks. If the rim stays up/);
    expect(how({ way: 'press', dies: none })).toContain('No die in this shop fits');
    expect(how({ way: 'press' })).toMatch(/^First measure the watch for the press/);
  });

  it('turns a screwed back backwards first', () => {
    const start = stepOf({ kind: 'screwed, notched', way: 'wrench-snug' }, 'start');
    expect(start?.how).toContain('backwards until it drops');
    expect(start?.caution).toContain('If it tilts or binds');
  });

  it('tightens a plate crosswise in rounds, all screws in first', () => {
    const steps = plan({
      kind: 'plate on screws',
      screwCount: 4,
      wayBack: [off('s', 'screw', '1 to 4', 4), off('p', 'plate', 'print out')],
    });
    const at = (id: string): number => steps.findIndex((each) => each.id === id);
    expect(at('screws-in')).toBeLessThan(at('round-1'));
    expect(steps[at('round-2')]?.how).toContain('1 – 3 – 2 – 4');
    expect(steps[at('round-3')]?.partIds).toEqual(['s']);
  });

  it('brings a hatch to its reference and undoes a panel’s layers in reverse', () => {
    expect(
      stepOf({ kind: 'battery hatch', backNoted: 'reference angle: line to line' }, 'hatch-on')?.how,
    ).toContain('line to line');
    expect(
      ids({ kind: 'latched panel', panelLayers: ['adhesive', 'catches'] }).filter((id) =>
        id.startsWith('layer'),
      ),
    ).toEqual(['layer-catches', 'layer-adhesive']);
  });

  it('loses no part, whatever came off what kind of case', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...BACK_KINDS),
        fc.array(fc.constantFrom(...PARTS), { maxLength: 12 }),
        fc.constantFrom('renewed' as const, 'reused' as const, 'left in place' as const, null),
        (kind, parts, ring) => {
          const wayBack = parts.map((part, at) => off(`p${at}`, part));
          const steps = plan({ kind, wayBack, ring, panelLayers: ['catches', 'adhesive'] });
          expect(steps.flatMap(({ partIds }) => partIds).sort()).toEqual(wayBack.map(({ id }) => id).sort());
          expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
        },
      ),
    );
  });
});

describe('crosswise', () => {
  it('goes across for four, six and eight', () => {
    expect(crosswise(4)).toEqual([1, 3, 2, 4]);
    expect(crosswise(6)).toEqual([1, 4, 2, 5, 3, 6]);
    expect(crosswise(8)).toEqual([1, 5, 3, 7, 2, 6, 4, 8]);
  });

  it('names every screw once, and from five on never the one beside the last', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 24 }), (count) => {
        const order = crosswise(count);
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, at) => at + 1));
        if (count < 5) return;
        for (const [at, screw] of order.entries()) {
          const next = order[at + 1];
          if (next === undefined) continue;
          const apart = Math.abs(screw - next);
          expect(Math.min(apart, count - apart)).toBeGreaterThan(1);
        }
      }),
    );
  });
});

describe('what the order of closing says of ring and inside', () => {
  const stepOf = (id: string, change: Partial<ClosingQuestion>) =>
    plan(change).find((each) => each.id === id);

  it('says whether the ring was greased, as it was recorded', () => {
    expect(stepOf('ring', { ring: 'reused', greased: false })).toMatchObject({
      what: 'Lay the old ring into its groove, without grease',
      how: expect.stringContaining('recorded no grease') as string,
    });
    expect(ids({ ring: 'reused', greased: false })).not.toContain('cots');
    expect(stepOf('ring', { ring: 'renewed', greased: true })?.what).toBe(
      'Lay the new ring into its groove, greased',
    );
    expect(stepOf('ring', { ring: null, greased: null })?.waits).toContain('First record');
  });

  it('has no ring where there is none', () => {
    expect(ids({ ring: 'none there', greased: false })).not.toContain('ring');
  });

  it('has what is known to lie inside, the innermost first, before dust and ring', () => {
    const all = ids({ inside: ['movement ring', 'inner cover'] });
    expect(all.slice(0, 3)).toEqual(['inside-movement-ring', 'inside-inner-cover', 'dust']);
  });

  it('lays no seal under a cover that has none', () => {
    const cover = [off('a', 'inner cover', 'plain, tab up')];
    expect(stepOf('part-a', { wayBack: cover })?.how).toContain('no seal');
    expect(stepOf('part-a', { wayBack: cover, coverSealed: true })?.how).toContain('seal under it');
  });
});
