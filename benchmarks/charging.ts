import { chargingPlan } from '../src/core/craft/charging';

/** How the plan of charging does against watches carried on minute by minute, which share nothing with it. */
const WATCHES = 50;
const DAYS = 119;
const FROM_UTC = '2026-03-17T09:00:00.000Z';
const FROM_MS = Date.parse(FROM_UTC);
const DAYS_OF_THE_WEEK = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;

interface Watch {
  readonly lux: number;
  readonly reserveDays: number;
  readonly opens: number;
  readonly shuts: number;
  readonly start: number;
}

let state = 20_260_317;
const uniform = (): number => {
  state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
  return (state + 0.5) / 2_147_483_648;
};
const between = (from: number, to: number): number => from + (to - from) * uniform();
const watches: readonly Watch[] = Array.from({ length: WATCHES }, () => ({
  lux: Math.exp(between(Math.log(1500), Math.log(60_000))),
  reserveDays: between(30, 300),
  opens: Math.floor(between(6, 10)),
  shuts: Math.floor(between(15, 22)),
  start: Math.floor(between(0, 40)),
}));

/** 11 h at 100,000 lx, 40 h at 10,000, 150 h at 500. */
function hoursToFull(lux: number): number {
  const [a, b] =
    lux >= 10_000
      ? [
          [10_000, 40],
          [100_000, 11],
        ]
      : [
          [500, 150],
          [10_000, 40],
        ];
  const [[x0, y0], [x1, y1]] = [a, b] as [[number, number], [number, number]];
  return Math.exp(Math.log(y0) + ((Math.log(y1) - Math.log(y0)) * Math.log(lux / x0)) / Math.log(x1 / x0));
}

/** Minutes until full, or null. */
function byTheMinute({ lux, reserveDays, opens, shuts, start }: Watch): number | null {
  const up = 1 / (hoursToFull(lux) * 60);
  const down = 1 / (reserveDays * 1440);
  let charge = start / 100;
  for (let minute = 0; minute < DAYS * 1440; minute += 1) {
    if (charge >= 1) return minute;
    const hour = new Date(FROM_MS + minute * 60_000).getUTCHours();
    charge = Math.max(0, charge + (hour >= opens && hour < shuts ? up : -down));
  }
  return null;
}

const clock = (hour: number): string => `${String(hour).padStart(2, '0')}:00`;
function planned({ lux, reserveDays, opens, shuts, start }: Watch): number | null {
  const plan = chargingPlan({
    book: {
      times: [
        { lux: 500, steppingH: 3, dayH: 7.5, fullH: 150 },
        { lux: 10_000, steppingH: 0.8, dayH: 2, fullH: 40 },
        { lux: 100_000, steppingH: 0.22, dayH: 0.55, fullH: 11 },
      ],
      dayIs: 'exposure from flat',
      reserveDays,
    },
    factor95: 1.5,
    lux,
    hours: Object.fromEntries(
      DAYS_OF_THE_WEEK.map((day) => [day, { from: clock(opens), to: clock(shuts) }]),
    ) as Parameters<typeof chargingPlan>[0]['hours'],
    zone: 'UTC',
    fromUtc: FROM_UTC,
    start,
    handBackShare: 0.5,
    seen: [],
  });
  const full = plan.marks.find(({ mark }) => mark === 'full')?.likelyUtc ?? null;
  return full === null ? null : (Date.parse(full) - FROM_MS) / 60_000;
}

function timed<T>(work: () => T): { readonly ms: number; readonly given: T } {
  const began = performance.now();
  const given = work();
  return { ms: performance.now() - began, given };
}

watches.slice(0, 3).forEach((watch) => [planned(watch), byTheMinute(watch)]);
const plans = timed(() => watches.map(planned));
const loops = timed(() => watches.map(byTheMinute));
const apart = plans.given.flatMap((minutes, i) => {
  const loop = loops.given[i] ?? null;
  return minutes === null || loop === null ? [] : [Math.abs(minutes - loop) / Math.max(60, loop)];
});
const disagree = plans.given.filter(
  (minutes, i) => (minutes === null) !== ((loops.given[i] ?? null) === null),
).length;
console.log(
  `Plans of ${WATCHES} watches over ${DAYS} days, with their intervals and course: ${plans.ms.toFixed(0)} ms; a loop over their minutes, one course: ${loops.ms.toFixed(0)} ms: ${(plans.ms / loops.ms).toFixed(2)} ×.`,
);
console.log(
  `  Farthest apart ${(Math.max(...apart) * 100).toFixed(2)} % of the time to full (${apart.length} that fill); ${disagree} fill by the one and not by the other.`,
);
