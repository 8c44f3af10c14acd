export { findable, findWords, rankFound, triples } from './find';
