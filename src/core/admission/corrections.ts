import type { Entry } from '../logbook';
import { type Admission, type Question, refuse } from './admission';

/** Why an entry may not correct or withdraw what it names; null where it may, or names nothing. */
export function judgeCorrection(entry: Entry, { known }: Pick<Question, 'known'>): Admission | null {
  for (const id of [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])]) {
    const target = known.find((each) => each.id === id);
    if (!target)
      return refuse(
        ['The entry to correct is not in this job.'],
        'Reload the job and correct the entry shown there.',
      );
    if (entry.withdraws === null && target.kind !== entry.kind)
      return refuse(
        ['A correction must have the same kind as the entry it corrects.'],
        'Withdraw the wrong entry and record the right one.',
      );
    if (target.kind === 'handback.signed')
      return refuse(
        ['A signature cannot be withdrawn.'],
        'Record what has changed. This reopens the job, and you can sign again.',
      );
  }
  return (entry.kind === 'logbook.withdrawn') !== (entry.withdraws !== null)
    ? refuse(['A withdrawal must name exactly one entry.'], 'Name the entry to withdraw.')
    : null;
}
