export { diagnoseJob } from './diagnoseJob';
export { leakAdviceOf } from './leakAdvice';
export { chemistryOfJob, judgeJobReadings } from './readingsOfJob';
export { pulsesComeFirst } from './readingsOfJob';
