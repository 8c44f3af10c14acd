import fc from 'fast-check';
import { readQuantity } from '../units';
import { caliperText, type SimulatedCase, simulateReading, simulateTrace } from './simulate';
describe('what a leak tester shows', () => {
  const CASE: SimulatedCase = {
    stiffnessUmPerBar: 5,
    settlesShare: 0,
    settlesInS: 5,
    volumeCm3: 1.5,
    leakUgPerMin: null,
    gross: false,
    noiseUm: 0,
    driftUmPerMin: 0,
  };
  const at = (of: Partial<SimulatedCase>, second: number, bar = 2) =>
    simulateTrace({ ...CASE, ...of }, bar, 300, 1)[second] ?? { atS: -1, overBar: 0, deflectionUm: NaN };

  it('goes through baseline, pressure and recovery, and stays where it is for a tight case', () => {
    expect(
      [at({}, 10), at({}, 100), at({}, 600)].map(({ overBar, deflectionUm }) => [overBar, deflectionUm]),
    ).toEqual([
      [0, 0],
      [2, 10],
      [0, 0],
    ]);
    expect(
      simulateTrace(CASE, 0, 60, 1).every(({ overBar, deflectionUm }) => overBar === 0 && deflectionUm === 0),
    ).toBe(true);
  });

  it('loses at the limit what the limit says, and stands the other way after venting', () => {
    // 1.4 % a minute of 1.5 cm³ at 2 bar.
    const lost = 1 - at({ leakUgPerMin: 50 }, 160).deflectionUm / at({ leakUgPerMin: 50 }, 100).deflectionUm;
    expect(lost).toBeCloseTo(0.014, 3);
    expect(at({ leakUgPerMin: 500 }, 350).deflectionUm).toBeLessThan(-1);
  });

  it('drifts, settles, and is flooded at once where it is wide open', () => {
    expect(at({ driftUmPerMin: 0.6 }, 10).deflectionUm).toBeCloseTo(0.1, 6);
    expect(at({ settlesShare: 0.1 }, 19).deflectionUm).toBeLessThan(
      at({ settlesShare: 0.1 }, 60).deflectionUm,
    );
    expect(Math.abs(at({ gross: true }, 100).deflectionUm)).toBeLessThan(0.01);
  });

  it('never rises in a leaking case without noise, and the same seed shows the same', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 5000, noNaN: true }), fc.integer(), (leakUgPerMin, seed) => {
        const quiet = simulateTrace({ ...CASE, leakUgPerMin }, 3, 60, seed).slice(20, 80);
        const noisy = { ...CASE, leakUgPerMin, noiseUm: 0.1 };
        return (
          quiet.every(
            ({ deflectionUm }, i) => i === 0 || deflectionUm <= (quiet[i - 1]?.deflectionUm ?? 0),
          ) &&
          JSON.stringify(simulateTrace(noisy, 3, 60, seed)) ===
            JSON.stringify(simulateTrace(noisy, 3, 60, seed))
        );
      }),
      { numRuns: 30 },
    );
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
