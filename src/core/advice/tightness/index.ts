export { leakPlace } from './leakPlace';
export { testPlanOf, useOf } from './planOf';
export { notToBeRun, testExcess } from './testExcess';
export { waterStatement, type WaterStatement } from './waterStatement';
