export {
  bareCode,
  byChance,
  CHARACTER_MODEL,
  differences,
  legible,
  seenProbability,
  sisterProbability,
  type Symbols,
  symbolsOf,
  twinsOf,
} from './characters';
export { inFrameOf, isNearCoil } from './coils';
export { feedsByName } from './feeds';
export { engravedCase, readEngraving, stretches, takenApart, unknownCodeLikelihood } from './readEngraving';
export { type KitFor, kitsFor, reserveWith } from './kits';
export { asRevision, calibreWords, openRevisions } from './revisions';
export {
  type Calibre,
  type Charge,
  type Coil,
  type Contact,
  CONTACT_KINDS,
  DIAL_PARTS,
  type EngravingReading,
  FUNCTION_KINDS,
  type FunctionKind,
  ABOVE_CELL,
  type AboveCell,
  HOLD_KINDS,
  type HoldKind,
  type Maker,
  type Sign,
  SIGNS,
  USUAL_KEEP_CLEAR_MM,
  type Well,
} from './types';
