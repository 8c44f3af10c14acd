export {
  accumulatorInQuestion,
  fitForWell,
  fittedAdviceOf,
  guidesOf,
  serviceGainOf,
  setOf,
  witnessesOf,
} from './cellOfJob';
