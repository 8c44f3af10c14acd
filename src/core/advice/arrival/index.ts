export { promiseAfterParts } from './promiseAfterParts';
export { inHouse, type Need, needsOf, requestFor } from './needsOf';
export { type ReadyToOpen, readyToOpen } from './readyToOpen';
