import type { Book } from '../catalogue';
import type { Chemistry } from '../cells';
import type { JobState } from '../logbook';
import {
  judgeCoil,
  judgeCurrent,
  judgeLoadedVoltage,
  judgeLowestRunning,
  judgeRate,
  judgeRestVoltage,
  type Measure,
  type ReadingVerdict,
} from './judgeReading';

/**
 * Every reading taken on a job, with its verdict. The cell found tells which chemistry the voltages are judged by;
 * before it is read, the cell the movement wants does.
 */
export function judgeJobReadings(state: JobState, book: Book): ReadingVerdict[] {
  const value = (measure: Measure): number | null => state.facts.readings.get(measure)?.payload.value ?? null;
  const marking = state.wells.find((well) => well.found?.payload.marking)?.found?.payload.marking ?? null;
  const found: Chemistry | null = marking === null ? null : (book.cell(marking)?.chemistry ?? null);
  const chemistry = found ?? state.wells[0]?.wanted?.chemistry ?? null;
  const [rest, loaded, current] = [value('restVoltageV'), value('loadedVoltageV'), value('currentUA')];
  const [coil, lowest, rate] = [value('coilKOhm'), value('lowestRunningV'), value('rateSPerDay')];
  return [
    ...(rest === null ? [] : [judgeRestVoltage(rest, chemistry)]),
    ...(loaded === null ? [] : [judgeLoadedVoltage(loaded, rest, chemistry)]),
    ...(current === null ? [] : [judgeCurrent(current, state.calibre)]),
    ...(coil === null ? [] : [judgeCoil(coil, state.calibre)]),
    ...(lowest === null ? [] : [judgeLowestRunning(lowest, state.calibre)]),
    ...(rate === null ? [] : [judgeRate(rate)]),
  ];
}
