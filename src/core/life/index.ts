export {
  averageCurrentUA,
  DRAWS,
  expectedLife,
  type FunctionUse,
  type LifeBars,
  type LifeDraws,
  type LifeForecast,
  type LifeInput,
  monthsOfLife,
  openDraws,
} from './expectedLife';
export {
  compareLives,
  type FittedAdvice,
  type FittedQuestion,
  judgeFitted,
  type LifeOfLot,
  serviceGain,
  type ServiceGain,
} from './fitted';
export { normalFrom, seededUniform } from './random';
