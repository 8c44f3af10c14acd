import { z } from 'zod';

// What no field says in its own words is refused in these.
z.config({
  customError: (issue) => {
    if (issue.code === 'invalid_type') {
      const kinds: Readonly<Record<string, string>> = {
        boolean: 'yes or no, e.g. true',
        object: 'an object, e.g. {}',
        array: 'a list, e.g. []',
        string: 'a text, e.g. “sound”',
        number: 'a number, e.g. 1',
        int: 'a whole number, e.g. 1',
      };
      return `Wanted here: ${kinds[issue.expected] ?? `a ${issue.expected}`}.`;
    }
    if (issue.code === 'too_big') return `At most ${issue.maximum} here.`;
    if (issue.code === 'too_small') return `At least ${issue.minimum} here.`;
    return undefined;
  },
});

/**
 * The fields every form and every door shares. Each message says what is wanted and gives a good value, so
 * that a refusal at the server reads the same as one in the form.
 */
export const id = z.uuid({ error: 'An id is a UUID, e.g. 018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f.' });

/** Line breaks and tabs become spaces; other control characters have no place in a record. */
// eslint-disable-next-line no-control-regex
const CONTROL = /[\u0000-\u001f\u007f]/;
/** Half a character, as a text cut in its middle ends with: it is no text, and cannot be kept. */
const HALF = /\p{Surrogate}/u;

interface TextRule {
  readonly words: string;
  readonly max: number;
  readonly example: string;
}

/** Free text that may be empty. */
export function optionalText({ words, max, example }: TextRule): z.ZodType<string, string> {
  return z
    .string({ error: `${words}: a text is wanted, e.g. “${example}”.` })
    .trim()
    .max(max, `${words}: at most ${max} characters. A good value: “${example}”.`)
    .refine((text) => !CONTROL.test(text), `${words}: one line of plain text. A good value: “${example}”.`)
    .refine(
      (text) => !HALF.test(text),
      `${words}: the text ends in the middle of a character. Type it again.`,
    );
}

/** Text that must not be empty. */
export function text(rule: TextRule): z.ZodType<string, string> {
  return optionalText(rule).refine(
    (value) => value !== '',
    `${rule.words}: fill this in, e.g. “${rule.example}”.`,
  );
}

interface NumberRule {
  readonly words: string;
  readonly min: number;
  readonly max: number;
  readonly unit?: string;
  readonly example: number;
}

/** A figure within a plausible range. */
export function number({ words, min, max, unit = '', example }: NumberRule): z.ZodNumber {
  const range = `${words}: between ${min} and ${max}${unit && ` ${unit}`}. A good value: ${example}.`;
  return z.number({ error: range }).min(min, range).max(max, range);
}

/** A time of this century: what is recorded, promised or told in a file lies between plausible ends. */
export const instant = z.iso
  .datetime({ error: 'A time is UTC in ISO form, e.g. 2026-03-12T09:30:00.000Z.' })
  .refine(
    (value) => value >= '2000-01-01' && value < '2100-01-01',
    'A time in the wrong century. A good value: 2026-03-12T09:30:00.000Z.',
  );

export const calendarDay = z.iso
  .date({ error: 'A day is written year-month-day, e.g. 2027-04-30.' })
  .refine(
    (value) => value >= '2000-01-01' && value < '2100-01-01',
    'A day in the wrong century. A good value: 2027-04-30.',
  );

export const clock = number({ words: 'Clock position', min: 0.5, max: 12, unit: 'o’clock', example: 4 });

export const priceMinor = z
  .int({ error: 'A sum is wanted, e.g. 14.00; a file or program sends it in whole minor units, 1400.' })
  .min(0)
  .max(10_000_000);

/** A file by the SHA-256 of its bytes. */
export const fileHash = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'A file is named by its SHA-256: 64 digits and letters a to f.');

/** One line of a price list or an estimate. */
export const priceLine = z.strictObject({
  what: text({ words: 'What is charged', max: 80, example: 'case gasket' }),
  priceMinor,
});

/** The hands' reading, `HH:mm` or `HH:mm:ss`. */
export const handsReading = z
  .string()
  .trim()
  .regex(
    /^([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?$/,
    'The hands show: hours and minutes, e.g. 09:42 or 09:42:15.',
  );

/** An object with these fields and no others. */
export function objectOf<T>(fields: { readonly [F in keyof T]: z.ZodType<T[F], T[F]> }): z.ZodType<T, T> {
  // Zod puts the type together from the fields one by one, which TypeScript cannot follow for any T.
  return z.strictObject(fields) as z.ZodType as z.ZodType<T, T>;
}

/** One of a list, with the list in the refusal. */
/** Whether it is so, said one way or the other. */
export function yesNo(words: string): z.ZodBoolean {
  return z.boolean({ error: `${words}: yes or no.` });
}

export function oneOf<const T extends readonly string[]>(
  words: string,
  values: T,
): z.ZodType<T[number], T[number]> {
  return z.enum(values, {
    error: `${words}: one of ${values.join(values.some((value) => value.includes(',')) ? '; ' : ', ')}.`,
  });
}
