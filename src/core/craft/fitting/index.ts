export {
  FITTING_PHASES,
  type FittingGuide,
  fittingGuide,
  type FittingPhase,
  type FittingStep,
} from './guide';
