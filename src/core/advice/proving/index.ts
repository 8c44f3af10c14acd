export { movementToSet, notSeenRunning, orderOfProofs, proofSteps, quickSetInBook } from './proving';
export { dueOf, type RunningWatch, runningOf, runsOfRack } from './running';
