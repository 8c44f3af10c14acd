import type { Judged } from '../../craft/judgement';
import type { Policy, Weekday } from '../../craft/policy';
import {
  addMinutes,
  instantAt,
  isMoment,
  localDay,
  localTime,
  minutesBetween,
  nextDay,
} from '../../craft/time';

export type Urgency = 'overdue' | 'due soon' | 'today' | 'later' | 'no promise';

const ORDER: readonly Urgency[] = ['overdue', 'due soon', 'today', 'later', 'no promise'];

/** From this many minutes before the promise a job is due soon. */
const SOON_MINUTES = 60;
const DAY_MINUTES = 24 * 60;
const DAYS_A_WEEK = 7;

/** How pressing a promise is at an instant. Both UTC; null where nothing was promised. */
export function urgencyOf(promisedAt: string | null, nowUtc: string): Urgency {
  if (promisedAt === null) return 'no promise';
  const left = minutesBetween(nowUtc, promisedAt);
  if (left < 0) return 'overdue';
  if (left <= SOON_MINUTES) return 'due soon';
  return left <= DAY_MINUTES ? 'today' : 'later';
}

/**
 * Whether the counter is open at an instant, by the hours of its week in its own zone; where it is closed, when it
 * opens next, within a week.
 */
export function openAt(instantUtc: string, hours: Policy['hours'], zone: string): Judged<'open' | 'closed'> {
  const dayOf = (at: string): Weekday => localTime(at, zone, 'dddd') as Weekday;
  if (!isMoment(instantUtc))
    return {
      verdict: 'closed',
      reasons: ['This is not a valid time. Enter a day and an hour.'],
      working: [],
    };
  const [day, clock] = [dayOf(instantUtc), localTime(instantUtc, zone, 'HH:mm')];
  const today = hours[day];
  if (today && clock >= today.from && clock <= today.to) return { verdict: 'open', reasons: [], working: [] };
  const later = Array.from({ length: 8 }, (_, days) => days).find((days) => {
    const open = hours[dayOf(addMinutes(instantUtc, days * DAY_MINUTES))];
    return open !== null && (days > 0 || clock < open.from);
  });
  const next = later === undefined ? null : dayOf(addMinutes(instantUtc, later * DAY_MINUTES));
  return {
    verdict: 'closed',
    reasons: [
      `The counter is closed then${next === null ? '' : `: it opens ${next} at ${hours[next]?.from ?? ''}`}.`,
    ],
    working: [],
  };
}

/**
 * The same instant where the counter is open then, else the moment it opens next; of a counter that never opens the instant
 * itself. UTC. A promise lies in opening hours: nobody collects a watch at night.
 */
export function withinHours(instantUtc: string, hours: Policy['hours'], zone: string): string {
  if (!isMoment(instantUtc)) return instantUtc;
  const clock = localTime(instantUtc, zone, 'HH:mm');
  let day = localDay(instantUtc, zone);
  for (let ahead = 0; ahead <= DAYS_A_WEEK; ahead += 1) {
    const open = hours[localTime(instantAt(day, '12:00', zone), zone, 'dddd') as Weekday];
    if (open !== null && (ahead > 0 || clock <= open.to))
      return ahead === 0 && clock >= open.from ? instantUtc : instantAt(day, open.from, zone);
    day = nextDay(day);
  }
  return instantUtc;
}

/** Jobs for the rack: most pressing first, then by promise, then by ticket. */
export function orderRack<T extends { readonly promisedAt: string | null; readonly ticket: string }>(
  jobs: readonly T[],
  nowUtc: string,
): (T & { readonly urgency: Urgency })[] {
  return jobs
    .map((job) => ({ ...job, urgency: urgencyOf(job.promisedAt, nowUtc) }))
    .sort(
      (a, b) =>
        ORDER.indexOf(a.urgency) - ORDER.indexOf(b.urgency) ||
        (a.promisedAt ?? '').localeCompare(b.promisedAt ?? '') ||
        a.ticket.localeCompare(b.ticket),
    );
}

/** A stretch of minutes as one says it: minutes, hours, days. */
function spell(minutes: number): string {
  if (minutes < 90) return `${minutes} min`;
  return minutes < 48 * 60 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / DAY_MINUTES)} days`;
}

/** A promise in words for the shop's clock: `promised 10:15, in 34 min`, with the day where it is another one. */
export function promiseWords(promisedAt: string | null, nowUtc: string, zone: string): string {
  if (promisedAt === null) return 'nothing promised';
  const left = minutesBetween(nowUtc, promisedAt);
  const today = localDay(promisedAt, zone) === localDay(nowUtc, zone);
  const at = localTime(promisedAt, zone, today ? 'HH:mm' : 'ddd D MMM HH:mm');
  if (left < 0) return `promised ${at}, ${spell(-left)} late`;
  return left <= 90 ? `promised ${at}, in ${spell(left)}` : `promised ${at}`;
}
