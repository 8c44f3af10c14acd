export { diagnose, type Diagnosis, type FaultQuestion, type PricedRemedy } from './diagnose';
export {
  FAULTS,
  type Told,
  NEXT_STEPS,
  type Observable,
  SHOWS,
  type Shows,
  type SignOfFault,
  SIGNS_OF_FAULT,
} from './faults';
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
  type LeakPlace,
  type LeakSeverity,
} from './leaks';
export { type TrendLimit, trendOf, type TrendPoint } from './trend';
