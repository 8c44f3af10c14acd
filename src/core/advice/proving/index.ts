export { movementToSet, notSeenRunning, orderOfProofs, proofSteps, quickSetInBook } from './proving';
export { dueOf, orderRuns, type RunDue, type RunningWatch, runningOf } from './running';
