export { areConfusable, bareCode, logLikelihood } from './characters';
export { HOLDER_CAUTIONS } from './holders';
export { readEngraving } from './readEngraving';
export { FUNCTION_KINDS, HOLD_KINDS } from './types';
export type {
  Calibre,
  CaseType,
  Charge,
  CodeCandidate,
  Coil,
  EngravingPattern,
  EngravingPiece,
  EngravingReading,
  FunctionKind,
  HoldKind,
  Maker,
  Well,
} from './types';
