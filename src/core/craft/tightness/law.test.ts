import fc from 'fast-check';
import { readQuantity } from '../units';
import { freeVolume, insideAfter, limitConstant, massFlow } from './law';
import { pressureInOtherUnits, pressureWords } from './planLeakTest';
import { apart, shareOf } from './share';

const CASE = { volumeCm3: 1.5, temperatureC: 23 };

describe('the law of a leak', () => {
  it('does the worked example: 1.5 cm³ at 2 bar with a time of 600 s lets 353 µg/min through', () => {
    const constant = 1 / 600 / (3 + 1);
    expect(constant).toBeCloseTo(4.167e-4, 7);
    expect(massFlow(constant, CASE, 2)).toBeCloseTo(353, 0);
    // After five minutes 0.573 of the deflection is left: a little less than e^−0.5, as the pressure inside rises.
    expect((3 - insideAfter(1, 3, constant, 300)) / 2).toBeCloseTo(0.573, 3);
  });

  it('puts the limit where it is: 4,235 s at 2 bar, 1.4 % lost in a minute, 3.5 % in a small case', () => {
    const limit = limitConstant(CASE);
    expect(1 / (limit * 4)).toBeCloseTo(4235, -1);
    const lost = (volumeCm3: number, over: number): number =>
      1 - (1 + over - insideAfter(1, 1 + over, limitConstant({ ...CASE, volumeCm3 }), 60)) / over;
    expect(lost(1.5, 2)).toBeCloseTo(0.014, 3);
    expect(lost(0.6, 2)).toBeCloseTo(0.035, 3);
    expect(lost(1.5, -0.7)).toBeCloseTo(0.0046, 4);
    expect(massFlow(limit, CASE, 2)).toBeCloseTo(50, 9);
  });

  it('lets air out under vacuum, and nothing pass where nothing presses', () => {
    expect(massFlow(1e-4, CASE, -0.7)).toBeLessThan(0);
    expect(massFlow(1e-4, CASE, 0)).toBe(0);
  });

  it('goes on from where it was, in as many steps as one likes, and never past the air outside', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 12, noNaN: true }),
        fc.double({ min: 1e-7, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 5000, noNaN: true }),
        (outside, constant, seconds) => {
          const once = insideAfter(1, outside, constant, seconds);
          const half = insideAfter(
            insideAfter(1, outside, constant, seconds / 2),
            outside,
            constant,
            seconds / 2,
          );
          expect(half).toBeCloseTo(once, 9);
          expect((once - 1) * (outside - 1)).toBeGreaterThanOrEqual(-1e-12);
          expect(Math.abs(once - 1)).toBeLessThanOrEqual(Math.abs(outside - 1) + 1e-9);
        },
      ),
    );
  });

  it('takes a volume as measured, from the size, or as hardly known', () => {
    const nothing = { measuredCm3: null, withinPercent: null, diameterMm: null, thicknessMm: null };
    expect(freeVolume({ ...nothing, measuredCm3: 1.4, withinPercent: 5 })).toEqual({
      cm3: 1.4,
      factor: 1.05,
      how: 'measured',
    });
    const sized = freeVolume({ ...nothing, diameterMm: 36, thicknessMm: 9 });
    expect(sized).toMatchObject({ factor: 1.5, how: 'from the case’s size' });
    expect(sized.cm3).toBeCloseTo(1.832, 3);
    expect(freeVolume({ ...nothing, diameterMm: 36 })).toMatchObject({ how: 'guessed' });
    expect(freeVolume(nothing).factor).toBeGreaterThan(1.5);
  });
});

describe('pressures of other gauges', () => {
  it('stand beside the bar', () => {
    expect(pressureInOtherUnits(3)).toBe('300 kPa, 2.96 atm, 88.6 inHg, 31 m of water at rest');
    expect(pressureInOtherUnits(-0.7)).toBe('−70 kPa, −0.69 atm, −20.7 inHg');
    expect([pressureWords(3), pressureWords(-0.7)]).toEqual(['3 bar', '0.7 bar below outside air']);
  });

  it.each([
    ['kPa', 100],
    ['atm', 0.986923],
    ['inHg', 29.53],
    ['psi', 14.5038],
    ['m', 10.1972],
    ['mbar', 1000],
  ])('read in %s come back as they were', (unit, perBar) => {
    fc.assert(
      fc.property(fc.double({ min: -0.9, max: 100, noNaN: true }), (bar) => {
        const read = readQuantity(`${(bar * perBar).toFixed(6)} ${unit}`, 'pressureBar');
        return read.verdict === 'read' && Math.abs(read.value - bar) < 1e-4 * Math.max(1, Math.abs(bar));
      }),
    );
  });
});

describe('a share of a few', () => {
  it('is told with its interval, and nothing is known of none', () => {
    expect(shareOf(1, 7)).toMatchObject({ of: 1, among: 7 });
    expect(shareOf(1, 7).from).toBeCloseTo(0.026, 3);
    expect(shareOf(1, 7).to).toBeCloseTo(0.513, 3);
    expect(shareOf(0, 0)).toEqual({ of: 0, among: 0, from: 0, to: 1 });
    expect(apart(shareOf(1, 40), shareOf(20, 40))).toBe(true);
    expect(apart(shareOf(1, 4), shareOf(2, 4))).toBe(false);
  });
});
