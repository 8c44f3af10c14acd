export { freeVolumeOf, leakOfTest, leakSettingOf, USUAL_TESTER_NOISE_UM } from './leakOfTest';
export { barOf, flowInWords, type JudgedTest, judgeTests, repairedBetween, testInWords } from './judgeTests';
export { usualStiffness } from './usualStiffness';
export { type LeakPoint, leakTrend } from './leakTrend';
export {
  ALL_YEARS,
  leakCaseOf,
  type LeakCaseSeen,
  type LeakGroup,
  leakReport,
  usualOfCase,
  type UsualOfCase,
} from './leakReport';
