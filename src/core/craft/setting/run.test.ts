import fc from 'fast-check';
import { judgeRun, watchSeconds } from './run';

const BEGAN_UTC = '2026-03-17T09:30:00.000Z';
const began = { shows: '09:00:00', atUtc: BEGAN_UTC };
const later = (seconds: number): string => new Date(Date.parse(BEGAN_UTC) + seconds * 1000).toISOString();
const HALF_DAY_S = 43_200;
const ended = (shows: string, seconds = HALF_DAY_S, stillRuns = true) => ({
  shows,
  stillRuns,
  atUtc: later(seconds),
});
const clock = (seconds: number): string =>
  new Date((((seconds % 86_400) + 86_400) % 86_400) * 1000).toISOString().slice(11, 19);

describe('how long a watch is watched', () => {
  it('goes by several of its own steps', () => {
    expect([
      watchSeconds(null),
      watchSeconds({ stepIntervalS: 1, functions: [] }),
      watchSeconds({ stepIntervalS: 20, functions: [] }),
      watchSeconds({ stepIntervalS: null, functions: ['hands'] }),
      watchSeconds({ stepIntervalS: null, functions: ['hands', 'seconds hand'] }),
      watchSeconds({ stepIntervalS: null, functions: ['digital display'] }),
      watchSeconds({ stepIntervalS: null, functions: ['hands', 'digital display'] }),
    ]).toEqual([60, 20, 120, 60, 20, 20, 60]);
  });
});

describe('a run', () => {
  it.each([
    ['keeps time', '09:00:00', 0],
    ['keeps time', '21:00:00', 0],
    // Two seconds a day, and as much either way for the reading.
    ['runs', '21:00:01', 1],
    ['off', '09:00:04', 4],
    ['off', '08:59:50', -10],
    // Read to the minute it tells no rate in half a day.
    ['runs', '09:01', 60],
    ['off', '09:15', 900],
  ] as const)('%s when the hands show %s after twelve hours', (verdict, shows, gainedS) => {
    expect(judgeRun(began, ended(shows))).toMatchObject({ verdict, gainedS, hours: 12 });
  });

  it('of two minutes tells that it runs, and how long a rate would take', () => {
    const short = judgeRun({ ...began, shows: '09:00' }, ended('09:02', 120));
    expect(short.verdict).toBe('runs');
    expect(short.reasons.join(' ')).toContain('no better');
    expect(short.reasons.join(' ')).toContain('1440 h');
  });

  it.each([
    ['09:00', '09:00', 300],
    ['09:00:00', '09:00:00', 120],
    ['09:00', '09:01', 7200],
    ['11:58', '11:58', 10_800],
  ])(
    'of hands that stand at %s and %s after %i s is a stopped one, whatever was thought',
    (from, to, seconds) => {
      expect(judgeRun({ ...began, shows: from }, ended(to, seconds))).toMatchObject({ verdict: 'stopped' });
    },
  );

  it('of hands read too coarsely to have moved says no more than was seen', () => {
    expect(judgeRun({ ...began, shows: '09:00' }, ended('09:00', 100)).verdict).toBe('runs');
    // Half a day on they stand where they stood, and have gone round.
    expect(judgeRun({ ...began, shows: '09:00' }, ended('09:00')).verdict).toBe('runs');
  });

  it('says when it stopped, still runs, was not read, or was not begun', () => {
    expect(judgeRun(began, ended('09:00', HALF_DAY_S, false)).verdict).toBe('stopped');
    expect(judgeRun(began, null).verdict).toBe('still running');
    expect(judgeRun(null, null).verdict).toBe('not begun');
    expect(judgeRun({ ...began, shows: '' }, ended('')).verdict).toBe('runs');
    expect(judgeRun(began, ended('09:00:00', 0)).verdict).toBe('runs');
  });

  it('tells no rate where the crown was pulled meanwhile', () => {
    expect(judgeRun(began, ended('10:30:00'), 'the time was set in between')).toMatchObject({
      verdict: 'runs',
      secondsPerDay: null,
      reasons: ['Ran 12 h; the time was set in between, so the readings give no rate.'],
    });
  });

  it('finds any gain a watch may have, whatever the hour it is read', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 86_399 }),
        fc.integer({ min: 7, max: 72 }),
        fc.integer({ min: -21_000, max: 21_000 }),
        (startS, hours, gainedS) =>
          judgeRun(
            { shows: clock(startS), atUtc: BEGAN_UTC },
            ended(clock(startS + hours * 3600 + gainedS), hours * 3600),
          ).gainedS === gainedS,
      ),
    );
  });

  it('never says of a watch off by more than 3 s a day that it keeps time, nor of one within 1 s that it is off', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 43_199 }),
        fc.integer({ min: 60, max: 400_000 }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.boolean(),
        (startS, seconds, ratePerDay, byMinute) => {
          // What a hand reads: the minute, or the second, that the hands have passed.
          const read = (at: number): string =>
            byMinute ? clock(Math.round(at / 60) * 60).slice(0, 5) : clock(Math.round(at));
          const { verdict } = judgeRun(
            { shows: read(startS), atUtc: BEGAN_UTC },
            ended(read(startS + seconds * (1 + ratePerDay / 86_400)), seconds),
          );
          if (verdict === 'stopped') return false;
          if (Math.abs(ratePerDay) > 4.1) return verdict !== 'keeps time';
          return Math.abs(ratePerDay) > 2 || verdict !== 'off';
        },
      ),
      { numRuns: 2000 },
    );
  });
});
