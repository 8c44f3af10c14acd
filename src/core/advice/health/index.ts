export { diagnoseJob, diagnosesOf, whatShows } from './diagnoseJob';
export { leakAdviceOf } from './leakAdvice';
export {
  chemistryOfJob,
  chemistryOfWell,
  isOfACell,
  type JudgedReading,
  judgeJobReadings,
  pulsesComeFirst,
  readingOfMovement,
} from './readingsOfJob';
export { isLoupeTest, loupeRecord, measureOfTest, testAnswers, type TestRecord } from './testAnswer';
