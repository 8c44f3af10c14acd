import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';

dayjs.extend(utc);
dayjs.extend(timezone);

/** Days in a mean Gregorian year; ages in years are days over this. */
const DAYS_PER_YEAR = 365.2425;

/** Zones change their clocks at whole quarters of an hour. */
const QUARTER_MS = 15 * 60_000;
const MOST_OFFSETS = 10_000;
const offsets = new Map<string, number>();

/** An instant on the clock of a zone. How far a zone is ahead is asked for once a quarter of an hour: it takes long. */
function inZone(instantUtc: string, zone: string): dayjs.Dayjs {
  const at = dayjs.utc(instantUtc);
  const key = `${zone} ${Math.floor(at.valueOf() / QUARTER_MS)}`;
  let offset = offsets.get(key);
  if (offset === undefined) {
    offset = at.tz(zone).utcOffset();
    if (offsets.size >= MOST_OFFSETS) offsets.clear();
    offsets.set(key, offset);
  }
  return at.utcOffset(offset);
}

/** The calendar day (`YYYY-MM-DD`) a UTC instant falls on in the shop's zone. */
export function localDay(instantUtc: string, zone: string): string {
  return inZone(instantUtc, zone).format('YYYY-MM-DD');
}

/** An instant as the shop reads it, e.g. `Thu 12 Mar 14:30`. */
export function localTime(instantUtc: string, zone: string, format = 'ddd D MMM HH:mm'): string {
  return inZone(instantUtc, zone).format(format);
}

/** A calendar day in words, e.g. `12 March 2027`. */
export function dayInWords(day: string): string {
  return dayjs.utc(day).format('D MMMM YYYY');
}

/** Years between two calendar days or instants, negative when the second comes first. */
export function yearsBetween(from: string, to: string): number {
  return daysBetween(from, to) / DAYS_PER_YEAR;
}

/** Days between two calendar days or instants, negative when the second comes first. */
export function daysBetween(from: string, to: string): number {
  return dayjs.utc(to).diff(dayjs.utc(from), 'day', true);
}

/** The calendar day a number of whole months after another; the 31st becomes the month's last day. */
export function addMonths(day: string, months: number): string {
  return dayjs.utc(day).add(months, 'month').format('YYYY-MM-DD');
}

/** How many days the month of a calendar day has. */
export function daysInMonth(day: string): number {
  return dayjs.utc(day).daysInMonth();
}

/** The instant `minutes` after another, as UTC. */
export function addMinutes(instantUtc: string, minutes: number): string {
  return dayjs.utc(instantUtc).add(minutes, 'minute').toISOString();
}

/** Whole minutes from one instant to another, negative when overdue. */
export function minutesBetween(fromUtc: string, toUtc: string): number {
  return dayjs.utc(toUtc).diff(dayjs.utc(fromUtc), 'minute');
}

/**
 * The next first of a month on which a 31-day date wheel has to be moved on by hand, seen from `day`: the
 * month before it had fewer than 31 days. `extraDays` is how many days the wheel is behind by then.
 */
export function nextDateCorrection(day: string): { readonly day: string; readonly extraDays: number } {
  let month = dayjs.utc(day).startOf('month');
  for (;;) {
    const days = month.daysInMonth();
    month = month.add(1, 'month');
    if (days < 31) return { day: month.format('YYYY-MM-DD'), extraDays: 31 - days };
  }
}

/** Minutes of the day of `HH:mm`. */
export function minutesOfClock(clock: string): number {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number);
  return hours * 60 + minutes;
}

/** The calendar day after a day. */
export function nextDay(day: string): string {
  return dayjs.utc(day).add(1, 'day').format('YYYY-MM-DD');
}

/** The UTC instant at which a clock of a zone shows `HH:mm` on a calendar day. */
export function instantAt(day: string, clock: string, zone: string): string {
  return dayjs.tz(`${day} ${clock}`, zone).toISOString();
}
