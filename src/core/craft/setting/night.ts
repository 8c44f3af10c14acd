import { minutesOfClock } from '../time';

/** A stretch of the day over midnight, minutes of the day. */
export interface ChangeOver {
  readonly from: number;
  readonly to: number;
}

/** The hours in which a date must not be quick-set, whatever the calibre. Source: bench practice. */
const NIGHT: ChangeOver = { from: 20 * 60, to: 2 * 60 };

/** `HH:mm` of minutes of the day. */
export function clockOf(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

/** A calibre's own change-over as the book has it, in minutes; null where it has none. */
export function changeOverOf(
  own: { readonly fromClock: string; readonly toClock: string } | null,
): ChangeOver | null {
  if (own === null) return null;
  const [from, to] = [minutesOfClock(own.fromClock), minutesOfClock(own.toClock)];
  // A time that is none is as good as none known.
  return Number.isFinite(from) && Number.isFinite(to) ? { from, to } : null;
}

/** Some day wheels let go as late as this: so late they are taken to where nobody knows the calibre's own change-over. */
const LATEST = 4 * 60 + 30;

/**
 * When the wheels that change the date are in hand: the usual hours and the calibre's own, whichever is wider; of a calibre whose
 * change-over nobody knows the widest.
 */
export function forbiddenHours(own: ChangeOver | null): ChangeOver {
  return own === null
    ? { from: NIGHT.from, to: LATEST }
    : { from: Math.min(NIGHT.from, own.from), to: Math.max(NIGHT.to, own.to) };
}

/** Whether a time of the day lies in a stretch over midnight, or within so many minutes of it. */
export function withinNight(minutes: number, { from, to }: ChangeOver, margin = 0): boolean {
  return minutes >= from - margin || minutes <= to + margin;
}
