import fc from 'fast-check';
import { z } from 'zod';

/** What of a JSON schema is read here. */
interface Schema {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  readonly maxItems?: number;
  readonly format?: string;
  readonly pattern?: string;
  readonly maxLength?: number;
  readonly minimum?: number;
  readonly maximum?: number;
}

/** What nobody sends by mistake: wrong types, ends of ranges, what other languages would run. */
const NASTY: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(
    null,
    true,
    -1,
    0,
    1e308,
    Number.MIN_VALUE,
    2 ** 53,
    -0,
    '',
    ' ',
    '\u0000',
    '\ud800',
    '﷽'.repeat(50),
    '__proto__',
    'constructor',
    "'; DROP TABLE entry; --",
    '=HYPERLINK("x")',
    '<script>alert(1)</script>',
    '../../etc/passwd',
    'x'.repeat(5000),
    '2027-99-99',
    '9999-12-31T23:59:59.999Z',
    '0000-01-01T00:00:00.000Z',
    '-271821-04-20T00:00:00.000Z',
    [],
    {},
    [[[[[[]]]]]],
    { toString: 'x', valueOf: 1, length: -1 },
  ),
  fc.jsonValue({ maxDepth: 3 }),
);

const INSTANTS = ['2026-03-17T09:40:00.000Z', '2026-03-17T09:44:00Z', '2024-02-29T00:00:00.000Z'];
const DAYS = ['2026-03-17', '2028-09-30', '2024-02-29'];

/** How often something in a body is made nasty, in a hundred. */
const NASTY_SHARE = 4;

/** Bodies of a schema: most of what is in them as it should be, some of it not. `ids`: what is really there. */
export function bodiesOf(schema: z.ZodType, ids: readonly string[]): fc.Arbitrary<unknown> {
  const json = z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input', reused: 'inline' }) as Schema;
  return bodyOf(json, ids);
}

function textOf({ format, pattern, maxLength = 60 }: Schema, ids: readonly string[]): fc.Arbitrary<unknown> {
  if (format === 'uuid') return fc.oneof({ weight: 3, arbitrary: fc.constantFrom(...ids) }, fc.uuid());
  if (format === 'date-time') return fc.constantFrom(...INSTANTS);
  if (format === 'date') return fc.constantFrom(...DAYS);
  if (format === 'email') return fc.constantFrom('', 'maren@quay.example');
  if (pattern !== undefined && /^[\^$\w\s\\[\]{}().|:?*+,/-]+$/.test(pattern) && !pattern.includes('(?'))
    return fc.stringMatching(new RegExp(pattern));
  return fc.oneof(
    fc.string({ maxLength: Math.min(maxLength, 60) }),
    fc.constantFrom('SR621SW', '364', 'S-6104', 'kept', ...INSTANTS, ...DAYS),
  );
}

function asItShould(schema: Schema, ids: readonly string[]): fc.Arbitrary<unknown> {
  if (schema.const !== undefined) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return fc.oneof(...choices.map((each) => bodyOf(each, ids)));
  switch (schema.type) {
    case 'object': {
      const { properties = {}, required = [] } = schema;
      const fields = Object.fromEntries(
        Object.entries(properties).map(([name, field]) => [name, bodyOf(field, ids)]),
      );
      return fc.record(fields, { requiredKeys: [...required] });
    }
    case 'array':
      return fc.array(bodyOf(schema.items ?? {}, ids), { maxLength: Math.min(schema.maxItems ?? 4, 4) });
    case 'string':
      return textOf(schema, ids);
    case 'integer':
      return fc.integer({
        min: Math.max(schema.minimum ?? 0, -1e6),
        max: Math.min(schema.maximum ?? 100, 1e6),
      });
    case 'number':
      return fc.double({
        min: Math.max(schema.minimum ?? 0, -1e6),
        max: Math.min(schema.maximum ?? 100, 1e6),
        noNaN: true,
      });
    case 'boolean':
      return fc.boolean();
    case 'null':
      return fc.constant(null);
    default:
      return NASTY;
  }
}

function bodyOf(schema: Schema, ids: readonly string[]): fc.Arbitrary<unknown> {
  return fc.oneof(
    { weight: 100 - NASTY_SHARE, arbitrary: asItShould(schema, ids) },
    { weight: NASTY_SHARE, arbitrary: NASTY },
  );
}

/** A good body with one thing in it made nasty, or taken away. */
export function spoiltOnce(good: object): fc.Arbitrary<unknown> {
  const places: (readonly string[])[] = [];
  const visit = (value: unknown, path: readonly string[]): void => {
    if (path.length > 0) places.push(path);
    if (typeof value === 'object' && value !== null)
      for (const [name, inner] of Object.entries(value)) visit(inner, [...path, name]);
  };
  visit(good, []);
  return fc.tuple(fc.constantFrom(...places), fc.oneof(NASTY, fc.constant(undefined))).map(([path, put]) => {
    const body = structuredClone(good) as Record<string, unknown>;
    let at: Record<string, unknown> = body;
    for (const name of path.slice(0, -1)) at = at[name] as Record<string, unknown>;
    at[path.at(-1) ?? ''] = put;
    return body;
  });
}
