export { compareMovements, type Difference } from './compare';
export { cellSizes, expectedMeasure, expectedPick, type Hypotheses } from './hypotheses';
export {
  type Belief,
  type Candidate,
  type Conflicting,
  type Identification,
  type Identifier,
  openIdentifier,
  pickLikelihood,
  sdOf,
  type SeenBefore,
  type Weighing,
} from './identifyMovement';
export {
  CALIPER_SD_MM,
  type Look,
  LOOK_NAMES,
  LOOKS,
  type LookSpec,
  lookSpec,
  type Seen,
  seenWords,
  type Trouble,
  TROUBLE,
} from './looks';
export { doubtOf, type LookWorth, nextBestLook, type NextLook, type Outcome } from './nextBestLook';
export { evidenceOfJob, type JobEvidence, movementHidden } from './evidenceOfJob';
export { strangerCalibre, type StrangerKnown, type StrangerSaid } from './stranger';
