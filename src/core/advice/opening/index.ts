export {
  asAdvised,
  crownOf,
  expectedBack,
  type Opening,
  openingOf,
  partsComingOff,
  type TypedBack,
} from './openingOf';
