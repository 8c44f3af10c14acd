import fc from 'fast-check';
import { madeRecord as made, SETTING } from '../../../testing/leakByLaw';
import { normalFrom, seededUniform } from '../life';
import { driftOf } from './drift';
import { judgeLeak, residualsOf } from './judgeLeak';
import type { LeakSetting } from './leakJudgement';
import { recordContradictions } from './record';
import { carriedBy, condense, type LeakRecord, phasesOf, pressedAt } from './record';
import { standardTest } from './watchTime';

const judge = (record: LeakRecord, setting: Partial<LeakSetting> = {}) =>
  judgeLeak({ record }, { ...SETTING, ...setting });
/** The record up to a time. */
const until = ({ atS, overBar, deflectionUm }: LeakRecord, endS: number): LeakRecord => {
  const count = atS.filter((at) => at <= endS).length;
  return {
    atS: atS.slice(0, count),
    overBar: overBar.slice(0, count),
    deflectionUm: deflectionUm.slice(0, count),
  };
};

describe('a dry test by its record', () => {
  it.each([
    [0, 'tight'],
    [0.3, 'tight'],
    [3, 'leaks'],
    [20, 'leaks'],
    [300, 'leaks'],
  ] as const)('with %d times the limit: %s, the truth within its ends', (ofLimit, verdict) => {
    const answer = judge(made({ ofLimit }));
    expect(answer.verdict).toBe(verdict);
    expect(answer.flow?.from ?? NaN).toBeLessThanOrEqual(50 * ofLimit + 0.01);
    expect(answer.flow?.to ?? NaN).toBeGreaterThanOrEqual(50 * ofLimit);
    expect(answer.working.map(({ what }) => what)).toEqual(['Leak constant', 'Flow of air at 2 bar']);
  });

  it('tells nothing of the stiffness where the air went in while the pressure rose', () => {
    expect(judge(made({ ofLimit: 6000 })).stiffnessUmPerBar).toBeNull();
    expect(judge(made({ ofLimit: 20 })).stiffnessUmPerBar ?? 0).toBeCloseTo(5, 1);
  });

  it('finds the flow at the pressure of the test beside that at 2 bar', () => {
    const { flow, flowAtTest, atBar } = judge(made({ ofLimit: 3, overBar: 5 }));
    expect(atBar).toBe(5);
    // (6² − 1²) / (3² − 1²) times as much.
    expect((flowAtTest?.likeliest ?? 0) / (flow?.likeliest ?? 1)).toBeCloseTo(35 / 8, 6);
  });

  it('goes the same way under vacuum, and from sizes without a sign', () => {
    const under = made({ ofLimit: 4, overBar: -0.7, watchS: 300, noiseUm: 0.01 });
    expect(judge(under)).toMatchObject({ verdict: 'leaks' });
    expect(judge(under).reasons.join(' ')).toContain('may be overstated 3 times');
    const sizes = { ...under, deflectionUm: under.deflectionUm.map((each) => -each) };
    expect(judge(sizes).flow?.likeliest ?? 0).toBeCloseTo(judge(under).flow?.likeliest ?? 1, 3);
    expect(judge(made({ ofLimit: 0, overBar: 8 })).reasons.join(' ')).toContain('may be understated 2 times');
  });

  it('takes a run of both sides without recovery', () => {
    const side = (from: number, bar: number) =>
      Array.from({ length: 130 }, (_, i) => [from + i, bar * Math.min(1, i / 3)] as const);
    const points = [
      ...Array.from({ length: 15 }, (_, i) => [i, 0] as const),
      ...side(15, -0.7),
      ...side(145, 2),
    ];
    const times = { atS: points.map(([at]) => at), overBar: points.map(([, bar]) => bar) };
    expect(judge(made({ ofLimit: 0, times })).verdict).toBe('tight');
    const answer = judge(made({ ofLimit: 5, times }));
    expect(answer.verdict).toBe('leaks');
    const absolute = made({ ofLimit: 0, times });
    expect(judge({ ...absolute, deflectionUm: absolute.deflectionUm.map(Math.abs) })).toMatchObject({
      verdict: 'no verdict',
      reasons: [expect.stringContaining('without their sign') as string],
    });
  });

  it('without recovery, a second side or a blank run settles nothing, whatever it lost', () => {
    for (const ofLimit of [0, 20]) {
      const cut = until(made({ ofLimit, watchS: 300 }), 325);
      expect(judge(cut)).toMatchObject({
        verdict: 'not yet known',
        settles: [{ what: 'recovery' }, { what: 'two-sided' }],
      });
      expect(judge(cut, { drift: { umPerS: 0, errorUmPerS: 0.0001 } }).verdict).toBe(
        ofLimit === 0 ? 'tight' : 'leaks',
      );
    }
  });

  it('does not call tight what moves on past half the watch: creep hides a loss', () => {
    const { atS, overBar } = standardTest(2, 300, Infinity);
    let settled = 0;
    const deflectionUm = atS.map((_, i) => {
      const over = overBar[i] ?? 0;
      settled += (over - settled) * (1 - Math.exp(-1 / 200));
      return 4 * over + settled + 0.02 * Math.sin(i * 2.3);
    });
    const answer = judge({ atS, overBar, deflectionUm });
    expect(answer).toMatchObject({ verdict: 'not yet known', settles: [{ what: 'longer' }] });
    expect(answer.reasons[0]).toContain('hides a loss');
  });

  it('takes drift for no leak', () => {
    for (const driftUmPerS of [-0.004, 0.004])
      expect(judge(made({ ofLimit: 0, driftUmPerS })).verdict).toBe('tight');
  });

  it('asks for the volume where watching longer would not help, and for time where it would', () => {
    expect(
      judge(made({ ofLimit: 1.1, watchS: 900, noiseUm: 0.005 }), {
        volume: { cm3: 1.5, factor: 1.5, how: 'from the case’s size' },
      }),
    ).toMatchObject({
      verdict: 'not yet known',
      settles: [{ what: 'volume' }],
    });
    const short = judge(made({ ofLimit: 0.3, watchS: 30, noiseUm: 0.1 }));
    expect(short).toMatchObject({ verdict: 'not yet known', settles: [{ what: 'longer' }] });
  });

  it('more of a leak never turns leaks into tight, on the same noise', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.double({ min: 0.05, max: 8, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        (seed, ofLimit, more) => {
          const order = ['tight', 'not yet known', 'leaks'];
          const [less, greater] = [ofLimit, ofLimit * more].map((each) =>
            order.indexOf(judge(made({ ofLimit: each, seed, watchS: 90, noiseUm: 0.08 })).verdict),
          ) as [number, number];
          expect(less).toBeGreaterThanOrEqual(0);
          return !(less === 2 && greater === 0);
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('what is no verdict', () => {
  const times = standardTest(2, 120, Infinity);
  const record = (deflectionUm: (at: number, over: number, i: number) => number): LeakRecord => ({
    ...times,
    deflectionUm: times.atS.map((at, i) => deflectionUm(at, times.overBar[i] ?? 0, i)),
  });
  const noise = (i: number): number => 0.02 * normalFrom(seededUniform(i + 5));

  it.each<readonly [string, LeakRecord, string]>([
    ['nothing gave', record((_, __, i) => noise(i)), 'very stiff, or it flooded at once'],
    ['a flat line', record(() => 0), 'very stiff, or it flooded at once'],
    [
      'a line that stands where it was pressed',
      record((_, over) => (over > 1 ? 10 : 0)),
      'A flat line is never tight',
    ],
    ['a sensor that stays', record((at, _, i) => (at > 16 ? 10 : 0) + noise(i)), 'the sensor is stuck'],
    ['no baseline', until(made(), 400), 'flat'],
  ])('%s', (label, given, words) => {
    if (label === 'no baseline') {
      const { atS, overBar, deflectionUm } = given;
      const cut = { atS: atS.slice(10), overBar: overBar.slice(10), deflectionUm: deflectionUm.slice(10) };
      expect(judge(cut)).toMatchObject({ verdict: 'no verdict', settles: [{ what: 'again' }] });
      return;
    }
    expect(judge(given).verdict).toBe('no verdict');
    expect(judge(given).reasons.join(' ')).toContain(words);
  });

  it('less than a quarter of what this case gave before', () => {
    expect(judge(made(), { usualUmPerBar: 30 })).toMatchObject({ verdict: 'no verdict' });
    expect(judge(made(), { usualUmPerBar: 12 }).verdict).toBe('tight');
  });

  it('no deflection under pressure, and one the other way after venting, is flooded: it leaks', () => {
    const flooded = record((at, over, i) => {
      const since = at - (times.atS.find((each, j) => each > 100 && (times.overBar[j] ?? 0) < 0.1) ?? 0);
      return (over < 0.1 && since >= 0 ? -4 * Math.exp(-since / 30) : 0) + noise(i);
    });
    expect(judge(flooded)).toMatchObject({ verdict: 'leaks', flooded: true });
  });

  it.each<readonly [string, LeakRecord]>([
    ['nothing at all', { atS: [], overBar: [], deflectionUm: [] }],
    ['one point', { atS: [0], overBar: [2], deflectionUm: [1] }],
    ['times that fall', { ...made(), atS: made().atS.map((at) => -at) }],
    ['what is no figure', { ...made(), deflectionUm: made().deflectionUm.map(() => NaN) }],
    ['what has no end', { ...made(), overBar: made().overBar.map(() => Infinity) }],
    ['unequal lists', { ...made(), overBar: [0] }],
    ['nothing pressed', { ...made(), overBar: made().overBar.map(() => 0) }],
    ['a glance', until(made(), 30)],
  ])('%s is refused, and never thrown', (_, given) => {
    expect(judge(given).verdict).toBe('no verdict');
    expect(judge(given).flow).toBeNull();
  });

  it.each<Partial<LeakSetting>>([
    { volume: { cm3: 0, factor: 1.1, how: 'measured' } },
    { volume: { cm3: NaN, factor: 1.1, how: 'measured' } },
    { volume: { cm3: 1, factor: 0.5, how: 'measured' } },
    { temperatureC: -300 },
    { testerNoiseUm: NaN },
    { drift: { umPerS: NaN, errorUmPerS: 1 } },
    { drift: { umPerS: 0, errorUmPerS: 0 } },
  ])('neither is what is reckoned with %j', (setting) => {
    expect(judge(made(), setting).verdict).toBe('no verdict');
  });

  it('is never tight, whatever stands in a record', () => {
    const value = fc.oneof(fc.double({ min: -50, max: 50 }), fc.constantFrom(0, NaN, Infinity));
    fc.assert(
      fc.property(fc.array(fc.tuple(value, value, value), { maxLength: 60 }), (points) => {
        const answer = judge({
          atS: points.map(([at]) => at),
          overBar: points.map(([, over]) => over),
          deflectionUm: points.map(([, , um]) => um),
        });
        return answer.verdict !== 'tight';
      }),
    );
  });
});

describe('two figures', () => {
  const figures = { startUm: 10, endUm: 9.99, seconds: 600, overBar: 2 };
  const blank = { umPerS: 0, errorUmPerS: 0.00002 };
  it('settle nothing without a blank run', () => {
    expect(judgeLeak(figures, SETTING)).toMatchObject({
      verdict: 'not yet known',
      settles: [{ what: 'recovery' }],
    });
  });
  it.each([
    [9.99, 'tight'],
    [8.8, 'not yet known'],
    [5, 'leaks'],
    [0, 'leaks'],
  ] as const)('that end at %d µm, with one: %s', (endUm, verdict) => {
    expect(judgeLeak({ ...figures, endUm }, { ...SETTING, drift: blank }).verdict).toBe(verdict);
  });
  it.each([
    { ...figures, startUm: 0 },
    { ...figures, startUm: 0.01, endUm: 0.01 },
    { ...figures, seconds: 0 },
    { ...figures, overBar: 0 },
    { ...figures, endUm: NaN },
  ])('%j are no verdict', (given) => {
    expect(judgeLeak(given, { ...SETTING, drift: blank }).verdict).toBe('no verdict');
  });
});

describe('the drift of a tester', () => {
  const blank = (seconds: number, slope: number): LeakRecord => {
    const atS = Array.from({ length: seconds }, (_, at) => at);
    const uniform = seededUniform(3);
    return {
      atS,
      overBar: atS.map(() => 0),
      deflectionUm: atS.map((at) => slope * at + 0.05 * normalFrom(uniform)),
    };
  };
  it('is a line with its error', () => {
    const drift = driftOf(blank(120, 0.002), 0.05);
    expect(Math.abs((drift?.umPerS ?? 1) - 0.002)).toBeLessThan(3 * (drift?.errorUmPerS ?? 0));
    expect(drift?.errorUmPerS).toBeCloseTo((0.05 * Math.sqrt(12 / 120)) / 120, 4);
  });
  it('is none of a run that was pressed, or too short', () => {
    expect(driftOf(made(), 0.05)).toBeNull();
    expect(driftOf(blank(15, 0), 0.05)).toBeNull();
    expect(driftOf({ startUm: 0, endUm: 1, seconds: 10 }, 0.05)).toBeNull();
    expect(driftOf({ startUm: 0, endUm: 0.12, seconds: 120 }, 0.05)).toMatchObject({ umPerS: 0.001 });
  });
});

describe('a record', () => {
  it('falls into its phases', () => {
    expect(phasesOf(made()).map(({ kind }) => kind)).toEqual(['baseline', 'pressure', 'recovery']);
    expect(pressedAt(made({ overBar: -0.7 }))).toBe(-0.7);
    expect(carriedBy(made({ watchS: 180 }))?.seconds).toBeGreaterThanOrEqual(180);
    expect(carriedBy({ ...made(), overBar: made().overBar.map(() => 0) })).toBeNull();
  });
  it('keeps its verdict when it is condensed, and its points below the most', () => {
    const long = made({ ofLimit: 3, watchS: 1500 });
    const short = condense(long, 700);
    expect(short.atS.length).toBeLessThanOrEqual(700);
    expect(recordContradictions(short)).toEqual([]);
    expect(judge(short).verdict).toBe('leaks');
    expect(condense(made())).toEqual(made());
  });
  it('leaves noise alone once its fit is taken off', () => {
    const left = residualsOf(made({ ofLimit: 2 }), SETTING)?.leftUm ?? [];
    const held = left.slice(60, 190);
    expect(Math.sqrt(held.reduce((sum, each) => sum + each ** 2, 0) / held.length)).toBeCloseTo(0.03, 2);
    expect(residualsOf({ atS: [], overBar: [], deflectionUm: [] }, SETTING)).toBeNull();
  });
  it.each<readonly [string, LeakRecord, string]>([
    ['unequal', { ...made(), overBar: [] }, 'not equally many'],
    ['one', { atS: [1], overBar: [1], deflectionUm: [1] }, 'at least two'],
    ['not numbers', { atS: [1, 2], overBar: [1, NaN], deflectionUm: [1, 1] }, 'not numbers'],
    ['standing', { atS: [1, 1], overBar: [1, 1], deflectionUm: [1, 1] }, 'at point 2'],
    ['no air', { atS: [1, 2], overBar: [1, -1.2], deflectionUm: [1, 1] }, 'below a full vacuum'],
  ])('%s is none', (_, given, words) => {
    expect(recordContradictions(given)[0]).toContain(words);
  });
});
