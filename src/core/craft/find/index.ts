export { isSearchedFor, OTHER_WORDS } from './otherWords';
export { findable, findWords, rankFound, editDistance, triples } from './find';
