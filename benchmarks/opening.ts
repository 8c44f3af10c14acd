import { caseTypes } from '../demo/book';
import { measuredBack } from '../demo/steps';
import { tools } from '../demo/tools';
import { chooseOpener, jawSetting, openingPlan } from '../src/core/craft/opening';
import type { MeasuredBack } from '../src/core/craft/cases';
import { seededUniform } from '../src/core/craft/life';
/** The geometry of a setting and the whole plan of an opening against an empty call, in the same run. */
const FRAME_MS = 1000 / 60;
const WARM_UP = 2_000;
const ROUNDS = 5_000;

const chance = seededUniform(24);
const between = (low: number, high: number): number => low + chance() * (high - low);
/** Any count, any circle, every other back with uneven notches: the dearest search there is. */
const backs: MeasuredBack[] = Array.from({ length: 400 }, (_, index) => {
  const count = 2 + Math.floor(chance() * 23);
  const base = caseTypes[index % caseTypes.length];
  if (!base) throw new Error('an empty book');
  const clocks =
    index % 2 === 0
      ? []
      : Array.from({ length: count }, (__, at) => ((12 * (at + between(0, 0.1))) / count) % 12 || 12);
  return {
    ...measuredBack(base),
    kind: 'screwed, notched',
    notchCount: count,
    pitchMm: between(22, 36),
    notchWidthMm: between(1.2, 2.6),
    notchClocks: clocks,
    diameterMm: 40,
  };
});

const empty = (back: MeasuredBack): MeasuredBack => back;
const geometry = (back: MeasuredBack): unknown =>
  jawSetting({
    count: back.notchCount ?? 2,
    pitchMm: back.pitchMm ?? 30,
    widthMm: back.notchWidthMm ?? 2,
    clocks: back.notchClocks,
    of: 'notches',
    wrenches: tools.wrenches,
  });
const plan = (back: MeasuredBack): unknown =>
  openingPlan({
    back,
    opener: chooseOpener({ back, tools, crownClock: 3, noCrown: false }),
    tools,
    schools: { protection: 'film', parts: 'plain compartments' },
    keepsFilm: false,
    functions: ['alarm'],
    innerCovers: 1,
    movementMm: null,
    lastTime: null,
  });

function times(call: (back: MeasuredBack) => unknown): { readonly median: number; readonly p99: number } {
  const at = (round: number): MeasuredBack => backs[round % backs.length] as MeasuredBack;
  for (let round = 0; round < WARM_UP; round += 1) call(at(round));
  const taken = Array.from({ length: ROUNDS }, (_, round) => {
    const began = performance.now();
    call(at(round));
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return { median: taken[ROUNDS / 2] ?? 0, p99: taken[Math.floor(ROUNDS * 0.99)] ?? 0 };
}

const yardstick = times(empty);
for (const [name, call] of [
  ['Geometry of a setting', geometry],
  ['Opener and whole plan', plan],
] as const) {
  const { median, p99 } = times(call);
  console.log(
    `${name}: median ${(median * 1000).toFixed(0)} µs, 99th percentile ${p99.toFixed(2)} ms: ${(p99 / FRAME_MS).toFixed(3)} × one display frame; ${(median / Math.max(yardstick.median, 1e-5)).toFixed(0)} × an empty call.`,
  );
  if (p99 > FRAME_MS) process.exitCode = 1;
}
