export { handback, type Handback } from './handback';
export { readyToHandBack } from './readyToHandBack';
