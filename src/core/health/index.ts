export {
  diagnose,
  type Diagnosis,
  type FaultChance,
  type FaultQuestion,
  type NextTest,
  type PricedRemedy,
} from './diagnose';
export { diagnoseJob, faultQuestionOf } from './diagnoseJob';
export {
  type Fault,
  FAULTS,
  NEXT_STEPS,
  type Observable,
  OBSERVABLES,
  OUTCOMES,
  type Remedy,
  SHOWS,
  type Shows,
  type SignOfFault,
  SIGNS_OF_FAULT,
} from './faults';
export { figuresFor, median, type MovementFigures, type Whose } from './figures';
export { chemistryOfJob, judgeJobReadings } from './judgeJobReadings';
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
  type Reference,
  USUAL_RATE_S_PER_DAY,
  usualLoad,
} from './judgeReading';
export {
  LEAK_SEVERITIES,
  leakAdviceOf,
  type LeakAdvice,
  leakOptions,
  type LeakOption,
  type LeakSeverity,
} from './leaks';
export { trendOf, type Trend, type TrendLimit, type TrendPoint } from './trend';
