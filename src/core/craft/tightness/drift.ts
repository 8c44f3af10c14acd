import { linearRegression } from 'simple-statistics';
import { LEAST_NOISE_UM, type TwoFigures } from './leakJudgement';
import type { DriftBound } from './leakModel';
import {
  LEAST_HELD_S,
  LEAST_POINTS,
  type LeakRecord,
  NO_PRESSURE_BAR,
  pressedAt,
  recordContradictions,
} from './record';

/** However long a blank run was, s: the drift of the next run is known no better than by so much of it. */
const LONGEST_BLANK_S = 600;

/**
 * The drift a run of the tester without pressure shows, with its error; null where it was pressed, or is too short to tell.
 * µm, s. Source: straight line by least squares, its error widened for readings that go on from each other.
 */
export function driftOf(blank: LeakRecord | TwoFigures, testerNoiseUm: number): DriftBound | null {
  if (!('atS' in blank))
    return blank.seconds >= LEAST_HELD_S
      ? {
          umPerS: (blank.endUm - blank.startUm) / blank.seconds,
          errorUmPerS:
            (Math.SQRT2 * Math.max(testerNoiseUm, LEAST_NOISE_UM)) / Math.min(blank.seconds, LONGEST_BLANK_S),
        }
      : null;
  if (recordContradictions(blank).length > 0 || Math.abs(pressedAt(blank)) >= NO_PRESSURE_BAR) return null;
  const { atS, deflectionUm } = blank;
  const count = atS.length;
  const wholeS = (atS.at(-1) ?? 0) - (atS[0] ?? 0);
  if (count < LEAST_POINTS || wholeS < LEAST_HELD_S) return null;
  const { m: slope, b: start } = linearRegression(atS.map((at, i) => [at, deflectionUm[i] ?? 0]));
  const left = deflectionUm.map((each, i) => each - start - slope * (atS[i] ?? 0));
  const squares = left.reduce((sum, each) => sum + each ** 2, 0);
  const goesOn = Math.min(
    0.95,
    Math.max(0, left.reduce((sum, each, i) => sum + each * (left[i - 1] ?? 0), 0) / (squares || 1)),
  );
  const spread = Math.max(Math.sqrt(squares / (count - 2)), LEAST_NOISE_UM);
  return {
    umPerS: slope,
    errorUmPerS: Math.max(
      ((spread * Math.sqrt(12 / count)) / wholeS) * Math.sqrt((1 + goesOn) / (1 - goesOn)),
      LEAST_NOISE_UM / LONGEST_BLANK_S,
    ),
  };
}
