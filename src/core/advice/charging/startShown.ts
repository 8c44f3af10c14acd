import type { ChargeState } from '../../craft/charging';
import { figure } from '../../craft/judgement';
import { dayInWords, daysBetween, localDay, saidDays } from '../../craft/time';
import { type JobContext, type JobState, readingIn } from '../../logbook';
import { whatShows } from '../health';

/** Under this share of its nominal voltage an accumulator is empty, whatever else it is. Ours, from bench practice. */
export const EMPTY_SHARE = 0.6;

/** Since when a watch stands, days; null where nobody knows. Of a year or month its last day, so that none is made longer. */
export function daysStood(
  { facts }: Pick<JobState, 'facts'>,
  { nowUtc, shop }: Pick<JobContext, 'nowUtc' | 'shop'>,
): number | null {
  const stoppedOn = facts.stopped?.payload.stoppedOn ?? null;
  if (stoppedOn === null) return null;
  const received = facts.received?.occurredAt ?? nowUtc;
  const days = daysBetween(saidDays(stoppedOn).to, localDay(received, shop.zone));
  return Number.isFinite(days) ? Math.max(0, days) : null;
}

/**
 * What charge a watch comes with, by what is on record of it: its voltage against its own nominal one, how long it stands, what
 * it was seen or said to do; the surest first. Null where nothing tells. Nothing is recorded by it. Source: bench practice.
 */
export function startOnRecord(
  state: Pick<JobState, 'facts' | 'calibre'>,
  context: Pick<JobContext, 'nowUtc' | 'shop'>,
): { readonly shows: ChargeState; readonly because: string } | null {
  const { facts, calibre } = state;
  const charge = calibre?.charge ?? null;
  const volts = readingIn(facts, 'restVoltageV')?.payload.value ?? null;
  if (charge !== null && volts !== null && volts < charge.nominalV * EMPTY_SHARE)
    return {
      shows: 'flat',
      because: `${figure(volts, 2)} V at rest, of ${figure(charge.nominalV, 2)} V charged`,
    };
  const shows = whatShows(state);
  const by = facts.looked?.payload.shows ? 'as observed' : 'by the complaint';
  if (shows === 'in twos or fours') return { shows: 'low-supply steps', because: by };
  if (shows === 'dead') return { shows: 'flat', because: by };
  return daysStood(state, context) === null
    ? null
    : { shows: 'flat', because: `stopped since ${dayInWords(facts.stopped?.payload.stoppedOn ?? '')}` };
}
