export { asAdvised, expectedBack, type Opening, openingOf, partsComingOff } from './openingOf';
