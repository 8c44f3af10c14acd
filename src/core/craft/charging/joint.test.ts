import fc from 'fast-check';
import { chargingPlan, type ChargingQuestion, type ChargeState } from '.';
import { type LightHours, litBetween } from './lit';
import { WEEKDAYS } from '../policy';

const FROM_UTC = '2026-03-17T08:00:00.000Z';
const afterH = (hours: number): string => new Date(Date.parse(FROM_UTC) + hours * 3_600_000).toISOString();
/** A book in which this light takes 2 h from flat to stepping, and 40 h to full. */
const question = (start: ChargeState | number, seen: ChargingQuestion['seen'] = []): ChargingQuestion => ({
  book: {
    times: [
      { lux: 500, steppingH: 7.5, dayH: 12, fullH: 150 },
      { lux: 10_000, steppingH: 2, dayH: 3, fullH: 40 },
    ],
    dayIs: 'exposure from flat',
    reserveDays: 180,
  },
  factor95: 1.5,
  lux: 10_000,
  hours: Object.fromEntries(
    WEEKDAYS.map((day) => [day, { from: '00:00', to: '00:00' }]),
  ) as ChargingQuestion['hours'],
  zone: 'UTC',
  fromUtc: FROM_UTC,
  start,
  handBackShare: 0.5,
  seen,
});
const steps = (hours: number, stepsNormally: boolean) => ({ atUtc: afterH(hours), stepsNormally });
const fullOf = (asked: ChargingQuestion): readonly number[] => {
  const full = chargingPlan(asked).marks.find(({ mark }) => mark === 'full');
  return [full?.earliestUtc, full?.likelyUtc, full?.latestUtc].map((utc) =>
    utc ? (Date.parse(utc) - Date.parse(FROM_UTC)) / 3_600_000 : Infinity,
  );
};

describe('a start that nobody knows, and what was seen', () => {
  it('are weighed together: its ends stay in order and hold the truth, and nothing is contradicted', () => {
    const asked = question('low-supply steps', [steps(1, false), steps(1.2, true)]);
    const [earliest = 0, likely = 0, latest = 0] = fullOf(asked);
    expect(earliest).toBeLessThan(likely);
    expect(likely).toBeLessThan(latest);
    // From half the way to stepping it takes the book's own time, from flat less of it.
    expect(earliest).toBeLessThan(30);
    expect(latest).toBeGreaterThan(50);
    expect(chargingPlan(asked).contradiction).toBeNull();
  });

  it('leave a start room that one sighting from flat would not', () => {
    const early = [steps(0.5, true)];
    expect(chargingPlan(question('flat', early)).contradiction).toContain('sooner than the book');
    expect(chargingPlan(question('low-supply steps', early)).contradiction).toBeNull();
    expect(chargingPlan(question('charged, level unknown', early)).contradiction).toBeNull();
  });

  it('are contradicted where no start explains them', () => {
    for (const start of ['flat', 'low-supply steps', 'charged, level unknown'] as const)
      expect(chargingPlan(question(start, [steps(9, false)])).contradiction).toContain(
        'does not step normally yet',
      );
  });

  it('never cross their ends, whatever was seen', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<ChargeState>('flat', 'low-supply steps', 'steps normally', 'charged, level unknown'),
        fc.double({ min: 0.05, max: 12, noNaN: true }),
        fc.double({ min: 0.01, max: 6, noNaN: true }),
        fc.constantFrom('both', 'not', 'first'),
        (start, notH, moreH, which) => {
          const seen = [
            ...(which === 'first' ? [] : [steps(notH, false)]),
            ...(which === 'not' ? [] : [steps(notH + moreH, true)]),
          ];
          const { marks, curve } = chargingPlan(question(start, seen));
          for (const { earliestUtc, likelyUtc, latestUtc } of marks) {
            const order = [earliestUtc, likelyUtc, latestUtc].map((utc) =>
              utc ? Date.parse(utc) : Infinity,
            );
            expect(order).toEqual([...order].sort((a, b) => a - b));
          }
          expect(curve.every(({ low, likely, high }) => low <= likely && likely <= high)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('of a watch found charged reach from nearly empty to full', () => {
    const [earliest = 0, likely = 0, latest = 0] = fullOf(question('charged, level unknown'));
    expect(earliest).toBeLessThan(3);
    expect(likely).toBeGreaterThan(15);
    expect(latest).toBeGreaterThan(40);
  });
});

describe('light that comes twice a day', () => {
  const twice = Object.fromEntries(
    WEEKDAYS.map((day) => [
      day,
      [
        { from: '14:00', to: '17:00' },
        { from: '08:00', to: '10:30' },
      ],
    ]),
  ) as unknown as LightHours;

  it('is counted span by span, in order', () => {
    const lit = litBetween(twice, 'UTC', '2026-03-17T09:00:00.000Z', '2026-03-18T09:00:00.000Z');
    expect(
      lit.map(({ fromMs, toMs }) => [fromMs, toMs].map((ms) => new Date(ms).toISOString().slice(8, 16))),
    ).toEqual([
      ['17T09:00', '17T10:30'],
      ['17T14:00', '17T17:00'],
      ['18T08:00', '18T09:00'],
    ]);
  });

  it('fills a watch sooner than its morning alone', () => {
    const morning = Object.fromEntries(
      WEEKDAYS.map((day) => [day, { from: '08:00', to: '10:30' }]),
    ) as ChargingQuestion['hours'];
    const likely = (hours: ChargingQuestion['hours']): number =>
      fullOf({ ...question('flat'), hours })[1] ?? NaN;
    expect(likely(twice)).toBeLessThan(0.6 * likely(morning));
  });

  it('is refused where one of its spans is no time', () => {
    const wrong = { ...twice, Monday: [{ from: '08:00', to: '25:00' }] } as unknown as LightHours;
    expect(chargingPlan({ ...question('flat'), hours: wrong }).verdict).toBe('refused');
  });
});
