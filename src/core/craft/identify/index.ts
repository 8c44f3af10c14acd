export { compareMovements } from './compare';
export { cellSizes, expectedMeasure, expectedPick } from './hypotheses';
export {
  type Candidate,
  type Identification,
  type Identifier,
  openIdentifier,
  pickLikelihood,
  type SeenBefore,
  type Weighing,
} from './identifyMovement';
export { CALIPER_SD_MM, type Look, LOOK_NAMES, LOOKS, lookSpec, type Seen, seenWords } from './looks';
export { nextBestLook, type NextLook } from './nextBestLook';
export { unknownCalibre } from './unknownCalibre';
