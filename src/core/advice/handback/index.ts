export { handback, type Handback } from './handback';
export { followUpOf } from './followUp';
export { readyToHandBack } from './readyToHandBack';
