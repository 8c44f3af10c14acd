export { lifeQuestion, usesOf } from './lifeQuestion';
export { cellVisitOf, withForecastsKept } from './cellVisit';
export {
  type DatedLots,
  type LotsOfCells,
  type NextVisit,
  nextVisit,
  shopLifeOf,
  visitWords,
} from './nextVisit';
export { fittedAdviceOf } from './leftIn';
