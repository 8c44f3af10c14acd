export {
  FITTING_PHASES,
  type FittingGuide,
  fittingGuide,
  type FittingPhase,
  type FittingStep,
  type GuidedMovement,
  type GuidedPlace,
} from './guide';
export type { PlacedPart } from './holders';
