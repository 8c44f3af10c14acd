import { book } from './fixtures';

/** What no bench can give: no number, no end, nothing, less than nothing, a size or a date that cannot be. */
export const BAD_FIGURES = [NaN, Infinity, -Infinity, -1, 0, 1e12] as const;
export const BAD_TEXTS = ['', 'no date', '2026-02-31', '9999-12-31', '-1'] as const;
const DATE = /^\d{4}(-\d\d){0,2}(T|$)|^\d\d:\d\d$/;

const JUDGED_AT_ITS_DOOR = ['tools', 'wrenches'];

/** Every place a value sits in what a function is asked, as a path of keys. */
export function placesIn(
  value: unknown,
  at: readonly string[] = [],
  depth = 0,
): readonly (readonly string[])[] {
  if (typeof value === 'number') return [at];
  if (typeof value === 'string') return DATE.test(value) ? [at] : [];
  if (value === null || typeof value !== 'object' || value instanceof Map || depth > 5) return [];
  if (value === book || value === book.cellTable) return [];
  return Object.entries(value).flatMap(([key, each], index) =>
    // Of a long list the first two stand for all; what stands in the book or on the tool board was judged at its own door.
    (Array.isArray(value) && index > 1) || JUDGED_AT_ITS_DOOR.includes(key)
      ? []
      : placesIn(each, [...at, key], depth + 1),
  );
}

export function put(value: unknown, [key, ...rest]: readonly string[], bad: unknown): unknown {
  if (key === undefined) return bad;
  if (Array.isArray(value))
    return (value as readonly unknown[]).map((each, at) =>
      String(at) === key ? put(each, rest, bad) : each,
    );
  return { ...(value as object), [key]: put((value as Record<string, unknown>)[key], rest, bad) };
}

/** What is shown of an answer and is no figure; a bare number in a bare number out is a building block, and is not shown. */
export function strangeIn(answer: unknown, at = ''): readonly string[] {
  if (typeof answer === 'string')
    return /NaN|Infinity|undefined|Invalid/.test(answer) ? [`${at}: ${answer}`] : [];
  if (typeof answer === 'number') return Number.isNaN(answer) ? [`${at}: ${answer}`] : [];
  if (answer === null || typeof answer !== 'object') return [];
  return Object.entries(answer).flatMap(([key, each]) =>
    // What was asked comes back as it was asked: the value of a reading, the tool that was named.
    [
      'value',
      'test',
      'ordered',
      'delivered',
      'groove',
      'reference',
      'die',
      'holder',
      'wrench',
      'found',
      'ring',
      'earlier',
      'life',
      'lot',
      'cell',
      'back',
    ].includes(key)
      ? []
      : strangeIn(each, `${at}.${key}`),
  );
}
