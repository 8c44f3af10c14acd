import type { Book } from '../../craft/book';
import { expectedLife, type FittedAdvice, judgeFitted } from '../../craft/life';
import { saidDays } from '../../craft/time';
import { isLeaked, type JobState, type WellState } from '../../logbook';
import { judgeJobReadings } from '../health';
import { lifeQuestion } from './lifeQuestion';

/** What to do with the cell that is in the watch already; null where none was found or it cannot be read. */
export function fittedAdviceOf(
  state: JobState,
  well: WellState,
  book: Book,
  today: string,
): FittedAdvice | null {
  const { foundCell: cell } = well;
  if (cell === null || well.found === null) return null;
  const own = state.wells.length > 1 ? well.name : null;
  const verdicts = new Map(
    judgeJobReadings(state, book)
      .filter((each) => each.well === own)
      .map(({ measure, verdict }) => [measure, verdict]),
  );
  const voltage = (measure: 'restVoltageV' | 'loadedVoltageV') => {
    const verdict = verdicts.get(measure);
    return verdict === 'good' || verdict === 'falling' || verdict === 'spent' ? verdict : 'not judged';
  };
  const fresh = lifeQuestion(state, well, cell.code, null, today, book);
  const changedOn = state.facts.cellHistory?.payload.changedOn ?? null;
  return judgeFitted({
    cell,
    rest: voltage('restVoltageV'),
    loaded: voltage('loadedVoltageV'),
    leaked: isLeaked(well.found.payload),
    life:
      typeof fresh === 'string'
        ? { verdict: 'no forecast', reasons: [fresh], working: [] }
        : expectedLife(fresh),
    // A year alone may be its first day: the earlier is the safer.
    fittedOn: changedOn === null ? null : saidDays(changedOn).from,
    today,
  });
}
