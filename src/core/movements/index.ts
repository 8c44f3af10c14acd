export {
  areConfusable,
  bareCode,
  byChance,
  CHARACTER_MODEL,
  differences,
  legible,
  logLikelihood,
  seenProbability,
  type Symbols,
  symbolsOf,
  twinsOf,
} from './characters';
export { engravedCase, readEngraving, strangerLikelihood, stretches } from './readEngraving';
export { asRevision, calibreWords, NOTHING_MORE, openRevisions } from './revisions';
export { CONTACT_KINDS, DIAL_PARTS, FUNCTION_KINDS, HOLD_KINDS, SIGNS } from './types';
export type {
  Calibre,
  CaseType,
  Charge,
  CodeCandidate,
  Coil,
  Contact,
  DialPart,
  EngravingPattern,
  EngravingPiece,
  EngravingReading,
  FunctionKind,
  HoldKind,
  Maker,
  OnDial,
  Recipe,
  Revision,
  Sign,
  Well,
} from './types';
