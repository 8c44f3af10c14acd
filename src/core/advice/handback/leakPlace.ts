import { clockDistance, clockWords, turnClock, type View } from '../../craft/cases';
import type { JobState, Payloads } from '../../logbook';
import { crownClockOf } from '../opening';

/** So near, in hours, a place seen by eye is the same. */
const SAME_PLACE_HOURS = 0.5;

/**
 * What stands where a leak was seen, as a clock position of its side: the crown, a pusher, or the ring; null without a
 * place. Positions are compared from the dial. Never throws. Source: geometry of the case.
 */
export function leakPlace(
  { leakClock, leakSeenFrom }: Pick<Payloads['test.made'], 'leakClock' | 'leakSeenFrom'>,
  state: Pick<JobState, 'facts' | 'caseType'>,
): { readonly where: string; readonly look: string } | null {
  if (leakClock === null) return null;
  const where = clockWords(leakClock, leakSeenFrom);
  const at = (clock: number, from: View): boolean =>
    leakSeenFrom !== null &&
    clockDistance(turnClock(leakClock, leakSeenFrom, 'the dial'), turnClock(clock, from, 'the dial')) <=
      SAME_PLACE_HOURS;
  const crown = crownClockOf(state);
  if (crown !== null && at(crown, 'the dial')) return { where, look: 'That is the crown: its seal first.' };
  const back = state.facts.measured?.payload;
  if (back?.pusherClocks.some((clock) => at(clock, back.seenFrom)))
    return { where, look: 'That is a pusher: its seal first.' };
  return { where, look: 'Look at the ring there, then at the crystal.' };
}
