import { figure } from '../judgement';
import type { LeakFit } from './fitLeak';
import { type FreeVolume, LIMIT_UG_PER_MIN } from './law';

/** A flow of air, µg/min, and the ends that 95 of 100 lie within; Infinity where nothing bounds it. */
export interface Flow {
  readonly likeliest: number;
  readonly from: number;
  readonly to: number;
}

/** A flow as it is told: no finer than it is known. */
export function flowFigure(ugPerMin: number): string {
  if (!(ugPerMin >= 10 && ugPerMin < Infinity)) return figure(ugPerMin, 1);
  return figure(Number(ugPerMin.toPrecision(ugPerMin < 100 ? 2 : 3)), 0);
}

/** A flow by its ends: `12 to 31 µg/min`. */
export const flowWords = ({ from, to }: Flow): string =>
  Number.isFinite(to) ? `${flowFigure(from)} to ${flowFigure(to)} µg/min` : `over ${flowFigure(from)} µg/min`;

/** The ends of a flow that the fit of the constant and what is known of the volume leave together. */
export function flowOf(
  fit: Pick<LeakFit, 'best' | 'from' | 'to' | 'away' | 'within'>,
  volume: FreeVolume,
  perConstant: number,
): Flow {
  const steps = 6;
  /** The likeliest volume stretched as far as the constant leaves room for: both together 95 of 100. */
  const room = (constant: number): number =>
    volume.factor ** Math.sqrt(Math.max(0, 1 - (fit.away(constant) / fit.within) ** 2));
  let [low, high] = [fit.from, fit.to];
  if (fit.from > 0) low = fit.best / volume.factor;
  if (Number.isFinite(fit.to)) high = fit.best * volume.factor;
  for (let step = 1; step <= steps; step += 1) {
    const share = step / steps;
    if (fit.from > 0) {
      const constant = fit.best + (fit.from - fit.best) * share;
      low = Math.min(low, constant / room(constant));
    }
    if (Number.isFinite(fit.to)) {
      const constant = fit.best + (fit.to - fit.best) * share;
      high = Math.max(high, constant * room(constant));
    }
  }
  return { likeliest: fit.best * perConstant, from: low * perConstant, to: high * perConstant };
}

/** What a flow says of a case: its ends held against the limit. Source: ISO 22810. */
export function verdictOf({ from, to }: Flow): 'tight' | 'leaks' | 'not yet known' {
  if (to < LIMIT_UG_PER_MIN) return 'tight';
  return from > LIMIT_UG_PER_MIN ? 'leaks' : 'not yet known';
}
