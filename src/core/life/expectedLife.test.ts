import fc from 'fast-check';
import { averageCurrentUA, expectedLife, type LifeInput, monthsOfLife } from '.';

const input: LifeInput = {
  chemistry: 'silver-oxide',
  capacityMinMAh: 24,
  capacityMaxMAh: 28,
  baseUA: 1.1,
  drainKnownBy: 'measured',
  functions: [],
  yearsSinceMade: 0.5,
  ageAssumed: false,
  seed: 11,
};

describe('monthsOfLife', () => {
  it('follows the worked example', () => {
    expect(monthsOfLife(28, 1, 'silver-oxide', 0)).toBeCloseTo(32.4, 1);
  });

  it('gives nothing from a cell that lost all its charge on the shelf', () => {
    expect(monthsOfLife(28, 1, 'silver-oxide', 60)).toBe(0);
  });

  it('shortens with current and with age', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 20, noNaN: true }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        (current, age) => {
          const months = monthsOfLife(30, current, 'silver-oxide', age);
          return (
            monthsOfLife(30, current * 1.5, 'silver-oxide', age) < months &&
            monthsOfLife(30, current, 'silver-oxide', age + 1) < months
          );
        },
      ),
    );
  });
});

describe('averageCurrentUA', () => {
  it('adds each function by its share of the day', () => {
    expect(averageCurrentUA(1, [{ name: 'light', drawUA: 4320, secondsPerDay: 20 }])).toBeCloseTo(2, 9);
  });
});

describe('expectedLife', () => {
  it('gives a range, the same for the same seed, with the visit before its early end', () => {
    const life = expectedLife(input);
    expect(life).toEqual(expectedLife(input));
    if (life.verdict !== 'forecast') throw new Error(life.verdict);
    expect(life.p10Months).toBeLessThan(life.p50Months);
    expect(life.p50Months).toBeLessThan(life.p90Months);
    expect(life.p50Months).toBeCloseTo(monthsOfLife(26, 1.1, 'silver-oxide', 0.5), 0);
    expect(life.nextVisitMonths).toBe(Math.floor(life.p10Months));
    expect(life.working).toHaveLength(3);
  });

  it('is wider the less is known of the drain', () => {
    const spread = (drainKnownBy: LifeInput['drainKnownBy']): number => {
      const life = expectedLife({ ...input, drainKnownBy });
      return life.verdict === 'forecast' ? life.p90Months - life.p10Months : 0;
    };
    expect(spread('measured')).toBeLessThan(spread('book'));
    expect(spread('book')).toBeLessThan(spread('family'));
  });

  it('never forecasts beyond ten years', () => {
    const life = expectedLife({
      ...input,
      chemistry: 'lithium',
      capacityMinMAh: 540,
      capacityMaxMAh: 620,
      baseUA: 0.6,
    });
    expect(life).toMatchObject({ verdict: 'forecast', p50Months: 120, overTenYears: true });
  });

  it.each([
    ['no capacity', { capacityMinMAh: 0 }],
    ['capacity the wrong way round', { capacityMaxMAh: 3 }],
    ['no current', { baseUA: 0 }],
    ['a current that is no number', { baseUA: Number.NaN }],
    ['a cell gone flat on the shelf', { yearsSinceMade: 50 }],
  ])('refuses %s with a reason', (_, wrong) => {
    const life = expectedLife({ ...input, ...wrong });
    expect(life.verdict).toBe('no forecast');
    expect(life.reasons[0]).toBeTruthy();
  });
});
