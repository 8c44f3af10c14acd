import type { BackMeasures } from '../backs';
import type { Judged } from '../judgement';

export const FUNCTION_KINDS = [
  'hands',
  'seconds hand',
  'date',
  'day',
  'light',
  'alarm',
  'chronograph',
  'digital display',
  'low-supply signal',
  'charging',
] as const;
export type FunctionKind = (typeof FUNCTION_KINDS)[number];

export const HOLD_KINDS = [
  'side lever',
  'clip on one side',
  'sprung contact at the rim',
  'screwed bridge',
  'latch on a module',
  'stacked light module',
  'ring round the movement',
  'under a hatch',
  'from the dial side',
] as const;
export type HoldKind = (typeof HOLD_KINDS)[number];

/** A place for a cell. Millimetres from the movement's centre, x to 3 o'clock, y to 12 o'clock, seen from the back. */
export interface Well {
  readonly name: string;
  readonly xMm: number;
  readonly yMm: number;
  /** The primary cell it takes; empty where the movement runs from an accumulator. */
  readonly cellCode: string;
  readonly otherHeightsMm: readonly number[];
  readonly faceUp: '+' | '−';
  readonly heldBy: HoldKind;
  /** The direction the holder is pushed, in degrees clockwise from 12 o'clock seen from the back. */
  readonly pushDegrees: number;
}

export interface Coil {
  readonly xMm: number;
  readonly yMm: number;
  readonly lengthMm: number;
  readonly widthMm: number;
  /** Direction of its long axis, degrees clockwise from 12 o'clock. */
  readonly degrees: number;
}

/** How a movement that runs from an accumulator is charged, and the part that renews it. */
export interface Charge {
  readonly by: 'light' | 'rotor';
  /** The kit for this calibre and no other. */
  readonly kitCode: string;
  readonly oldPart: 'accumulator' | 'capacitor';
  readonly diameterMm: number;
  readonly heightMm: number;
  readonly nominalV: number;
  /** Days it runs when full. */
  readonly reserveDays: number;
}

export interface Calibre {
  readonly id: string;
  readonly makerId: string;
  /** As the maker engraves it. */
  readonly code: string;
  readonly formerCodes: readonly string[];
  readonly shape: 'round' | 'oblong';
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly heightMm: number;
  readonly wells: readonly Well[];
  readonly coils: readonly Coil[];
  readonly functions: readonly FunctionKind[];
  /** Seconds between steps of the smallest hand; null for a display. */
  readonly stepIntervalS: number | null;
  readonly lowSupplySignal: string | null;
  readonly typicalUA: number;
  readonly limitUA: number;
  readonly coilMinKOhm: number | null;
  readonly coilMaxKOhm: number | null;
  readonly lowestV: number;
  /** What further functions draw, for the life forecast. */
  readonly functionDraws: readonly {
    readonly name: string;
    readonly drawUA: number;
    readonly secondsPerDay: number;
  }[];
  readonly resetContact: string | null;
  /** Null for a movement on primary cells. */
  readonly charge: Charge | null;
  readonly dateQuickSet: boolean;
  /** Crown positions by what they do, pushed home first. */
  readonly crownPositions: readonly string[];
  /** One line each, for this calibre only. */
  readonly cautions: readonly string[];
}

/** `d` a digit, `l` a letter, anything else itself. */
export interface EngravingPattern {
  readonly meaning: 'movement' | 'case' | 'serial';
  readonly template: string;
}

export interface Maker {
  readonly id: string;
  readonly name: string;
  readonly patterns: readonly EngravingPattern[];
}

export interface CaseType {
  readonly id: string;
  readonly makerId: string;
  readonly code: string;
  readonly backKind: string;
  readonly ratingBar: number | null;
  readonly crownClock: number;
  /** Where the rim shows a lip or nick, if the type has one. */
  readonly lipClock: number | null;
  readonly gasket: string | null;
  /** The measures of its back, where somebody took them. */
  readonly back: BackMeasures | null;
}

export interface EngravingPiece {
  readonly text: string;
  readonly meaning: EngravingPattern['meaning'];
  readonly makerId: string;
  readonly template: string;
}

export interface CodeCandidate {
  readonly id: string;
  readonly code: string;
  readonly makerId: string;
  /** The share of belief, all candidates and *not in the book* together making one. */
  readonly probability: number;
  readonly reasons: readonly string[];
}

export type EngravingReading =
  | (Judged<'read'> & {
      readonly pieces: readonly EngravingPiece[];
      readonly movements: readonly CodeCandidate[];
      readonly cases: readonly CodeCandidate[];
      readonly serial: string | null;
      readonly movementNotInBook: number;
    })
  | (Judged<'not read'> & { readonly unexplained: readonly string[] });
