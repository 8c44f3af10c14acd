export {
  accumulatorInQuestion,
  cellNamedIn,
  fitForWell,
  fittedAdviceOf,
  foundCell,
  guidesOf,
  serviceGainOf,
  setOf,
  witnessesOf,
} from './cellOfJob';
export {
  FITTING_PHASES,
  type FittingDrawing,
  type FittingGuide,
  fittingGuide,
  type FittingPhase,
  type FittingStep,
} from './guide';
