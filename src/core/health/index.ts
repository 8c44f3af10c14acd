export { judgeJobReadings } from './judgeJobReadings';
export {
  judgeCoil,
  judgeCurrent,
  judgeLoadedVoltage,
  judgeLowestRunning,
  judgeRate,
  judgeRestVoltage,
  type Measure,
  measures,
  type ReadingVerdict,
  type Reference,
} from './judgeReading';
