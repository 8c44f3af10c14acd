import type { Policy } from '../../craft/policy';
import type { Book } from '../../craft/book';
import type { Chemistry } from '../../craft/cells';
import type { JobState } from '../../logbook';
import {
  figuresFor,
  judgeCoil,
  judgeCurrent,
  judgeLoadedVoltage,
  judgeLowestRunning,
  judgeRate,
  judgeRestVoltage,
  judgeStoppedCurrent,
  type Load,
  type Measure,
  type ReadingVerdict,
} from '../../craft/health';
/** The chemistry the voltages of a job are judged by: of the cell found, and until it is read of the one wanted. */
export function chemistryOfJob(state: JobState): Chemistry | null {
  const found = state.wells.find(({ foundReading }) => foundReading !== null)?.foundCell ?? null;
  return found?.chemistry ?? state.wells[0]?.wanted?.chemistry ?? null;
}

/** Every reading taken on a job, with its verdict. */
export function judgeJobReadings(state: JobState, book: Book): ReadingVerdict[] {
  const value = (measure: Measure): number | null => state.facts.readings.get(measure)?.payload.value ?? null;
  const chemistry = chemistryOfJob(state);
  const figures = figuresFor(state.calibre, book);
  const [rest, loaded, current] = [value('restVoltageV'), value('loadedVoltageV'), value('currentUA')];
  const [coil, lowest, rate] = [value('coilKOhm'), value('lowestRunningV'), value('rateSPerDay')];
  const stopped = value('stoppedCurrentUA');
  const read = state.facts.readings.get('loadedVoltageV')?.payload;
  const load: Load | null =
    read && read.loadKOhm !== null && read.loadSeconds !== null
      ? { loadKOhm: read.loadKOhm, seconds: read.loadSeconds }
      : null;
  return [
    ...(rest === null ? [] : [judgeRestVoltage(rest, chemistry)]),
    ...(loaded === null ? [] : [judgeLoadedVoltage(loaded, rest, chemistry, load)]),
    ...(current === null ? [] : [judgeCurrent(current, figures.current)]),
    ...(stopped === null ? [] : [judgeStoppedCurrent(stopped, figures.current)]),
    ...(coil === null ? [] : [judgeCoil(coil, figures.coil)]),
    ...(lowest === null ? [] : [judgeLowestRunning(lowest, figures.lowest)]),
    ...(rate === null ? [] : [judgeRate(rate)]),
  ];
}

/**
 * Whether motor pulses are the first thing to look for: through a watch that is still closed, before anything is undone,
 * where the shop measures first. A display has no motor. Source: bench practice, shop policy.
 */
export function pulsesComeFirst(
  { facts, calibre }: Pick<JobState, 'facts' | 'calibre'>,
  { schools }: Pick<Policy, 'schools'>,
): boolean {
  return (
    facts.pulses === null &&
    facts.back === null &&
    schools.check === 'measure first' &&
    (calibre === null || calibre.functions.includes('hands'))
  );
}
