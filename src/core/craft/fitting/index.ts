export { fittingGuide } from './guide';
export {
  FITTING_PHASES,
  type FittingGuide,
  type FittingPhase,
  type FittingStep,
  type GuidedMovement,
  type GuidedPlace,
} from './question';
export type { PlacedPart } from './holders';
