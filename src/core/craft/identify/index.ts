export { compareMovements } from './compare';
export { cellSizes, expectedMeasure, expectedPick } from './hypotheses';
export {
  type Candidate,
  type Identification,
  type SeenBefore,
  standsForIt,
  type Weighing,
} from './identification';
export { type Identifier, openIdentifier } from './identifyMovement';
export { pickLikelihood } from './pieces';
export { CALIPER_SD_MM, type Look, LOOK_NAMES, LOOKS, lookSpec, type Seen, seenWords } from './looks';
export { nextBestLook, type NextLook } from './nextBestLook';
export { unknownCalibre } from './unknownCalibre';
