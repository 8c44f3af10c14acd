import fc from 'fast-check';
import { bestRings, fitGasket, LIMITS, ringWanted } from './fitGasket';
import {
  type Groove,
  grooveContradictions,
  measuredRingContradictions,
  readRingCode,
  type RingSize,
} from './groove';

const groove: Groove = {
  innerMm: 31,
  outerMm: 32.9,
  depthMm: 0.55,
  stepMm: 0,
  seat: 'inner wall',
  depthWithinMm: 0.03,
};
const round = (insideMm: number, sectionMm: number, sectionWithinMm = 0.03): RingSize => ({
  profile: 'round',
  insideMm,
  sectionMm,
  widthMm: null,
  sectionWithinMm,
});
const exact = { ...groove, depthWithinMm: 0 };

describe('a ring in its groove', () => {
  it('is stretched, squeezed and fills it as worked by hand', () => {
    const fit = fitGasket(round(30.5, 0.7), groove);
    expect(fit.verdict).toBe('fits');
    expect(fit.stretch.percent).toBeCloseTo(1.64, 2);
    expect(fit.lyingMm).toBeCloseTo(0.694, 3);
    expect(fit.squeeze.percent).toBeCloseTo(20.8, 1);
    expect(fit.fill.percent).toBeCloseTo(72.5, 1);
    expect(fit.squeeze.fromPercent).toBeLessThan(fit.squeeze.percent);
    expect(fit.working.map(({ what }) => what)).toEqual(['stretch', 'squeeze', 'fill']);
  });

  it.each([
    ['slack', round(31.2, 0.7), 'no', 'is slack'],
    ['just on its wall', round(30.9, 0.7), 'borderline', 'just about'],
    ['drawn out too far', round(29, 0.7), 'no', 'Too small'],
    ['too thin', round(30.5, 0.58), 'no', 'Too thin'],
    ['too thick', round(30.5, 0.9), 'no', 'Too thick'],
    ['wider than the groove', round(30.5, 1.2), 'no', '1.2 mm wide'],
  ] as const)('is %s', (_, ring, verdict, said) => {
    const fit = fitGasket(ring, groove);
    expect(fit.verdict).toBe(verdict);
    expect(fit.reasons.join(' ')).toContain(said);
  });

  it('has less depth where the back enters the groove', () => {
    expect(
      fitGasket(round(30.5, 0.7), { ...groove, depthMm: 0.65, stepMm: 0.1 }).squeeze.percent,
    ).toBeCloseTo(fitGasket(round(30.5, 0.7), groove).squeeze.percent);
  });

  it('on the outer wall is pushed in by up to 3 %, and buckles beyond 5', () => {
    const outer: Groove = { ...groove, seat: 'outer wall' };
    // The outside of a ring that lies there is the groove's: 31.5 and twice 0.7.
    expect(fitGasket(round(31.5, 0.7), outer).stretch.percent).toBeCloseTo(0);
    expect(fitGasket(round(32, 0.7), outer)).toMatchObject({ verdict: 'fits' });
    expect(fitGasket(round(33.5, 0.7), outer).reasons.join(' ')).toContain('buckles');
  });

  it('when flat is squeezed by its thickness, and rubber needs room across', () => {
    const flat: RingSize = {
      profile: 'flat',
      insideMm: 30.5,
      sectionMm: 0.7,
      widthMm: 0.9,
      sectionWithinMm: 0.01,
    };
    const fit = fitGasket(flat, { ...groove, depthWithinMm: 0.01 });
    expect(fit.squeeze.percent).toBeCloseTo(20.8, 1);
    // 0.893 × 0.694 in 0.95 × 0.55: more than there is room for.
    expect(fit.fill.percent).toBeCloseTo(118.6, 0);
    expect(fit.verdict).toBe('no');
  });

  it('thinner than half a millimetre can never be said to fit at ± 0.03, and may at ± 0.01', () => {
    const thin = { ...groove, depthMm: 0.32 };
    const coarse = fitGasket(round(30.5, 0.42), thin);
    expect(coarse.verdict).toBe('cannot say');
    expect(coarse.reasons.join(' ')).toContain('± 0.01 mm');
    expect(fitGasket(round(30.5, 0.42, 0.01), { ...thin, depthWithinMm: 0.01 }).verdict).toBe('fits');
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 0.49, noNaN: true }),
        fc.double({ min: 0.1, max: 0.45, noNaN: true }),
        (section, depth) => {
          expect(fitGasket(round(30.5, section), { ...groove, depthMm: depth }).verdict).not.toMatch(
            /fits|borderline/,
          );
        },
      ),
    );
  });
});

const anyRing = fc
  .tuple(fc.double({ min: 29, max: 32, noNaN: true }), fc.double({ min: 0.5, max: 0.95, noNaN: true }))
  .map(([inside, section]) => round(inside, section));
const anyDepth = fc.double({ min: 0.3, max: 0.8, noNaN: true });
const KINDER = ['fits', 'borderline', 'cannot say', 'no'];

describe('whatever the ring', () => {
  it('squeeze falls and fill falls as the groove grows deeper', () => {
    fc.assert(
      fc.property(
        anyRing,
        anyDepth,
        fc.double({ min: 0.01, max: 0.3, noNaN: true }),
        (ring, depthMm, more) => {
          const [here, deeper] = [depthMm, depthMm + more].map((each) =>
            fitGasket(ring, { ...groove, depthMm: each }),
          );
          expect(deeper?.squeeze.percent).toBeLessThan(here?.squeeze.percent ?? 0);
          expect(deeper?.fill.percent).toBeLessThan(here?.fill.percent ?? 0);
        },
      ),
    );
  });

  it('the worse end decides: a fit stands at every measure within its tolerances', () => {
    fc.assert(
      fc.property(anyRing, anyDepth, fc.double({ min: -1, max: 1, noNaN: true }), (ring, depthMm, off) => {
        const at = { ...groove, depthMm };
        if (fitGasket(ring, at).verdict !== 'fits') return;
        // Wherever the section lies within its tolerance, taken as exact: never outside.
        const truly = fitGasket(
          { ...ring, sectionMm: ring.sectionMm + off * 0.03, sectionWithinMm: 0 },
          { ...at, depthWithinMm: 0 },
        );
        expect(truly.squeeze.zone).not.toBe('no');
        expect(truly.fill.zone).not.toBe('no');
      }),
    );
  });

  it('measuring worse never makes it fit better', () => {
    fc.assert(
      fc.property(
        anyRing,
        anyDepth,
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        fc.double({ min: 0, max: 0.1, noNaN: true }),
        (ring, depthMm, a, b) => {
          const [fine, coarse] = [Math.min(a, b), Math.max(a, b)].map((within) =>
            KINDER.indexOf(
              fitGasket({ ...ring, sectionWithinMm: within }, { ...groove, depthMm, depthWithinMm: within })
                .verdict,
            ),
          );
          expect(coarse).toBeGreaterThanOrEqual(fine ?? 0);
        },
      ),
    );
  });
});

describe('of an assortment', () => {
  const rings = [29, 29.5, 30, 30.5, 31].flatMap((inside) =>
    [0.5, 0.6, 0.65, 0.7, 0.75, 0.8, 0.9].map((section) => ({
      code: `${inside} × ${section}`,
      size: round(inside, section),
    })),
  );

  it('the best come first, each with its margin, and none of the rest is better', () => {
    const best = bestRings(rings, groove, 4);
    expect(best.map(({ ring }) => ring.code)).toEqual(['30 × 0.7', '30.5 × 0.7', '30 × 0.75', '30.5 × 0.75']);
    const left = rings.filter((each) => !best.some(({ ring }) => ring === each));
    const worst = best.at(-1);
    for (const { size } of left) {
      const fit = fitGasket(size, groove);
      expect(
        KINDER.indexOf(fit.verdict) > KINDER.indexOf(worst?.fit.verdict ?? 'fits') ||
          fit.margin <= (worst?.fit.margin ?? 0),
      ).toBe(true);
    }
  });

  it('what to order lies good in the groove, at both ends of what is said', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 18, max: 40, noNaN: true }),
        fc.double({ min: 0.55, max: 1.1, noNaN: true }),
        fc.double({ min: 0.75, max: 1.5, noNaN: true }),
        fc.constantFrom('inner wall' as const, 'outer wall' as const),
        (innerMm, depthMm, widthShare, seat) => {
          const made: Groove = {
            ...exact,
            innerMm,
            depthMm,
            outerMm: innerMm + 2 * depthMm * (1 + widthShare),
            seat,
          };
          const wanted = ringWanted(made);
          if (wanted === null) return;
          for (const inside of [wanted.insideMm, wanted.insideFromMm, wanted.insideToMm]) {
            const { stretch } = fitGasket(round(inside, wanted.sectionMm, 0), made);
            // Diameters are told in tenths: the middle one is surely good, the ends are rounded inwards.
            expect(stretch.zone).toBe('good');
          }
          const { squeeze, fill } = fitGasket(round(wanted.insideMm, wanted.sectionMm, 0), made);
          expect([squeeze.zone, fill.zone]).not.toContain('no');
        },
      ),
    );
  });

  it('a groove too narrow for any ring says so', () => {
    expect(ringWanted({ ...groove, outerMm: 31.6, depthMm: 0.9 })).toBeNull();
  });
});

describe('measures that contradict each other', () => {
  it.each([
    ['a groove probably swapped', { outerMm: 30.9 }, 'outerMm', 'probably swapped'],
    ['a back that fills its groove', { stepMm: 0.55 }, 'stepMm', 'no room is left'],
    ['a depth over half the diameter', { innerMm: 1, outerMm: 3 }, 'depthMm', 'half the diameter'],
  ] as const)('%s', (_, change, path, said) => {
    const [found] = grooveContradictions({ ...groove, ...change });
    expect(found).toMatchObject({ path, reason: expect.stringContaining(said) as string });
  });

  it('a measured ring its groove never touched, and one wider than its groove', () => {
    expect(grooveContradictions(groove)).toEqual([]);
    expect(measuredRingContradictions(round(30.5, 0.7), groove)).toEqual([]);
    expect(measuredRingContradictions(round(30.5, 0.5), groove)[0]?.reason).toContain('0.5 mm thick');
    expect(measuredRingContradictions(round(30.5, 1), groove)[0]?.reason).toContain(
      'cannot have been in this groove',
    );
    // One of the assortment is simply no.
    expect(fitGasket(round(30.5, 0.5), groove).verdict).toBe('no');
  });

  it('reads a size however it is written, and no other words', () => {
    expect(readRingCode('30.5 × 0.70')).toEqual({ insideMm: 30.5, sectionMm: 0.7 });
    expect(readRingCode(' 30,5x0,7 mm')).toEqual({ insideMm: 30.5, sectionMm: 0.7 });
    for (const none of ['', 'blue', '0.7 × 30.5', '30.5', '0 × 0', 'crystal seal 30'])
      expect(readRingCode(none)).toBeNull();
  });

  it('limits stand in order', () => {
    for (const { good, borderline, best } of Object.values(LIMITS)) {
      expect(borderline[0]).toBeLessThanOrEqual(good[0]);
      expect(good[0]).toBeLessThanOrEqual(best);
      expect(best).toBeLessThanOrEqual(good[1]);
      expect(good[1]).toBeLessThanOrEqual(borderline[1]);
    }
  });
});

describe('the range told of a ring to order', () => {
  const grooves = fc.record({
    innerMm: fc.double({ min: 10, max: 38, noNaN: true }),
    widthMm: fc.double({ min: 0.5, max: 1.6, noNaN: true }),
    depthMm: fc.double({ min: 0.3, max: 1.1, noNaN: true }),
    seat: fc.constantFrom('inner wall' as const, 'outer wall' as const),
  });

  it('is good at both ends, of both measures at once', () => {
    fc.assert(
      fc.property(grooves, ({ widthMm, ...groove }) => {
        const asked: Groove = {
          ...groove,
          outerMm: groove.innerMm + 2 * widthMm,
          stepMm: 0,
          depthWithinMm: 0.03,
        };
        const wanted = ringWanted(asked);
        if (wanted === null) return true;
        const isGood = (insideMm: number, sectionMm: number): boolean => {
          const fit = fitGasket(
            { profile: 'round', insideMm, sectionMm, widthMm: null, sectionWithinMm: 0.03 },
            asked,
          );
          return [fit.stretch, fit.squeeze, fit.fill].every(({ zone }) => zone === 'good');
        };
        return [wanted.insideFromMm, wanted.insideMm, wanted.insideToMm].every((inside) =>
          [wanted.sectionFromMm, wanted.sectionMm, wanted.sectionToMm].every((section) =>
            isGood(inside, section),
          ),
        );
      }),
      { numRuns: 500 },
    );
  });
});

describe('the best rings of an assortment', () => {
  it('are the best of all of it, however many lie nearer to the limits', () => {
    const size = fc.record({
      profile: fc.constant('round' as const),
      insideMm: fc.integer({ min: 280, max: 320 }).map((tenths) => tenths / 10),
      sectionMm: fc.integer({ min: 50, max: 100 }).map((hundredths) => hundredths / 100),
      widthMm: fc.constant(null),
      sectionWithinMm: fc.constant(0.03),
    });
    const asked: Groove = {
      innerMm: 31,
      outerMm: 32.9,
      depthMm: 0.55,
      stepMm: 0,
      seat: 'inner wall',
      depthWithinMm: 0.03,
    };
    fc.assert(
      fc.property(fc.array(size, { minLength: 30, maxLength: 80 }), (sizes) => {
        const rings = sizes.map((each) => ({ size: each }));
        const [best] = bestRings(rings, asked, 1);
        const fits = rings.filter(({ size: each }) => fitGasket(each, asked).verdict === 'fits');
        return best !== undefined && (best.fit.verdict === 'fits') === fits.length > 0;
      }),
      { numRuns: 100 },
    );
  });
});
