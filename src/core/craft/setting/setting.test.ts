import { book } from '../../../testing/fixtures';
import { isForLicensed } from '../gaskets';
import { functionsToProve, judgeRun, settingAdvice, watchSeconds } from './setting';
import { drainNeeded } from '../book';
import { nextDateCorrection } from '../time';
import fc from 'fast-check';
describe('small words', () => {
  it('watches several steps of a slow movement, and refers what only the licensed may certify', () => {
    expect([
      watchSeconds(null),
      watchSeconds({ stepIntervalS: 1, functions: [] }),
      watchSeconds({ stepIntervalS: 20, functions: [] }),
      watchSeconds({ stepIntervalS: null, functions: ['hands'] }),
      watchSeconds({ stepIntervalS: null, functions: ['hands', 'seconds hand'] }),
      watchSeconds({ stepIntervalS: null, functions: ['digital display'] }),
      watchSeconds({ stepIntervalS: null, functions: ['hands', 'digital display'] }),
    ]).toEqual([60, 20, 120, 60, 20, 20, 60]);
    expect([isForLicensed(10), isForLicensed(20)]).toEqual([false, true]);
  });
});

describe('setting and proving', () => {
  it('names a proof for every function of every calibre', () => {
    for (const calibre of book.calibres) {
      expect(functionsToProve(calibre).map((step) => step.what)).toEqual(calibre.functions);
      expect(functionsToProve(calibre).every((step) => step.how.length > 10)).toBe(true);
    }
  });

  it('forbids the quick-set at night where there is one, and finds midnight first', () => {
    const dated = settingAdvice(book.calibre('orrelin-41-6'), '2026-03-17');
    expect(dated.steps.join(' ')).toContain('20:00–02:00');
    expect(dated.steps[0]).toContain('midnight');
    expect(settingAdvice(book.calibre('orrelin-41-2'), '2026-03-17').steps).toHaveLength(1);
    expect(settingAdvice(null, '2026-03-17').verdict).toBe('not yet known');
  });

  it.each([
    ['2026-03-17', '2026-05-01', 1],
    ['2026-02-10', '2026-03-01', 3],
    ['2028-02-10', '2028-03-01', 2],
    ['2026-12-05', '2027-03-01', 3],
    ['2026-06-30', '2026-07-01', 1],
  ])('from %s the date wheel next wants a hand on %s, by %i', (day, on, extraDays) => {
    expect(nextDateCorrection(day)).toEqual({ day: on, extraDays });
  });

  it('asks high drain where light, alarm or chronograph draw', () => {
    expect(drainNeeded({ functions: ['hands', 'alarm'] })).toBe('high');
    expect(drainNeeded({ functions: ['hands', 'date'] })).toBe('low');
  });
});

describe('the proving run', () => {
  const began = { shows: '09:00:00', atUtc: '2026-03-17T09:30:00.000Z' };
  const ended = (shows: string, stillRuns = true, atUtc = '2026-03-17T21:30:00.000Z') => ({
    shows,
    stillRuns,
    atUtc,
  });
  it.each([
    ['keeps time', '09:00:00', 0],
    ['keeps time', '21:00:01', 1],
    ['off', '09:00:04', 4],
    ['off', '08:59:50', -10],
    ['keeps time', '09:01', 60],
  ] as const)('is %s when the hands show %s after twelve hours', (verdict, shows, gainedS) => {
    expect(judgeRun(began, ended(shows))).toMatchObject({ verdict, gainedS, hours: 12 });
  });
  it('says when it stopped, still runs, or was not begun', () => {
    expect(judgeRun(began, ended('09:00', false)).verdict).toBe('stopped');
    expect(judgeRun(began, null).verdict).toBe('still running');
    expect(judgeRun(null, null).verdict).toBe('not begun');
  });
  it('finds any gain a watch may have, whatever the hour it is read', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 86_399 }),
        fc.integer({ min: 1, max: 72 }),
        fc.integer({ min: -21_000, max: 21_000 }),
        (startS, hours, gainedS) => {
          const clock = (seconds: number): string =>
            new Date((((seconds % 86_400) + 86_400) % 86_400) * 1000).toISOString().slice(11, 19);
          const atUtc = new Date(Date.parse(began.atUtc) + hours * 3_600_000).toISOString();
          return (
            judgeRun(
              { shows: clock(startS), atUtc: began.atUtc },
              { shows: clock(startS + hours * 3600 + gainedS), atUtc, stillRuns: true },
            ).gainedS === gainedS
          );
        },
      ),
    );
  });
});
