import { localTime } from '../../craft/time';

/** A watch under a light, as the page of light places tells it. */
export interface Lit {
  readonly entryId: string;
  readonly placeId: string;
  readonly placeName: string;
  /** How many have the light there at once; null: the place is gone. */
  readonly placeHolds: number | null;
  readonly sinceUtc: string;
  /** Whether it was seen stepping normally there, last. */
  readonly stepsNormally: boolean | null;
  /** When it can be handed back: likely, and at the latest in 95 of 100; null: not known, or never. */
  readonly readyUtc: string | null;
  readonly readyLatestUtc: string | null;
  readonly lookAgainUtc: readonly string[];
  /** What is amiss with the charge, in words; null where nothing is. */
  readonly amiss: string | null;
}

/** Whether one of the times to look again has come, and it was not yet seen stepping normally. */
export function lookDue({ stepsNormally, lookAgainUtc }: Lit, nowUtc: string): boolean {
  return stepsNormally !== true && lookAgainUtc.some((each) => each <= nowUtc);
}

/** Whether a watch lies in the shade of its place: as many as have its light were laid down before it. */
export function waitsInShade(lit: Lit, all: readonly (Lit | null)[]): boolean {
  const before = all.filter(
    (other) => other !== null && other.placeId === lit.placeId && other.sinceUtc < lit.sinceUtc,
  );
  return lit.placeHolds !== null && before.length >= lit.placeHolds;
}

/**
 * A watch under a light in a few words, as its envelope says it: what is amiss, that it is looked at now or when again, or when it
 * is ready. By the shop's clock. What waits for its light is never called ready.
 */
export function litWords(lit: Lit, nowUtc: string, zone: string, waits: boolean): string {
  const { placeName, amiss, stepsNormally, readyUtc, lookAgainUtc } = lit;
  const at = (utc: string): string =>
    localTime(utc, zone, utc.slice(0, 10) === nowUtc.slice(0, 10) ? 'HH:mm' : 'ddd HH:mm');
  if (amiss !== null) return `under ${placeName}: look at it`;
  if (waits) return `at ${placeName}: waiting for light`;
  if (readyUtc !== null && readyUtc <= nowUtc) return `under ${placeName}: likely ready`;
  const next = lookAgainUtc.find((each) => each > nowUtc);
  if (lookDue(lit, nowUtc)) return `under ${placeName}: check now`;
  if (stepsNormally !== true && next !== undefined) return `under ${placeName}: check at ${at(next)}`;
  return readyUtc === null ? `under ${placeName}` : `under ${placeName}: ready ${at(readyUtc)}`;
}
