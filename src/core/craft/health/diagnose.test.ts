import fc from 'fast-check';
import { book } from '../../../testing/fixtures';
import { DEFAULT_POLICY, priceInList } from '../policy';
import { diagnose } from './diagnose';
import { type FaultQuestion } from './diagnosis';
import { type Fault, FAULTS, type Observable, OBSERVABLES, OUTCOMES } from './faults';
import { figuresFor } from './figures';
import { leakOptions } from './leaks';
import { trendOf } from './trend';
import type { Calibre } from '../movements';
type Observed = Partial<Record<Observable, string>>;

const question = (observed: Observed, more: Partial<FaultQuestion> = {}): FaultQuestion => ({
  observed: new Map(Object.entries(observed) as [Observable, string][]),
  freshCell: false,
  changedLately: false,
  charges: false,
  lowSupplySignal: 'the seconds hand steps in twos',
  hasReset: true,
  hasHands: true,
  stepIntervalS: 1,
  watchedSeconds: null,
  originalMatters: false,
  priceOf: (item) => priceInList(DEFAULT_POLICY, item),
  ...more,
});
const answer = (observed: Observed, more: Partial<FaultQuestion> = {}) => diagnose(question(observed, more));

describe('before anything is ranked', () => {
  it.each([
    ['an unknown step, watched for five seconds', { stepIntervalS: null, watchedSeconds: 5 }, 'wait longer'],
    ['an unknown step, watched for a full minute', { stepIntervalS: null, watchedSeconds: 60 }, 'other'],
    ['a step of twenty seconds, watched for five', { stepIntervalS: 20, watchedSeconds: 5 }, 'wait longer'],
    ['a step a second, watched for five', { stepIntervalS: 1, watchedSeconds: 5 }, 'other'],
    ['a display', { stepIntervalS: null, watchedSeconds: 5, hasHands: false }, 'other'],
  ] as const)('%s', (_, more, verdict) => {
    const said = answer({ shows: 'dead' }, more);
    expect(said.verdict === 'wait longer').toBe(verdict === 'wait longer');
    if (said.verdict === 'wait longer') expect([said.ranked, said.nextTest]).toEqual([[], null]);
  });

  it('asks whether a charge helps where light charges it', () => {
    const said = answer({ shows: 'in twos or fours' }, { charges: true });
    expect([said.verdict, said.nextTest?.observable]).toEqual(['cannot tell yet', 'after a charge']);
    expect(said.nextTest?.between).toEqual(
      expect.arrayContaining(['tired accumulator', 'merely discharged']),
    );
  });

  it('finds no old oil in a display, and no charge in a watch on a primary cell', () => {
    const display = answer({ current: 'over the limit' }, { hasHands: false });
    expect(display.ranked.map(({ fault }) => fault)).not.toContain('old oil and dirt');
    expect(answer({ shows: 'dead' }).nextTest?.observable).not.toBe('after a charge');
    expect(answer({ shows: 'dead' }).ranked.map(({ fault }) => fault)).not.toContain('merely discharged');
  });
});

describe('what is seen together', () => {
  it.each<[string, Observed, Partial<FaultQuestion>, Fault]>([
    [
      'no steps, current tiny, crown out',
      { shows: 'dead', current: 'next to nothing', crown: 'pulled' },
      {},
      'stop lever on',
    ],
    [
      'a new cell, no pulses, coil infinite',
      { shows: 'dead', pulses: 'none', coil: 'open' },
      { freshCell: true },
      'coil severed',
    ],
    ['pulses, coil good, hands still', { shows: 'dead', pulses: 'there', coil: 'good' }, {}, 'mechanical'],
    ['voltage collapses as the cell goes in', { atFitting: 'voltage collapses' }, {}, 'short circuit'],
    ['no current at all', { current: 'nothing', shows: 'dead' }, {}, 'contact does not touch'],
    [
      'current far above its limit, and crust',
      { current: 'far over the limit', 'crust or bloom': 'there' },
      {},
      'electrolyte or damp on the circuit',
    ],
    [
      'current above its limit, the circuit alone as it should, stops early',
      { current: 'over the limit', stopped: 'as it should', lowest: 'late' },
      {},
      'old oil and dirt',
    ],
    [
      'a scrambled display after a change',
      { shows: 'scrambled' },
      { changedLately: true, hasHands: false },
      'reset contact not used',
    ],
    ['a hand in twos or fours', { shows: 'in twos or fours' }, {}, 'spent cell'],
    [
      'a hand in twos, still after a charge',
      { shows: 'in twos or fours', 'after a charge': 'low-supply steps' },
      { charges: true },
      'tired accumulator',
    ],
    [
      'one that was dead and steps once it was charged',
      { shows: 'dead', 'after a charge': 'steps normally' },
      { charges: true },
      'merely discharged',
    ],
    [
      'what never holds its charge',
      { shows: 'in twos or fours', 'does not hold its charge': 'there' },
      { charges: true },
      'tired accumulator',
    ],
    [
      'light that fails first',
      { shows: 'in twos or fours', 'light or alarm fails first': 'there' },
      {},
      'spent cell',
    ],
    ['a display that fades', { rest: 'spent', 'display fades': 'there' }, { hasHands: false }, 'spent cell'],
    ['turns shorted', { coil: 'shorted', current: 'over the limit' }, {}, 'turns of the coil shorted'],
  ])('%s', (_, observed, more, fault) => {
    const found = answer(observed, more);
    expect([found.verdict, found.causes]).toEqual(['found', [fault]]);
    expect(found.ranked[0]?.evidence.some(({ bits }) => bits > 0)).toBe(true);
    expect(found.remedies.length).toBeGreaterThan(0);
  });

  it('says a hand in twos is the book’s low-supply signal, not a fault', () => {
    expect(answer({ shows: 'in twos or fours' }).reasons[0]).toBe(
      'This is its low-supply sign, not a fault: the seconds hand steps in twos.',
    );
  });

  it('waits as long as the book says before it calls a hand still', () => {
    const more = { stepIntervalS: 20, watchedSeconds: 5 };
    const wait = answer({ shows: 'dead', rest: 'fresh' }, more);
    expect(wait.verdict).toBe('wait longer');
    expect(wait.reasons[0]).toContain('wait 24 s');
    expect(answer({ shows: 'dead', rest: 'spent' }, { ...more, watchedSeconds: 60 }).causes).toEqual([
      'spent cell',
    ]);
    expect(answer({ shows: 'dead' }, { ...more, stepIntervalS: 1 }).verdict).not.toBe('wait longer');
  });

  it('names current far above its limit alone for either of two, and what tells them apart', () => {
    const found = answer({ current: 'far over the limit' });
    expect(found.ranked.slice(0, 2).map(({ fault }) => fault)).toContain(
      'electrolyte or damp on the circuit',
    );
    expect(found.nextTest).not.toBeNull();
  });

  it.each<[string, Observed, Partial<FaultQuestion>, readonly Fault[]]>([
    [
      'a spent cell that leaked onto the circuit',
      {
        rest: 'spent',
        load: 'sags',
        current: 'far over the limit',
        stopped: 'over',
        'crust or bloom': 'there',
      },
      {},
      ['spent cell', 'electrolyte or damp on the circuit'],
    ],
    [
      'a severed coil and a bent contact after another hand',
      { current: 'nothing', 'contact bent': 'there', 'contact oxidised': 'there', coil: 'open' },
      { changedLately: true },
      ['contact does not touch', 'coil severed'],
    ],
    [
      'a pulled crown and a spent cell',
      { crown: 'pulled', current: 'next to nothing', rest: 'spent', load: 'sags' },
      {},
      ['stop lever on', 'spent cell'],
    ],
    [
      'a severed coil behind a pulled crown',
      { crown: 'pulled', coil: 'open', current: 'next to nothing' },
      { freshCell: true },
      ['stop lever on', 'coil severed'],
    ],
  ])('two faults together: %s', (_, observed, more, faults) => {
    const { causes } = answer(observed, more);
    expect([...causes].sort()).toEqual([...faults].sort());
  });

  it('leaves old oil open beside what drags at the rotor, which also draws more and stops early', () => {
    const { causes, ranked } = answer(
      {
        current: 'over the limit',
        lowest: 'late',
        shows: 'dead',
        pulses: 'there',
        'fluff at the rotor': 'there',
        'arm touching the rotor': 'there',
        stopped: 'as it should',
      },
      { freshCell: true },
    );
    expect(causes).toEqual(['mechanical']);
    expect(ranked[1]?.fault).toBe('old oil and dirt');
    expect(ranked[1]?.probability).toBeGreaterThan(0.15);
  });

  it('takes a cell that sags on its way down for no spent one', () => {
    const chanceOfSpent = (observed: Observed): number =>
      answer(observed).ranked.find(({ fault }) => fault === 'spent cell')?.probability ?? 0;
    const dead: Observed = { shows: 'dead', load: 'sags', current: 'nothing', atFitting: 'voltage holds' };
    expect(chanceOfSpent({ ...dead, rest: 'falling' })).toBeLessThan(0.65);
    expect(chanceOfSpent({ ...dead, rest: 'spent' })).toBeGreaterThan(0.9);
  });

  it('reads a charge that changes nothing by what else stands in the way', () => {
    const charged = (observed: Observed) =>
      answer({ shows: 'dead', rest: 'spent', ...observed }, { charges: true });
    const chance = (said: ReturnType<typeof charged>): number =>
      said.ranked.find(({ fault }) => fault === 'tired accumulator')?.probability ?? 0;
    const alone = chance(charged({ 'after a charge': 'does not run' }));
    // A pulled crown is enough to keep it standing, so the accumulator is no more tired than before.
    const pulled = chance(
      charged({ 'after a charge': 'does not run', crown: 'pulled', current: 'next to nothing' }),
    );
    expect(pulled).toBeLessThan(alone);
    expect(pulled).toBeLessThan(0.65);
  });

  it('cannot tell from a watch that only stands still, and names the cheapest look that separates', () => {
    const found = answer({ shows: 'dead', rest: 'fresh', load: 'holds' });
    expect(found).toMatchObject({ verdict: 'cannot tell yet', causes: [], remedies: [] });
    expect(found.nextTest?.effort).toBeLessThanOrEqual(5);
    expect(found.nextTest?.outcomes.length).toBeGreaterThan(0);
    expect(answer({}).verdict).toBe('cannot tell yet');
    expect(answer({ rest: 'fresh' })).toMatchObject({
      verdict: 'cannot tell yet',
      reasons: [
        expect.stringContaining(
          'The movement is not examined yet. Record what it shows, its current and its pulses.',
        ),
      ],
    });
  });

  it('finds nothing wrong where everything is as it should be', () => {
    expect(
      answer({ shows: 'runs', current: 'as it should', rest: 'fresh', load: 'holds', pulses: 'there' })
        .verdict,
    ).toBe('nothing wrong');
  });

  it('calls nothing sound over a reading past its limit, whatever else is good', () => {
    const good: Observed = {
      shows: 'runs',
      current: 'as it should',
      rest: 'fresh',
      load: 'holds',
      pulses: 'there',
      coil: 'good',
      rate: 'good',
      lowest: 'good',
      stopped: 'as it should',
    };
    expect(answer(good).verdict).toBe('nothing wrong');
    for (const [observable, outcome] of [
      ['current', 'over the limit'],
      ['rest', 'spent'],
      ['load', 'sags'],
      ['stopped', 'over'],
      ['coil', 'suspect'],
      ['lowest', 'late'],
      ['rate', 'off'],
      ['pulses', 'none'],
    ])
      expect([observable, answer({ ...good, [observable as Observable]: outcome }).verdict]).not.toEqual([
        observable,
        'nothing wrong',
      ]);
  });

  it('measures the cell before it calls a watch sound, or names a cell that nobody read', () => {
    const runs = answer({ shows: 'runs', current: 'as it should', pulses: 'there', rate: 'good' });
    expect(runs.verdict).toBe('cannot tell yet');
    expect(runs.nextTest).not.toBeNull();
    const still = answer({ shows: 'dead', pulses: 'none', crown: 'home' });
    expect(still).toMatchObject({ verdict: 'cannot tell yet', nextTest: { observable: 'rest' } });
    expect(answer({ shows: 'dead', rest: 'spent' }).causes).toEqual(['spent cell']);
  });

  it('asks what stands still for no rate', () => {
    for (const each of [
      { shows: 'dead', rest: 'fresh' },
      { shows: 'dead', rest: 'fresh', load: 'holds', pulses: 'there', current: 'as it should' },
    ])
      expect(['rate', 'lowest']).not.toContain(answer(each).nextTest?.observable);
  });

  it('tells a cause apart from itself by what comes beside it', () => {
    const { nextTest } = answer({ shows: 'dead', rest: 'spent' });
    expect(nextTest?.between).toEqual(['spent cell alone', 'mechanical as well']);
    // What both explanations hold is not in question.
    const both = answer({ shows: 'dead', rest: 'spent', current: 'over the limit', rate: 'good' }).nextTest;
    expect(both?.between).toEqual(['old oil and dirt', 'mechanical']);
  });

  it('cleans before it replaces, with price and risk, and asks where the owner wants it original', () => {
    const leak: Observed = { current: 'far over the limit', stopped: 'over', 'crust or bloom': 'there' };
    const { remedies } = answer(leak, { originalMatters: true });
    expect(remedies.map(({ replaces }) => replaces)).toEqual([...remedies].map((_, index) => index > 0));
    expect(remedies[0]).toMatchObject({ next: 'clean', priceMinor: 1500 });
    expect(remedies.at(-1)?.risk).toContain('Ask before you replace any part');
    expect(answer(leak).remedies.at(-1)?.risk).not.toContain('Ask before');
    expect(answer(leak, { priceOf: () => null }).remedies[0]?.priceMinor).toBeNull();
  });

  it('never gives a chance outside nought and one, whatever is seen', () => {
    const observed = fc.dictionary(fc.constantFrom(...OBSERVABLES), fc.nat(4)).map((all) =>
      Object.fromEntries(
        Object.entries(all).map(([observable, at]) => {
          const outcomes = OUTCOMES[observable as Observable];
          return [observable, outcomes[at % outcomes.length] as string];
        }),
      ),
    );
    fc.assert(
      fc.property(observed, fc.boolean(), fc.boolean(), (seen, charges, hasHands) => {
        const found = answer(seen, { charges, hasHands });
        for (const { fault, probability } of found.ranked) {
          expect(FAULTS).toContain(fault);
          expect(probability).toBeGreaterThanOrEqual(0);
          expect(probability).toBeLessThanOrEqual(1 + 1e-9);
        }
        for (const { bits } of found.ranked.flatMap(({ evidence }) => evidence))
          expect(Number.isFinite(bits)).toBe(true);
        expect(found.working.map(({ figures }) => figures).join()).not.toMatch(/NaN|Infinity|undefined/);
        const names = found.nextTest?.between ?? ['one', 'other'];
        expect(names[0]).not.toBe(names[1]);
        expect(found.ranked.map(({ fault }) => fault)).not.toContain(
          charges ? 'spent cell' : 'tired accumulator',
        );
        expect(found.soundProbability).toBeLessThanOrEqual(1 + 1e-9);
      }),
      { numRuns: 120 },
    );
  });
});
describe('whose figures', () => {
  const own = book.calibre('orrelin-41-2') as Calibre;
  const unknownCalibre: Calibre = {
    ...own,
    id: 'orrelin-41-9',
    code: 'OR 41.9',
    shopsOwn: true,
    typicalUA: null,
    limitUA: null,
    lowestV: null,
    coilMinKOhm: null,
    coilMaxKOhm: null,
  };
  it('are the movement’s own, else its family’s, else general, and marked which', () => {
    expect(figuresFor(own, book).current).toMatchObject({ whose: 'this movement', limitUA: 1.4 });
    const kin = figuresFor(unknownCalibre, book);
    expect(kin.current).toMatchObject({ whose: 'its family', limitUA: 1.7 });
    expect(kin.coil).toMatchObject({ whose: 'its family', minKOhm: 1.6, maxKOhm: 2.1 });
    expect(kin.lowest.whose).toBe('its family');
    const alone = figuresFor({ ...unknownCalibre, family: '' }, book);
    expect([alone.current.whose, alone.coil?.whose, alone.lowest.whose]).toEqual([
      'general',
      'general',
      'general',
    ]);
  });
});

describe('after a leak', () => {
  const at = (
    place: 'contact' | 'track' | 'coil' | 'dial side',
    severity: 'bloom' | 'crust' | 'corrosion' | 'broken track',
  ) => [{ place, severity }];
  const base = {
    leaks: [{ place: 'contact' as const, severity: 'crust' as const }],
    coil: null,
    currentAfterUA: 1.1,
    figures: figuresFor(book.calibre('orrelin-41-2'), book).current,
    originalMatters: false,
    byCoil: false,
    chemistry: 'silver-oxide' as const,
    priceOf: () => 1500,
  };
  it.each([
    [{}, 'cleaned, observe'],
    [{ currentAfterUA: null }, 'cleaned, observe'],
    [{ currentAfterUA: 3.9 }, 'new circuit'],
    [{ currentAfterUA: 3.9, originalMatters: true }, 'cleaned, observe'],
    [{ currentAfterUA: 3.9, originalMatters: true, leaks: at('contact', 'corrosion') }, 'new circuit'],
    [{ leaks: at('track', 'broken track'), originalMatters: true }, 'new circuit'],
    // Where it is decides first: at a coil nothing is observed that nobody measured.
    [{ leaks: at('coil', 'bloom') }, 'not decided yet'],
    [{ leaks: at('coil', 'bloom'), coil: 'suspect' as const }, 'not decided yet'],
    [{ leaks: at('coil', 'bloom'), coil: 'good' as const }, 'cleaned, observe'],
    [{ leaks: at('coil', 'bloom'), coil: 'open' as const, originalMatters: true }, 'new circuit'],
    [{ leaks: at('coil', 'bloom'), coil: 'shorted turns' as const }, 'new circuit'],
    [{ leaks: at('contact', 'bloom'), coil: 'open' as const }, 'new circuit'],
    [{ leaks: at('dial side', 'bloom') }, 'cleaned, observe'],
    [{ leaks: at('dial side', 'crust') }, 'new movement'],
    [{ leaks: [...at('contact', 'bloom'), ...at('coil', 'crust')] }, 'not decided yet'],
  ])('%j: %s', (change, verdict) => {
    const advice = leakOptions({ ...base, ...change });
    expect(advice.verdict).toBe(verdict);
    expect(advice.options.filter(({ advised }) => advised).map(({ decision }) => decision)).toEqual(
      verdict === 'not decided yet' ? [] : [verdict],
    );
    for (const { risk, priceMinor } of advice.options)
      expect([risk === '', priceMinor]).toEqual([false, 1500]);
  });
  it('keeps acid and wisp off the winding where it leaked at a coil or by one', () => {
    const ask = (change: Partial<Parameters<typeof leakOptions>[0]>) =>
      leakOptions({ ...base, chemistry: 'alkaline', ...change }).care;
    expect(ask({ leaks: at('contact', 'crust') })).not.toContain('winding');
    expect(ask({ leaks: at('coil', 'bloom') })).toContain('Keep acid and cleaning tools off the winding');
    expect(ask({ leaks: at('contact', 'crust'), byCoil: true })).toContain(
      'Keep acid and cleaning tools off the winding',
    );
  });
  it('cleans by what leaked', () => {
    for (const chemistry of ['silver-oxide', 'alkaline'] as const)
      expect(leakOptions({ ...base, chemistry }).care).toContain('Use a trace of weak acid');
    for (const chemistry of ['lithium', 'accumulator', 'mercury', 'zinc-air', null] as const)
      expect(leakOptions({ ...base, chemistry }).care).toContain('no acid and no water');
  });
});

describe('a trend over visits', () => {
  const at = (years: number, value: number) => ({
    atUtc: new Date(Date.UTC(2022, 0, 1) + years * 365.2425 * 86_400_000).toISOString(),
    value,
  });
  it('is the line through the visits, and when it meets the limit', () => {
    const trend = trendOf([at(0, 1), at(1, 1.25), at(2, 1.5)], { value: 2, eitherWay: false }, 'µA');
    expect(trend).toMatchObject({ verdict: 'rising', perYear: expect.closeTo(0.25, 6) as number });
    expect(trend.monthsToLimit).toBeCloseTo(24, 3);
    expect(trend.reasons.join(' ')).toContain('24 months');
  });
  it.each([
    [[at(0, 1)], 'too few visits'],
    [[at(0, 1), at(0.01, 2)], 'too few visits'],
    [[at(0, 1), at(1, 1.02)], 'steady'],
    [[at(0, 1.6), at(1, 1.2)], 'falling'],
    [[at(0, 1.6), at(1, 2.4)], 'over the limit'],
  ] as const)('%j: %s', (points, verdict) => {
    expect(trendOf(points, { value: 2, eitherWay: false }, 'µA').verdict).toBe(verdict);
  });
  it('meets a limit that holds either way on the side it moves to', () => {
    const either = { value: 0.5, eitherWay: true };
    const losing = trendOf([at(0, 0.1), at(1, -0.1)], either, 's/day');
    expect(losing).toMatchObject({ verdict: 'falling' });
    expect(losing.monthsToLimit).toBeCloseTo(24, 3);
    expect(losing.reasons.join(' ')).toContain('limit of −0.5 s/day');
    expect(trendOf([at(0, 0), at(1, -0.6)], either, 's/day').verdict).toBe('over the limit');
    expect(trendOf([at(0, 0), at(1, -0.6)], { ...either, eitherWay: false }, 's/day').verdict).toBe(
      'falling',
    );
  });
  it('finds any line again, whatever the order of the visits', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { minLength: 2, maxLength: 6 }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        (years, slope) => {
          const trend = trendOf(
            years.map((year) => at(year, 5 + slope * year)),
            null,
            'µA',
          );
          expect(trend.perYear).toBeCloseTo(slope, 6);
        },
      ),
    );
  });
});
