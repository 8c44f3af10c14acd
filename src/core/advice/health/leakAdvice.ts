import type { Book } from '../../craft/book';
import { figuresFor, LEAK_SEVERITIES, type LeakAdvice, leakOptions } from '../../craft/health';
import { type Policy, priceInList } from '../../craft/policy';
import type { JobState } from '../../logbook';
import { chemistryOfJob } from './readingsOfJob';

/** What is advised about the gravest leak found in a job, by the last current after cleaning; null where nothing leaked. */
export function leakAdviceOf(state: JobState, book: Book, policy: Pick<Policy, 'extras'>): LeakAdvice | null {
  const leaks = state.facts.leakages.map(({ payload }) => payload);
  if (leaks.length === 0) return null;
  const gravest = Math.max(...leaks.map(({ severity }) => LEAK_SEVERITIES.indexOf(severity)));
  return leakOptions({
    severity: LEAK_SEVERITIES[gravest] ?? 'bloom',
    currentAfterUA: leaks.findLast(({ currentAfterUA }) => currentAfterUA !== null)?.currentAfterUA ?? null,
    figures: figuresFor(state.calibre, book).current,
    originalMatters: state.facts.originality?.payload.matters === true,
    chemistry: chemistryOfJob(state),
    priceOf: (item) => priceInList(policy, item),
  });
}
