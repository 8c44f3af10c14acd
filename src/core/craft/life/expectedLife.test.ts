import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import {
  averageCurrentUA,
  DRAWS,
  expectedLife,
  lifeRange,
  lifeWords,
  type LifeInput,
  monthsOfLife,
  openDraws,
} from './expectedLife';
import { compareLives, type FittedQuestion, judgeFitted, serviceGain } from './fitted';
import { judgeShopLife } from './shopLife';
const input: LifeInput = {
  chemistry: 'silver-oxide',
  capacityMinMAh: 24,
  capacityMaxMAh: 28,
  baseUA: 1.1,
  drainKnownBy: 'measured',
  functions: [],
  yearsSinceMade: 0.5,
  ageKnownBy: 'its date',
  kept: 'not known',
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
    // The middle lies a little under the working with 0.90 usable: oil ages, and a wrist is warmer than a bench.
    const plain = monthsOfLife(26, 1.1, 'silver-oxide', 0.5);
    expect(life.p50Months).toBeLessThan(plain);
    expect(life.p50Months).toBeGreaterThan(plain * 0.9);
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

  it('counts with any age where none is known, and says so', () => {
    const life = expectedLife({ ...input, chemistry: 'alkaline', yearsSinceMade: null });
    const dated = expectedLife({ ...input, chemistry: 'alkaline', yearsSinceMade: 0 });
    if (life.verdict !== 'forecast' || dated.verdict !== 'forecast') throw new Error('no forecast');
    expect(life.p10Months).toBeLessThan(dated.p10Months);
    expect(life.reasons.join(' ')).toContain('Its age is not known, so 0 to 3 years');
    const assumed = expectedLife({ ...input, ageKnownBy: 'its best-before' });
    expect(assumed.reasons.join(' ')).toContain('estimated from the best-before date');
  });

  it('lasts shorter on a warm wrist than in a cool drawer', () => {
    const at = (kept: LifeInput['kept']): number => {
      const life = expectedLife({ ...input, baseUA: 0.3, kept });
      return life.verdict === 'forecast' ? life.p50Months : 0;
    };
    expect(at('worn')).toBeLessThan(at('in a drawer'));
  });

  it('tells a life end by end, and never beyond ten years', () => {
    expect([11.6, 119.2, 120].map(lifeWords)).toEqual(['12 months', '119 months', 'over 10 years']);
    expect(lifeRange({ p10Months: 30, p90Months: 41 })).toBe('30 to 41 months');
    expect(lifeRange({ p10Months: 100, p90Months: 120 })).toBe('100 months to over 10 years');
    expect(lifeRange({ p10Months: 120, p90Months: 120 })).toBe('over 10 years');
  });

  it('never forecasts beyond ten years', () => {
    const life = expectedLife({
      ...input,
      chemistry: 'lithium',
      capacityMinMAh: 540,
      capacityMaxMAh: 620,
      baseUA: 0.6,
    });
    expect(life).toMatchObject({ verdict: 'forecast', p50Months: 120, p90Months: 120 });
  });

  it.each([
    ['no capacity', { capacityMinMAh: 0 }],
    ['capacity the wrong way round', { capacityMaxMAh: 3 }],
    ['no current', { baseUA: 0 }],
    ['a current that is no number', { baseUA: Number.NaN }],
    ['an age no cell has', { yearsSinceMade: 50 }],
    ['an age that is no number', { yearsSinceMade: Number.NaN }],
    ['a function that gives', { functions: [{ name: 'light', drawUA: -1, secondsPerDay: 5 }] }],
  ])('refuses %s with a reason', (_, wrong) => {
    const life = expectedLife({ ...input, ...wrong });
    expect(life.verdict).toBe('no forecast');
    expect(life.reasons[0]).toBeTruthy();
  });
});

describe('a forecast drawn bit by bit', () => {
  it('says the same as one drawn at once, and its bars add up to one', () => {
    const draws = openDraws({ ...input, functions: [{ name: 'light', drawUA: 4000, secondsPerDay: 6 }] });
    while (draws.draw(777) < DRAWS);
    const life = draws.forecast();
    expect(life).toEqual(
      expectedLife({ ...input, functions: [{ name: 'light', drawUA: 4000, secondsPerDay: 6 }] }),
    );
    if (life.verdict !== 'forecast') throw new Error(life.verdict);
    expect(life.bars.shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
  });

  it('can be asked early, and is near then', () => {
    const draws = openDraws(input);
    draws.draw(1000);
    const [early, late] = [draws.forecast(), expectedLife(input)];
    if (early.verdict !== 'forecast' || late.verdict !== 'forecast') throw new Error('no forecast');
    expect(Math.abs(early.p50Months - late.p50Months)).toBeLessThan(1);
  });

  it('puts the cheapest year first', () => {
    const [life] = [expectedLife(input)];
    const compared = compareLives(
      [
        { id: 'dear', priceMinor: 90 },
        { id: 'cheap', priceMinor: 30 },
      ],
      [life, life],
      [],
    );
    expect(compared.map(({ lotId }) => lotId)).toEqual(['cheap', 'dear']);
    expect(compared[0]?.minorPerYear).toBeCloseTo(
      30 / ((life.verdict === 'forecast' ? life.p50Months : 1) / 12),
      6,
    );
  });

  it('a cell that surely lasts shorter here is compared by that, and one that lasts longer is not made cheaper', () => {
    const life = expectedLife(input);
    const seen = { verdict: 'factor', fitted: 20, seenAgain: 12, spent: 9 } as const;
    const shorter = judgeShopLife({ ...seen, factor: 0.6, from: 0.5, to: 0.7 }, life, 'X');
    const longer = judgeShopLife({ ...seen, factor: 1.5, from: 1.3, to: 1.7 }, life, 'X');
    const [first, second] = compareLives(
      [
        { id: 'short', priceMinor: 60 },
        { id: 'long', priceMinor: 90 },
      ],
      [life, life],
      [shorter, longer],
    );
    if (life.verdict !== 'forecast') throw new Error('a forecast wanted');
    expect(first).toMatchObject({ lotId: 'long', range: { p50Months: life.p50Months, asHere: false } });
    expect(second?.range?.p50Months).toBeCloseTo(0.6 * life.p50Months, 9);
    expect(second?.minorPerYear).toBeCloseTo(60 / ((0.6 * life.p50Months) / 12), 6);
  });
});

describe('a fitted cell of unknown age', () => {
  const question: FittedQuestion = {
    cell: book.cell('SR626SW'),
    rest: 'good',
    loaded: 'good',
    leaked: false,
    life: expectedLife(input),
    fittedOn: null,
    today: '2026-03-17',
  };
  it.each([
    ['leaked', { leaked: true }, 'change now'],
    ['spent', { rest: 'spent' }, 'change now'],
    ['falling under load', { loaded: 'falling' }, 'change now'],
    ['fitted two years ago', { fittedOn: '2024-03-17' }, 'change now'],
    ['fitted last month', { fittedOn: '2026-02-17' }, 'leave'],
    ['of no known day', {}, 'recall by'],
    ['with nothing forecast', { life: expectedLife({ ...input, baseUA: 0 }) }, 'recall by'],
  ] as const)('%s: %s', (_, change, verdict) => {
    const advice = judgeFitted({ ...question, ...change });
    expect(advice.verdict).toBe(verdict);
    expect(advice.recallOn === null).toBe(verdict === 'change now');
    expect(advice.reasons.join(' ').length).toBeGreaterThan(10);
  });
  it('says that the voltage of silver oxide proves little, and nothing of the kind of lithium', () => {
    expect(judgeFitted(question).reasons.join(' ')).toContain('proves little');
    expect(judgeFitted({ ...question, cell: book.cell('CR2016') }).reasons.join(' ')).not.toContain(
      'proves little',
    );
  });
  it('counts on a tenth of the median where nobody knows the day', () => {
    const advice = judgeFitted(question);
    expect(advice.working[0]?.figures).toMatch(/^0\.1 × 2\d/);
    expect(advice.recallOn).toBe('2026-05-17');
  });
});

describe('gain from a service', () => {
  it('is the life at the typical current less the life at the measured one', () => {
    const gain = serviceGain({ ...input, yearsSinceMade: 0 }, 4, 1);
    expect(gain.gainsMonths).toBeCloseTo(
      monthsOfLife(26, 1, 'silver-oxide', 0) - monthsOfLife(26, 4, 'silver-oxide', 0),
      9,
    );
    expect(gain.verdict).toBe('a service gains');
    expect(serviceGain({ ...input, yearsSinceMade: 0 }, 1, 1)).toMatchObject({
      verdict: 'nothing to gain',
      gainsMonths: 0,
    });
  });
});
