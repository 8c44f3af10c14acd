export { diagnoseJob } from './diagnoseJob';
export { leakAdviceOf } from './leakAdvice';
export { chemistryOfJob, judgeJobReadings, pulsesComeFirst } from './readingsOfJob';
