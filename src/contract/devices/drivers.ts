import { z } from 'zod';
import { MOST_LUX, MOST_WINDER_TURNS } from '../../core/craft/charging';
import { LEAK_SIDES } from '../../core/logbook';
import {
  type AnyFields,
  blankOf,
  choice,
  type Field,
  type Fields,
  figure,
  figureChoice,
  figureOrNothing,
  freeMono,
  schemaOf,
  type ValuesOf,
} from '../describe';
import type { Ask, DeviceAsk, DeviceSays } from './asks';
import type { DeviceId } from './devices';

const UNPLUGGED = 'Plug it in.';

type Where = 'server' | 'browser';

interface Reached<S, R extends Where> {
  readonly device: DeviceId;
  readonly name: string;
  readonly what: string;
  /** Where it runs: a line at this bench is read by the browser, all else by the server. */
  readonly runs: R;
  /** What it can be asked. */
  readonly does: readonly Ask[];
  readonly fields: Fields<S>;
}

/** One way of reaching a device, with all that is known of it beforehand. */
const reached = <S, const R extends Where>(driver: Reached<S, R>): Reached<S, R> => driver;

const figureOf = (
  label: string,
  unit: string,
  blank: number,
  [min, max]: readonly [number, number],
): Field<number> => figure(label, { min, max, example: blank, blank, unit });

const noise = (blank: number) => figureOf('Noise', '%', blank, [0, 20]);

/** A stand-in: what it simulates, and what may ail it with what to do about each. */
const standIn = <S, const F extends string>(
  device: DeviceId,
  does: readonly Ask[],
  fields: Fields<S>,
  faults: Readonly<Record<F, string>>,
) => ({
  ...reached({
    device,
    name: 'Stand-in',
    what: 'A simulated device for trying the program without hardware.',
    runs: 'server',
    does,
    fields: {
      ...fields,
      fault: choice<readonly ('none' | 'unplugged' | F)[]>(
        'Fault',
        ['none', ...(Object.keys(faults) as F[]), 'unplugged'],
        'none',
      ),
    } as Fields<S & { readonly fault: 'none' | 'unplugged' | F }>,
  }),
  faults: { ...faults, unplugged: UNPLUGGED } as Readonly<Record<string, string>>,
});

const BAUDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;

interface SerialSettings {
  readonly from: 'serial port' | 'recording';
  readonly baud: number;
  readonly command: string;
}

const serialFields: Fields<SerialSettings> = {
  from: choice('Read from', ['serial port', 'recording'], 'serial port'),
  baud: figureChoice('Baud rate', BAUDS, 9600),
  command: freeMono('Command for a reading', {
    max: 40,
    example: 'READ?',
    helper: 'blank where the meter sends by itself',
  }),
};

/** How many times faster than it was made a recording is played. */
const playedFaster = figureOf('Playback speed', '×', 20, [1, 2000]);

/** Every way to every device; the first of a device is the one it begins with. */
export const DRIVERS = {
  'caliper-stand-in': standIn(
    'caliper',
    ['length'],
    {
      valueMm: figureOf('Measured length', 'mm', 30.5, [0, 150]),
      unit: choice('Unit', ['mm', 'in'], 'mm'),
    },
    {
      'battery low': 'Replace the battery of the caliper, then measure again. The last reading may be wrong.',
    },
  ),
  'caliper-keyboard': reached({
    device: 'caliper',
    name: 'Caliper that types',
    what: 'For calipers that type their reading like a keyboard. Press “Take” at a field, then the button on the caliper. Without “Take”, the reading goes into the next empty measurement.',
    runs: 'browser',
    does: ['length'],
    fields: {} satisfies Fields<object>,
  }),
  'bench-meter-stand-in': standIn(
    'bench-meter',
    ['measure', 'pulses'],
    {
      restVoltageV: figureOf('Cell at rest', 'V', 1.31, [0, 4.5]),
      loadedVoltageV: figureOf('Cell under load', 'V', 1.12, [0, 4.5]),
      currentUA: figureOf('Current of the movement', 'µA', 1.04, [0, 5000]),
      stoppedCurrentUA: figureOf('Current with the motor stopped', 'µA', 0.21, [0, 5000]),
      coilKOhm: figureOf('Coil', 'kΩ', 1.82, [0, 10_000]),
      lowestRunningV: figureOf('Lowest running voltage', 'V', 1.14, [0, 4.5]),
      rateSPerDay: figureOf('Rate', 's/day', 0.32, [-600, 600]),
      /** Null: no motor pulses. */
      pulsesEveryS: figureOrNothing('Interval of motor pulses', {
        helper: 'blank for no pulses',
        min: 0.02,
        max: 120,
        unit: 's',
        example: 1,
        blank: 1,
      }),
      noisePercent: noise(0.3),
    },
    { 'probe open': 'Put the probes back on the cell or the coil.' },
  ),
  'bench-meter-serial': reached({
    device: 'bench-meter',
    name: 'Meter on a serial port',
    what: 'For meters that send each reading as text with its unit, e.g. “1.552 V DC”. Before you press “Take”, set the meter to the quantity you want to measure.',
    runs: 'browser',
    does: ['measure'],
    fields: {
      ...serialFields,
      recorded: choice('Recording of', ['voltage', 'current', 'resistance'], 'voltage'),
    },
  }),
  'light-meter-stand-in': standIn(
    'light-meter',
    ['light'],
    { lux: figureOf('Light level', 'lx', 9500, [0, MOST_LUX]), noisePercent: noise(2) },
    { 'cap on': 'Remove the cap from the light sensor.' },
  ),
  'light-meter-serial': reached({
    device: 'light-meter',
    name: 'Meter on a serial port',
    what: 'For light meters that send each reading as text with its unit, e.g. “5230 lx”.',
    runs: 'browser',
    does: ['light'],
    fields: serialFields,
  }),
  'winder-stand-in': standIn(
    'winder',
    ['turns'],
    { turnsAnHour: figureOf('Turns per hour', 'turns an hour', 900, [1, MOST_WINDER_TURNS]) },
    { 'stands still': 'Put the watch back into the cup of the winder, then check that the cup turns.' },
  ),
  'leak-tester-stand-in': standIn(
    'leak-tester',
    ['trace', 'change trace', 'tank'],
    {
      stiffnessUmPerBar: figureOf('Case deflection', 'µm/bar', 4.2, [0, 200]),
      settlesPercent: figureOf('Delayed share of the deflection', '%', 3, [0, 50]),
      settlesInS: figureOf('Settling time', 's', 6, [0.1, 600]),
      volumeCm3: figureOf('Free volume', 'cm³', 1.4, [0.05, 50]),
      /** Null: a tight case. */
      leakUgPerMin: figureOrNothing('Leak rate at 2 bar', {
        helper: 'blank for a tight case',
        min: 0.1,
        max: 1_000_000,
        unit: 'µg/min',
        example: 350,
      }),
      leaksAt: figureOf('Clock position of the leak', 'o’clock', 3, [0.5, 12]),
      leakSide: choice('Side of the leak', LEAK_SIDES, 'side'),
      gross: choice('Gross leak', ['no', 'yes'], 'no'),
      noiseUm: figureOf('Noise', 'µm', 0.05, [0, 20]),
      driftUmPerMin: figureOf('Drift', 'µm/min', 0.01, [-20, 20]),
      /** How many seconds of the test pass in one of the clock. */
      speed: figureOf('Test speed', '×', 30, [1, 2000]),
    },
    {
      'lid open': 'A crystal can fly off under pressure. Close the lid before you start.',
      'no pressure': 'Check the compressor and its hose.',
    },
  ),
  'leak-tester-serial': reached({
    device: 'leak-tester',
    name: 'Tester on a serial port',
    what: 'For testers that send time, pressure and deflection as a line of text per reading. Start the test and release the pressure at the tester.',
    runs: 'browser',
    does: ['trace'],
    fields: {
      from: serialFields.from,
      baud: serialFields.baud,
      columns: freeMono('Columns with their units', {
        max: 120,
        helper: 'blank where the tester sends a heading',
        example: 'time (s); pressure (bar); deflection (µm)',
      }),
      speed: playedFaster,
    },
  }),
  'leak-tester-folder': reached({
    device: 'leak-tester',
    name: 'Tester that saves files',
    what: 'For testers that save each test as a CSV or JSON file. Start the test and release the pressure at the tester.',
    runs: 'server',
    does: ['trace'],
    fields: {
      from: choice('Files come from', ['tester', 'recording'], 'tester'),
      speed: playedFaster,
    },
  }),
  'camera-stand-in': standIn(
    'camera',
    ['picture'],
    { shows: choice('Picture shown', ['movement', 'back', 'leaked cell'], 'movement') },
    { 'no picture': 'Remove the lens cap, or add light.' },
  ),
  'label-printer-stand-in': standIn(
    'label-printer',
    ['print label'],
    {},
    {
      'out of labels': 'Insert a new roll of labels.',
      jammed: 'Open the printer and pull the jammed label out.',
    },
  ),
  'message-outbox-stand-in': standIn(
    'message-outbox',
    ['tell the owner'],
    {},
    { 'no line': 'Try again later, or ring the owner.' },
  ),
  'supplier-stand-in': standIn(
    'supplier',
    ['order'],
    {
      leadHours: figureOf('Delivery time', 'h', 20, [0, 2000]),
      wrongPercent: figureOf('Share of lines with a wrong cell', '%', 5, [0, 100]),
      shortPercent: figureOf('Share of lines delivered short', '%', 8, [0, 100]),
    },
    { 'closed for the day': 'Order again in the morning.' },
  ),
} as const;

export type DriverId = keyof typeof DRIVERS;
export type DriverSettings = {
  readonly [D in DriverId]: ValuesOf<(typeof DRIVERS)[D]['fields']>;
};
type RunBy<R extends Where> = {
  readonly [D in DriverId]: (typeof DRIVERS)[D] extends Reached<DriverSettings[D], R> ? D : never;
}[DriverId];
export type ServerDriverId = RunBy<'server'>;
export type BrowserDriverId = RunBy<'browser'>;

/** Any driver, where it does not matter which. */
export type AnyDriver = Omit<Reached<unknown, Where>, 'fields'> & {
  readonly fields: AnyFields;
  readonly faults?: Readonly<Record<string, string>>;
};

/** What is known of a driver beforehand. */
export function driverOf(id: DriverId): AnyDriver {
  return DRIVERS[id];
}

/** The drivers that reach a device, the one it begins with first. */
export function driversOf(device: DeviceId): readonly [DriverId, ...DriverId[]] {
  // Each device has at least its stand-in.
  return (Object.keys(DRIVERS) as DriverId[]).filter(
    (id) => DRIVERS[id].device === device,
  ) as unknown as readonly [DriverId, ...DriverId[]];
}

/** The settings of a driver: their schema, and those it begins with. */
export function driverSettings<D extends DriverId>(
  id: D,
): { readonly schema: z.ZodType<DriverSettings[D]>; readonly start: DriverSettings[D] } {
  const fields = DRIVERS[id].fields as Fields<DriverSettings[D]>;
  // Every setting of a driver has a value to begin with.
  return { schema: schemaOf(fields), start: blankOf(fields) as DriverSettings[D] };
}

/**
 * The one contract of a driver, wherever it runs: it is asked for something, and says bit by bit what comes of it. A fault is
 * something it says, never an exception; it ends with what was asked for, or with a fault.
 */
export interface Driver<D extends DriverId, World> {
  ask(asked: DeviceAsk, settings: DriverSettings[D], world: World): AsyncGenerator<DeviceSays>;
}

/** A device at this counter. */
export interface DeviceState {
  readonly id: DeviceId;
  readonly name: string;
  readonly connected: boolean;
  readonly driver: DriverId;
  readonly settings: DriverSettings[DriverId];
  /** What it can be asked, as it is reached now. */
  readonly does: readonly Ask[];
  /** What ails it just now, in words; null when it works, or where that shows only as it is asked. */
  readonly fault: string | null;
  /** Where its files are expected, on the server; null where it writes none. */
  readonly folder: string | null;
  /** What went out through it last, the newest first. */
  readonly output: readonly { readonly words: string; readonly jobId: string; readonly atUtc: string }[];
}

const driverId = z.enum(Object.keys(DRIVERS) as [DriverId, ...DriverId[]], {
  error: `Connected by: one of ${Object.keys(DRIVERS).join(', ')}.`,
});

export const deviceChange = z.strictObject({
  connected: z.boolean().optional(),
  driver: driverId.optional(),
  settings: z.unknown().optional(),
});
