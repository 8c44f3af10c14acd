export { findable, findWords, rankFound, slips, triples } from './find';
