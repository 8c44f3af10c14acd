import { normalFrom, seededUniform } from '../life';

/** A leak in a case under test, as a tester would see it. */
export interface SimulatedLeak {
  /** The case's deflection after settling, µm. */
  readonly deflectionUm: number;
  /** The time in which a leak takes the deflection down to 1/e, s; null for a tight case. */
  readonly tauS: number | null;
  /** Noise of the tester, as a share of the deflection. */
  readonly noiseShare: number;
}

export interface TraceSample {
  readonly atS: number;
  readonly deflectionUm: number;
}

/**
 * What a tester shows second by second: A·exp(−t/τ) with its noise, for `seconds` at one reading a second. The same
 * seed gives the same record. Source: decay of a small leak under constant pressure.
 */
export function simulateTrace(leak: SimulatedLeak, seconds: number, seed: number): TraceSample[] {
  const uniform = seededUniform(seed);
  return Array.from({ length: Math.floor(seconds) + 1 }, (_, atS) => {
    const decayed = leak.tauS === null ? leak.deflectionUm : leak.deflectionUm * Math.exp(-atS / leak.tauS);
    const noise = normalFrom(uniform) * leak.noiseShare * leak.deflectionUm;
    return { atS, deflectionUm: Math.round((decayed + noise) * 1000) / 1000 };
  });
}

/** Readings at either end are averaged over this many seconds, so that noise weighs less. */
const MEAN_OVER_S = 5;

/** Deflection at the start and at the end of a record, each the mean of a few seconds; µm. */
export function endsOfTrace(samples: readonly TraceSample[]): {
  readonly startUm: number;
  readonly endUm: number;
} {
  const mean = (part: readonly TraceSample[]): number =>
    Math.round(
      (part.reduce((sum, sample) => sum + sample.deflectionUm, 0) / Math.max(1, part.length)) * 100,
    ) / 100;
  return { startUm: mean(samples.slice(0, MEAN_OVER_S)), endUm: mean(samples.slice(-MEAN_OVER_S)) };
}

/** A figure with the noise of its instrument, rounded to the instrument's step. */
export function simulateReading(value: number, noise: number, step: number, seed: number): number {
  const noisy = value + normalFrom(seededUniform(seed)) * noise;
  return Number((Math.round(noisy / step) * step).toFixed(6));
}

/** A length as a caliper types it, in the unit it is set to: `+0014.20 mm`. */
export function caliperText(valueMm: number, unit: 'mm' | 'in'): string {
  const value = unit === 'mm' ? valueMm : valueMm / 25.4;
  const digits = unit === 'mm' ? 2 : 4;
  const [whole = '0', part = ''] = Math.abs(value).toFixed(digits).split('.');
  return `${value < 0 ? '-' : '+'}${whole.padStart(4, '0')}.${part} ${unit}`;
}
