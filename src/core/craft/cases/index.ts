export { type CaseType, type CrownKind, CROWNS } from './caseType';
export { clockDistance, clockWords, turnClock, type View, VIEWS } from './clock';
export { asBackKind, BACK_KINDS, type BackKind, backs, closingSchool, KNIFE_KINDS } from './kinds';
export {
  type BackMeasures,
  BRACELETS,
  COATINGS,
  CROSS_SIZES,
  type CrossSize,
  differsFromBook,
  DUST_COVERS,
  HATCH_OPENS,
  type MeasuredBack,
  measuresOf,
  measureWords,
  MOST_NOTCHES,
  notchAngles,
  NOTHING_MEASURED,
  onlyOfKind,
  PANEL_HELD_BY,
  type PanelHeldBy,
  panelLayers,
  pitchCircleMm,
  SCREW_HEADS,
  TOOTH_FORMS,
  type ToothForm,
  turnedBack,
} from './measures';
export { contradictions } from './contradictions';
export { prySpot, type PrySpot, type PryQuestion, strikes, workedFrom } from './prySpot';
