export { handback, type Handback } from './handback';
export { readyToHandBack } from './readyToHandBack';
export { provingRun } from './provingRun';
export { type JudgedTest, judgeTests, testInWords, waterStatement } from './waterStatement';
export { testExcess } from './testExcess';
export { leakPlace } from './leakPlace';
