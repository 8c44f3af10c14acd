export { leakPlace } from './leakPlace';
export { stepPassed, testPlanOf, useOf } from './planOf';
export { notToBeRun, testExcess } from './testExcess';
export { waterStatement, type WaterStatement } from './waterStatement';
