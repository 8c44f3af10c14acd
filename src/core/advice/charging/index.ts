export {
  type ChargeAsked,
  chargedHereBy,
  type ChargeHere,
  chargeHere,
  chargeUnderLight,
  litOf,
  type PlaceOffer,
  placesFor,
} from './charging';
export { type AccumulatorVerdict, judgeAccumulator } from './judgeAccumulator';
export { type AtPlace, type LightRack, lightRack } from './lightRack';
export { type Lit, litWords, waitsInShade } from './litWords';
export { kitLots, kitsHere } from './kitsHere';
export { chargesItself, hasLeaked, renewalRefusal } from './renewal';
export { daysStood, startOnRecord } from './startShown';
export { woundHere } from './woundHere';
