export { type RingOffer, ringOffers } from './rings';
