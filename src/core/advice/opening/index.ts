export {
  asAdvised,
  crownClockOf,
  expectedBack,
  type Opening,
  openingOf,
  partsComingOff,
  type TypedBack,
} from './openingOf';
