import { spreadOfConstant } from './fitLeak';
import { type LeakCase, limitConstant } from './law';
import type { LeakRecord } from './record';

/** Before pressure, and until crystal and case have given most of what they give, s. */
export const BASELINE_S = 15;
export const SETTLE_S = 12;
export const RAMP_S = 3;
/** Watch times as they are set at a tester, s. */
export const WATCHED_S = [30, 60, 90, 120, 180, 240, 300, 450, 600, 900, 1200, 1800, 2700, 3600] as const;
/** So many spreads: the end 95 of 100 lie within, and nine tests of ten that come to it. */
const SURELY = 1.96 + 1.28;
/** Longer steps between readings say as much of so long a watch. */
const MOST_POINTS = 400;
/** Nobody watches longer, s. */
const LONGEST_S = 86_400;

/** The standard dry test as its times and pressures go: baseline, pressure, settling, watch, vent, settling, watch. */
export function standardTest(
  overBar: number,
  watchS: number,
  mostPoints = MOST_POINTS,
): Pick<LeakRecord, 'atS' | 'overBar'> {
  // What cannot be run has no readings.
  if (!(Number.isFinite(overBar) && watchS >= 0 && watchS <= LONGEST_S)) return { atS: [], overBar: [] };
  const vented = BASELINE_S + RAMP_S + SETTLE_S + watchS;
  const whole = vented + RAMP_S + SETTLE_S + watchS;
  const step = Math.max(1, Math.ceil(whole / mostPoints));
  const atS = Array.from({ length: Math.floor(whole / step) + 1 }, (_, i) => i * step);
  const share = (from: number, at: number): number => Math.min(1, Math.max(0, (at - from) / RAMP_S));
  return { atS, overBar: atS.map((at) => overBar * (share(BASELINE_S, at) - share(vented, at))) };
}

/**
 * How long this case must be watched under pressure, and again after venting, s, until a leak of `shareOfLimit` of the limit
 * is told from the limit itself, with what is known of its volume; null where no time does. Noise is a share of the
 * deflection, one reading a second. Source: information the standard test holds of the leak constant.
 *
 * @example
 * watchTime({ noiseShare: 0.005, correlation: 0, overBar: 2, of: { volumeCm3: 1.5, temperatureC: 23 }, factor: 1.1, shareOfLimit: 0.5 }) // 120
 */
export function watchTime({
  noiseShare,
  correlation,
  overBar,
  of,
  factor,
  shareOfLimit,
}: {
  readonly noiseShare: number;
  readonly correlation: number;
  readonly overBar: number;
  readonly of: LeakCase;
  readonly factor: number;
  readonly shareOfLimit: number;
}): number | null {
  const apart = Math.abs(Math.log(shareOfLimit));
  if (!(apart > Math.log(factor))) return null;
  const limit = limitConstant(of);
  const constant = shareOfLimit * limit;
  /** What the spread of the constant may take of the way to the limit, once the volume has had its part. */
  const room = Math.abs(limit / factor ** Math.sign(1 - shareOfLimit) - constant);
  for (const seconds of WATCHED_S) {
    const test = standardTest(overBar, seconds);
    const step = (test.atS[1] ?? 1) - (test.atS[0] ?? 0);
    // Readings a step apart stand for all between them.
    const spread = spreadOfConstant(test, noiseShare / Math.sqrt(step), correlation ** step, constant);
    if (SURELY * spread < room) return seconds;
  }
  return null;
}
