export { priceOf, type PriceVerdict } from './priceOf';
