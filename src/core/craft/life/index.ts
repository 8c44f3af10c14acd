export {
  DRAWS,
  expectedLife,
  type FunctionUse,
  type LifeForecast,
  type LifeInput,
  openDraws,
} from './expectedLife';
export { compareLives, type FittedAdvice, judgeFitted, serviceGain, type ServiceGain } from './fitted';
export { normalFrom, seededUniform } from './random';
