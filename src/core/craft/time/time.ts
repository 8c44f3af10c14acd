import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone.js';
import utc from 'dayjs/plugin/utc.js';

dayjs.extend(utc);
dayjs.extend(timezone);

/** Days in a mean Gregorian year; ages in years are days over this. */
const DAYS_PER_YEAR = 365.2425;

/** What stands where a date is none. */
const NO_DATE = 'no date';

/** How a year, a month, a day or an instant is written. */
const WRITTEN = /^\d{4}(-\d\d){0,2}($|T)/;

/** A day or an instant as UTC; none where there is no such day, as 31 February. */
function momentOf(text: string): dayjs.Dayjs {
  const at = dayjs.utc(WRITTEN.test(text) ? text : NO_DATE);
  return text.length >= 10 && at.date() !== Number(text.slice(8, 10)) ? dayjs.utc(NO_DATE) : at;
}

function written(at: dayjs.Dayjs, format: string): string {
  return at.isValid() ? at.format(format) : NO_DATE;
}

/** A time of day as a clock shows it. */
const CLOCK = /^([01]?\d|2[0-3]):[0-5]\d(:[0-5]\d)?$/;

/** Zones change their clocks at whole quarters of an hour. */
const QUARTER_MS = 15 * 60_000;
const MOST_OFFSETS = 10_000;
const offsets = new Map<string, number>();

/** An instant on the clock of a zone. How far a zone is ahead is asked for once a quarter of an hour: it takes long. */
function inZone(instantUtc: string, zone: string): dayjs.Dayjs {
  const at = momentOf(instantUtc);
  if (!at.isValid()) return at;
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
  return written(inZone(instantUtc, zone), 'YYYY-MM-DD');
}

/** An instant as the shop reads it, e.g. `Thu 12 Mar 14:30`. */
export function localTime(instantUtc: string, zone: string, format = 'ddd D MMM HH:mm'): string {
  return written(inZone(instantUtc, zone), format);
}

/** A date as people read it, as exactly as it was given: `12 Mar 2027`, `Mar 2027` or `2027`. */
export function dayInWords(day: string): string {
  const format = day.length === 4 ? 'YYYY' : day.length === 7 ? 'MMM YYYY' : 'D MMM YYYY';
  return written(momentOf(day), format);
}

/** The calendar day an instant falls on in the shop's zone, as people read it: `12 Mar 2027`. */
export function localDayInWords(instantUtc: string, zone: string): string {
  return localTime(instantUtc, zone, 'D MMM YYYY');
}

/** An instant with its year, as people read it: `12 Mar 2027 14:30`. */
export function localMoment(instantUtc: string, zone: string): string {
  return localTime(instantUtc, zone, 'D MMM YYYY HH:mm');
}

/** Whether there is such a calendar day or instant: not 31 February, and not a word. */
export function isMoment(text: string): boolean {
  return momentOf(text).isValid();
}

/** Which of these days or instants are none, each by what it is called; empty where all are. One not given is not told of. */
export function noMoments(
  given: readonly (readonly [what: string, text: string | null])[],
): readonly string[] {
  return given.flatMap(([what, text]) =>
    text === null || isMoment(text) ? [] : [`${what} is not a date (${text || 'blank'}). Enter it again.`],
  );
}

/** Years between two calendar days or instants, negative when the second comes first; no number where one of them is none. */
export function yearsBetween(from: string, to: string): number {
  return daysBetween(from, to) / DAYS_PER_YEAR;
}

/** Days between two calendar days or instants, negative when the second comes first; no number where one of them is none. */
export function daysBetween(from: string, to: string): number {
  return momentOf(to).diff(momentOf(from), 'day', true);
}

/** The calendar day a number of whole months after another; the 31st becomes the month's last day. */
export function addMonths(day: string, months: number): string {
  return written(momentOf(day).add(months, 'month'), 'YYYY-MM-DD');
}

/** How many days the month of a calendar day has; no number where it is none. */
export function daysInMonth(day: string): number {
  return momentOf(day).daysInMonth();
}

/** Whether there is such a calendar day (`YYYY-MM-DD`): not 31 February. */
export function isDay(day: string): boolean {
  return isMoment(day) && addDays(day, 0) === day;
}

/** The days a date covers that is told as a year, a month or a day: `2023`, `2023-05`, `2023-05-14`. */
export function saidDays(said: string): { readonly from: string; readonly to: string } {
  if (said.length === 4) return { from: `${said}-01-01`, to: `${said}-12-31` };
  if (said.length > 7) return { from: said, to: said };
  return { from: `${said}-01`, to: written(dayjs.utc(`${said}-01`).endOf('month'), 'YYYY-MM-DD') };
}

/** The instant `minutes` after another, as UTC. */
export function addMinutes(instantUtc: string, minutes: number): string {
  const at = momentOf(instantUtc).add(minutes, 'minute');
  return at.isValid() ? at.toISOString() : NO_DATE;
}

/** Whole minutes from one instant to another, negative when overdue; no number where one of them is none. */
export function minutesBetween(fromUtc: string, toUtc: string): number {
  return momentOf(toUtc).diff(momentOf(fromUtc), 'minute');
}

/**
 * The next first of a month on which a 31-day date wheel has to be moved on by hand, seen from `day`: the
 * month before it had fewer than 31 days. `extraDays` is how many days the wheel is behind by then.
 */
export function nextDateCorrection(day: string): { readonly day: string; readonly extraDays: number } {
  let month = momentOf(day).startOf('month');
  if (!month.isValid()) return { day: NO_DATE, extraDays: 0 };
  for (;;) {
    const days = month.daysInMonth();
    month = month.add(1, 'month');
    if (days < 31) return { day: month.format('YYYY-MM-DD'), extraDays: 31 - days };
  }
}

/** Minutes of the day of `HH:mm`; no number where no clock shows it. */
export function minutesOfClock(clock: string): number {
  if (!CLOCK.test(clock)) return Number.NaN;
  const [hours = 0, minutes = 0] = clock.split(':').map(Number);
  return hours * 60 + minutes;
}

/** The calendar day a number of days after another, before it where negative. */
export function addDays(day: string, days: number): string {
  return written(momentOf(day).add(days, 'day'), 'YYYY-MM-DD');
}

/** The calendar day after a day. */
export function nextDay(day: string): string {
  return addDays(day, 1);
}

/** The UTC instant at which a clock of a zone shows `HH:mm` on a calendar day. */
export function instantAt(day: string, clock: string, zone: string): string {
  const at = isDay(day) && CLOCK.test(clock) ? dayjs.tz(`${day} ${clock}`, zone) : null;
  return at?.isValid() ? at.toISOString() : NO_DATE;
}
