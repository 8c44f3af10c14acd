export { promiseAfterParts } from './promiseAfterParts';
export { promiseFor } from './promiseFor';
export { availability, type Need, needsInWords, needsOf, requestFor, worstOf } from './needsOf';
export { type ReadyToOpen, readyToOpen } from './readyToOpen';
