export {
  type ChargeAsked,
  type ChargeHere,
  chargeHere,
  chargeUnderLight,
  HAND_BACK_SHARE,
  type Lit,
  litOf,
  type PlaceOffer,
  placesFor,
} from './charging';
export { type AccumulatorVerdict, judgeAccumulator } from './judgeAccumulator';
