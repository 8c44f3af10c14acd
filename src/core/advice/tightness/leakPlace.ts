import { clockDistance, turnClock, type View } from '../../craft/cases';
import { type JobState, type LeakMark, leakMarkWords, type LeakSeat } from '../../logbook';
import { crownClockOf } from '../opening';

/** So near, in hours, a place seen by eye is the same. */
const SAME_PLACE_HOURS = 0.5;

/**
 * What stands where bubbles rose: the crown, a pusher, or ring and crystal; places are compared from the dial. Never throws.
 * Source: geometry of the case.
 */
export function leakPlace(
  mark: LeakMark,
  state: Pick<JobState, 'facts' | 'caseType'>,
): { readonly where: string; readonly look: string; readonly likely: LeakSeat | null } {
  const where = leakMarkWords(mark);
  const fromDial = mark.side === 'back' ? turnClock(mark.clock, 'behind', 'the dial') : mark.clock;
  const at = (clock: number, from: View): boolean =>
    clockDistance(fromDial, turnClock(clock, from, 'the dial')) <= SAME_PLACE_HOURS;
  const crown = crownClockOf(state);
  if (crown !== null && at(crown, 'the dial'))
    return { where, look: 'This is the crown. Check its seal first.', likely: 'crown' };
  const back = state.facts.measured?.payload;
  if (back?.pusherClocks.some((clock) => at(clock, back.seenFrom)))
    return { where, look: 'This is a pusher. Check its seal first.', likely: 'pusher' };
  if (mark.side === 'front')
    return { where, look: 'Check the crystal there, then the ring.', likely: 'crystal' };
  return {
    where,
    look: 'Check the ring there, then the crystal.',
    likely: mark.side === 'back' ? 'back' : null,
  };
}
