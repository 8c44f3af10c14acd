import fc from 'fast-check';
import { gaugeOf } from './gauge';

const reading = (value: number, min: number | null, max: number | null) =>
  ({ measure: 'currentUA', value, reference: { whose: 'general', min, max } }) as const;

describe('the scale of a reading', () => {
  it('holds the reading, its range and what was read before', () => {
    const gauge = gaugeOf(reading(4.85, null, 2.4), [1.6, 2.3]);
    expect(gauge.from).toBeCloseTo(1.11, 2);
    expect(gauge.to).toBeCloseTo(5.34, 2);
    expect(gauge.range).toEqual({ from: gauge.from, to: 2.4 });
    expect(gauge.limits).toEqual([2.4]);
  });

  it('has nought in the middle of a rate, and no range where nobody has one', () => {
    const gauge = gaugeOf(
      { measure: 'rateSPerDay', value: -0.5, reference: { whose: 'general', min: null, max: null } },
      [],
    );
    expect(gauge.from).toBe(-gauge.to);
    expect(gauge.range).toBeNull();
  });

  it('shows whatever was read inside its ends', () => {
    const figure = fc.double({ min: 0, max: 10_000, noNaN: true });
    fc.assert(
      fc.property(
        figure,
        fc.option(figure),
        fc.option(figure),
        fc.array(figure, { maxLength: 5 }),
        (value, min, max, earlier) => {
          const gauge = gaugeOf(reading(value, min, max), earlier);
          for (const each of [value, ...gauge.limits, ...earlier])
            if (each < gauge.from || each > gauge.to) return false;
          return gauge.from >= 0 && gauge.to > gauge.from;
        },
      ),
    );
  });
});
