import type { DayIs, LightTimes, RotorFigures } from '../charging';
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
  'latch worked in place',
  'stacked light module',
  'lying free in its well',
  'under a hatch',
  'from the dial side',
] as const;
export type HoldKind = (typeof HOLD_KINDS)[number];

/** What may lie above a cell, whatever holds it: off before its holder is reached, the first named first. */
export const ABOVE_CELL = ['plate', 'cover', 'buzzer spring', 'light module', 'movement ring'] as const;
export type AboveCell = (typeof ABOVE_CELL)[number];

/** What a dial shows that can be placed by the clock. */
export const DIAL_PARTS = ['seconds', 'date', 'day', 'counter', 'display'] as const;
export type DialPart = (typeof DIAL_PARTS)[number];

/** One thing on the dial: a hand of its own, or a window; at the centre, or at a clock position seen from the front. */
export interface OnDial {
  readonly shows: DialPart;
  /** Null: at the centre. */
  readonly clock: number | null;
}

/** The signs makers strike into a movement, as plain shapes. Ours; the drawing of each is in the interface. */
export const SIGNS = [
  'kite',
  'three rungs',
  'broken ring',
  'wave',
  'stair',
  'arc and dot',
  'two leaves',
  'hooked cross bar',
] as const;
export type Sign = (typeof SIGNS)[number];

/** Where the movement is touched electrically, seen from the back. */
export const CONTACT_KINDS = ['plus', 'minus', 'reset', 'buzzer'] as const;
export interface Contact {
  readonly kind: (typeof CONTACT_KINDS)[number];
  readonly xMm: number;
  readonly yMm: number;
}

/** A procedure for this calibre, step by step. */
export interface Recipe {
  readonly what: string;
  readonly steps: readonly string[];
}

/** How a revision of a calibre differs from the others; null where it is as the calibre says. */
export interface Revision {
  readonly name: string;
  /** What tells it apart at a glance, e.g. “contact with two fingers”. */
  readonly seenBy: string;
  /** The cell of its first well. */
  readonly cellCode: string | null;
  readonly heightMm: number | null;
  readonly jewels: number | null;
  /** How the first well holds its cell. */
  readonly heldBy: HoldKind | null;
}

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
  /** What this cell feeds, where a movement has several; empty: whatever draws in the movement. */
  readonly feeds: readonly FunctionKind[];
  /** What is drawn from this cell alone, where the movement has several; null: the movement's own figures serve its first. */
  readonly typicalUA: number | null;
  readonly limitUA: number | null;
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
  /** What the kit must contain, and what of the old goes in again, one line each. */
  readonly contents: readonly string[];
  readonly reused: readonly string[];
  /** A modern accumulator the book foresees in place of an old capacitor; null: none. */
  readonly upgradeKitCode: string | null;
  readonly upgradeReserveDays: number | null;
  /** Years until a new accumulator wants renewing; null: the book does not say. */
  readonly lastsYears: number | null;
}

/** What the book has of how long it charges. */
export interface Charging {
  readonly lightTimes: readonly LightTimes[];
  /** How its lines state a day of running; null: not said. */
  readonly dayIs: DayIs | null;
  /** In 95 of 100 watches its times are good to this factor; null: not said. */
  readonly goodToFactor: number | null;
  /** What its rotor gains; null: not said. */
  readonly rotor: RotorFigures | null;
}

/** How far a tool keeps from a coil, where a calibre says nothing of its own. */
export const USUAL_KEEP_CLEAR_MM = 0.8;

export interface Calibre extends Charging {
  readonly id: string;
  readonly makerId: string;
  /** As the maker engraves it. */
  readonly code: string;
  readonly formerCodes: readonly string[];
  /** Calibres of one maker built alike share a family, and where one has no figure its family's serves; empty: none. */
  readonly family: string;
  /** Entered at the bench with what was known; what nobody knows yet is null in these alone. */
  readonly shopsOwn: boolean;
  readonly shape: 'round' | 'oblong';
  readonly widthMm: number | null;
  readonly lengthMm: number | null;
  readonly heightMm: number | null;
  readonly jewels: number | null;
  readonly dial: readonly OnDial[];
  /** Words printed on the movement, beside its code. */
  readonly printed: readonly string[];
  readonly wells: readonly Well[];
  /** What lies above its cells, the outermost first. */
  readonly aboveCell: readonly AboveCell[];
  readonly coils: readonly Coil[];
  readonly functions: readonly FunctionKind[];
  /** Seconds between steps of the smallest hand; null for a display. */
  readonly stepIntervalS: number | null;
  readonly lowSupplySignal: string | null;
  readonly typicalUA: number | null;
  readonly limitUA: number | null;
  readonly coilMinKOhm: number | null;
  readonly coilMaxKOhm: number | null;
  readonly lowestV: number | null;
  /** What further functions draw, for the life forecast. */
  readonly functionDraws: readonly {
    readonly name: string;
    readonly drawUA: number;
    readonly secondsPerDay: number;
  }[];
  readonly resetContact: string | null;
  /** Null for a movement on primary cells. */
  readonly charge: Charge | null;
  readonly contacts: readonly Contact[];
  /** How far around each coil no tool goes. */
  readonly keepClearMm: number;
  /** What lies between cell and movement, one line each. */
  readonly insulators: readonly string[];
  readonly recipes: readonly Recipe[];
  /** Empty where there is only one. */
  readonly revisions: readonly Revision[];
  readonly dateQuickSet: boolean;
  /** The day has a quick-set, too. */
  readonly dayQuickSet: boolean;
  /** When its own wheels change date and day, over midnight; null where the book has none. */
  readonly changeOver: { readonly fromClock: string; readonly toClock: string } | null;
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
  /** Null: none known. */
  readonly sign: Sign | null;
  readonly patterns: readonly EngravingPattern[];
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
