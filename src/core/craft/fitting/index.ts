export {
  FITTING_PHASES,
  type FittingGuide,
  fittingGuide,
  type FittingPhase,
  type FittingStep,
  type GuidedMovement,
  type GuidedPlace,
} from './guide';
