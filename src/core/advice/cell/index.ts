export {
  accumulatorInQuestion,
  fitForWell,
  fittedAdviceOf,
  foundCell,
  guidesOf,
  serviceGainOf,
  setOf,
  witnessesOf,
} from './cellOfJob';
