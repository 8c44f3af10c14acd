export {
  DRAWS,
  expectedLife,
  type Kept,
  lifeRange,
  lifeWords,
  type FunctionUse,
  type LifeForecast,
  type LifeInput,
  openDraws,
} from './expectedLife';
export { compareLives, type FittedAdvice, judgeFitted, serviceGain, type ServiceGain } from './fitted';
export { usualDrainUA } from './usualDrain';
export { normalFrom, seededUniform } from './random';
export { type CellLife, estimateLives, judgeShopLife, type ShopLife, type ShopLifeAdvice } from './shopLife';
export {
  type CellSeen,
  type CellVisit,
  type FittedHere,
  forecastAsFitted,
  type LifeOfCell,
  livesOf,
} from './cellVisits';
