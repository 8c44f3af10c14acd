import type { AboveCell, Calibre, Well } from '../movements';
import type { Schools } from '../policy';
import type { PlacedPart } from './holders';

export const FITTING_PHASES = ['before', 'out', 'between', 'in', 'after'] as const;
export type FittingPhase = (typeof FITTING_PHASES)[number];

export interface FittingStep {
  readonly id: string;
  readonly phase: FittingPhase;
  readonly what: string;
  readonly how: string;
  /** Stands at this step and at no other; null: none here. */
  readonly danger: string | null;
  /** The book’s own lines for this movement, where they belong to this step. */
  readonly ofTheBook: readonly string[];
  /** What this step lays on the tray. */
  readonly off: readonly PlacedPart[];
  /** The step whose parts go back at this one; null: none do. */
  readonly back: string | null;
}

/** Where the hand goes on the layout. Millimetres from the centre, seen from the back, y to 12 o'clock. */
export interface FittingDrawing {
  /** Where the other hand is braced: at the rim of the movement, and the hour it lies at. */
  readonly brace: { readonly xMm: number; readonly yMm: number; readonly clock: number } | null;
  /** Whether a push carried on would come to a coil, and how far that is from the cell's rim. */
  readonly coilAheadMm: number | null;
}

export interface FittingGuide {
  readonly steps: readonly FittingStep[];
  readonly drawing: FittingDrawing;
  /** What nobody has seen yet and the guide would go by, in words. */
  readonly asks: readonly string[];
}

/** What of a movement the hand goes by: of the book, or as it was seen. */
export type GuidedMovement = Pick<
  Calibre,
  | 'coils'
  | 'contacts'
  | 'insulators'
  | 'printed'
  | 'resetContact'
  | 'stepIntervalS'
  | 'keepClearMm'
  | 'widthMm'
  | 'lengthMm'
  | 'functions'
  | 'recipes'
  | 'charge'
> & {
  /** Coils seen whose place is not known. */
  readonly coilsSeen: number | null;
  /** How its contact tells its revision, or which revisions it may be; empty where there is one only. */
  readonly contactOfRevision: string;
};

/** What of a place for a cell the hand goes by; null where nobody knows. */
export interface GuidedPlace {
  readonly xMm: number;
  readonly yMm: number;
  readonly heldBy: Well['heldBy'] | null;
  readonly faceUp: Well['faceUp'] | null;
  readonly pushDegrees: number | null;
}

export interface FittingQuestion {
  readonly movement: GuidedMovement;
  readonly place: GuidedPlace;
  /** What of the movement was not looked at, in words; empty where the book has it. */
  readonly notSeen: readonly string[];
  /** What is lifted on the way to this cell, and what goes back once it is in; the outermost first. */
  readonly above: { readonly off: readonly AboveCell[]; readonly on: readonly AboveCell[] };
  readonly cellDiameterMm: number | null;
  readonly schools: Schools;
  /** What was read on the print inside this very watch. */
  readonly prints: readonly string[];
  /** Whether the watch opens from its front. */
  readonly fromFront: boolean;
  /** Whether somebody looked and found no cell in its place. */
  readonly noneFound: boolean;
  /** Whether the cell found was clean, so that nothing corrosive is met. */
  readonly foundClean: boolean;
  /** Whether another well of this watch was worked before: what holds for all stands there. */
  readonly further: boolean;
  /** Whether no other well is worked after this one: then what lay above goes back, and the reset is joined once. */
  readonly last: boolean;
  /** Of a pair under one latch, which this is: the latch is opened at the first and shut at the second. Null: no such pair. */
  readonly ofPair: 'first' | 'second' | null;
  /** Dangers that stand at a well worked before. */
  readonly dangersNamed: readonly string[];
}
