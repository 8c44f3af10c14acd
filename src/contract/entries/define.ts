import type { EntryKind, Payloads } from '../../core/logbook';
import type { z } from 'zod';

/** One kind on the wire: its schema now, and how each older payload is raised to the next version. */
export interface KindDefinition<P> {
  readonly version: number;
  readonly schema: z.ZodType<P, P>;
  /** Upcasters by the version they raise from. */
  readonly raise?: Readonly<Record<number, (payload: unknown) => unknown>>;
}

export type KindDefinitions<Area> = { readonly [K in keyof Area & EntryKind]: KindDefinition<Payloads[K]> };

/** Raises a stored payload to the current version, one step at a time. Throws where a step is missing. */
export function raisePayload<P>(definition: KindDefinition<P>, version: number, payload: unknown): unknown {
  if (version > definition.version) {
    throw new RangeError(`Payload version ${version} is newer than this program (${definition.version}).`);
  }
  let raised = payload;
  for (let at = version; at < definition.version; at += 1) {
    const step = definition.raise?.[at];
    if (!step) throw new RangeError(`No way from payload version ${at} to ${at + 1}.`);
    raised = step(raised);
  }
  return raised;
}
