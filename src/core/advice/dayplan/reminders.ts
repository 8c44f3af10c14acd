import { addDays, addMonths, daysBetween, dayInWords } from '../../craft/time';
import type { JobState } from '../../logbook';

/** Owners come late: they are reminded so long before. */
const REMINDED_MONTHS = 1;
/** A visit missed by more is not asked after any more: the watch went elsewhere. Ours. */
const ASKED_AFTER_MONTHS = 6;
const WEEK_DAYS = 7;

/** The day from which an owner is reminded of a visit. */
export function remindFrom(dueOn: string): string {
  return addMonths(dueOn, -REMINDED_MONTHS);
}

/** Between which days visits are due of which an owner is reminded today. */
export function remindedOf(today: string): { readonly from: string; readonly to: string } {
  // A month before a day of a longer month may fall on its last: a few days more are looked at.
  return { from: addMonths(today, -ASKED_AFTER_MONTHS), to: addDays(addMonths(today, REMINDED_MONTHS), 3) };
}

/** Whether an owner is to be reminded today of a visit due on a day. A day that is none: no. */
export function isToRemind(dueOn: string, today: string): boolean {
  return remindFrom(dueOn) <= today && dueOn >= remindedOf(today).from;
}

/** When it is due, as it is told at the telephone: `due on 17 Apr 2026, in 4 weeks`. */
export function dueWords(dueOn: string, today: string): string {
  const days = Math.round(daysBetween(today, dueOn));
  if (!Number.isFinite(days)) return 'due on an invalid date';
  const weeks = Math.round(Math.abs(days) / WEEK_DAYS);
  const apart = weeks === 0 ? `${Math.abs(days)} d` : `${weeks} ${weeks === 1 ? 'week' : 'weeks'}`;
  const far = days === 0 ? 'today' : days > 0 ? `in ${apart}` : `${apart} ago`;
  return `due on ${dayInWords(dueOn)}, ${far}`;
}

/** When a watch that was handed over is due again, and whether its owner was reminded; null: it is not, or not handed over. */
export function nextVisitNoted({
  facts,
  signature,
}: Pick<JobState, 'facts' | 'signature'>): { readonly dueOn: string; readonly reminded: boolean } | null {
  if (signature.state !== 'signed' || facts.collected === null) return null;
  const dueOn = signature.entry.payload.statement.nextVisitOn;
  return dueOn === null ? null : { dueOn, reminded: facts.reminded !== null };
}
