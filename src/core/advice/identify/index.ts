export { evidenceOfJob, type JobEvidence, movementHidden } from './evidenceOfJob';
export { type SeenMovement, seenMovement } from './seenMovement';
export { wentUnnamed } from './wentUnnamed';
