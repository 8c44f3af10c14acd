export { findable, findWords, rankFound, editDistance, triples } from './find';
