export {
  dayOf,
  movementToSet,
  notSeenRunning,
  orderOfProofs,
  proofSteps,
  quickSetInBook,
  runsBySight,
  whereItStands,
} from './proving';
export { runningOf } from './running';
export { dueOf, type RunningWatch, runsOfRack } from './runs';
