import fc from 'fast-check';
import { madeRecord, SETTING } from '../../../testing/leakByLaw';
import { judgeLeak } from './judgeLeak';
import type { LeakSetting } from './leakJudgement';
import { LIMIT_UG_PER_MIN } from './law';
import { mayEnd, outlookOf, type TestOutlook } from './outlook';
import { carriedBy, heldOf, heldPhases, type LeakRecord } from './record';

const BLANK: LeakSetting = { ...SETTING, drift: { umPerS: 0, errorUmPerS: 0.0002 } };
const twoFigures = (startUm: number, endUm: number, setting = BLANK, overBar = 3, seconds = 120) =>
  judgeLeak({ startUm, endUm, seconds, overBar }, setting);

/** Pressures held one after the other, each with its time; nothing presses in between where a part has no pressure. */
function timesOf(...parts: readonly (readonly [overBar: number, seconds: number])[]) {
  const overBar = parts.flatMap(([bar, seconds]) => Array.from({ length: seconds }, () => bar));
  return { atS: overBar.map((_, at) => at), overBar };
}
const recordOf = (...parts: readonly (readonly [number, number])[]): LeakRecord =>
  madeRecord({ times: timesOf(...parts), watchS: 0 });

describe('two figures that contradict the law', () => {
  it.each([
    [14, 20, '70 % would be left'],
    [20, 40, 'the pressure was raised'],
    [-14, -20, '70 % would be left'],
    [10.2, 14.1, '72 % would be left'],
  ])('from %d to %d µm give no verdict, and what was probably swapped', (start, end, words) => {
    for (const setting of [BLANK, SETTING]) {
      const answer = twoFigures(start, end, setting);
      expect(answer).toMatchObject({ verdict: 'no verdict', flow: null, settles: [{ what: 'again' }] });
      expect(answer.reasons.join(' ')).toContain('Start and end were probably swapped');
      expect(answer.reasons.join(' ')).toContain(words);
    }
  });

  it('past the baseline give none either', () => {
    expect(twoFigures(14, -6)).toMatchObject({ verdict: 'no verdict' });
    expect(twoFigures(14, -6).reasons.join(' ')).toContain('read after venting');
  });

  it('leave room for noise, for drift, and for what the case still gives', () => {
    expect(twoFigures(14, 14.2).verdict).toBe('tight');
    expect(twoFigures(14, 13.99).verdict).toBe('tight');
    const drifting = { ...BLANK, drift: { umPerS: 0.05, errorUmPerS: 0.0002 } };
    // 6 µm of drift in the two minutes.
    expect(twoFigures(14, 20, drifting).verdict).toBe('tight');
    expect(twoFigures(14, 14, drifting).verdict).toBe('leaks');
  });

  it('never pass, however they are turned', () => {
    const um = fc.double({ min: 5, max: 200, noNaN: true });
    fc.assert(
      fc.property(um, fc.double({ min: 1.06, max: 5, noNaN: true }), fc.boolean(), (start, grew, blank) => {
        const answer = twoFigures(start, start * grew, blank ? BLANK : SETTING, 2, 60);
        expect(answer.verdict).toBe('no verdict');
      }),
    );
  });
});

describe('several pressures in one record', () => {
  it.each([
    [
      [
        [0, 15],
        [3, 4],
        [0, 20],
        [-0.7, 312],
        [0, 60],
      ],
      [3, -0.7],
      -0.7,
      311,
    ],
    [
      [
        [0, 15],
        [5, 5],
        [0, 20],
        [4.2, 300],
        [0, 300],
      ],
      [5, 4.2],
      4.2,
      299,
    ],
    [
      [
        [0, 15],
        [5, 6],
        [3, 200],
        [0, 200],
      ],
      [5, 3],
      3,
      199,
    ],
    [
      [
        [0, 15],
        [1, 60],
        [3, 120],
        [0, 120],
      ],
      [1, 3],
      3,
      119,
    ],
    [
      [
        [0, 15],
        [3, 120],
        [0, 120],
      ],
      [3],
      3,
      119,
    ],
    [
      [
        [0, 15],
        [5, 90],
        [4.5, 110],
        [0, 100],
      ],
      [4.5],
      4.5,
      199,
    ],
  ] as const)('each has its own time: %j', (parts, pressures, carries, seconds) => {
    const record = recordOf(...parts);
    expect(heldPhases(record).map(({ overBar }) => overBar)).toEqual(pressures);
    expect(carriedBy(record)).toEqual({ overBar: carries, seconds });
    expect(judgeLeak({ record }, SETTING).atBar).toBe(carries);
  });

  it('are claimed by the record, whatever was typed beside it, and no more than was typed of its time', () => {
    const record = recordOf([0, 15], [3, 4], [0, 20], [-0.7, 312], [0, 60]);
    expect(heldOf({ record, pressureBar: 3, seconds: 300 })).toEqual({ overBar: -0.7, seconds: 300 });
    expect(heldOf({ record, pressureBar: -0.7, seconds: 900 })).toEqual({ overBar: -0.7, seconds: 311 });
    expect(heldOf({ record: null, pressureBar: 3, seconds: 300 })).toEqual({ overBar: 3, seconds: 300 });
    expect(heldOf({ record: null, pressureBar: null, seconds: 60 })).toEqual({ overBar: null, seconds: 60 });
  });

  it('are told to a hundredth, so that a retest at the same pressure counts as one', () => {
    const noisy = (bar: number) => {
      const { atS, overBar, deflectionUm } = recordOf([0, 15], [bar, 120], [0, 60]);
      return { atS, deflectionUm, overBar: overBar.map((each, i) => each + 0.001 * Math.sin(i)) };
    };
    expect([carriedBy(noisy(2.998))?.overBar, carriedBy(noisy(3.001))?.overBar]).toEqual([3, 3]);
    expect(carriedBy(noisy(2.97))?.overBar).toBe(2.97);
  });

  it('are found in one pass, however a file was made to stall it', () => {
    const atS = Array.from({ length: 300_000 }, (_, i) => i / 100);
    const overBar = atS.map((at, i) => (at < 10 ? 0 : i % 2 === 0 ? 3 + i * 1e-6 : 1));
    expect(() => heldPhases({ atS, overBar, deflectionUm: overBar })).not.toThrow();
  });

  it('never claim a pressure for longer than it stood', () => {
    const bars = fc.constantFrom(0, 0, 1, 2, 3, 5, -0.5, -0.7);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(bars, fc.integer({ min: 3, max: 200 })), { minLength: 1, maxLength: 6 }),
        (parts) => {
          const held = carriedBy(recordOf([0, 15], ...parts));
          if (held === null) return;
          const stood = parts.reduce(
            (seconds, [bar, time]) =>
              Math.sign(bar) === Math.sign(held.overBar) && Math.abs(bar) >= 0.95 * Math.abs(held.overBar)
                ? seconds + time
                : seconds,
            0,
          );
          expect(held.seconds).toBeLessThanOrEqual(Math.max(1, stood));
        },
      ),
    );
  });
});

describe('neither volume nor size known', () => {
  const setting: LeakSetting = { ...BLANK, volume: { cm3: 1.3, factor: 2.2, how: 'guessed' } };

  it('gives no verdict, says what each size of case would mean, and asks for it', () => {
    for (const answer of [
      judgeLeak({ record: madeRecord({ ofLimit: 0.4 }) }, setting),
      judgeLeak({ record: madeRecord({ ofLimit: 1.2 }) }, setting),
      twoFigures(14, 13.99, setting),
    ]) {
      expect(answer).toMatchObject({ verdict: 'no verdict', settles: [{ what: 'volume' }] });
      expect(answer.reasons.filter((each) => / cm³, .*at 2 bar: /.test(each))).toHaveLength(4);
    }
    const small = judgeLeak({ record: madeRecord({ ofLimit: 0.4 }) }, setting).reasons;
    expect(small[1]).toMatch(/a small case .*: tight\.$/);
    expect(small.at(-1)).toMatch(/a very large case .*: leaks\.$/);
  });

  it('calls a leak one that is one in the smallest case, too', () => {
    expect(judgeLeak({ record: madeRecord({ ofLimit: 20 }) }, setting).verdict).toBe('leaks');
    expect(twoFigures(14, 1, setting).verdict).toBe('leaks');
  });

  it('tells the flow of every size: from the smallest to the largest', () => {
    const { flow, stiffnessUmPerBar } = judgeLeak({ record: madeRecord({ ofLimit: 1.2 }) }, setting);
    expect(flow?.from).toBeLessThan(20);
    expect(flow?.to).toBeGreaterThan(300);
    expect(stiffnessUmPerBar).toBeCloseTo(5, 0);
  });
});

describe('what would settle a test', () => {
  it('says the chance of each way, the cheaper of those that settle four in five first', () => {
    const short = judgeLeak({ record: madeRecord({ ofLimit: 0.4, watchS: 60, noiseUm: 0.05 }) }, SETTING);
    expect(short.verdict).toBe('not yet known');
    expect(short.settles[0]).toMatchObject({ what: 'longer' });
    expect(short.settles[0]?.chance).toBeGreaterThanOrEqual(0.8);
  });

  it('never asks for a volume that was measured', () => {
    for (const ofLimit of [0.9, 1, 1.1])
      for (const watchS of [60, 300, 900]) {
        const answer = judgeLeak({ record: madeRecord({ ofLimit, watchS, noiseUm: 0.05 }) }, SETTING);
        expect(answer.settles.map(({ what }) => what)).not.toContain('volume');
      }
  });

  it('asks for the volume of a case known by its size where that settles it', () => {
    const bySize: LeakSetting = {
      ...SETTING,
      volume: { cm3: 1.5, factor: 1.5, how: 'from the case’s size' },
    };
    const answer = judgeLeak({ record: madeRecord({ ofLimit: 0.75, watchS: 900, noiseUm: 0.01 }) }, bySize);
    expect(answer).toMatchObject({ verdict: 'not yet known', settles: [{ what: 'volume' }] });
    expect(answer.settles[0]?.chance).toBeGreaterThan(0.5);
  });
});

describe('a test that runs', () => {
  const outlook = (verdict: TestOutlook['verdict'], reason = ''): TestOutlook => ({
    verdict,
    reasons: [reason],
    working: [],
    watchS: null,
  });
  const whole = madeRecord({ watchS: 300, noiseUm: 0.05 });
  const until = (points: number): LeakRecord => ({
    atS: whole.atS.slice(0, points),
    overBar: whole.overBar.slice(0, points),
    deflectionUm: whole.deflectionUm.slice(0, points),
  });

  it('says first nothing, then whether its time is enough, then its result', () => {
    expect(outlookOf(until(30), SETTING, 300).verdict).toBe('too early');
    expect(['time enough', 'too short']).toContain(outlookOf(until(150), SETTING, 300).verdict);
    expect(outlookOf(whole, SETTING, 300).verdict).toBe('settled');
  });

  it('offers no time where the size of the case is in question', () => {
    const guessed: LeakSetting = { ...SETTING, volume: { cm3: 1.3, factor: 2.2, how: 'guessed' } };
    const answer = outlookOf(until(150), guessed, 300);
    expect(answer).toMatchObject({ verdict: 'cannot tell', watchS: null });
    expect(answer.reasons.join(' ')).toContain('Neither the free volume nor the size');
  });

  it('is not settled by a flow that lies close to the limit, which what still comes may carry over it', () => {
    const close = [0.7, 0.8, 0.85, 0.9, 0.95].map((ofLimit) =>
      madeRecord({ ofLimit, watchS: 300, noiseUm: 0.01 }),
    );
    const tight = close.filter((record) => judgeLeak({ record }, BLANK).verdict === 'tight');
    const settled = tight.filter((record) => outlookOf(record, BLANK, 300).verdict === 'settled');
    expect(tight.length).toBeGreaterThan(settled.length);
    for (const record of settled)
      expect(judgeLeak({ record }, BLANK).flow?.to).toBeLessThanOrEqual(0.9 * LIMIT_UG_PER_MIN);
  });

  it('ends only once two outlooks in a row find the same result', () => {
    const tight = outlook('settled', 'tight');
    expect(mayEnd([tight])).toBe(false);
    expect(mayEnd([tight, outlook('time enough'), tight])).toBe(false);
    expect(mayEnd([tight, outlook('settled', 'leaks')])).toBe(false);
    expect(mayEnd([outlook('too early'), tight, tight])).toBe(true);
  });
});
