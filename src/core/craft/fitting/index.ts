export {
  FITTING_PHASES,
  type FittingGuide,
  fittingGuide,
  type FittingPhase,
  type FittingStep,
} from './guide';
export { HOLDER_WAYS } from './holders';
