import { type OpenHours, type Weekday, WEEKDAYS } from '../policy';
import { instantAt, localDay, minutesOfClock, nextDay } from '../time';

/** When a place gives light, by the shop's local time; null on a day without. Until the next day where it ends before it begins. */
/** When there is light on each day: never, in one span, or in several, as of a morning and an afternoon sun. */
export type LightHours = Readonly<Record<Weekday, OpenHours | readonly OpenHours[] | null>>;

/** The spans of one day, the earliest first. */
export function spansOf(hours: LightHours[Weekday]): readonly OpenHours[] {
  if (hours === null) return [];
  return 'from' in hours ? [hours] : [...hours].sort((a, b) => (a.from < b.from ? -1 : 1));
}

/** A stretch of light, milliseconds since the epoch. */
export interface Lit {
  readonly fromMs: number;
  readonly toMs: number;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** Of a calendar day. */
const weekdayOf = (day: string): Weekday =>
  WEEKDAYS[(new Date(`${day}T00:00:00.000Z`).getUTCDay() + 6) % 7] as Weekday;

/** So many midnights are kept: the plans of a shop ask for the same ones again and again. */
const MOST_KEPT = 5000;
const midnights = new Map<string, number>();

/** When a calendar day begins in a zone, milliseconds since the epoch. */
function midnight(day: string, zone: string): number {
  const key = `${day} ${zone}`;
  const kept = midnights.get(key);
  if (kept !== undefined) return kept;
  const ms = Date.parse(instantAt(day, '00:00', zone));
  if (midnights.size >= MOST_KEPT) midnights.clear();
  midnights.set(key, ms);
  return ms;
}

/**
 * The stretches of light between two instants, in their order and apart. The hours are local: a night in which the clocks
 * change has 23 or 25 of them.
 */
export function litBetween(hours: LightHours, zone: string, fromUtc: string, toUtc: string): readonly Lit[] {
  const [from, to] = [Date.parse(fromUtc), Date.parse(toUtc)];
  const lit: { fromMs: number; toMs: number }[] = [];
  // Light of the evening before may last past midnight.
  let day = localDay(new Date(from - DAY_MS).toISOString(), zone);
  let begun = midnight(day, zone);
  while (begun <= to) {
    const next = nextDay(day);
    const over = midnight(next, zone);
    for (const open of spansOf(hours[weekdayOf(day)])) {
      // On a day of 24 hours the clock goes with the hours; on the two others it is asked.
      const at = (clock: string): number =>
        over - begun === DAY_MS
          ? begun + minutesOfClock(clock) * 60_000
          : Date.parse(instantAt(day, clock, zone));
      const ends = open.to > open.from ? at(open.to) : Date.parse(instantAt(next, open.to, zone));
      const [a, b] = [Math.max(at(open.from), from), Math.min(ends, to)];
      const last = lit.at(-1);
      if (b > a) {
        if (last && a <= last.toMs) last.toMs = Math.max(last.toMs, b);
        else lit.push({ fromMs: a, toMs: b });
      }
    }
    [day, begun] = [next, over];
  }
  return lit;
}
