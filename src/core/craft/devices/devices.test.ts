import fc from 'fast-check';
import { readQuantity } from '../units';
import { caliperText, endsOfTrace, simulateReading, simulateTrace } from './simulate';
describe('what a leak tester shows', () => {
  it('stays where it is for a tight case without noise', () => {
    const samples = simulateTrace({ deflectionUm: 12, tauS: null, noiseShare: 0 }, 60, 1);
    expect(samples).toHaveLength(61);
    expect(new Set(samples.map((sample) => sample.deflectionUm))).toEqual(new Set([12]));
    expect(endsOfTrace(samples)).toEqual({ startUm: 12, endUm: 12 });
  });

  it('falls to 1/e in the time of its leak', () => {
    const samples = simulateTrace({ deflectionUm: 10, tauS: 300, noiseShare: 0 }, 300, 1);
    expect(samples.at(-1)?.deflectionUm).toBeCloseTo(10 / Math.E, 3);
    expect(samples.at(150)?.deflectionUm).toBeCloseTo(10 * Math.exp(-0.5), 3);
  });

  it('never rises in a leaking case without noise, and the same seed shows the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 100, noNaN: true }),
        fc.double({ min: 5, max: 5000, noNaN: true }),
        fc.integer({ min: 5, max: 200 }),
        fc.integer(),
        (deflectionUm, tauS, seconds, seed) => {
          const quiet = simulateTrace({ deflectionUm, tauS, noiseShare: 0 }, seconds, seed);
          const noisy = { deflectionUm, tauS, noiseShare: 0.01 };
          return (
            quiet.every(
              (sample, at) => at === 0 || sample.deflectionUm <= (quiet[at - 1]?.deflectionUm ?? 0),
            ) &&
            JSON.stringify(simulateTrace(noisy, seconds, seed)) ===
              JSON.stringify(simulateTrace(noisy, seconds, seed))
          );
        },
      ),
    );
  });

  it('is read at its ends through the noise: the mean of a few seconds errs less than one', () => {
    const noisy = { deflectionUm: 12, tauS: null, noiseShare: 0.02 };
    const errors = Array.from({ length: 200 }, (_, seed) => {
      const samples = simulateTrace(noisy, 30, seed);
      return {
        mean: Math.abs(endsOfTrace(samples).startUm - 12),
        one: Math.abs((samples[0]?.deflectionUm ?? 0) - 12),
      };
    });
    const sum = (of: 'mean' | 'one'): number => errors.reduce((total, error) => total + error[of], 0);
    expect(sum('mean')).toBeLessThan(sum('one') * 0.7);
  });

  it('says nothing for no record', () => {
    expect(endsOfTrace([])).toEqual({ startUm: 0, endUm: 0 });
  });
});

describe('a reading with the noise of its instrument', () => {
  it('is the value itself without noise, in whole steps of the instrument', () => {
    expect(simulateReading(14.203, 0, 0.01, 3)).toBe(14.2);
    expect(simulateReading(1.5567, 0, 0.001, 3)).toBe(1.557);
    expect(simulateReading(-0.32, 0, 0.1, 3)).toBe(-0.3);
  });

  it('lies about the value, as far as its noise goes', () => {
    const readings = Array.from({ length: 500 }, (_, seed) => simulateReading(30, 0.02, 0.01, seed));
    const mean = readings.reduce((sum, value) => sum + value, 0) / readings.length;
    expect(mean).toBeCloseTo(30, 2);
    expect(Math.max(...readings.map((value) => Math.abs(value - 30)))).toBeLessThan(0.1);
  });
});

describe('what a caliper types', () => {
  it.each([
    [14.2, 'mm', '+0014.20 mm'],
    [0, 'mm', '+0000.00 mm'],
    [25.4, 'in', '+0001.0000 in'],
  ] as const)('%s in %s: %s', (value, unit, text) => {
    expect(caliperText(value, unit)).toBe(text);
  });

  it('is understood by the fields as the length that was meant', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 15_000 }).map((hundredths) => hundredths / 100),
        fc.constantFrom('mm' as const, 'in' as const),
        (valueMm, unit) => {
          const reading = readQuantity(caliperText(valueMm, unit), 'lengthMm');
          return reading.verdict === 'read' && Math.abs(reading.value - valueMm) < 0.006;
        },
      ),
    );
  });
});
