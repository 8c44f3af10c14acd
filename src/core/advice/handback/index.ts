export { handback, type Handback, provingRun, waterStatement } from './handback';
