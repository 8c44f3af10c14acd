import fc from 'fast-check';
import { planLeakTest, type Testers, type ToBeTested } from './planLeakTest';
import { watchTime } from './watchTime';

const WATCH: ToBeTested = {
  ratingBar: 10,
  use: 'swimming',
  ageYears: 2,
  damage: [],
  notRenewed: [],
  screwedCrown: false,
  volume: { cm3: 1.5, factor: 1.1, how: 'measured' },
  temperatureC: 23,
  usualUmPerBar: 5,
};
const TESTERS: Testers = { dryMostBar: 10, dryVacuumBar: 0.7, wetMostBar: 12.5, mostBar: 10, noiseUm: 0.05 };
const plan = (watch: Partial<ToBeTested> = {}, testers: Partial<Testers> = {}) =>
  planLeakTest({ ...WATCH, ...watch }, { ...TESTERS, ...testers });
const steps = (of: ReturnType<typeof plan>) => of.steps.map(({ method, overBar }) => [method, overBar]);

describe('the plan of a test', () => {
  it('goes dry before wet, upward, to what the owner needs', () => {
    expect(plan().verdict).toBe('test');
    expect(steps(plan())).toEqual([
      ['dry air', 2],
      ['dry air', 10],
      ['wet', 10],
      ['condensation', null],
    ]);
    expect(steps(plan({ use: 'splashes' }))).toEqual([
      ['dry air', 2],
      ['dry air', 3],
      ['wet', 3],
      ['condensation', null],
    ]);
  });
  it('stays under the rating for what is old, or was not renewed, and says so', () => {
    for (const gentle of [{ ageYears: 20 }, { notRenewed: ['seal of the crown'] }]) {
      expect(plan(gentle)).toMatchObject({ verdict: 'test gently', mostBar: 6 });
    }
    expect(plan({ notRenewed: ['seal of the crown'] }).reasons.join(' ')).toContain('seal of the crown');
  });
  it('presses nothing that is cracked', () => {
    expect(plan({ damage: ['cracked crystal'] })).toMatchObject({
      verdict: 'do not test',
      steps: [],
      mostBar: 0,
    });
  });
  it('takes little of a watch nobody knows, and the vacuum where pressure is not to be had', () => {
    expect(plan({ ratingBar: null, use: null }).mostBar).toBe(2);
    expect(steps(plan({}, { dryMostBar: 0 }))[0]).toEqual(['dry air', -0.7]);
    expect(steps(plan({}, { dryMostBar: 0, dryVacuumBar: 0, wetMostBar: 0 }))).toEqual([
      ['condensation', null],
    ]);
  });
  it('asks for the size of a case that nobody measured before it is tested', () => {
    const guessed = plan({ volume: { cm3: 1.3, factor: 2.2, how: 'guessed' } });
    expect(guessed.reasons[0]).toContain(
      'Measure and record the diameter and the thickness of the case first',
    );
    const bySize = plan({ volume: { cm3: 1.3, factor: 1.5, how: 'from the case’s size' } });
    expect(bySize.reasons.join(' ')).not.toContain('Measure the diameter');
    expect(bySize.reasons.join(' ')).toContain('If you measure it, the test takes less time.');
  });
  it('has the cautions that apply', () => {
    expect(plan({ screwedCrown: true }).cautions[0]).toContain('Screw the crown down');
    expect(plan({ screwedCrown: false }).cautions[0]).not.toContain('Crown');
    expect(plan({ ratingBar: 20 }).cautions.join(' ')).toContain('ISO 6425');
    expect(plan().steps.find(({ method }) => method === 'wet')?.words).toContain(
      'lift it out before you release further',
    );
  });
  it('watches longer with more noise, a larger case, and a volume less known', () => {
    const seconds = (watch: Partial<ToBeTested>, testers: Partial<Testers> = {}) =>
      plan(watch, testers).steps[0]?.seconds ?? 0;
    expect(seconds({}, { noiseUm: 0.3 })).toBeGreaterThan(seconds({}));
    expect(seconds({ volume: { ...WATCH.volume, cm3: 3 } })).toBeGreaterThan(
      seconds({ volume: { ...WATCH.volume, cm3: 0.6 } }),
    );
    expect(seconds({ volume: { ...WATCH.volume, factor: 1.8 } })).toBeGreaterThanOrEqual(seconds({}));
    expect(
      watchTime({
        noiseShare: 0.005,
        correlation: 0,
        overBar: 2,
        of: { volumeCm3: 1.5, temperatureC: 23 },
        factor: 2.5,
        shareOfLimit: 0.5,
      }),
    ).toBeNull();
  });
  it('never goes beyond watch, shop or tester, and says at each step what it allows', () => {
    const bar = fc.double({ min: 0.1, max: 60, noNaN: true });
    fc.assert(
      fc.property(
        fc.option(bar, { nil: null }),
        fc.constantFrom<ToBeTested['use']>(null, 'no water', 'splashes', 'swimming', 'diving'),
        fc.option(fc.integer({ min: 0, max: 60 }), { nil: null }),
        fc.subarray(['ring of the back', 'seal of the crown']),
        fc.record({
          dryMostBar: bar,
          wetMostBar: bar,
          mostBar: bar,
          dryVacuumBar: fc.double({ min: 0, max: 0.9, noNaN: true }),
        }),
        (ratingBar, use, ageYears, notRenewed, limits) => {
          const of = plan({ ratingBar, use, ageYears, notRenewed }, limits);
          for (const { method, overBar, seconds, ifPassed, ifFailed } of of.steps) {
            const tester = method === 'wet' ? limits.wetMostBar : limits.dryMostBar;
            if (overBar !== null && overBar > 0)
              expect(overBar).toBeLessThanOrEqual(Math.min(ratingBar ?? 2, tester, limits.mostBar) + 1e-9);
            if (overBar !== null && overBar < 0)
              expect(-overBar).toBeLessThanOrEqual(limits.dryVacuumBar + 1e-9);
            expect(seconds).toBeGreaterThan(0);
            expect([ifPassed, ifFailed].every((each) => each !== '')).toBe(true);
          }
        },
      ),
      { numRuns: 40 },
    );
  });
});
