export { diagnose } from './diagnose';
export type { Diagnosis, FaultChance, FaultQuestion, NextTest, PricedRemedy, TestOutcome } from './diagnosis';
export {
  FAULTS,
  type Told,
  type Observable,
  OUTCOMES,
  SHOWS,
  type Shows,
  type SignOfFault,
  SIGNS_OF_FAULT,
  TESTS,
} from './faults';
export { NEXT_STEPS } from './remedies';
export { type Gauge, gaugeOf } from './gauge';
export { figuresFor, type MovementFigures } from './figures';
export { judgeLoadedVoltage, judgeRestVoltage, type Load, usualLoad } from './judgeReading';
export {
  judgeCoil,
  judgeCurrent,
  judgeLowestRunning,
  judgeRate,
  judgeStoppedCurrent,
  USUAL_RATE_S_PER_DAY,
} from './judgeMovement';
export { type Measure, measures, type ReadingVerdict } from './reading';
export {
  LEAK_DECISIONS,
  LEAK_PLACES,
  LEAK_SEVERITIES,
  type LeakAdvice,
  type LeakOption,
  leakOptions,
  leakReachesCoil,
  type LeakPlace,
  type LeakSeverity,
} from './leaks';
export { type TrendLimit, trendOf, type TrendPoint } from './trend';
