export { type RingBox, ringBoxes, ringIsLow } from './boxes';
export { type RingOffer, ringOffers } from './rings';
export {
  assortmentOf,
  chooseRing,
  closingOf,
  diesOf,
  fittedRing,
  gasketAdvice,
  isClosingStepDone,
  pressMeasuresOf,
  oldRingCanBe,
  reasonWanted,
  type RingChoice,
  type RingSaidSoFar,
  type RingToHave,
  staysClosedYears,
  typedSizeContradictions,
  wornOf,
} from './sealing';
