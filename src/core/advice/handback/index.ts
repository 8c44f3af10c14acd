export { handback, type Handback } from './handback';
export { provingRun } from './provingRun';
export { waterStatement } from './waterStatement';
