import type { Book } from '../../craft/book';
import type { Chemistry } from '../../craft/cells';
import { figuresFor, type LeakAdvice, leakOptions, leakReachesCoil } from '../../craft/health';
import { type Policy, priceInList } from '../../craft/policy';
import type { JobState } from '../../logbook';
import { supplyOf } from '../supply';
import { judgeJobReadings } from './readingsOfJob';

/** The chemistry of what leaked: of the cell found alone, and null where its name cannot be read. */
function leakedChemistry(state: JobState, book: Book): Chemistry | null {
  if (supplyOf(state, book).verdict === 'rechargeable') return 'accumulator';
  const chemistries = new Set(
    state.wells
      .filter(({ found }) => found !== null && found.payload.marking !== null)
      .map(({ foundCell }) => foundCell?.chemistry ?? null),
  );
  // Two cells of two chemistries: nobody said which of them leaked.
  return chemistries.size === 1 ? ([...chemistries][0] ?? null) : null;
}

/** A finding of this visit says it as surely as the meter. */
function saysSevered({ facts }: JobState): boolean {
  return [...facts.findings.values()].some(({ payload }) =>
    [payload.cause, payload.also].includes('coil severed'),
  );
}

/** Whether a leak lies within reach of a coil; where nobody knows where the coil lies it is taken to. */
function isByCoil({ calibre, facts }: JobState): boolean {
  return calibre === null || facts.leakages.some(({ payload }) => leakReachesCoil(calibre, payload));
}

/** What is advised about the leaks of a job by where they are, the coil and the last current after; null where nothing leaked. */
export function leakAdviceOf(state: JobState, book: Book, policy: Pick<Policy, 'extras'>): LeakAdvice | null {
  const leaks = state.facts.leakages.map(({ payload }) => payload);
  if (leaks.length === 0) return null;
  const coil = judgeJobReadings(state, book).find(({ measure }) => measure === 'coilKOhm');
  return leakOptions({
    leaks,
    coil: saysSevered(state) ? 'open' : (coil?.verdict ?? null),
    currentAfterUA: leaks.findLast(({ currentAfterUA }) => currentAfterUA !== null)?.currentAfterUA ?? null,
    figures: figuresFor(state.calibre, book).current,
    byCoil: isByCoil(state),
    originalMatters: state.facts.originality?.payload.matters === true,
    chemistry: leakedChemistry(state, book),
    priceOf: (item) => priceInList(policy, item),
  });
}
