import type { Weekday } from '../../craft/policy';
import { instantAt, localDay, localTime, nextDay } from '../../craft/time';
import { awaitedParts, type JobContext, type JobState } from '../../logbook';

/** The counter is closed no longer than this at a stretch, days. */
const LOOK_AHEAD_DAYS = 14;

/**
 * The instant (UTC) to promise instead, where the promise falls before the work can follow the parts: the end of the
 * first day the counter is open after the day they are expected. Null where nothing is awaited, no day is named, or the
 * promise stands. Source: shop hours.
 */
export function promiseAfterParts(state: JobState, { shop, policy }: JobContext): string | null {
  const expectedOn = awaitedParts(state.facts)?.payload.expectedOn ?? null;
  const promised = state.facts.promise?.payload.promisedAt ?? null;
  if (expectedOn === null) return null;
  if (promised !== null && localDay(promised, shop.zone) > expectedOn) return null;
  let day = expectedOn;
  for (let ahead = 0; ahead < LOOK_AHEAD_DAYS; ahead += 1) {
    day = nextDay(day);
    const weekday = localTime(`${day}T12:00:00.000Z`, 'UTC', 'dddd') as Weekday;
    const open = policy.hours[weekday];
    if (open) return instantAt(day, open.to, shop.zone);
  }
  return null;
}
