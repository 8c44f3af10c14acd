export { judgeJobReadings } from './judgeJobReadings';
export {
  judgeCurrent,
  judgeLoadedVoltage,
  judgeRestVoltage,
  type Measure,
  measures,
  type ReadingVerdict,
  type Reference,
} from './judgeReading';
