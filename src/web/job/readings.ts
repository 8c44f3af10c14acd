import { judgeCurrent, judgeLoadedVoltage, judgeRestVoltage, type ReadingVerdict } from '../../core/health';
import type { JobState } from '../../core/logbook';
import type { Book } from '../../core/catalogue';

/** Every reading taken, with its verdict. */
export function judgedReadings(state: JobState, book: Book): ReadingVerdict[] {
  const value = (measure: string): number | null => state.facts.readings.get(measure)?.payload.value ?? null;
  const marking = state.wells.find((well) => well.found?.payload.marking)?.found?.payload.marking ?? null;
  // The cell found tells the chemistry; before it is read, what the movement wants does.
  const chemistry =
    (marking === null ? null : book.cell(marking)?.chemistry) ?? state.wells[0]?.wanted?.chemistry ?? null;
  const rest = value('restVoltageV');
  const loaded = value('loadedVoltageV');
  const current = value('currentUA');
  return [
    ...(rest === null ? [] : [judgeRestVoltage(rest, chemistry)]),
    ...(loaded === null ? [] : [judgeLoadedVoltage(loaded, rest, chemistry)]),
    ...(current === null ? [] : [judgeCurrent(current, state.calibre)]),
  ];
}
