import { type Judged, invalidFigures } from '../judgement';
import { type Quantity, quantities } from '../units';
import type { Whose } from './figures';

/** The readings taken at the bench, with the range outside which a figure is a slip and not a reading. */
export const measures = {
  restVoltageV: { words: 'rest voltage', quantity: 'voltageV', min: 0, max: 4.5 },
  loadedVoltageV: { words: 'voltage under load', quantity: 'voltageV', min: 0, max: 4.5 },
  currentUA: { words: 'current', quantity: 'currentUA', min: 0, max: 5000 },
  stoppedCurrentUA: { words: 'current, motor stopped', quantity: 'currentUA', min: 0, max: 5000 },
  coilKOhm: { words: 'coil resistance', quantity: 'resistanceKOhm', min: 0, max: 10000 },
  lowestRunningV: { words: 'lowest running voltage', quantity: 'voltageV', min: 0, max: 4.5 },
  rateSPerDay: { words: 'rate', quantity: 'rateSPerDay', min: -600, max: 600 },
} as const satisfies Record<string, { words: string; quantity: Quantity; min: number; max: number }>;

export type Measure = keyof typeof measures;

/** The range a source gives for a reading, and whose range it is. */
export interface Reference {
  readonly whose: Whose;
  readonly min: number | null;
  readonly max: number | null;
}

export type ReadingVerdict = Judged<
  | 'good'
  | 'falling'
  | 'spent'
  | 'over the limit'
  | 'too little'
  | 'suspect'
  | 'open'
  | 'shorted turns'
  | 'runs too late'
  | 'off'
  | 'not this cell'
  | 'not judged'
> & {
  readonly measure: Measure;
  readonly value: number;
  readonly reference: Reference;
};

/** The finest step an instrument shows of a measure: nothing is past a limit that cannot be read to be. */
function stepOf(measure: Measure): number {
  return 10 ** -quantities[measures[measure].quantity].digits;
}

/** Whether a reading is over a limit as far as it can be read: 1.55 falling to 1.40 V is a sag of exactly 0.15. */
export function isOver(measure: Measure, value: number, limit: number): boolean {
  return value - limit > stepOf(measure) / 2;
}

export function isUnder(measure: Measure, value: number, limit: number): boolean {
  return isOver(measure, limit, value);
}

/** What two readings of a bench meter may differ by. */
export const METER_V = 0.01;

/** A figure that is none, or that no meter shows of this measure, is not judged; null where it can be. */
export function unread(
  measure: Measure,
  value: number,
  reference: readonly number[] = [],
): ReadingVerdict | null {
  const { min, max, quantity, words } = measures[measure];
  const { unit } = quantities[quantity];
  const reasons = [
    ...invalidFigures([{ path: measure, what: `The ${words}`, value, unit, from: min, to: max }]),
    ...invalidFigures(
      reference.map((each) => ({
        path: measure,
        what: 'The figure it is held against',
        value: each,
        unit,
        over: 0,
        to: max,
      })),
    ),
  ].map(({ reason }) => reason);
  return reasons.length === 0
    ? null
    : {
        measure,
        value,
        verdict: 'not judged',
        reference: { whose: 'general', min: null, max: null },
        reasons,
        working: [],
      };
}
