export { accumulatorInQuestion, fitForWell, guidesOf, pairedWith, serviceGainOf, setOf } from './cellOfJob';
export {
  type FitByMeasure,
  fitByMeasure,
  type PlaceWants,
  placeWants,
  primaryBarred,
  oldCellAway,
  putBackRefusal,
  type Refusal,
  refusalOf,
} from './goesIn';
export { witnessesOf } from './witnesses';
export { trayOfFitting } from './trayOfFitting';
