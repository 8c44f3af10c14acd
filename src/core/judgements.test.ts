import fc from 'fast-check';
import { book, idOf, lot } from '../testing/fixtures';
import { prySpot } from './backs';
import { wantedFromType } from './cells';
import { drainNeeded } from './catalogue';
import { orderRack, urgencyOf } from './dayplan';
import { renewOrReuse } from './gaskets';
import { judgeCurrent, judgeLoadedVoltage, judgeRestVoltage } from './health';
import { figure, percent } from './judgement';
import { functionsToProve, settingAdvice } from './setting';
import { type CellLot, chooseLots, isPastDate, lotAge } from './stock';
import { addMonths, localDay, nextDateCorrection } from './time';

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
  });

  it('judges the current by this movement', () => {
    const calibre = book.calibre('orrelin-62-3');
    expect(judgeCurrent(1.6, calibre)).toMatchObject({
      verdict: 'good',
      reference: { whose: 'this movement', max: 2.4 },
    });
    expect(judgeCurrent(4.8, calibre).reasons[0]).toContain('2 times the limit');
    expect(judgeCurrent(0.1, calibre)).toMatchObject({
      verdict: 'too little',
      reasons: [expect.stringContaining('crown')],
    });
    expect(judgeCurrent(1.6, null).verdict).toBe('not judged');
  });
});

describe('which lot to take', () => {
  const wanted = wantedFromType(book.cell('SR621SW') as never, { drain: 'low' }) as never;
  const choose = (lots: CellLot[]) =>
    chooseLots(lots, wanted, book.cell, '2026-03-17', { alkalineAgreed: false });
  const other = (name: string, change: Partial<CellLot>): CellLot => ({
    ...lot,
    id: idOf(name),
    lotCode: name,
    ...change,
  });

  it('takes the oldest in date of the equal cell before an accepted one', () => {
    const offers = choose([
      other('new', { bestBefore: '2029-01-01' }),
      other('high', { cellCode: 'SR621W', bestBefore: '2027-01-01' }),
      other('old', { bestBefore: '2027-06-01' }),
    ]);
    expect(offers.filter((offer) => offer.verdict === 'take').map((offer) => offer.lot.lotCode)).toEqual([
      'old',
      'new',
      'high',
    ]);
  });

  it('blocks what is past its date, empty, or not the cell, each with its reason', () => {
    const offers = choose([
      other('past', { bestBefore: '2026-03-16' }),
      other('empty', { balance: 0 }),
      other('alkaline', { cellCode: 'LR621' }),
      other('unrelated', { cellCode: 'CR2016' }),
    ]);
    expect(offers.every((offer) => offer.verdict === 'blocked')).toBe(true);
    expect(offers.map((offer) => offer.reasons[0])).toEqual(
      expect.arrayContaining([
        expect.stringContaining('Past its date'),
        'None left.',
        expect.stringContaining('Alkaline'),
      ]),
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
