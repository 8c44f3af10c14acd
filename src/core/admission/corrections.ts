import type { Entry } from '../logbook';
import { type Admission, type Question, refuse } from './admission';

/** Why an entry may not correct or withdraw what it names; null where it may, or names nothing. */
export function judgeCorrection(entry: Entry, { known }: Pick<Question, 'known'>): Admission | null {
  for (const id of [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])]) {
    const target = known.find((each) => each.id === id);
    if (!target)
      return refuse(
        ['It corrects an entry this job does not hold.'],
        'Load the job again and correct the entry shown there.',
      );
    if (entry.withdraws === null && target.kind !== entry.kind)
      return refuse(
        ['A correction must be of the same kind as what it corrects.'],
        'Withdraw the wrong entry and record the right one.',
      );
    if (target.kind === 'handback.signed')
      return refuse(
        ['A signature is never taken back.'],
        'Record what has changed: that reopens the job, and it is signed again.',
      );
  }
  return (entry.kind === 'logbook.withdrawn') !== (entry.withdraws !== null)
    ? refuse(['A withdrawal names exactly one entry.'], 'Name the entry to withdraw.')
    : null;
}
