import { z } from 'zod';
import type { Quantity } from '../core/craft/units';
import {
  money,
  number,
  anyOf,
  objectOf,
  oneOf,
  optionalText,
  several as manyOf,
  text as filledText,
  yesNo,
} from './fields';

/** How a field is asked for, and by that how it is shown and how it stands in a file. */
type Control =
  | { readonly as: 'text' | 'mono' | 'text or nothing' | 'tick' | 'lines' | 'numbers' | 'money' | 'maker' }
  | {
      readonly as: 'number';
      readonly quantity: Quantity;
      readonly optional: boolean;
      /** Shown beside a figure that is no quantity of ours. */
      readonly unit?: string;
    }
  | { readonly as: 'choice' | 'choice or nothing' | 'several'; readonly options: readonly string[] }
  /** One of a few figures. */
  | { readonly as: 'figure choice'; readonly options: readonly number[] }
  | {
      readonly as: 'parts';
      readonly fields: AnyFields;
      /** One of them in words. */
      readonly one: string;
      /** The CSV file that holds them, a line each. */
      readonly table: string;
    }
  | { readonly as: 'part or nothing'; readonly fields: AnyFields };

interface Described<V> {
  readonly label: string;
  /** What its form says beside it; a refusal does without. */
  readonly helper?: string;
  readonly schema: z.ZodType<V, V>;
  /** What a new record starts with; undefined where it has to be filled in. */
  readonly blank: V | undefined;
  /** The program learnt it later: an older record and an older file are silent about it, and mean its blank. */
  readonly later: boolean;
}

/** One field of a record, all that is known of it. */
export type Field<V> = Described<V> & Control;
/** Every field of a record or of a part of one, in the order in which a form asks. */
export type Fields<T> = { readonly [F in keyof T]-?: Field<T[F]> };
/** What a record with these fields holds. */
export type ValuesOf<F> = { readonly [K in keyof F]: F[K] extends Described<infer V> ? V : never };
export type AnyField = Described<unknown> & Control;
export type AnyFields = Readonly<Record<string, AnyField>>;

/** What a field is called where its explanation is not wanted. */
export function shortLabel(label: string): string {
  return label.split(/[,:]/)[0] ?? label;
}

interface TextRule {
  readonly example: string;
  readonly max?: number;
  readonly blank?: string;
  readonly helper?: string;
}

const described = <V>(label: string, schema: z.ZodType<V, V>, blank?: V) => ({
  label,
  schema,
  blank,
  later: false,
});

const helped = ({ helper }: { readonly helper?: string }) => (helper === undefined ? {} : { helper });

const textRule = (label: string, { example, max = 40 }: TextRule) => ({
  words: shortLabel(label),
  max,
  example,
});

/** Text that must not be empty. */
export const text = (label: string, rule: TextRule): Field<string> => ({
  ...described(label, filledText(textRule(label, rule)), rule.blank ?? ''),
  ...helped(rule),
  as: 'text',
});

/** Text that may be empty. */
export const freeText = (label: string, rule: TextRule): Field<string> => ({
  ...text(label, rule),
  schema: optionalText(textRule(label, rule)),
});

/** A code, name or number as it is printed or engraved. */
export const mono = (label: string, rule: TextRule): Field<string> => ({ ...text(label, rule), as: 'mono' });
export const freeMono = (label: string, rule: TextRule): Field<string> => ({
  ...freeText(label, rule),
  as: 'mono',
});

/** A time of the day within a range. */
export const clock = (
  label: string,
  rule: { readonly pattern: RegExp; readonly range: string; readonly example: string },
): Field<string> => ({
  ...described(
    label,
    z.string().regex(rule.pattern, `${shortLabel(label)}: ${rule.range}, e.g. ${rule.example}.`),
    rule.example,
  ),
  as: 'mono',
});

/** Any time of the day, or none. */
export const clockOrNothing = (label: string): Field<string | null> => ({
  ...described<string | null>(
    label,
    z
      .string()
      .regex(/^([01]\d|2[0-3]):[0-5]\d$/, `${shortLabel(label)}: hours and minutes, e.g. 08:00.`)
      .nullable(),
    null,
  ),
  as: 'text or nothing',
});

export const textOrNothing = (label: string, rule: TextRule): Field<string | null> => ({
  ...described<string | null>(label, optionalText(textRule(label, rule)).nullable(), null),
  as: 'text or nothing',
});

/** Lines of text, none of them empty. */
export const lines = (label: string, { example, max = 200 }: TextRule): Field<readonly string[]> => ({
  ...described<readonly string[]>(
    label,
    manyOf(shortLabel(label), filledText({ words: shortLabel(label), max, example }), 40),
    [],
  ),
  as: 'lines',
});

interface FigureRule {
  readonly min: number;
  readonly max: number;
  readonly example: number;
  readonly blank?: number;
  readonly quantity?: Quantity;
  readonly unit?: string;
  readonly whole?: boolean;
  readonly helper?: string;
}

const UNIT_OF: Readonly<Partial<Record<Quantity, string>>> = {
  lengthMm: 'mm',
  currentUA: 'µA',
  resistanceKOhm: 'kΩ',
  voltageV: 'V',
  pressureBar: 'bar',
  hours: 'h',
  micrometres: 'µm',
};

/** The unit a figure is written with, `''` for a mere number. */
export function unitOf({ quantity, unit }: { readonly quantity: Quantity; readonly unit?: string }): string {
  return unit ?? UNIT_OF[quantity] ?? '';
}

function figureSchema(label: string, { quantity = 'figureOnly', unit, whole, ...range }: FigureRule) {
  const words = shortLabel(label);
  const schema = number({
    words,
    ...range,
    unit: unitOf({ quantity, ...(unit === undefined ? {} : { unit }) }),
  });
  return whole ? schema.int(`${words}: a whole number, e.g. ${range.example}.`) : schema;
}

const figureControl = ({ quantity = 'figureOnly', unit }: FigureRule, optional: boolean) =>
  ({ as: 'number', quantity, optional, ...(unit === undefined ? {} : { unit }) }) as const;

export const figure = (label: string, rule: FigureRule): Field<number> => ({
  ...described(label, figureSchema(label, rule), rule.blank),
  ...helped(rule),
  ...figureControl(rule, false),
});

export const figureOrNothing = (label: string, rule: FigureRule): Field<number | null> => ({
  ...described<number | null>(label, figureSchema(label, rule).nullable(), rule.blank ?? null),
  ...helped(rule),
  ...figureControl(rule, true),
});

/** A length; a tenth of a millimetre is the least where nothing else is said. */
export const mm = (label: string, max: number, example: number, more: Partial<FigureRule> = {}) =>
  figure(label, { min: 0.1, max, example, quantity: 'lengthMm', ...more });
export const mmOrNothing = (label: string, max: number, example: number, more: Partial<FigureRule> = {}) =>
  figureOrNothing(label, { min: 0.1, max, example, quantity: 'lengthMm', ...more });

/** One of a few figures. */
export const figureChoice = <const T extends readonly number[]>(
  label: string,
  options: T,
  blank: T[number],
): Field<T[number]> => ({
  ...described<T[number]>(
    label,
    z.literal([...options], { error: `${shortLabel(label)}: one of ${options.join(', ')}.` }),
    blank,
  ),
  as: 'figure choice',
  options,
});

interface FiguresRule {
  readonly one: string;
  readonly min?: number;
  readonly max: number;
  readonly unit?: string;
  readonly example: number;
  readonly most: number;
}

/** Several figures, each within the same range. */
export const figures = (
  label: string,
  { one, most, min = 0.1, unit = 'mm', ...rule }: FiguresRule,
): Field<readonly number[]> => ({
  ...described<readonly number[]>(
    label,
    manyOf(shortLabel(label), number({ words: one, min, unit, ...rule }), most),
    [],
  ),
  as: 'numbers',
});

export const choice = <const T extends readonly string[]>(
  label: string,
  options: T,
  blank?: T[number],
): Field<T[number]> => ({
  ...described<T[number]>(label, oneOf(shortLabel(label), options), blank),
  as: 'choice',
  options,
});

export const choiceOrNothing = <const T extends readonly string[]>(
  label: string,
  options: T,
): Field<T[number] | null> => ({
  ...described<T[number] | null>(label, oneOf(shortLabel(label), options).nullable(), null),
  as: 'choice or nothing',
  options,
});

/** At least one of a list. */
export const several = <const T extends readonly string[]>(
  label: string,
  options: T,
  blank: readonly T[number][],
): Field<readonly T[number][]> => ({
  ...described<readonly T[number][]>(
    label,
    anyOf(shortLabel(label), options, options.length * 2).min(
      1,
      `${shortLabel(label)}: at least one, e.g. ${options[0]}.`,
    ),
    blank,
  ),
  as: 'several',
  options,
});

/** Any of a list, or none. */
export const severalOrNone = <const T extends readonly string[]>(
  label: string,
  options: T,
): Field<readonly T[number][]> => ({
  ...described<readonly T[number][]>(label, anyOf(shortLabel(label), options), []),
  as: 'several',
  options,
});

export const tick = (label: string): Field<boolean> => ({
  ...described(label, yesNo(shortLabel(label)), false),
  as: 'tick',
});

export const cost = (label: string): Field<number> => ({
  ...described(label, money(shortLabel(label))),
  as: 'money',
});

const recordKey = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,59}$/, 'Id: small letters, digits and dashes, e.g. orrelin-41-2.');
export const recordIdField: Field<string> = {
  ...described('Id: small letters, digits, dashes', recordKey, ''),
  as: 'mono',
};
export const makerField: Field<string> = { ...described('Maker', recordKey, ''), as: 'maker' };
/** Whose it is, where one has to be chosen by hand. */
export const chosenMaker = recordKey.or(
  z.literal('').refine(() => false, 'Maker: choose whose movement it is.'),
);

/** The same field, of which older records and files know nothing. */
export const later = <F extends AnyField>(field: F): F => ({ ...field, later: true });

/** The names of the fields, in their order. */
export function namesOf<T>(fields: Fields<T>): readonly (keyof T & string)[] {
  return Object.keys(fields) as (keyof T & string)[];
}

/** One value of each field; the keys are those of `fields`, which is all the assertion says. */
function eachOf<T, R>(fields: Fields<T>, of: (field: AnyField) => unknown): R {
  return Object.fromEntries(Object.entries<AnyField>(fields).map(([name, field]) => [name, of(field)])) as R;
}

/** The schema of each field, for a record that has these among others. */
export function schemasOf<T>(fields: Fields<T>): { readonly [F in keyof T]: z.ZodType<T[F], T[F]> } {
  return eachOf(fields, ({ schema }) => schema);
}

/** A record with these fields and no others. */
export function schemaOf<T>(fields: Fields<T>): z.ZodType<T, T> {
  return objectOf<T>(schemasOf(fields));
}

/** What a form for a new record starts with. */
export function blankOf<T>(fields: Fields<T>): Partial<T> {
  return eachOf(fields, ({ blank }) => blank);
}

/**
 * A record, or a part of one, with what it means by the fields it does not have because it is older than they are; the
 * parts it holds likewise.
 */
export function withLater<T extends object>(fields: AnyFields, stored: T): T {
  const values = stored as Readonly<Record<string, unknown>>;
  const added: Record<string, unknown> = {};
  for (const [name, inner] of laterIn(fields)) {
    const value = name in values ? values[name] : fields[name]?.blank;
    const whole =
      inner === null || typeof value !== 'object' || value === null ? value : partsWithLater(inner, value);
    if (whole !== values[name] || !(name in values)) added[name] = whole;
  }
  // Nearly every record of a book of thousands is whole: it is taken as it is.
  return Object.keys(added).length === 0 ? stored : { ...stored, ...added };
}

function partsWithLater(fields: AnyFields, value: object): object {
  if (!Array.isArray(value)) return withLater(fields, value);
  const parts = value as readonly object[];
  const whole = parts.map((part) => withLater(fields, part));
  return whole.every((part, at) => part === parts[at]) ? parts : whole;
}

/** The fields of a record that an older one may lack, each with those of its parts; and those whose parts may lack some. */
type Later = readonly (readonly [name: string, inner: AnyFields | null])[];
const LATER = new WeakMap<AnyFields, Later>();

function laterIn(fields: AnyFields): Later {
  const known = LATER.get(fields);
  if (known) return known;
  const found: Later = Object.entries(fields).flatMap(([name, field]) => {
    const inner = field.as === 'parts' || field.as === 'part or nothing' ? field.fields : null;
    const lacks = inner !== null && laterIn(inner).length > 0;
    return field.later || lacks ? [[name, lacks ? inner : null] as const] : [];
  });
  LATER.set(fields, found);
  return found;
}

/** Parts that stand in a list of their own, and in a CSV file of their own. */
export const parts = <T>(
  label: string,
  one: string,
  table: string,
  most: number,
  fields: Fields<T>,
): Field<readonly T[]> => ({
  ...described<readonly T[]>(label, manyOf(shortLabel(label), schemaOf(fields), most), []),
  as: 'parts',
  fields,
  one,
  table,
});

/** A part of the record that is there or is not. */
export const partOrNothing = <T>(label: string, fields: Fields<T>): Field<T | null> => ({
  ...described<T | null>(label, schemaOf(fields).nullable(), null),
  as: 'part or nothing',
  fields,
});
