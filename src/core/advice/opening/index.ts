export { asAdvised, crownOf, expectedBack, type Opening, openingOf, partsComingOff } from './openingOf';
