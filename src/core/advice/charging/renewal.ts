import { figure } from '../../craft/judgement';
import { isLeaked, type JobState, type Payloads } from '../../logbook';
import { supplyInBook } from '../supply';

/** A pressed tab lies on its accumulator with no more than this, Ω. Ours, from bench practice. */
const MOST_CONTACT_OHM = 1;

/**
 * Whether a watch charges itself, so that it stays shut for many years: by what was put in or by the book, and where that is
 * silent, as it ran once it was charged.
 */
export function chargesItself({ facts, calibre }: Pick<JobState, 'facts' | 'calibre'>): boolean {
  if (facts.accumulator !== null) return true;
  const inBook = supplyInBook(calibre);
  return inBook === null
    ? facts.charges.some(({ payload }) => payload.outcome !== 'does not run')
    : inBook === 'rechargeable';
}

/** Whether anything but a clean cell was found in its place: leaking condemns without a charge. */
export function hasLeaked({ wells }: Pick<JobState, 'wells'>): boolean {
  return wells.some(({ found }) => found !== null && isLeaked(found.payload));
}

/**
 * Why an accumulator cannot stand as renewed, and what to do; null where it may. It is charged and watched before it is
 * condemned, unless it leaked or the reason why not is given; a transferred tab is measured. `path` is the field it is said
 * at. Source: bench practice.
 */
export function renewalRefusal(
  state: Pick<JobState, 'facts' | 'wells'>,
  {
    way,
    tabContactOhm,
    unchargedBecause,
  }: Pick<Payloads['cell.accumulator'], 'way' | 'tabContactOhm' | 'unchargedBecause'>,
): { readonly path: string; readonly reasons: readonly string[]; readonly whatToDo: string } | null {
  if (way === 'old tab transferred' && tabContactOhm === null)
    return {
      path: 'tabContactOhm',
      reasons: ['The contact of the transferred tab is not measured.'],
      whatToDo: 'Press the tab on, measure between tab and accumulator, and enter the value.',
    };
  if (tabContactOhm !== null && tabContactOhm > MOST_CONTACT_OHM)
    return {
      path: 'tabContactOhm',
      reasons: [
        `${figure(tabContactOhm, 2)} Ω between tab and accumulator, and ${MOST_CONTACT_OHM} Ω is the limit.`,
      ],
      whatToDo: 'Align it, press it again and measure again, or use the kit with its own tabs.',
    };
  return state.facts.charges.length === 0 && unchargedBecause === null && !hasLeaked(state)
    ? {
        path: 'unchargedBecause',
        reasons: [
          'No test charge is recorded and no leak was found. The accumulator may only be discharged.',
        ],
        whatToDo: 'Charge it and record the result, or enter the reason for skipping the test charge.',
      }
    : null;
}
