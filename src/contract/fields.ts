import { z } from 'zod';

z.config({
  // A page may not compile code from text, and finding that out takes longer than all its parsing.
  jitless: 'document' in globalThis || 'importScripts' in globalThis,
  // What no field says in its own words is refused in these.
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
      return `Enter ${kinds[issue.expected] ?? `a ${issue.expected}`}.`;
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

const labels = z.registry<{ readonly label: string }>();

/** A schema under the label its field has everywhere: in its form, in a refusal, in a table. */
export function called<S extends z.ZodType>(label: string, schema: S): S {
  labels.add(schema, { label });
  return schema;
}

/** The label of a field, through whatever lies around it: a list, nothing known, a further rule. Null: it has none. */
export function labelOf(schema: z.ZodType): string | null {
  const own = labels.get(schema)?.label;
  if (own !== undefined) return own;
  if (schema instanceof z.ZodArray) return labelOf(schema.element as z.ZodType);
  if (schema instanceof z.ZodNullable || schema instanceof z.ZodDefault)
    return labelOf(schema.unwrap() as z.ZodType);
  if (schema instanceof z.ZodUnion) return labelOf(schema.options[0] as z.ZodType);
  return null;
}

interface TextRule {
  readonly words: string;
  readonly max: number;
  readonly example: string;
}

/** Free text that may be empty. */
export function optionalText({ words, max, example }: TextRule): z.ZodType<string, string> {
  const plain = z
    .string({ error: `${words}: a text is wanted, e.g. “${example}”.` })
    .trim()
    .max(max, `${words}: at most ${max} characters. A good value: “${example}”.`)
    .refine((text) => !CONTROL.test(text), `${words}: one line of plain text. A good value: “${example}”.`)
    .refine(
      (text) => !HALF.test(text),
      `${words}: the text ends in the middle of a character. Type it again.`,
    );
  return called(words, plain);
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
  return called(words, z.number({ error: range }).min(min, range).max(max, range));
}

/** A figure whose plausible range goes by what was measured. */
export function figureOf(words: string, example: number): z.ZodNumber {
  return called(words, z.number({ error: `${words}: a figure, e.g. ${example}.` }));
}

/** A time of this century: what is recorded, promised or told in a file lies between plausible ends. */
export const instant = z.iso
  .datetime({ error: 'A time is UTC in ISO form, e.g. 2026-03-12T09:30:00.000Z.' })
  .refine(
    (value) => value >= '2000-01-01' && value < '2100-01-01',
    'A time in the wrong century. A good value: 2026-03-12T09:30:00.000Z.',
  );

/** A day of this century. */
export function day(words: string) {
  return called(
    words,
    z.iso
      .date({ error: `${words}: a day is written year-month-day, e.g. 2027-04-30.` })
      .refine(
        (value) => value >= '2000-01-01' && value < '2100-01-01',
        `${words}: a day in the wrong century. A good value: 2027-04-30.`,
      ),
  );
}
export const calendarDay = day('Day');

/** A position on the dial. */
export const clock = (words: string): z.ZodNumber =>
  number({ words, min: 0.5, max: 12, unit: 'o’clock', example: 4 });

const MOST_MINOR = 10_000_000;
/** A sum of money in minor units. */
export function money(words: string): z.ZodInt {
  const wanted = `${words}: a sum from 0.00 to 100,000.00, e.g. 14.00; a file or program sends it in whole minor units, 1400.`;
  return called(words, z.int({ error: wanted }).min(0, wanted).max(MOST_MINOR, wanted));
}
export const priceMinor = money('Price');

/** A file by the SHA-256 of its bytes. */
export const fileHash = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'A file is named by its SHA-256: 64 digits and letters a to f.');

/** One line of a price list or an estimate. */
export const priceLine = z.strictObject({
  what: text({ words: 'What is charged', max: 80, example: 'case gasket' }),
  priceMinor,
});

/** The hands' reading, `HH:mm` or `HH:mm:ss`; blank where none was taken. */
export const handsReading = called(
  'The hands show',
  z
    .string({ error: 'The hands show: a text is wanted, e.g. “09:42”.' })
    .trim()
    .regex(
      /^(([01]\d|2[0-3]):[0-5]\d(:[0-5]\d)?)?$/,
      'The hands show: hours and minutes, e.g. 09:42 or 09:42:15.',
    ),
);

/** A day, month or year told from memory, as `written` says. */
export function fromMemory(words: string, written: RegExp, wanted: string) {
  const message = `${words}: ${wanted}`;
  return called(words, z.string({ error: message }).regex(written, message));
}

/** Several of one sort. */
export function several<S extends z.ZodType>(words: string, each: S, most: number): z.ZodArray<S> {
  return called(
    words,
    z.array(each, { error: `${words}: a list is wanted, e.g. [].` }).max(most, `${words}: at most ${most}.`),
  );
}

/** An object with these fields and no others. */
export function objectOf<T>(fields: { readonly [F in keyof T]: z.ZodType<T[F], T[F]> }): z.ZodType<T, T> {
  // Zod puts the type together from the fields one by one, which TypeScript cannot follow for any T.
  return z.strictObject(fields) as z.ZodType as z.ZodType<T, T>;
}

/** Whether it is so, said one way or the other. */
export function yesNo(words: string): z.ZodBoolean {
  const asked = words.endsWith('?') ? words : `${words}:`;
  return called(words, z.boolean({ error: `${asked} choose yes or no.` }));
}

/** One of a list, with the list in the refusal. */
export function oneOf<const T extends readonly string[]>(
  words: string,
  values: T,
): z.ZodType<T[number], T[number]> {
  return called(
    words,
    z.enum(values, {
      error: `${words}: one of ${values.join(values.some((value) => value.includes(',')) ? '; ' : ', ')}.`,
    }),
  );
}

/** Several positions on the dial. */
export const clocks = (words: string, most: number) => several(words, clock(words), most);

/** Any of a list, each as often as it occurs. */
export function anyOf<const T extends readonly string[]>(words: string, values: T, most = values.length) {
  return several(words, oneOf(words, values), most);
}
