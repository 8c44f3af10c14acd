export {
  diagnose,
  type Diagnosis,
  type FaultChance,
  type FaultQuestion,
  type NextTest,
  type PricedRemedy,
  type TestOutcome,
} from './diagnose';
export {
  FAULTS,
  type Told,
  NEXT_STEPS,
  type Observable,
  OUTCOMES,
  SHOWS,
  type Shows,
  type SignOfFault,
  SIGNS_OF_FAULT,
  TESTS,
} from './faults';
export { type Gauge, gaugeOf } from './gauge';
export { figuresFor, type MovementFigures } from './figures';
export {
  judgeCoil,
  judgeCurrent,
  judgeLoadedVoltage,
  judgeLowestRunning,
  judgeRate,
  judgeRestVoltage,
  judgeStoppedCurrent,
  type Load,
  type Measure,
  measures,
  type ReadingVerdict,
  USUAL_RATE_S_PER_DAY,
  usualLoad,
} from './judgeReading';
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
