import type { EntryKind, Payloads } from '../../core/logbook';
import type { z } from 'zod';

/** A step from one version of a payload to the next, named by what changed. */
export interface Upcast {
  readonly name: string;
  readonly upcast: (payload: object) => object;
}

/** The step that adds fields, with what an older payload means by their absence. */
export const addsFields = (name: string, fields: object): Upcast => ({
  name,
  upcast: (payload) => ({ ...fields, ...payload }),
});

/** The step that changes what is there. */
export const changes = (name: string, upcast: Upcast['upcast']): Upcast => ({ name, upcast });

/** One kind on the wire: its schema now, and how each older payload is raised to the next version. */
export interface KindDefinition<P> {
  readonly version: number;
  readonly schema: z.ZodType<P, P>;
  /** The steps from the first version on, in their order. */
  readonly upcasts?: readonly Upcast[];
}

/** A kind whose schema is built when it is first asked for: a page knows every kind and needs few. */
export function kind<P>({
  schema,
  ...rest
}: Omit<KindDefinition<P>, 'schema'> & { readonly schema: () => z.ZodType<P, P> }): KindDefinition<P> {
  let built: z.ZodType<P, P> | undefined;
  return {
    ...rest,
    get schema() {
      built ??= schema();
      return built;
    },
  };
}

export type KindDefinitions<Area> = { readonly [K in keyof Area & EntryKind]: KindDefinition<Payloads[K]> };

/** Raises a stored payload to the current version, one step at a time. Throws where a step is missing. */
export function upcastPayload<P>(definition: KindDefinition<P>, version: number, payload: unknown): unknown {
  if (version > definition.version) {
    throw new RangeError(`Payload version ${version} is newer than this program (${definition.version}).`);
  }
  let raised = payload;
  for (let at = version; at < definition.version; at += 1) {
    const step = definition.upcasts?.[at - 1];
    if (!step) throw new RangeError(`No way from payload version ${at} to ${at + 1}.`);
    raised = step.upcast(raised as object);
  }
  return raised;
}

type Raised =
  | { readonly verdict: 'raised'; readonly payload: unknown }
  | { readonly verdict: 'not raised'; readonly reason: string };

/** The same, where being unable to is an answer: a newer version, a missing step, or nothing that a step could raise. */
export function payloadOfToday(
  definition: KindDefinition<unknown>,
  version: number,
  payload: unknown,
): Raised {
  if (typeof payload !== 'object' || payload === null)
    return { verdict: 'not raised', reason: 'it has no payload' };
  try {
    return { verdict: 'raised', payload: upcastPayload(definition, version, payload) };
  } catch (error) {
    return { verdict: 'not raised', reason: error instanceof Error ? error.message : String(error) };
  }
}
