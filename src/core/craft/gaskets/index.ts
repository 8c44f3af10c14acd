export type { Gasket } from './gasket';
export {
  bestRings,
  fitGasket,
  type FitOfRing,
  LIMITS,
  type Ranked,
  type RingWanted,
  ringWanted,
  type Share,
  stretchLimits,
  type Zone,
} from './fitGasket';
export {
  freeDepthMm,
  type Groove,
  grooveContradictions,
  type GrooveProblem,
  grooveWidthMm,
  measuredRingContradictions,
  readRingCode,
  type RingSize,
  type Seat,
  SEATS,
  USUALLY_WITHIN_MM,
} from './groove';
export {
  type CaliperedRing,
  type LikeliestRings,
  likeliestRings,
  oldRingContradictions,
} from './likeliestRings';
export { sectionsLeft, wornContradictions, type WornQuestion, type WornRing, wornRing } from './wornRing';
export {
  GASKET_FINDINGS,
  type GasketFinding,
  isForLicensed,
  isAsAdvised,
  renewOrReuse,
  type RingAdvice,
  ringContradictions,
  RING_STATES,
  type RingState,
} from './renewOrReuse';
