import { z } from 'zod';
import type { EntryKind } from '../../core/logbook';
import { labelOf } from '../fields';
import { ENTRY_KINDS, kindDefinition } from './entries';

/** What no hand enters: the program writes it. */
const WRITTEN_BY_THE_PROGRAM: readonly string[] = [
  ...['arrive.received.customerId', 'arrive.received.watchId', 'arrive.received.visitId'],
  ...['handback.signed.statement', 'test.made.record', 'test.blank.record', 'test.blank.typed'],
  // Called by what was looked at, which stands beside it.
  'identify.evidence.value',
];
const NAMES_SOMETHING = /(Id|EntryId|toolIds|photo|steps|asShown|step|promisedAt|foundBy)$/;

function fieldsOf(kind: EntryKind): [string, z.ZodType][] {
  const { schema } = kindDefinition(kind) as { readonly schema: z.ZodType };
  if (!(schema instanceof z.ZodObject)) throw new Error(`${kind} is no object`);
  return Object.entries(schema.shape as Record<string, z.ZodType>).map(([field, each]) => [
    `${kind}.${field}`,
    each,
  ]);
}

const entered = ENTRY_KINDS.flatMap(fieldsOf).filter(
  ([path]) => !WRITTEN_BY_THE_PROGRAM.includes(path) && !NAMES_SOMETHING.test(path),
);

describe('what a field is called', () => {
  it.each(entered)('%s: one name, which every refusal of it begins with', (_, schema) => {
    const label = labelOf(schema);
    expect(label).not.toBeNull();
    const refused = [{}, true, 1e9, -1e9, 'x'.repeat(2000), [{}], null, undefined].flatMap(
      (value) => schema.safeParse(value).error?.issues.filter(({ path }) => path.length === 0) ?? [],
    );
    expect(refused.length).toBeGreaterThan(0);
    for (const { message } of refused) expect(message.slice(0, label?.length)).toBe(label);
  });
});
