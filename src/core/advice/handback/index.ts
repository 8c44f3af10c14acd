export { handback, type Handback } from './handback';
export { readyToHandBack } from './readyToHandBack';
export { provingRun } from './provingRun';
