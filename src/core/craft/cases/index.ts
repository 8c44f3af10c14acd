export type { CaseType } from './caseType';
export {
  asBackKind,
  BACK_KINDS,
  type BackKind,
  backs,
  closingSchool,
  KNIFE_KINDS,
  prySpot,
  type PrySpot,
} from './kinds';
export {
  type BackMeasures,
  BRACELETS,
  COATINGS,
  contradictions,
  differsFromBook,
  type MeasuredBack,
  measuresOf,
  measureWords,
  MOST_NOTCHES,
  notchAngles,
  NOTHING_MEASURED,
  onlyOfKind,
  PANEL_HELD_BY,
  pitchCircleMm,
} from './measures';
