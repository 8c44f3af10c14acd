export {
  asAdvised,
  crownClockOf,
  crownOf,
  expectedBack,
  type Opening,
  openingOf,
  partsComingOff,
  type TypedBack,
} from './openingOf';
