export { evidenceOfJob, type JobEvidence, movementHidden } from './evidenceOfJob';
