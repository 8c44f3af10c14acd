import { crownOf, type JobState, openness } from '../../logbook';

/** What comes before any test of a watch, and what to do; null where it may be tested. A watch that was never opened may. */
export function testNotYet(
  state: Pick<JobState, 'facts' | 'caseType'>,
): { readonly reasons: readonly string[]; readonly whatToDo: string } | null {
  if (openness(state.facts) === 'open')
    return { reasons: ['The watch is still open.'], whatToDo: 'Close it before you test it.' };
  return crownOf(state) === null
    ? {
        reasons: [
          'The kind of crown is not recorded. A screw-down crown that is left up lets water into the case.',
        ],
        whatToDo: 'Record the kind of crown, then test.',
      }
    : null;
}
