import fc from 'fast-check';
import { expectedLife, type LifeInput } from './expectedLife';
import { type CellLife, estimateLives, judgeShopLife, type ShopLife } from './shopLife';

/** A cell of a forecast of 30 months that was found spent, ended at `at`, known to half a month. */
const spentAt = (at: number, own: Partial<CellLife> = {}): CellLife => ({
  medianMonths: 30,
  spread: 0.12,
  ranMonths: at - 0.5,
  spentByMonths: at + 0.5,
  broughtMonths: at + 1.5,
  outMonths: null,
  seenAgain: true,
  ...own,
});
const ranFor = (months: number, own: Partial<CellLife> = {}): CellLife =>
  spentAt(1, { ranMonths: months, spentByMonths: null, broughtMonths: null, ...own });
const notSeenFor = (months: number): CellLife => ranFor(0, { outMonths: months, seenAgain: false });
const times = <T>(count: number, of: (index: number) => T): T[] =>
  Array.from({ length: count }, (_, i) => of(i));

describe('how long cells lasted here', () => {
  it('is a factor of their forecast, with its ends and what it rests on', () => {
    const shop = estimateLives(times(10, (i) => spentAt(20 + i * 0.4)));
    expect(shop).toMatchObject({ verdict: 'factor', fitted: 10, seenAgain: 10, spent: 10 });
    expect(shop.factor).toBeCloseTo(21.8 / 30, 1);
    expect(shop.from).toBeGreaterThan(0.6);
    expect(shop.to).toBeLessThan(0.85);
  });

  it('is not told from under five seen again, however many were fitted', () => {
    const four = [...times(4, () => spentAt(20)), ...times(40, () => notSeenFor(10))];
    expect(estimateLives(four)).toEqual({
      verdict: 'too few',
      factor: null,
      from: null,
      to: null,
      fitted: 44,
      seenAgain: 4,
      spent: 4,
    });
    expect(estimateLives([...four, spentAt(20)]).verdict).toBe('factor');
    expect(estimateLives([]).verdict).toBe('too few');
  });

  it('is a lower bound alone where all were found running', () => {
    const shop = estimateLives(times(6, () => ranFor(33)));
    expect(shop).toMatchObject({ verdict: 'at least', factor: null, to: null, spent: 0 });
    expect(shop.from).toBeGreaterThan(1);
    expect(shop.from).toBeLessThan(1.3);
  });

  it('cannot be told where all were spent and nobody knows since when', () => {
    expect(
      estimateLives(times(8, () => spentAt(1, { ranMonths: 0, spentByMonths: 40, broughtMonths: 40 })))
        .verdict,
    ).toBe('cannot say');
  });

  it('counts those not seen again: they are why early ends alone do not make a bad cell', () => {
    // Five of a hundred ended early; the others have been out for less than their forecast and nobody came.
    const early = times(5, (i) => spentAt(22 + i * 0.5));
    const alone = estimateLives(early);
    const among = estimateLives([...early, ...times(95, () => notSeenFor(25))]);
    expect(alone.to).toBeLessThan(0.95);
    expect(among.factor).toBeGreaterThan(alone.factor ?? NaN);
    expect(among.to).toBeGreaterThan(0.95);
  });

  it('an owner who does not know is taken to have come lately, not at any time since it ran', () => {
    const vague = times(12, () => spentAt(1, { ranMonths: 0, spentByMonths: 26, broughtMonths: 26 }));
    const known = times(5, (i) => spentAt(23 + i * 0.5));
    const shop = estimateLives([...vague, ...known]);
    expect(shop.factor).toBeGreaterThan(0.75);
    expect(shop.factor).toBeLessThan(0.87);
  });

  const life = fc
    .tuple(
      fc.double({ min: 12, max: 60, noNaN: true }),
      fc.double({ min: 0.05, max: 0.3, noNaN: true }),
      fc.double({ min: 0.5, max: 1.6, noNaN: true }),
      fc.integer({ min: 0, max: 2 }),
    )
    .map(([medianMonths, spread, part, kind]): CellLife => {
      const at = medianMonths * part;
      const own = { medianMonths, spread };
      return kind === 0 ? spentAt(at, own) : kind === 1 ? ranFor(at, own) : { ...notSeenFor(at), ...own };
    });
  const lives = fc.array(life, { minLength: 5, maxLength: 25 });

  it('lies between its ends, and is the same in any order', () => {
    fc.assert(
      fc.property(lives, (given) => {
        const shop = estimateLives(given);
        expect(shop.seenAgain).toBe(given.filter(({ seenAgain }) => seenAgain).length);
        expect(shop.factor === null).toBe(shop.verdict !== 'factor');
        if (shop.factor !== null) {
          expect(shop.from).toBeLessThan(shop.factor);
          expect(shop.to).toBeGreaterThan(shop.factor);
        }
        const turned = estimateLives([...given].reverse());
        expect(turned.verdict).toBe(shop.verdict);
        expect(turned.factor ?? 0).toBeCloseTo(shop.factor ?? 0, 3);
      }),
      { numRuns: 25 },
    );
  });

  it('never falls where the same cells are seen to have lived longer', () => {
    fc.assert(
      fc.property(lives, fc.double({ min: 1.1, max: 1.5, noNaN: true }), (given, longer) => {
        const before = estimateLives(given);
        const after = estimateLives(
          given.map((each) => ({
            ...each,
            ranMonths: each.ranMonths * longer,
            spentByMonths: each.spentByMonths === null ? null : each.spentByMonths * longer,
            broughtMonths: each.broughtMonths === null ? null : each.broughtMonths * longer,
            outMonths: each.outMonths === null ? null : each.outMonths * longer,
          })),
        );
        if (before.factor !== null && after.factor !== null)
          expect(after.factor).toBeGreaterThan(before.factor * 0.99);
      }),
      { numRuns: 25 },
    );
  });

  it('counts nothing that is no life', () => {
    const none = [
      spentAt(20, { medianMonths: NaN }),
      spentAt(20, { spread: 0 }),
      spentAt(20, { ranMonths: 25 }),
      spentAt(20, { spentByMonths: Infinity }),
      ranFor(-1),
      notSeenFor(NaN),
    ];
    expect(estimateLives([...none, ...none])).toMatchObject({ verdict: 'too few', fitted: 0 });
  });
});

describe('a forecast beside what cells did here', () => {
  const input: LifeInput = {
    chemistry: 'silver-oxide',
    capacityMinMAh: 19,
    capacityMaxMAh: 21,
    baseUA: 0.8,
    drainKnownBy: 'measured',
    functions: [],
    yearsSinceMade: 0.5,
    ageKnownBy: 'its date',
    kept: 'worn',
    seed: 1,
  };
  const forecast = expectedLife(input);
  if (forecast.verdict !== 'forecast') throw new Error('a forecast wanted');
  const shop = (own: Partial<ShopLife>): ShopLife => ({
    verdict: 'factor',
    factor: 0.8,
    from: 0.7,
    to: 0.9,
    fitted: 20,
    seenAgain: 12,
    spent: 9,
    ...own,
  });

  it('is shortened where they surely lasted shorter, and the visit comes earlier', () => {
    const advice = judgeShopLife(shop({}), forecast, '364 of Saltmarsh');
    expect(advice.verdict).toBe('shorter');
    expect(advice.reasons.join(' ')).toBe(
      '364 of Saltmarsh lasted 0.8 × the forecast here, 0.7 to 0.9: 12 of 20 fitted here came back, 9 of them spent.',
    );
    expect(advice.corrected?.p50Months).toBeCloseTo(0.8 * forecast.p50Months, 9);
    // Both what the forecast and what the factor do not know.
    expect(advice.corrected?.p10Months).toBeLessThan(0.8 * forecast.p10Months);
    expect(advice.nextVisitMonths).toBe(Math.floor(advice.corrected?.p10Months ?? NaN));
  });

  it('never puts the visit off, and leaves it where they may be as forecast', () => {
    const longer = judgeShopLife(shop({ factor: 1.2, from: 1.1, to: 1.3 }), forecast, 'X');
    expect(longer).toMatchObject({ verdict: 'longer', nextVisitMonths: null });
    expect(longer.reasons.join(' ')).toContain('not moved later');
    const same = judgeShopLife(shop({ factor: 0.9, from: 0.78, to: 1.04 }), forecast, 'X');
    expect(same).toMatchObject({ verdict: 'as forecast', nextVisitMonths: null });
    expect(same.corrected).not.toBeNull();
  });

  it.each([
    [shop({ verdict: 'too few', factor: null, from: null, to: null, seenAgain: 4 }), 'At least 5 are needed'],
    [
      shop({ verdict: 'cannot say', factor: null, from: null, to: null }),
      'Ask each owner when the watch stopped',
    ],
    [
      shop({ verdict: 'at least', factor: null, from: 0.9, to: null, spent: 0 }),
      'at least 0.9 × the forecast',
    ],
  ])('says why there is no factor: %#', (of, words) => {
    const advice = judgeShopLife(of, forecast, 'X');
    expect(advice.verdict).toBe(of.verdict);
    expect(advice.reasons.join(' ')).toContain(words);
    expect([advice.corrected, advice.nextVisitMonths]).toEqual([null, null]);
  });

  it('tells what they did also where nothing is forecast', () => {
    const none = expectedLife({ ...input, baseUA: 0 });
    const advice = judgeShopLife(shop({}), none, 'X');
    expect(advice.reasons.join(' ')).toContain('0.8 × the forecast');
    expect(advice.corrected).toBeNull();
  });
});
