import fc from 'fast-check';
import { book, idOf, lot } from '../testing/fixtures';
import { prySpot } from './craft/cases';
import { wantedFromType } from './craft/cells';
import { drainNeeded } from './craft/book';
import { openAt, orderRack, urgencyOf } from './advice/dayplan';
import { DEFAULT_POLICY, WEEKDAYS } from './craft/policy';
import { renewOrReuse } from './craft/gaskets';
import {
  figuresFor,
  judgeCoil,
  judgeCurrent,
  judgeLoadedVoltage,
  judgeLowestRunning,
  judgeRate,
  judgeRestVoltage,
} from './craft/health';
import { figure, percent } from './craft/judgement';
import { functionsToProve, judgeRun, settingAdvice } from './craft/setting';
import { chooseLots, isPastDate, type Lot, lotAge } from './craft/stock';
import { addMonths, localDay, nextDateCorrection } from './craft/time';
describe('where the knife goes', () => {
  it('goes to the lip where there is one', () => {
    expect(prySpot({ crownClock: 3, lipClock: 6.5 })).toMatchObject({ verdict: 'at the lip', clock: 6.5 });
  });

  it('asks for the crown before it chooses a spot', () => {
    expect(prySpot({ crownClock: null, lipClock: null })).toMatchObject({
      verdict: 'not yet known',
      clock: null,
    });
  });

  it('keeps away from the crown, seen from behind, and from every lug', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 24 }).map((halves) => halves / 2),
        (crownClock) => {
          const { clock } = prySpot({ crownClock, lipClock: null });
          const apart = (a: number, b: number): number => Math.min(Math.abs(a - b), 12 - Math.abs(a - b));
          const crown = (12 - crownClock) % 12 || 12;
          return (
            clock !== null && apart(clock, crown) >= 2 && [1, 5, 7, 11].every((lug) => apart(clock, lug) >= 1)
          );
        },
      ),
    );
  });
});

describe('gasket: renew or reuse', () => {
  const sound = {
    findings: [],
    ageYears: 2,
    ratingBar: 3,
    meetsWater: false,
    staysClosedYears: 2,
    rule: 'inspect and decide',
  } as const;
  it('reuses a sound young ring away from water', () => {
    expect(renewOrReuse(sound).verdict).toBe('reuse');
    expect(renewOrReuse({ ...sound, findings: ['dry'] })).toMatchObject({
      verdict: 'reuse',
      reasons: [expect.stringContaining('dry')],
    });
  });
  it.each([
    ['rated 5 bar', { ratingBar: 5 }],
    ['near water', { meetsWater: true }],
    ['nicked', { findings: ['nicked'] as const }],
    ['over three years old', { ageYears: 3.2 }],
    ['of unknown age', { ageYears: null }],
    ['shut for long', { staysClosedYears: 4 }],
    ['by the shop’s rule', { rule: 'renew at every opening' as const }],
  ])('renews when %s', (_, change) => {
    const advice = renewOrReuse({ ...sound, ...change });
    expect(advice.verdict).toBe('renew');
    expect(advice.reasons).toHaveLength(1);
  });
});

describe('readings', () => {
  it.each([
    [1.44, 'silver-oxide', 'spent'],
    [1.5, 'silver-oxide', 'falling'],
    [1.56, 'silver-oxide', 'good'],
    [2.69, 'lithium', 'spent'],
    [3.1, 'lithium', 'good'],
    [1.29, 'alkaline', 'spent'],
    [1.5, null, 'not judged'],
    [1.4, 'zinc-air', 'not judged'],
  ] as const)('%s V of %s is %s', (value, chemistry, verdict) => {
    expect(judgeRestVoltage(value, chemistry).verdict).toBe(verdict);
  });

  it('says that a good voltage of silver oxide proves little', () => {
    expect(judgeRestVoltage(1.57, 'silver-oxide').reasons[0]).toContain('proves little');
  });

  it('judges the sag only against thresholds of its load', () => {
    expect(judgeLoadedVoltage(1.35, 1.55, 'silver-oxide').verdict).toBe('spent');
    expect(judgeLoadedVoltage(1.45, 1.55, 'silver-oxide').verdict).toBe('good');
    expect(judgeLoadedVoltage(2.8, 3.0, 'lithium').verdict).toBe('good');
    expect(judgeLoadedVoltage(1.4, null, 'silver-oxide').verdict).toBe('not judged');
    expect(judgeLoadedVoltage(1.4, 1.5, 'alkaline').verdict).toBe('not judged');
    const at = (loadKOhm: number, seconds: number) =>
      judgeLoadedVoltage(1.35, 1.55, 'silver-oxide', { loadKOhm, seconds });
    expect(at(2, 1).verdict).toBe('spent');
    expect(at(1, 1)).toMatchObject({
      verdict: 'not judged',
      reasons: [expect.stringContaining('2 kΩ, 1 s')],
    });
    expect(at(2, 5).verdict).toBe('not judged');
  });

  it('judges the current by this movement', () => {
    const { current } = figuresFor(book.calibre('orrelin-62-3'), book);
    expect(judgeCurrent(1.6, current)).toMatchObject({
      verdict: 'good',
      reference: { whose: 'this movement', max: 2.4 },
    });
    expect(judgeCurrent(4.8, current).reasons[0]).toContain('2 times the limit');
    expect(judgeCurrent(0.1, current)).toMatchObject({
      verdict: 'too little',
      reasons: [expect.stringContaining('crown')],
    });
    expect(judgeCurrent(1.6, figuresFor(null, book).current)).toMatchObject({
      verdict: 'good',
      reference: { whose: 'general' },
    });
  });
});

describe('which lot to take', () => {
  const wanted = wantedFromType(book.cell('SR621SW') as never, { drain: 'low' }) as never;
  const choose = (lots: Lot[]) =>
    chooseLots(lots, wanted, book.cell, '2026-03-17', { alkalineAgreed: false });
  const other = (name: string, change: Partial<Lot>): Lot => ({
    ...lot,
    id: idOf(name),
    lotCode: name,
    ...change,
  });

  it('takes the oldest in date of the equal cell before an accepted one', () => {
    const offers = choose([
      other('new', { bestBefore: '2029-01-01' }),
      other('high', { code: 'SR621W', bestBefore: '2027-01-01' }),
      other('old', { bestBefore: '2027-06-01' }),
    ]);
    expect(offers.filter((offer) => offer.verdict === 'take').map((offer) => offer.lot.lotCode)).toEqual([
      'old',
      'new',
      'high',
    ]);
  });

  it('blocks what is past its date or not the cell, each with its reason, and leaves out what is used up', () => {
    const offers = choose([
      other('past', { bestBefore: '2026-03-16' }),
      other('empty', { balance: 0 }),
      other('alkaline', { code: 'LR621' }),
      other('unrelated', { code: 'CR2016' }),
    ]);
    expect(offers.every((offer) => offer.verdict === 'blocked')).toBe(true);
    expect(offers.some((offer) => offer.lot.lotCode === 'empty')).toBe(false);
    expect(choose([other('to count', { balance: 0, toBeCounted: true })])[0]).toMatchObject({
      verdict: 'blocked',
      reasons: ['None left.'],
    });
    expect(offers.map((offer) => offer.reasons[0])).toEqual(
      expect.arrayContaining([expect.stringContaining('Past its date'), expect.stringContaining('Alkaline')]),
    );
    expect(offers.some((offer) => offer.lot.lotCode === 'unrelated')).toBe(false);
  });

  it('is usable on the very day printed', () => {
    expect(isPastDate({ bestBefore: '2026-03-17' }, '2026-03-17')).toBe(false);
  });

  it('works the age back from best before, and says it is assumed', () => {
    const cell = book.cell('SR621SW') as never;
    expect(lotAge({ madeOn: null, bestBefore: '2028-03-17' }, cell, '2026-03-17')).toMatchObject({
      assumed: true,
      years: expect.closeTo(1, 1) as number,
    });
    expect(lotAge({ madeOn: '2024-03-17', bestBefore: null }, cell, '2026-03-17')).toMatchObject({
      assumed: false,
      years: expect.closeTo(2, 1) as number,
    });
    expect(lotAge({ madeOn: null, bestBefore: null }, cell, '2026-03-17')).toEqual({
      years: null,
      assumed: true,
    });
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

describe('the rack', () => {
  const now = '2026-03-17T12:00:00.000Z';
  it.each([
    ['2026-03-17T11:59:00.000Z', 'overdue'],
    ['2026-03-17T12:59:00.000Z', 'due soon'],
    ['2026-03-17T18:00:00.000Z', 'today'],
    ['2026-03-19T18:00:00.000Z', 'later'],
    [null, 'no promise'],
  ])('a promise for %s is %s', (promisedAt, urgency) => {
    expect(urgencyOf(promisedAt, now)).toBe(urgency);
  });

  it('puts the most pressing first', () => {
    const job = (ticket: string, promisedAt: string | null) => ({ ticket, promisedAt });
    const ordered = orderRack(
      [job('c', null), job('b', '2026-03-17T13:30:00.000Z'), job('a', '2026-03-17T10:00:00.000Z')],
      now,
    );
    expect(ordered.map((each) => each.ticket)).toEqual(['a', 'b', 'c']);
  });
});

describe('time and figures', () => {
  it('knows the shop’s day across midnight and summer time', () => {
    expect(localDay('2026-03-17T23:30:00.000Z', 'Europe/Lisbon')).toBe('2026-03-17');
    expect(localDay('2026-06-17T23:30:00.000Z', 'Europe/Lisbon')).toBe('2026-06-18');
  });
  it('adds months without running over', () => {
    expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
  });
  it('writes figures plainly and claims no certainty', () => {
    expect([figure(1.1), figure(-0.001), figure(20), figure(0.125, 3), figure(-2.5)]).toEqual([
      '1.1',
      '0',
      '20',
      '0.125',
      '−2.5',
    ]);
    expect([percent(0.9999), percent(0.0001), percent(0.4321)]).toEqual(['over 99 %', 'under 1 %', '43.2 %']);
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

describe('coil, lowest voltage and rate', () => {
  const figures = figuresFor(book.calibre('orrelin-41-2'), book);
  it.each([
    [1.8, 'good'],
    [2.3, 'good'],
    [2.4, 'suspect'],
    [1.4, 'suspect'],
    [0.7, 'shorted turns'],
    [900, 'open'],
  ] as const)('%s kΩ: %s', (value, verdict) => {
    expect(judgeCoil(value, figures.coil).verdict).toBe(verdict);
  });
  it('has nothing to say of a coil where by the book there is none', () => {
    const { coil } = figuresFor(book.calibre('dunmarrow-07-2'), book);
    expect(judgeCoil(1.8, coil)).toMatchObject({ verdict: 'not judged' });
  });
  it('says when it would stop too early, and when it strays', () => {
    expect(judgeLowestRunning(1.15, figures.lowest).verdict).toBe('good');
    expect(judgeLowestRunning(1.31, figures.lowest).verdict).toBe('runs too late');
    expect(judgeRate(0.5)).toMatchObject({ verdict: 'good', reasons: ['15.2 s a month.'] });
    expect(judgeRate(-1).verdict).toBe('off');
  });
});

describe('whether the counter is open', () => {
  const { hours } = DEFAULT_POLICY;
  it.each([
    // Tuesday in March, Lisbon on UTC; in July an hour ahead.
    ['2026-03-17T09:40:00.000Z', 'open', ''],
    ['2026-03-17T08:15:00.000Z', 'closed', 'it opens Tuesday at 08:30'],
    ['2026-03-17T19:00:00.000Z', 'closed', 'it opens Wednesday at 08:30'],
    ['2026-07-14T16:45:00.000Z', 'closed', 'it opens Wednesday at 08:30'],
    ['2026-07-14T16:15:00.000Z', 'open', ''],
    ['2026-03-21T14:00:00.000Z', 'closed', 'it opens Monday at 08:30'],
    ['2026-03-22T10:00:00.000Z', 'closed', 'it opens Monday at 08:30'],
  ])('%s: %s %s', (instant, verdict, words) => {
    const answer = openAt(instant, hours, 'Europe/Lisbon');
    expect(answer.verdict).toBe(verdict);
    expect(answer.reasons.join()).toContain(words);
  });
  it('says so plainly where it never opens', () => {
    const never = Object.fromEntries(WEEKDAYS.map((day) => [day, null])) as unknown as typeof hours;
    expect(openAt('2026-03-17T09:40:00.000Z', never, 'Europe/Lisbon').reasons).toEqual([
      'The counter is closed then.',
    ]);
  });
});
