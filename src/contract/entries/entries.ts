import { z } from 'zod';
import type { Entry, EntryKind, Payloads } from '../../core/logbook';
import { fileHash, id, instant, labelOf, optionalText, text } from '../fields';
import { arriveKinds } from './arrive';
import { cellKinds } from './cell';
import { checkKinds } from './check';
import { type KindDefinition, type KindDefinitions, payloadOfToday, upcastPayload } from './define';
import { handbackKinds } from './handback';
import { identifyKinds } from './identify';
import { logbookKinds } from './logbook';
import { openKinds } from './open';
import { sealKinds } from './seal';
import { setKinds } from './set';
import { testKinds } from './waterTest';

const definitions: KindDefinitions<Payloads> = {
  ...arriveKinds,
  ...openKinds,
  ...identifyKinds,
  ...checkKinds,
  ...cellKinds,
  ...sealKinds,
  ...testKinds,
  ...setKinds,
  ...handbackKinds,
  ...logbookKinds,
};

export const ENTRY_KINDS = Object.keys(definitions) as EntryKind[];

/** The definition of a kind, for the form of its stage and for the version a new entry carries. */
export function kindDefinition<K extends EntryKind>(kind: K): KindDefinition<Payloads[K]> {
  return definitions[kind];
}

type FieldOf<P> = P extends unknown ? keyof P & string : never;

/** What a fact holds, by name. */
export type FactField<K extends EntryKind> = FieldOf<Payloads[K]>;

/** What the description of a schema calls a field; a form takes its label from there, so that it and its refusals say the same. */
export function labelIn(schema: unknown, field: string): string {
  const of = schema instanceof z.ZodObject ? (schema.shape as Record<string, z.ZodType>)[field] : undefined;
  const label = of === undefined ? null : labelOf(of);
  if (label === null) throw new RangeError(`The field ${field} has no label.`);
  return label;
}

/** The same of a fact. */
export function fieldLabel<K extends EntryKind>(kind: K, field: FactField<K>): string {
  return labelIn(kindDefinition(kind).schema, field);
}

const envelope = {
  id,
  payloadVersion: z.int().min(1),
  occurredAt: instant,
  technicianId: id,
  bench: text({ words: 'Bench', max: 40, example: 'window bench' }),
  well: optionalText({ words: 'Well', max: 40, example: 'main' }).nullable().default(null),
  supersedes: z.array(id).max(10).default([]),
  withdraws: id.nullable().default(null),
  attachments: z.array(fileHash).max(20).default([]),
};

function schemaOf<K extends EntryKind>(kind: K) {
  const { version, schema } = kindDefinition(kind);
  return z.strictObject({
    ...envelope,
    kind: z.literal(kind),
    // What a newer program wrote would be on record and readable to nobody here.
    payloadVersion: envelope.payloadVersion.max(version, {
      error: ({ input }) =>
        `Version of the payload: ${String(input)} is newer than this program knows (${version}). Bring the server up to date, then send it again.`,
    }),
    payload: schema,
  });
}

/** An entry without the server's part. */
export type NewEntry = {
  [K in EntryKind]: Omit<Extract<Entry, { kind: K }>, 'sequence' | 'recordedAt' | 'counter' | 'jobId'> & {
    payloadVersion: number;
  };
}[EntryKind];

/**
 * An entry as the browser sends it: one member of the union by kind. The schemas come from the table of kinds, so each
 * gives the entry of its kind; their list is no tuple to the compiler, and their union is not `NewEntry` to it.
 */
export const newEntry = z.lazy(() =>
  z.discriminatedUnion('kind', ENTRY_KINDS.map((kind) => schemaOf(kind)) as [ReturnType<typeof schemaOf>], {
    error: 'Kind: one the logbook knows, e.g. check.reading.',
  }),
) as z.ZodType as z.ZodType<NewEntry, NewEntry>;

/** Who records a fact, when and where, and what it corrects; what is left out is none. */
export interface AboutEntry {
  readonly id: string;
  readonly occurredAt: string;
  readonly technicianId: string;
  readonly bench: string;
  readonly well?: string | null;
  readonly supersedes?: readonly string[];
  readonly withdraws?: string | null;
  readonly attachments?: readonly string[];
}

/** A new entry of a kind, at that kind's payload version of today. */
export function makeEntry<K extends EntryKind>(kind: K, payload: Payloads[K], about: AboutEntry): NewEntry {
  // A kind and its own payload are one member of the union, which a generic kind does not tell the compiler.
  return {
    ...about,
    kind,
    payload,
    payloadVersion: kindDefinition(kind).version,
    well: about.well ?? null,
    supersedes: about.supersedes ?? [],
    withdraws: about.withdraws ?? null,
    attachments: about.attachments ?? [],
  } as unknown as NewEntry;
}

const anyEntry = z.looseObject({ kind: z.string(), payloadVersion: z.int().min(1), payload: z.unknown() });

/** Raises the body of a new entry that an older page made to the payload version of today, before it is parsed. */
export function upcastNewEntry(body: unknown): unknown {
  const shape = anyEntry.safeParse(body);
  if (!shape.success || !Object.hasOwn(definitions, shape.data.kind)) return body;
  const definition = kindDefinition(shape.data.kind as EntryKind) as KindDefinition<unknown>;
  const raised = payloadOfToday(definition, shape.data.payloadVersion, shape.data.payload);
  // What cannot be raised is left as it is: the schema says what is wrong with it.
  return raised.verdict === 'raised'
    ? { ...shape.data, payload: raised.payload, payloadVersion: definition.version }
    : body;
}

/** What of a schema’s complaints means that a payload has another shape, and not merely a value out of bounds. */
const OTHER_SHAPE: readonly string[] = [
  'invalid_type',
  'invalid_value',
  'invalid_union',
  'invalid_key',
  'invalid_element',
  'unrecognized_keys',
];

export type StoredReading =
  | { readonly verdict: 'read'; readonly payload: unknown }
  | { readonly verdict: 'unreadable'; readonly reason: string };

/**
 * A stored payload as this program knows its kind, raised to the version of today; or why it cannot be read: a kind or
 * version that is not known here, or another shape. A value that a later rule would not allow is read all the same:
 * what is on record stays on record.
 */
export function readStored(kind: string, version: number, payload: unknown): StoredReading {
  const unreadable = (reason: string): StoredReading => ({ verdict: 'unreadable', reason });
  if (!Object.hasOwn(definitions, kind)) return unreadable(`no kind of entry called “${kind}” is known here`);
  const definition = kindDefinition(kind as EntryKind) as KindDefinition<unknown>;
  const raised = payloadOfToday(definition, version, payload);
  if (raised.verdict !== 'raised') return unreadable(raised.reason);
  const issues = definition.schema.safeParse(raised.payload).error?.issues ?? [];
  const issue = issues.find(({ code }) => OTHER_SHAPE.includes(code));
  return issue
    ? unreadable(
        `its payload has another shape: ${[issue.path.join('.'), issue.message].filter(Boolean).join(': ')}`,
      )
    : { verdict: 'read', payload: raised.payload };
}

export { upcastPayload, type KindDefinition };
