export {
  averageCurrentUA,
  expectedLife,
  monthsOfLife,
  type FunctionUse,
  type LifeForecast,
  type LifeInput,
} from './expectedLife';
export { normalFrom, seededUniform } from './random';
