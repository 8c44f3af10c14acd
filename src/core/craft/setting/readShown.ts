import { HALVES, type Half, type Shown } from './planSetting';

/** What somebody typed of a watch before it is set; a field not filled in is null. */
export interface TypedShown {
  /** `HH:mm`, or `H:mm`, on the dial. */
  readonly hands: string;
  readonly half: Half | null;
  readonly weekday: number | null;
  readonly date: number | null;
  readonly language: 0 | 1 | null;
}

/**
 * What a watch shows, from what was typed; null until time and date are, and the day where the watch is known to have one. A time past noon tells the half of the day by itself.
 */
export function readShown(
  { hands, half, weekday, date, language }: TypedShown,
  hasDay: boolean,
): Shown | null {
  const read = /^\s*(\d{1,2})[:.](\d{2})\s*$/.exec(hands);
  if (read === null || date === null || (hasDay && weekday === null) || !Number.isInteger(date)) return null;
  if (![weekday ?? 0, language ?? 0].every(Number.isInteger)) return null;
  const [hours, minutes] = [Number(read[1]), Number(read[2])];
  if (hours > 23 || minutes > 59 || date < 1 || date > 31) return null;
  const said = HALVES.find((each) => each === half) ?? (hours > 12 ? 'p.m.' : null);
  return { dialMinutes: (hours % 12) * 60 + minutes, half: said, weekday, date, language };
}
