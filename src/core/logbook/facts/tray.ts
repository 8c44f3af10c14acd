import type { Part, Served } from '../../craft/parts';
import type { Envelope } from '../envelope';

/** What can become of a part that came off. */
export const PART_OUTCOMES = ['back in place', 'replaced', 'lost'] as const;
export type PartOutcome = (typeof PART_OUTCOMES)[number];

/** What comes off a watch, and what became of it. */
export interface TrayPayloads {
  'open.part': {
    readonly part: Part;
    readonly position: string;
    readonly count: number;
    readonly serves: readonly Served[];
    /** The step of the plan it came off at; empty where it was none. */
    readonly step: string;
  };
  'open.part-settled': {
    readonly partEntryId: string;
    readonly outcome: PartOutcome;
    readonly note: string;
  };
}

type Fact<K extends keyof TrayPayloads> = Envelope<K, TrayPayloads[K]>;

/** A part off the watch, and what became of it. */
export interface PartOff {
  readonly off: Fact<'open.part'>;
  /** What was said of it; of the ring of the seam also by what was done to the gasket. Null: it lies on the tray. */
  readonly settled: Pick<Fact<'open.part-settled'>, 'id' | 'occurredAt' | 'technicianId' | 'payload'> | null;
}

export interface TrayFacts {
  parts: Map<string, PartOff>;
}
