import fc from 'fast-check';
import type { Groove } from './groove';
import { sectionsLeft, wornContradictions, wornRing } from './wornRing';

const groove: Groove = {
  innerMm: 31,
  outerMm: 32.9,
  depthMm: 0.55,
  stepMm: 0,
  seat: 'inner wall',
  depthWithinMm: 0.03,
};
const worn = (
  heightMm: number,
  widthMm: number,
  change: Partial<Groove> = {},
  sectionOfTypeMm: number | null = null,
  profile: 'round' | 'flat' | null = 'round',
) => wornRing({ heightMm, widthMm, profile, groove: { ...groove, ...change }, sectionOfTypeMm });

describe('a worn ring', () => {
  it('is worked back to what it was, as by hand', () => {
    const ring = worn(0.6, 0.77);
    expect(ring.sectionMm).toBeCloseTo(0.7, 3);
    expect(ring.set?.share).toBeCloseTo(0.667, 2);
    expect(ring.verdict).toBe('renew');
    expect(ring.reasons.join(' ')).toContain('may not have sealed any more');
    expect(ring.insideLikelyMm[0]).toBeCloseTo(31 / 1.05);
    expect(ring.insideMm[1]).toBeCloseTo(31);
  });

  it.each([
    ['as good as new', worn(0.69, 0.7), 'springy'],
    ['perhaps over the limit', worn(0.655, 0.72), 'renew'],
    ['flat as its groove', worn(0.56, 0.83), 'renew'],
    ['a hair under its groove, as half the readings of a dead ring are', worn(0.52, 0.9), 'renew'],
    ['a hair over it, whatever else was measured', worn(0.58, 0.59), 'renew'],
    ['nearly as flat as its groove', worn(0.6, 1.05), 'no seal left'],
    ['hardly squeezed when new', worn(0.6, 0.61), 'cannot say'],
    ['flat by make, of a thickness nobody knows', worn(0.65, 1.2, {}, null, 'flat'), 'cannot say'],
    ['flat by make, nearly as thick as new', worn(0.69, 1.2, {}, 0.7, 'flat'), 'springy'],
    ['flat by make, pressed thin', worn(0.62, 1.3, {}, 0.75, 'flat'), 'renew'],
    ['of a make nobody looked at', worn(0.69, 0.7, {}, null, null), 'cannot say'],
    ['thinner than its groove ever was', worn(0.45, 0.5), 'never squeezed'],
    ['flatter than its groove', worn(0.5, 0.9), 'measures disagree'],
    ['higher than its kind', worn(0.78, 0.85, {}, 0.7), 'swollen'],
  ] as const)('%s', (_, { verdict, reasons }, wanted) => {
    expect(verdict).toBe(wanted);
    expect(reasons.join(' ')).not.toBe('');
  });

  it('swells only against a kind that is known', () => {
    expect(worn(0.78, 0.85).verdict).not.toBe('swollen');
  });

  it('of its set says a range, and nothing where nothing can be said', () => {
    expect(worn(0.57, 0.6).set).toBeNull();
    expect(worn(0.6, 0.61).set).toBeNull();
    const { set } = worn(0.6, 0.77);
    expect((set?.to ?? 0) - (set?.from ?? 0)).toBeCloseTo(0.28);
  });

  it('keeps its area: pressed flat by any press it is worked back to the same section', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.6, max: 1.2, noNaN: true }),
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        (section, pressed) => {
          const height = section * pressed;
          // What the hand of the one who makes the example does: the same area in a body with flat sides.
          const area = (Math.PI * section * section) / 4;
          const width = (area - (Math.PI * height * height) / 4) / height + height;
          expect(worn(height, width).sectionMm).toBeCloseTo(section, 9);
        },
      ),
    );
  });

  it('more worn is never judged kinder', () => {
    const kinder = (verdict: string): boolean => verdict === 'springy';
    fc.assert(
      fc.property(
        fc.double({ min: 0.65, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (section, a, b) => {
          const at = (share: number) => {
            const height = section - (section - 0.551) * share;
            const area = (Math.PI * section * section) / 4;
            return worn(height, (area - (Math.PI * height * height) / 4) / height + height).verdict;
          };
          const [less, more] = [at(Math.min(a, b)), at(Math.max(a, b))];
          expect(kinder(more) && !kinder(less)).toBe(false);
        },
      ),
    );
  });

  it('is refused where height and width are exchanged', () => {
    expect(wornContradictions({ heightMm: 0.7, widthMm: 0.6 })[0]?.reason).toContain('Did you swap');
    expect(wornContradictions({ heightMm: 0.6, widthMm: 0.6 })).toEqual([]);
  });
});

describe('the sections it can have had', () => {
  it('are all the caliper cannot exclude, the most likely first', () => {
    const stocked = [0.5, 0.6, 0.65, 0.7, 0.75, 0.8, 0.9];
    expect(sectionsLeft(stocked, worn(0.6, 0.77))).toEqual([0.7, 0.75, 0.65]);
    expect(sectionsLeft([2, 3], worn(0.6, 0.77))).toEqual([]);
  });

  it('hold the true one, measured within what rubber allows', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 0.05, noNaN: true }),
        fc.double({ min: -0.05, max: 0.05, noNaN: true }),
        (section, stretch, off) => {
          const lying = section / Math.sqrt(1 + stretch) + off;
          expect(sectionsLeft([section], { sectionMm: lying })).toEqual([section]);
        },
      ),
    );
  });
});
