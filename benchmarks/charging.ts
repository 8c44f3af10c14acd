import { isMainThread, parentPort, Worker } from 'node:worker_threads';
import { chargingPlan } from '../src/core/craft/charging';
import { chance } from './random';

/**
 * How the plan of charging, in a worker, does against watches carried on minute by minute for a year, which share nothing
 * with it.
 */
const WATCHES = 50;
const DAYS = 365;
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

const { between } = chance(20_260_317);
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

/** Minutes until full, or null; the whole year is gone through, as a plan tells of it all. */
function byTheMinute({ lux, reserveDays, opens, shuts, start }: Watch): number | null {
  const up = 1 / (hoursToFull(lux) * 60);
  const down = 1 / (reserveDays * 1440);
  let charge = start / 100;
  let fullAt: number | null = null;
  for (let minute = 0; minute < DAYS * 1440; minute += 1) {
    if (charge >= 1) fullAt ??= minute;
    const hour = new Date(FROM_MS + minute * 60_000).getUTCHours();
    charge = Math.min(1, Math.max(0, charge + (hour >= opens && hour < shuts ? up : -down)));
  }
  return fullAt;
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

/** The plans, made in a worker: what a page waits for while it goes on being drawn. */
async function plansInAWorker(worker: Worker): Promise<readonly (number | null)[]> {
  const answer = new Promise<readonly (number | null)[]>((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
  });
  worker.postMessage(watches);
  return await answer;
}

function compare(plans: readonly (number | null)[], planMs: number): void {
  const began = performance.now();
  const loops = watches.map(byTheMinute);
  const loopMs = performance.now() - began;
  const apart = plans.flatMap((minutes, i) => {
    const loop = loops[i] ?? null;
    return minutes === null || loop === null ? [] : [Math.abs(minutes - loop) / Math.max(60, loop)];
  });
  const disagree = plans.filter((minutes, i) => (minutes === null) !== ((loops[i] ?? null) === null)).length;
  console.log(
    `Plans of ${WATCHES} watches over a year, with their intervals and course, in a worker: ${planMs.toFixed(0)} ms; a loop over their minutes, one course: ${loopMs.toFixed(0)} ms: ${(planMs / loopMs).toFixed(2)} ×.`,
  );
  console.log(
    `  Farthest apart ${(Math.max(...apart) * 100).toFixed(2)} % of the time to full, aim under 1 % (${apart.length} that fill); ${disagree} fill by the one and not by the other.`,
  );
}

if (isMainThread) {
  // A worker reads TypeScript only once tsx is registered in it.
  const code = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(import.meta.url)}); })`;
  const worker = new Worker(code, { eval: true });
  // The first round is the compiler's.
  await plansInAWorker(worker);
  const began = performance.now();
  const plans = await plansInAWorker(worker);
  compare(plans, performance.now() - began);
  await worker.terminate();
} else {
  parentPort?.on('message', (asked: readonly Watch[]) => parentPort?.postMessage(asked.map(planned)));
}
