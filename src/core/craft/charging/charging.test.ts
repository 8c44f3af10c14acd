import fc from 'fast-check';
import { DEFAULT_POLICY, WEEKDAYS } from '../policy';
import { chargingPlan, type ChargingQuestion } from './chargingPlan';
import { hoursAt, type LightBook, type LightTimes, marksOf, MOST_LUX, questionsOf } from './light';
import { type LightHours, litBetween } from './lit';
import { lightNow, lightThere } from './place';

const times: readonly LightTimes[] = [
  { lux: 100_000, steppingH: 0.22, dayH: 0.55, fullH: 11 },
  { lux: 10_000, steppingH: 0.8, dayH: 2, fullH: 40 },
  { lux: 500, steppingH: 3, dayH: 7.5, fullH: 150 },
];
const book: LightBook = { times, dayIs: 'exposure from flat', reserveDays: 180 };
const ALWAYS = Object.fromEntries(WEEKDAYS.map((day) => [day, { from: '00:00', to: '00:00' }])) as LightHours;
const BY_DAY = Object.fromEntries(WEEKDAYS.map((day) => [day, { from: '08:00', to: '18:00' }])) as LightHours;
const FROM_UTC = '2026-03-17T09:00:00.000Z';
const question = (over: Partial<ChargingQuestion> = {}): ChargingQuestion => ({
  book,
  factor95: 1.5,
  lux: 10_000,
  hours: BY_DAY,
  zone: 'Europe/Lisbon',
  fromUtc: FROM_UTC,
  start: 'flat',
  handBackShare: 0.5,
  seen: [],
  ...over,
});
const markOf = (over: Partial<ChargingQuestion>, mark: string) => {
  const plan = chargingPlan(question(over));
  const found = plan.marks.find((each) => each.mark === mark);
  if (!found) throw new Error(`${plan.verdict}: ${plan.reasons.join(' ')}`);
  return found;
};
const hoursFrom = (utc: string | null): number =>
  utc === null ? Infinity : (Date.parse(utc) - Date.parse(FROM_UTC)) / 3_600_000;

describe('the book’s times at a light', () => {
  it('go linearly in logarithms: at 3,000 lx 68 h', () => {
    expect(hoursAt(times, 'fullH', 3000).hours).toBeCloseTo(68.04, 1);
    expect(hoursAt(times, 'fullH', 10_000).hours).toBeCloseTo(40, 9);
  });

  it.each([
    [120_000, 'known', 11],
    [MOST_LUX, 'known', 11],
    [MOST_LUX + 1, 'refused', null],
    [0, 'refused', null],
    [-5, 'refused', null],
    [NaN, 'refused', null],
    [249, 'does not charge', null],
  ])('at %d lx: %s', (lux, verdict, hours) => {
    expect(hoursAt(times, 'fullH', lux)).toMatchObject({ verdict, hours });
  });

  it('go on to half the dimmest light', () => {
    const { hours } = hoursAt(times, 'fullH', 250);
    expect(hours).toBeGreaterThan(150);
    expect(hours).toBeCloseTo(150 * 2 ** (Math.log(150 / 40) / Math.log(20)), 6);
  });

  it('speak of their own light alone where there is one line, and of nothing where there is none', () => {
    const one = [{ lux: 1000, steppingH: null, dayH: null, fullH: 90 }];
    expect(hoursAt(one, 'fullH', 1080)).toMatchObject({ verdict: 'known', hours: 90 });
    expect(hoursAt(one, 'fullH', 920)).toMatchObject({ verdict: 'known' });
    expect(hoursAt(one, 'fullH', 1200)).toMatchObject({ verdict: 'not known', hours: null });
    expect(hoursAt(one, 'steppingH', 1000)).toMatchObject({ verdict: 'not known' });
  });

  it('are never slower for more light', () => {
    const lux = fc.double({ min: 1, max: MOST_LUX, noNaN: true });
    fc.assert(
      fc.property(lux, lux, (a, b) => {
        const [dim, bright] = [Math.min(a, b), Math.max(a, b)];
        const [slow, fast] = [hoursAt(times, 'fullH', dim).hours, hoursAt(times, 'fullH', bright).hours];
        return slow === null || (fast !== null && fast <= slow + 1e-9);
      }),
    );
  });

  it.each([
    [
      [
        { lux: 1000, steppingH: null, dayH: null, fullH: 40 },
        { lux: 5000, steppingH: null, dayH: null, fullH: 50 },
      ],
      'More light takes longer',
    ],
    [
      [
        { lux: 1000, steppingH: null, dayH: null, fullH: 40 },
        { lux: 1000, steppingH: null, dayH: null, fullH: 30 },
      ],
      'two lines for 1000 lx',
    ],
    [[{ lux: 1000, steppingH: 50, dayH: null, fullH: 40 }], 'full before it steps'],
    [[{ lux: 1000, steppingH: 3, dayH: 2, fullH: 40 }], 'holds a day before it steps normally'],
    [
      [
        { lux: 1000, steppingH: 1, dayH: null, fullH: 40 },
        { lux: 5000, steppingH: 3, dayH: null, fullH: 30 },
      ],
      'not a fixed share of full',
    ],
    [
      [
        { lux: 1000, steppingH: 1, dayH: null, fullH: 40 },
        { lux: 300, steppingH: 3, dayH: null, fullH: null },
      ],
      'full only to 1000 lx',
    ],
  ])('are put in question where they are at odds: %#', (odd, words) => {
    expect(questionsOf({ ...book, times: odd }).join(' ')).toContain(words);
    expect(questionsOf(book)).toEqual([]);
  });

  it('count a day on top of stepping where it is the light for a day of running', () => {
    const from = marksOf(book, 0.5)['holds a day'];
    const running = marksOf({ ...book, dayIs: 'exposure for a day of running' }, 0.5)['holds a day'];
    expect(from).toBeCloseTo(0.05, 6);
    expect(running).toBeCloseTo(0.07, 2);
    expect(marksOf({ ...book, dayIs: null }, 0.5)['holds a day']).toBeNull();
  });
});

describe('the hours of light', () => {
  it('are local: the night in which the clocks change is an hour shorter', () => {
    const lit = litBetween(BY_DAY, 'Europe/Lisbon', '2026-03-28T00:00:00.000Z', '2026-03-30T00:00:00.000Z');
    const [saturday, sunday] = lit;
    expect(lit).toHaveLength(2);
    expect(((sunday?.fromMs ?? 0) - (saturday?.toMs ?? 0)) / 3_600_000).toBe(13);
  });

  it('are all of them where they never end, and none where there are none', () => {
    const [one, ...more] = litBetween(ALWAYS, 'Europe/Lisbon', FROM_UTC, '2026-03-20T09:00:00.000Z');
    expect(more).toEqual([]);
    expect(((one?.toMs ?? 0) - (one?.fromMs ?? 0)) / 3_600_000).toBe(72);
    const closed = Object.fromEntries(WEEKDAYS.map((day) => [day, null])) as LightHours;
    expect(litBetween(closed, 'UTC', FROM_UTC, '2026-03-20T09:00:00.000Z')).toEqual([]);
  });

  it('go on past midnight', () => {
    const night = Object.fromEntries(
      WEEKDAYS.map((day) => [day, { from: '22:00', to: '02:00' }]),
    ) as LightHours;
    const lit = litBetween(night, 'UTC', '2026-03-17T00:30:00.000Z', '2026-03-18T00:00:00.000Z');
    expect(lit.map(({ fromMs, toMs }) => (toMs - fromMs) / 3_600_000)).toEqual([1.5, 2]);
  });
});

describe('the plan of charging', () => {
  it('in constant light is the share of the book’s time', () => {
    expect(hoursFrom(markOf({ hours: ALWAYS }, 'full').likelyUtc)).toBeCloseTo(40, 1);
    expect(hoursFrom(markOf({ hours: ALWAYS }, 'hand back').likelyUtc)).toBeCloseTo(20, 1);
    expect(hoursFrom(markOf({ hours: ALWAYS, start: 25 }, 'full').likelyUtc)).toBeCloseTo(30, 1);
    const { earliestUtc, latestUtc } = markOf({ hours: ALWAYS }, 'full');
    expect(hoursFrom(earliestUtc)).toBeCloseTo(40 / 1.5, 0);
    expect(hoursFrom(latestUtc)).toBeCloseTo(60, 0);
  });

  it('agrees with a watch carried on minute by minute, within one in a hundred', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2500, max: 60_000, noNaN: true }),
        fc.double({ min: 20, max: 300, noNaN: true }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 6, max: 12 }),
        fc.integer({ min: 14, max: 22 }),
        (lux, reserveDays, percent, opens, shuts) => {
          const clock = (hour: number): string => `${String(hour).padStart(2, '0')}:00`;
          const hours = Object.fromEntries(
            WEEKDAYS.map((day) => [day, day === 'Sunday' ? null : { from: clock(opens), to: clock(shuts) }]),
          ) as LightHours;
          const answer = markOf(
            { lux, hours, zone: 'UTC', start: percent, book: { ...book, reserveDays } },
            'full',
          ).likelyUtc;
          // Nothing of the plan's own: its own log-log line, and a loop over minutes.
          const fullH =
            lux >= 10_000
              ? 40 * (11 / 40) ** (Math.log(lux / 10_000) / Math.log(10))
              : 150 * (40 / 150) ** (Math.log(lux / 500) / Math.log(20));
          let charge = percent / 100;
          let minute = 0;
          const last = 118 * 24 * 60;
          while (charge < 1 && minute < last) {
            const at = new Date(Date.parse(FROM_UTC) + minute * 60_000);
            const isLit = at.getUTCDay() !== 0 && at.getUTCHours() >= opens && at.getUTCHours() < shuts;
            charge = Math.max(0, charge + (isLit ? 1 / (fullH * 60) : -1 / (reserveDays * 1440)));
            minute += 1;
          }
          if (answer === null || minute >= last) return answer === null || hoursFrom(answer) > 110 * 24;
          const minutes = hoursFrom(answer) * 60;
          return Math.abs(minutes - minute) <= Math.max(2, minute * 0.01);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('with more light is never later', () => {
    const lux = fc.double({ min: 300, max: MOST_LUX, noNaN: true });
    fc.assert(
      fc.property(lux, lux, (a, b) => {
        const at = (each: number): number => hoursFrom(markOf({ lux: each }, 'hand back').likelyUtc);
        return at(Math.max(a, b)) <= at(Math.min(a, b)) + 1e-6;
      }),
      { numRuns: 40 },
    );
  });

  it('says where it never comes to full, and where it is too dim', () => {
    const short = { ...book, reserveDays: 5 };
    const plan = chargingPlan(question({ book: short, lux: 500 }));
    expect(plan.verdict).toBe('never full');
    expect(plan.reasons.join(' ')).toContain('loses again in the dark');
    expect(chargingPlan(question({ lux: 100 }))).toMatchObject({ verdict: 'does not charge', marks: [] });
  });

  it.each([
    [{ start: 101 }, '0 to 100 %'],
    [{ start: -1 }, '0 to 100 %'],
    [{ start: NaN }, '0 to 100 %'],
    [{ lux: 0 }, 'over 0'],
    [{ lux: 200_000 }, 'over 0'],
    [{ factor95: 0.5 }, 'factor'],
    [{ handBackShare: 0 }, 'Hand back'],
  ])('refuses %j with its range', (over, words) => {
    const plan = chargingPlan(question(over));
    expect(plan.verdict).toBe('refused');
    expect(plan.reasons.join(' ')).toContain(words);
  });

  it('asks for figures the book does not have', () => {
    const none = chargingPlan(question({ book: { ...book, times: [] } }));
    expect(none).toMatchObject({ verdict: 'not known', marks: [] });
    const silent = chargingPlan(
      question({ book: { ...book, times: times.map((each) => ({ ...each, dayH: null })) } }),
    );
    expect(silent.reasons.join(' ')).toContain('When it holds a day the book does not say.');
    expect(silent.marks.find(({ mark }) => mark === 'holds a day')?.likelyUtc).toBeNull();
  });

  it('is narrowed by what was seen, and never made sure of what was not', () => {
    const plain = markOf({ hours: ALWAYS, lux: 500 }, 'full');
    const stepped = markOf(
      {
        hours: ALWAYS,
        lux: 500,
        seen: [
          { atUtc: '2026-03-17T12:24:00.000Z', stepsNormally: false },
          { atUtc: '2026-03-17T12:42:00.000Z', stepsNormally: true },
        ],
      },
      'full',
    );
    // Stepping took 3.4 to 3.7 h for 3: the rest takes as much longer.
    expect(hoursFrom(stepped.likelyUtc)).toBeGreaterThan(150 * 1.13);
    expect(hoursFrom(stepped.likelyUtc)).toBeLessThan(150 * 1.24);
    const width = (each: typeof plain): number => hoursFrom(each.latestUtc) - hoursFrom(each.earliestUtc);
    expect(width(stepped)).toBeLessThan(width(plain) / 3);
  });

  it('not stepping yet makes it later, stepping early sooner; neither the other way', () => {
    const at = (seen: ChargingQuestion['seen']): number =>
      hoursFrom(markOf({ hours: ALWAYS, lux: 500, seen }, 'full').likelyUtc);
    const late = at([{ atUtc: '2026-03-17T12:30:00.000Z', stepsNormally: false }]);
    const soon = at([{ atUtc: '2026-03-17T11:00:00.000Z', stepsNormally: true }]);
    expect(late).toBeGreaterThan(at([]));
    expect(soon).toBeLessThan(at([]));
  });

  it.each([
    ['2026-03-17T10:00:00.000Z', true, 'sooner than the book predicts'],
    ['2026-03-18T09:00:00.000Z', false, 'although the book predicts it'],
  ])('seen at %s stepping: %s, reports what cannot well be', (atUtc, stepsNormally, words) => {
    const plan = chargingPlan(question({ hours: ALWAYS, lux: 500, seen: [{ atUtc, stepsNormally }] }));
    expect(plan.contradiction).toContain(words);
    expect(plan.reasons.join(' ')).toContain(words);
  });

  it.each(['steps normally', 60] as const)('reports a watch laid down as %s that does not step', (start) => {
    const plan = chargingPlan(
      question({ start, seen: [{ atUtc: '2026-03-17T11:00:00.000Z', stepsNormally: false }] }),
    );
    expect(plan.contradiction).toContain('was recorded as stepping normally');
  });

  it('reports a watch that stepped normally and went back', () => {
    const plan = chargingPlan(
      question({
        seen: [
          { atUtc: '2026-03-17T11:00:00.000Z', stepsNormally: true },
          { atUtc: '2026-03-17T15:00:00.000Z', stepsNormally: false },
        ],
      }),
    );
    expect(plan.contradiction).toContain('accumulator is tired');
  });

  it('holds the truth in 95 of 100 made-up watches, before anything is seen and after', () => {
    // Watches whose own factor is drawn apart from the plan, looked at every hour until they step.
    let state = 12_345;
    const uniform = (): number => {
      state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
      return (state + 0.5) / 2_147_483_648;
    };
    let [held, heldAfter] = [0, 0];
    const watches = 60;
    for (let i = 0; i < watches; i += 1) {
      const z = Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
      const factor = Math.exp((Math.log(1.5) / 1.96) * z);
      const [stepsAt, fullAt] = [3 * factor, 150 * factor];
      const within = (seen: ChargingQuestion['seen']): boolean => {
        const full = markOf({ hours: ALWAYS, lux: 500, seen }, 'full');
        return hoursFrom(full.earliestUtc) <= fullAt && fullAt <= hoursFrom(full.latestUtc);
      };
      if (within([])) held += 1;
      const looks = Array.from({ length: Math.ceil(stepsAt) }, (_, hour) => ({
        atUtc: new Date(Date.parse(FROM_UTC) + (hour + 1) * 3_600_000).toISOString(),
        stepsNormally: hour + 1 >= stepsAt,
      }));
      if (within(looks)) heldAfter += 1;
    }
    expect(held / watches).toBeGreaterThan(0.9);
    expect(heldAfter / watches).toBeGreaterThan(0.9);
  });

  it('draws the course, low under likely under high', () => {
    const { curve } = chargingPlan(question({ start: 'low-supply steps' }));
    expect(curve.length).toBeGreaterThan(100);
    expect(
      curve.every(({ low, likely, high }) => low <= likely + 1e-9 && likely <= high + 1e-9 && high <= 1),
    ).toBe(true);
  });
});

describe('a light place', () => {
  const lamp = { lux: 5000, measuredAtMm: 200, caseRiseK: 12 };
  it('gives a quarter at twice the distance, light and heat', () => {
    expect(lightThere(lamp, 400, 22)).toMatchObject({ verdict: 'stands', lux: 1250, caseC: 25 });
    expect(lightThere(lamp, null, 22)).toMatchObject({ lux: 5000, caseC: 34 });
    expect(lightThere({ ...lamp, measuredAtMm: null }, null, 22)).toMatchObject({ lux: 5000 });
  });
  it('says what is too hot, and from where on it is not, rounded up', () => {
    const near = lightThere(lamp, 100, 22);
    expect(near).toMatchObject({ verdict: 'too hot', caseC: 70, nearestMm: 145 });
    expect(near.reasons.join(' ')).toContain('At 145 mm or more');
    expect(lightThere(lamp, 200, 46)).toMatchObject({ verdict: 'too hot', nearestMm: null });
    expect(lightThere({ ...lamp, caseRiseK: null }, 200, 22).verdict).toBe('heat not known');
  });
  it('never warms a case beyond the limit at the distance it names', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.integer({ min: 20, max: 1000 }),
        fc.double({ min: 0, max: 44, noNaN: true }),
        (caseRiseK, measuredAtMm, roomC) => {
          const { nearestMm } = lightThere({ lux: 500, measuredAtMm, caseRiseK }, null, roomC);
          if (nearestMm === null || nearestMm > 3000) return true;
          const there = lightThere({ lux: 500, measuredAtMm, caseRiseK }, nearestMm, roomC);
          return there.caseC === null || there.caseC <= 45 + 1e-9;
        },
      ),
    );
  });
  it.each([
    [{ ...lamp, lux: 0 }, 200, 22, 'Light'],
    [lamp, 0, 22, 'Distance'],
    [lamp, -5, 22, 'Distance'],
    [lamp, 200, 90, 'room'],
    [{ ...lamp, lux: 100_000 }, 100, 22, 'brighter than the sun'],
  ])('refuses %j at %d mm in %d °C', (place, distanceMm, roomC, words) => {
    const there = lightThere(place, distanceMm, roomC);
    expect(there.verdict).toBe('refused');
    expect(there.reasons.join(' ')).toContain(words);
  });
});

it('the opening hours of a shop are light hours, too', () => {
  const { hours } = DEFAULT_POLICY;
  expect(litBetween(hours, 'UTC', '2026-03-16T00:00:00.000Z', '2026-03-23T00:00:00.000Z').length).toBe(
    WEEKDAYS.filter((day) => hours[day] !== null).length,
  );
});

describe('the light of a place, measured again', () => {
  const lamp = { lux: 10_000, measuredAtMm: 200 };
  it.each([
    [10_000, 'as entered'],
    [8_000, 'as entered'],
    [7_990, 'changed'],
    [12_100, 'changed'],
    [0, 'changed'],
    [-1, 'not known'],
    [NaN, 'not known'],
    [200_000, 'not known'],
  ])('%s lx: %s', (lux, verdict) => {
    expect(lightNow(lamp, lux).verdict).toBe(verdict);
  });

  it('of daylight says that it is another every hour', () => {
    expect(lightNow({ lux: 10_000, measuredAtMm: null }, 3000).reasons.join(' ')).toContain('usual day');
  });
});
