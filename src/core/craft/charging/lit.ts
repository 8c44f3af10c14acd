import { type OpenHours, type Weekday, WEEKDAYS } from '../policy';
import { instantAt, localDay, minutesOfClock, nextDay } from '../time';

/** When a place gives light, by the shop's local time; null on a day without. Until the next day where it ends before it begins. */
export type LightHours = Readonly<Record<Weekday, OpenHours | null>>;

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

/**
 * The stretches of light between two instants, in their order and apart. The hours are local: a night in which the clocks
 * change has 23 or 25 of them.
 */
export function litBetween(hours: LightHours, zone: string, fromUtc: string, toUtc: string): readonly Lit[] {
  const [from, to] = [Date.parse(fromUtc), Date.parse(toUtc)];
  const lit: { fromMs: number; toMs: number }[] = [];
  const midnight = (of: string): number => Date.parse(instantAt(of, '00:00', zone));
  // Light of the evening before may last past midnight.
  let day = localDay(new Date(from - DAY_MS).toISOString(), zone);
  let begun = midnight(day);
  while (begun <= to) {
    const next = nextDay(day);
    const over = midnight(next);
    const open = hours[weekdayOf(day)];
    if (open !== null) {
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
