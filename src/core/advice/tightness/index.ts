export { leakPlace } from './leakPlace';
export { freeVolumeOf, leakOfTest, leakSettingOf, USUAL_TESTER_NOISE_UM } from './leakOfTest';
export { testPlanOf, useOf } from './planOf';
export { testExcess } from './testExcess';
export { flowInWords, type JudgedTest, judgeTests, repairedBetween, testInWords } from './judgeTests';
export { waterStatement, type WaterStatement } from './waterStatement';
export { usualStiffness } from './usualStiffness';
export { type LeakPoint, leakTrend } from './leakTrend';
