import { z } from 'zod';
import { MOST_LUX, MOST_WINDER_TURNS } from '../core/craft/charging';
import type { TracePhase, TraceSample } from '../core/craft/devices';
import { measures, type Measure } from '../core/craft/health';
import type { DeliveryLine } from '../core/craft/stock';
import { LEAK_SIDES, type LeakMark } from '../core/logbook';
import { id, number, oneOf } from './fields';
import { newOrder } from './stock';

/** A file kept by its content. */
export interface Attachment {
  readonly hash: string;
  readonly name: string;
  readonly contentType: string;
  readonly bytes: number;
}

export const DEVICE_IDS = [
  'caliper',
  'bench-meter',
  'light-meter',
  'winder',
  'leak-tester',
  'camera',
  'label-printer',
  'message-outbox',
  'supplier',
] as const;
export type DeviceId = (typeof DEVICE_IDS)[number];

/** What can ail each device. */
export const DEVICE_FAULTS = {
  caliper: ['battery low', 'unplugged'],
  'bench-meter': ['probe open', 'unplugged'],
  'light-meter': ['cap on', 'unplugged'],
  winder: ['stands still', 'unplugged'],
  'leak-tester': ['lid open', 'no pressure', 'unplugged'],
  camera: ['no picture', 'unplugged'],
  'label-printer': ['out of labels', 'jammed', 'unplugged'],
  'message-outbox': ['no line', 'unplugged'],
  supplier: ['closed for the day', 'unplugged'],
} as const satisfies Record<DeviceId, readonly string[]>;

const fault = (device: DeviceId) => oneOf('Fault', ['none', ...(DEVICE_FAULTS[device] as readonly string[])]);
const noise = number({ words: 'Noise', min: 0, max: 20, unit: '%', example: 0.5 });

/** What each stand-in simulates, as the devices page sets it. */
export const deviceSettings = {
  caliper: z.strictObject({
    valueMm: number({ words: 'Lies between the jaws', min: 0, max: 150, unit: 'mm', example: 14.2 }),
    unit: oneOf('Set to', ['mm', 'in']),
    fault: fault('caliper'),
  }),
  'bench-meter': z.strictObject({
    restVoltageV: number({ words: 'Cell at rest', min: 0, max: 4.5, unit: 'V', example: 1.56 }),
    loadedVoltageV: number({ words: 'Cell under load', min: 0, max: 4.5, unit: 'V', example: 1.49 }),
    currentUA: number({ words: 'Movement draws', min: 0, max: 5000, unit: 'µA', example: 1.04 }),
    stoppedCurrentUA: number({
      words: 'With the motor stopped',
      min: 0,
      max: 5000,
      unit: 'µA',
      example: 0.2,
    }),
    coilKOhm: number({ words: 'Coil', min: 0, max: 10_000, unit: 'kΩ', example: 1.8 }),
    lowestRunningV: number({ words: 'Runs down to', min: 0, max: 4.5, unit: 'V', example: 1.15 }),
    rateSPerDay: number({ words: 'Rate', min: -600, max: 600, unit: 's/day', example: 0.3 }),
    /** Null: no motor pulses. */
    pulsesEveryS: number({
      words: 'A motor pulse every',
      min: 0.02,
      max: 120,
      unit: 's',
      example: 1,
    }).nullable(),
    noisePercent: noise,
    fault: fault('bench-meter'),
  }),
  'light-meter': z.strictObject({
    lux: number({ words: 'Light that falls on it', min: 0, max: MOST_LUX, unit: 'lx', example: 9500 }),
    noisePercent: noise,
    fault: fault('light-meter'),
  }),
  winder: z.strictObject({
    turnsAnHour: number({
      words: 'Turns',
      min: 1,
      max: MOST_WINDER_TURNS,
      unit: 'turns an hour',
      example: 900,
    }),
    fault: fault('winder'),
  }),
  'leak-tester': z.strictObject({
    stiffnessUmPerBar: number({ words: 'Case gives by', min: 0, max: 200, unit: 'µm a bar', example: 5 }),
    settlesPercent: number({ words: 'Gives by and by', min: 0, max: 50, unit: '%', example: 3 }),
    settlesInS: number({ words: 'Settles in', min: 0.1, max: 600, unit: 's', example: 8 }),
    volumeCm3: number({ words: 'Free volume', min: 0.05, max: 50, unit: 'cm³', example: 1.4 }),
    /** Null: a tight case. */
    leakUgPerMin: number({
      words: 'Lets through',
      min: 0.1,
      max: 1_000_000,
      unit: 'µg/min',
      example: 350,
    }).nullable(),
    leaksAt: number({ words: 'Leaks at', min: 0.5, max: 12, unit: 'o’clock', example: 3 }),
    leakSide: oneOf('Leaks on the', LEAK_SIDES),
    gross: oneOf('Wide open', ['no', 'yes']),
    noiseUm: number({ words: 'Noise', min: 0, max: 20, unit: 'µm', example: 0.05 }),
    driftUmPerMin: number({ words: 'Drifts', min: -20, max: 20, unit: 'µm/min', example: 0.02 }),
    /** How many seconds of the test pass in one of the clock. */
    speed: number({ words: 'Runs faster by', min: 1, max: 2000, example: 20 }),
    fault: fault('leak-tester'),
  }),
  camera: z.strictObject({
    shows: oneOf('In front of it', ['movement', 'back', 'leaked cell']),
    fault: fault('camera'),
  }),
  'label-printer': z.strictObject({ fault: fault('label-printer') }),
  'message-outbox': z.strictObject({ fault: fault('message-outbox') }),
  supplier: z.strictObject({
    leadHours: number({ words: 'Delivers after', min: 0, max: 2000, unit: 'h', example: 20 }),
    wrongPercent: number({ words: 'Wrong lines', min: 0, max: 100, unit: '%', example: 5 }),
    shortPercent: number({ words: 'Short lines', min: 0, max: 100, unit: '%', example: 8 }),
    fault: fault('supplier'),
  }),
} as const satisfies Record<DeviceId, z.ZodType>;

export type DeviceSettings = { readonly [K in DeviceId]: z.infer<(typeof deviceSettings)[K]> };

export const deviceChange = z.strictObject({
  connected: z.boolean().optional(),
  settings: z.unknown().optional(),
});

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

/** What a device gives, bit by bit where it takes its time. */
export type DeviceSays =
  | { readonly says: 'figure'; readonly value: number; readonly text: string }
  | { readonly says: 'pulses'; readonly everyS: number | null }
  | {
      readonly says: 'sample';
      readonly sample: TraceSample;
      readonly phase: TracePhase;
      readonly ofS: number;
    }
  | { readonly says: 'trace'; readonly points: number }
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

export interface DeviceState {
  readonly id: DeviceId;
  readonly name: string;
  readonly connected: boolean;
  readonly settings: DeviceSettings[DeviceId];
  /** What ails it just now, in words; null when it works. */
  readonly fault: string | null;
  /** What went out through it last, the newest first. */
  readonly output: readonly { readonly words: string; readonly jobId: string; readonly atUtc: string }[];
}
