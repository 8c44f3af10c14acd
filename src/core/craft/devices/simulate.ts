import { normalFrom, seededUniform } from '../life';
import {
  AMBIENT_BAR,
  insideAfter,
  type LeakRecord,
  LIMIT_UG_PER_MIN,
  limitConstant,
  ROOM_C,
  SETTLE_S,
  standardTest,
} from '../tightness';

/** A case under test, and the tester it lies in. */
export interface SimulatedCase {
  /** How far the case gives, µm a bar, and how much of that comes by and by, in which time. */
  readonly stiffnessUmPerBar: number;
  readonly settlesShare: number;
  readonly settlesInS: number;
  readonly volumeCm3: number;
  /** What leaks in at 2 bar, µg/min; null for a tight case. */
  readonly leakUgPerMin: number | null;
  /** Open so far that air goes in at once. */
  readonly gross: boolean;
  readonly noiseUm: number;
  readonly driftUmPerMin: number;
}

export interface TraceSample {
  readonly atS: number;
  readonly overBar: number;
  readonly deflectionUm: number;
}

/** A case open so far lets air through this many times the limit. */
const GROSS = 20_000;
/** Simulated in steps of this, s. */
const STEP_S = 0.05;
/** No test is run for longer, s. */
const LONGEST_S = 86_400;

/**
 * What a tester shows second by second while `test` goes on: its pressure, and the deflection of the case, which settles,
 * leaks, drifts and is read with noise. The same seed gives the same record. Source: viscous flow of air, by small steps.
 */
export function simulateTest(
  of: SimulatedCase,
  test: { readonly atS: readonly number[]; readonly overBar: readonly number[] },
  seed: number,
): TraceSample[] {
  const figures = [...Object.values({ ...of }), ...test.atS, ...test.overBar].filter(
    (each) => typeof each === 'number',
  );
  // A tester with a setting that is no number, or for longer than a day, shows nothing.
  if (!figures.every(Number.isFinite) || !test.atS.every((atS) => atS >= 0 && atS <= LONGEST_S)) return [];
  const uniform = seededUniform(seed);
  const limits = of.gross ? GROSS : (of.leakUgPerMin ?? 0) / LIMIT_UG_PER_MIN;
  const constant = limits * limitConstant({ volumeCm3: of.volumeCm3, temperatureC: ROOM_C });
  let [inside, settled, lastAt, lastOver] = [AMBIENT_BAR, 0, 0, 0];
  return test.atS.map((atS, i) => {
    const over = test.overBar[i] ?? 0;
    const steps = Math.ceil((atS - lastAt) / STEP_S);
    for (let step = 1; step <= steps; step += 1) {
      const seconds = (atS - lastAt) / steps;
      const outside = AMBIENT_BAR + lastOver + ((over - lastOver) * step) / steps;
      inside = insideAfter(inside, outside, constant, seconds);
      settled += (outside - inside - settled) * (1 - Math.exp(-seconds / Math.max(of.settlesInS, STEP_S)));
    }
    [lastAt, lastOver] = [atS, over];
    const difference = AMBIENT_BAR + over - inside;
    const gives = of.stiffnessUmPerBar * ((1 - of.settlesShare) * difference + of.settlesShare * settled);
    const deflectionUm = gives + (of.driftUmPerMin * atS) / 60 + normalFrom(uniform) * of.noiseUm;
    return {
      atS,
      overBar: Number(over.toFixed(3)),
      deflectionUm: Math.round(deflectionUm * 1000) / 1000 + 0,
    };
  });
}

/** The standard dry test of a case, or a run of the tester with nothing pressing, at one reading a second. */
export function simulateTrace(
  of: SimulatedCase,
  overBar: number,
  seconds: number,
  seed: number,
): TraceSample[] {
  if (!(seconds >= 0 && seconds <= LONGEST_S)) return [];
  const blank = Array.from({ length: Math.floor(seconds) + 1 }, (_, atS) => atS);
  return simulateTest(
    of,
    overBar === 0 ? { atS: blank, overBar: blank.map(() => 0) } : standardTest(overBar, seconds, Infinity),
    seed,
  );
}

/** What a tester does just now. */
export const TRACE_PHASES = [
  'baseline',
  'pressing',
  'settling under pressure',
  'watching under pressure',
  'venting',
  'settling after venting',
  'watching after venting',
] as const;
export type TracePhase = (typeof TRACE_PHASES)[number];

/** Whether the pressure is off, or on its way: a longer watch under it is too late then. */
export function isVented(phase: TracePhase): boolean {
  return TRACE_PHASES.indexOf(phase) >= TRACE_PHASES.indexOf('venting');
}

/** Pressure that changes by this share between two readings is on its way. */
const ON_ITS_WAY = 0.02;

/** What a tester does at one of the points of its record; after each change of pressure a case still settles for a while. */
export function phaseAt(samples: readonly TraceSample[], at: number): TracePhase {
  const overAt = (i: number): number => Math.abs(samples[i]?.overBar ?? 0);
  const moves = (i: number): boolean =>
    i > 0 && Math.abs(overAt(i) - overAt(i - 1)) > ON_ITS_WAY * Math.max(overAt(i), overAt(i - 1));
  if (moves(at)) return overAt(at) > overAt(at - 1) ? 'pressing' : 'venting';
  let since = at;
  while (since > 0 && !moves(since)) since -= 1;
  if (since === 0) return overAt(at) === 0 ? 'baseline' : 'watching under pressure';
  const settles = (samples[at]?.atS ?? 0) - (samples[since]?.atS ?? 0) < SETTLE_S;
  if (overAt(at) > 0) return settles ? 'settling under pressure' : 'watching under pressure';
  return settles ? 'settling after venting' : 'watching after venting';
}

/** Samples as a record, column by column. */
export function recordOfSamples(samples: readonly TraceSample[]): LeakRecord {
  return {
    atS: samples.map(({ atS }) => atS),
    overBar: samples.map(({ overBar }) => overBar),
    deflectionUm: samples.map(({ deflectionUm }) => deflectionUm),
  };
}

/** A figure with the noise of its instrument, rounded to the instrument's step. */
export function simulateReading(value: number, noise: number, step: number, seed: number): number {
  const noisy = value + normalFrom(seededUniform(seed)) * noise;
  return Number((Math.round(noisy / step) * step).toFixed(6));
}

/** A length as a caliper types it, in the unit it is set to: `+0014.20 mm`. */
export function caliperText(valueMm: number, unit: 'mm' | 'in'): string {
  // A caliper that reads nothing sends nothing.
  if (!Number.isFinite(valueMm)) return '';
  const value = unit === 'mm' ? valueMm : valueMm / 25.4;
  const digits = unit === 'mm' ? 2 : 4;
  const [whole = '0', part = ''] = Math.abs(value).toFixed(digits).split('.');
  return `${value < 0 ? '-' : '+'}${whole.padStart(4, '0')}.${part} ${unit}`;
}
