import { z } from 'zod';
import type { TracePhase, TraceSample } from '../../core/craft/devices';
import { measures, type Measure } from '../../core/craft/health';
import type { DeliveryLine } from '../../core/craft/stock';
import type { LeakMark } from '../../core/logbook';
import { id, number, oneOf } from '../fields';
import { newOrder } from '../stock';

/** A file kept by its content. */
export interface Attachment {
  readonly hash: string;
  readonly name: string;
  readonly contentType: string;
  readonly bytes: number;
}

const measureNames = Object.keys(measures) as Measure[];

/** What is asked of a device. */
export const deviceAsk = z.discriminatedUnion('ask', [
  z.strictObject({ ask: z.literal('length') }),
  z.strictObject({ ask: z.literal('light') }),
  z.strictObject({ ask: z.literal('turns') }),
  z.strictObject({ ask: z.literal('measure'), measure: oneOf('Measure', measureNames) }),
  z.strictObject({
    ask: z.literal('trace'),
    /** Over the air outside; 0 for a blank run. */
    pressureBar: number({ words: 'Pressure', min: -0.9, max: 130, unit: 'bar', example: 3 }),
    seconds: number({ words: 'Duration', min: 20, max: 3600, unit: 's', example: 60 }),
    /** What this run is called, so that it can be changed while it goes on. */
    run: id.optional(),
  }),
  z.strictObject({
    ask: z.literal('change trace'),
    run: id,
    /** The watch under pressure, and again after venting, from now on; null ends the run here, with what it recorded. */
    seconds: number({ words: 'Duration', min: 20, max: 3600, unit: 's', example: 60 }).nullable(),
  }),
  z.strictObject({
    ask: z.literal('tank'),
    pressureBar: number({ words: 'Pressure', min: 0.1, max: 130, unit: 'bar', example: 3 }),
  }),
  z.strictObject({ ask: z.literal('pulses') }),
  z.strictObject({ ask: z.literal('picture'), technicianId: id }),
  z.strictObject({ ask: z.literal('print label'), jobId: id, technicianId: id }),
  z.strictObject({
    ask: z.literal('tell the owner'),
    jobId: id,
    technicianId: id,
    what: oneOf('Message', ['ready', 'part awaited', 'please ring', 'next visit']),
  }),
  z.strictObject({ ask: z.literal('order'), order: newOrder, technicianId: id }),
]);
export type DeviceAsk = z.infer<typeof deviceAsk>;
export type Ask = DeviceAsk['ask'];

/** What a device gives, bit by bit where it takes its time. */
export type DeviceSays =
  | { readonly says: 'figure'; readonly value: number; readonly text: string }
  | { readonly says: 'pulses'; readonly everyS: number | null }
  | {
      readonly says: 'sample';
      readonly sample: TraceSample;
      /** Null where only the tester itself knows. */
      readonly phase: TracePhase | null;
      /** How long the test takes; null where the tester itself decides that. */
      readonly ofS: number | null;
    }
  | { readonly says: 'trace'; readonly points: number }
  /** It hangs on the computer at the bench, whose browser asks it through this driver. */
  | { readonly says: 'at the bench'; readonly driver: string; readonly settings: unknown }
  /** It is not done yet, and what it waits for. */
  | { readonly says: 'waiting'; readonly words: string }
  /** A tester's own record as it wrote it, piece by piece, then its name. */
  | { readonly says: 'record part'; readonly text: string }
  | { readonly says: 'record'; readonly name: string }
  /** What the tank shows as the pressure is let off; no place where nothing rises. */
  | { readonly says: 'bubbles'; readonly at: LeakMark | null; readonly words: string }
  | { readonly says: 'picture'; readonly attachment: Attachment }
  | { readonly says: 'done'; readonly words: string }
  | {
      readonly says: 'order taken';
      readonly dueAt: string;
      readonly noteNumber: string;
      /** What will come with it, which now and then is not what was ordered. */
      readonly lines: readonly DeliveryLine[];
    }
  | { readonly says: 'fault'; readonly words: string; readonly whatToDo: string };
