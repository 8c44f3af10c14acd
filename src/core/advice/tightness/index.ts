export { leakPlace } from './leakPlace';
export { stepPassed, testPlanOf, useOf } from './planOf';
export { notToBeRun, testExcess, wetRisk } from './testExcess';
export { testNotYet } from './testNotYet';
export { waterStatement, type WaterStatement } from './waterStatement';
