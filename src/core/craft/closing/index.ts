export { type ClosingQuestion, type ClosingStep, closingPlan, type PartToReturn } from './closingPlan';
export { crosswise, SCREW_ROUNDS, USUAL_SCREWS } from './crosswise';
export {
  type DieMargin,
  type DieOnSide,
  type FitOfDies,
  fitDies,
  NO_PRESS_MEASURES,
  type Pressed,
  PRESS_NAMES,
  pressContradictions,
  type PressMeasures,
  type PressQuestion,
} from './fitDies';
