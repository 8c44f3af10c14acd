export { diagnoseJob } from './diagnoseJob';
export { leakAdviceOf } from './leakAdvice';
export {
  chemistryOfJob,
  chemistryOfWell,
  isOfACell,
  type JudgedReading,
  judgeJobReadings,
  pulsesComeFirst,
} from './readingsOfJob';
