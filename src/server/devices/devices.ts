import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { setTimeout as pause } from 'node:timers/promises';
import {
  type DEVICE_FAULTS,
  DEVICE_IDS,
  type DeviceAsk,
  type DeviceId,
  type DeviceSays,
  type DeviceSettings,
  deviceSettings,
  type DeviceState,
} from '../../contract';
import type { CellTable } from '../../core/craft/cells';
import {
  caliperText,
  isVented,
  phaseAt,
  simulateDelivery,
  simulateReading,
  simulateTrace,
  type TraceSample,
} from '../../core/craft/devices';
import { measures } from '../../core/craft/health';
import { figure } from '../../core/craft/judgement';
import { addMinutes, localDay } from '../../core/craft/time';
import { quantities } from '../../core/craft/units';
import type { AttachmentStore } from '../attachments/attachments';
import { here } from '../here';
import type { Clock } from '../store/clock';
import type { Db } from '../store/database';

/**
 * What every outside device offers, real or a stand-in: connect and disconnect it, ask it for something and hear
 * what it says bit by bit, and learn what ails it. A fault is something a device says, never an exception.
 */
export interface Device<K extends DeviceId> {
  readonly id: K;
  readonly name: string;
  readonly start: DeviceSettings[K];
  /** What to do about each fault. */
  readonly faults: Readonly<Record<(typeof DEVICE_FAULTS)[K][number], string>>;
  /** Whether it can do what is asked. */
  readonly does: readonly DeviceAsk['ask'][];
  ask(asked: DeviceAsk, settings: DeviceSettings[K], world: World): AsyncGenerator<DeviceSays>;
}

/** What a stand-in needs of the shop. */
export interface World {
  /** Another number at each reading, so that noise differs and a test can repeat it. */
  readonly seed: number;
  readonly attachments: AttachmentStore;
  readonly write: (words: string, jobId: string, technicianId: string) => void;
  readonly ticketOf: (jobId: string) => string | null;
  readonly nowUtc: () => string;
  readonly zone: () => string;
  readonly table: () => CellTable;
  /** How the owner of a job is reached, or null where they left nothing. */
  readonly reach: (jobId: string) => 'phone' | 'e-mail' | null;
}

const UNPLUGGED = 'Plug it in.';
/** A caliper on metal is good to this, mm. */
const CALIPER_NOISE_MM = 0.02;
const CALIPER_STEP_MM = 0.01;

const caliper: Device<'caliper'> = {
  id: 'caliper',
  name: 'Caliper',
  start: { valueMm: 30.5, unit: 'mm', fault: 'none' },
  faults: { 'battery low': 'Change its cell; the last figure may be wrong.', unplugged: UNPLUGGED },
  does: ['length'],
  async *ask(_asked, settings, { seed }) {
    const value = simulateReading(settings.valueMm, CALIPER_NOISE_MM, CALIPER_STEP_MM, seed);
    yield await Promise.resolve({ says: 'figure', value, text: caliperText(value, settings.unit) });
  },
};

const benchMeter: Device<'bench-meter'> = {
  id: 'bench-meter',
  name: 'Bench meter',
  start: {
    restVoltageV: 1.31,
    loadedVoltageV: 1.12,
    currentUA: 1.04,
    stoppedCurrentUA: 0.21,
    coilKOhm: 1.82,
    lowestRunningV: 1.14,
    rateSPerDay: 0.32,
    pulsesEveryS: 1,
    noisePercent: 0.3,
    fault: 'none',
  },
  faults: { 'probe open': 'Set the probes on cell or coil again.', unplugged: UNPLUGGED },
  does: ['measure', 'pulses'],
  async *ask(asked, settings, { seed }) {
    if (asked.ask === 'pulses') {
      yield await Promise.resolve({ says: 'pulses', everyS: settings.pulsesEveryS });
      return;
    }
    if (asked.ask !== 'measure') return;
    const { quantity } = measures[asked.measure];
    const { digits, unit } = quantities[quantity];
    const true_ = settings[asked.measure];
    const value = simulateReading(
      true_,
      Math.abs(true_) * (settings.noisePercent / 100),
      10 ** -digits,
      seed,
    );
    const open = 'open' in quantities[quantity] && true_ >= quantities.resistanceKOhm.open;
    yield await Promise.resolve(
      open
        ? { says: 'figure', value: true_, text: 'OL' }
        : { says: 'figure', value, text: `${figure(value, digits)} ${unit}` },
    );
  },
};

const lightMeter: Device<'light-meter'> = {
  id: 'light-meter',
  name: 'Light meter',
  start: { lux: 9500, noisePercent: 2, fault: 'none' },
  faults: { 'cap on': 'Take the cap off its cell.', unplugged: UNPLUGGED },
  does: ['light'],
  async *ask(_asked, { lux, noisePercent }, { seed }) {
    const value = Math.max(0, simulateReading(lux, lux * (noisePercent / 100), 1, seed));
    yield await Promise.resolve({ says: 'figure', value, text: `${value} lx` });
  },
};

const winder: Device<'winder'> = {
  id: 'winder',
  name: 'Winder',
  start: { turnsAnHour: 900, fault: 'none' },
  faults: {
    'stands still': 'Set the watch in its cup again, and see that the cup turns.',
    unplugged: UNPLUGGED,
  },
  does: ['turns'],
  async *ask(_asked, { turnsAnHour }) {
    yield await Promise.resolve({ says: 'figure', value: turnsAnHour, text: `${turnsAnHour} turns an hour` });
  },
};

/** Samples come in handfuls where a test runs much faster than the clock. */
const MOST_A_SECOND = 60;

const leakTester: Device<'leak-tester'> = {
  id: 'leak-tester',
  name: 'Leak tester',
  start: {
    stiffnessUmPerBar: 4.2,
    settlesPercent: 3,
    settlesInS: 6,
    volumeCm3: 1.4,
    leakUgPerMin: null,
    leaksAt: 3,
    leakSide: 'side',
    gross: 'no',
    noiseUm: 0.05,
    driftUmPerMin: 0.01,
    speed: 30,
    fault: 'none',
  },
  faults: {
    'lid open': 'Close the lid: a crystal can fly.',
    'no pressure': 'Look at the compressor and its hose.',
    unplugged: UNPLUGGED,
  },
  does: ['trace', 'change trace', 'tank'],
  async *ask(asked, settings, { seed }) {
    const { gross, leakUgPerMin, settlesPercent, speed, leaksAt, leakSide } = settings;
    if (asked.ask === 'tank') {
      const leaks = gross === 'yes' || leakUgPerMin !== null;
      yield await Promise.resolve({
        says: 'bubbles',
        at: leaks ? { side: leakSide, clock: leaksAt } : null,
        words: leaks ? 'Bubbles rise.' : 'Nothing rises.',
      });
      return;
    }
    if (asked.ask === 'change trace') {
      const running = runs.get(asked.run);
      const refused = whyNotChanged(running, asked.seconds);
      if (running === undefined || refused !== null) {
        yield await Promise.resolve({
          says: 'fault',
          words: refused ?? 'That test is over.',
          whatToDo: 'Run it again with the time you want.',
        });
        return;
      }
      if (asked.seconds === null) running.ends = true;
      else running.seconds = asked.seconds;
      yield {
        says: 'done',
        words: asked.seconds === null ? 'The test ends here.' : `It is watched for ${asked.seconds} s.`,
      };
      return;
    }
    if (asked.ask !== 'trace') return;
    const simulated = (seconds: number): TraceSample[] =>
      simulateTrace(
        { ...settings, settlesShare: settlesPercent / 100, gross: gross === 'yes', leakUgPerMin },
        asked.pressureBar,
        seconds,
        seed,
      );
    const running: Running = { seconds: asked.seconds, vented: false, ends: false };
    if (asked.run !== undefined) runs.set(asked.run, running);
    try {
      let [samples, seconds] = [simulated(asked.seconds), asked.seconds];
      const handful = Math.max(1, Math.round(speed / MOST_A_SECOND));
      let shown = 0;
      for (let i = 0; i < samples.length && !running.ends; i += 1) {
        if (running.seconds !== seconds && !running.vented) {
          // The same seed shows the same up to here, and watches on from it.
          seconds = running.seconds;
          samples = simulated(seconds);
        }
        const sample = samples[i];
        if (sample === undefined) break;
        const phase = phaseAt(samples, i);
        running.vented ||= isVented(phase);
        yield { says: 'sample', sample, phase, ofS: samples.at(-1)?.atS ?? 0 };
        shown += 1;
        if (i % handful === 0) await pause((1000 * handful) / speed);
      }
      yield { says: 'trace', points: shown };
    } finally {
      if (asked.run !== undefined) runs.delete(asked.run);
    }
  },
};

/** A test that runs just now, as it is to go on. */
interface Running {
  seconds: number;
  vented: boolean;
  ends: boolean;
}
const runs = new Map<string, Running>();

/** Why a running test is not given another time; null where it is, or where it is to end. */
function whyNotChanged(running: Running | undefined, seconds: number | null): string | null {
  if (running === undefined || seconds === null) return null;
  if (running.vented) return 'The pressure is off already.';
  return seconds > running.seconds
    ? null
    : `It already runs for ${running.seconds} s: a running test can only be given more time.`;
}

const PICTURES: Readonly<Record<DeviceSettings['camera']['shows'], string>> = {
  movement: 'movement.png',
  back: 'back.png',
  'leaked cell': 'leaked-cell.png',
};

const camera: Device<'camera'> = {
  id: 'camera',
  name: 'Camera',
  start: { shows: 'movement', fault: 'none' },
  faults: { 'no picture': 'Take the cap off, or give it light.', unplugged: UNPLUGGED },
  does: ['picture'],
  async *ask(asked, settings, { attachments }) {
    if (asked.ask !== 'picture') return;
    const picture = readFileSync(here(import.meta.url, 'pictures', PICTURES[settings.shows]));
    const kept = await attachments.keep(Readable.from([picture]), {
      name: `${settings.shows}.png`,
      technicianId: asked.technicianId,
    });
    if (kept.outcome === 'kept') yield { says: 'picture', attachment: kept.attachment };
  },
};

const labelPrinter: Device<'label-printer'> = {
  id: 'label-printer',
  name: 'Label printer',
  start: { fault: 'none' },
  faults: {
    'out of labels': 'Put a new roll in.',
    jammed: 'Open it and pull the label out along its way.',
    unplugged: UNPLUGGED,
  },
  does: ['print label'],
  async *ask(asked, _settings, { ticketOf, write }) {
    if (asked.ask !== 'print label') return;
    const ticket = ticketOf(asked.jobId);
    if (ticket === null) {
      yield { says: 'fault', words: 'There is no such job.', whatToDo: 'Open the job and print from there.' };
      return;
    }
    write(`Label ${ticket}`, asked.jobId, asked.technicianId);
    yield await Promise.resolve({ says: 'done', words: `Label ${ticket} printed.` });
  },
};

const MESSAGES = {
  ready: 'your watch is ready to collect',
  'part awaited': 'your watch waits for a part',
  'please ring': 'please ring us about your watch',
  'next visit': 'your watch is due for its next cell: come by before it stops',
} as const;

const messageOutbox: Device<'message-outbox'> = {
  id: 'message-outbox',
  name: 'Message outbox',
  start: { fault: 'none' },
  faults: { 'no line': 'Try again later, or ring the owner.', unplugged: UNPLUGGED },
  does: ['tell the owner'],
  async *ask(asked, _settings, { ticketOf, reach, write }) {
    if (asked.ask !== 'tell the owner') return;
    const way = reach(asked.jobId);
    const ticket = ticketOf(asked.jobId);
    if (way === null || ticket === null) {
      yield {
        says: 'fault',
        words: 'The owner left neither phone nor e-mail.',
        whatToDo: 'Tell them when they come by.',
      };
      return;
    }
    // The record names no person: the address is looked up when the message goes.
    const words = `By ${way} to the owner of ${ticket}: ${MESSAGES[asked.what]}`;
    write(words, asked.jobId, asked.technicianId);
    yield await Promise.resolve({ says: 'done', words: `${words}.` });
  },
};

const HOUR_MINUTES = 60;

const supplier: Device<'supplier'> = {
  id: 'supplier',
  name: 'Supplier',
  start: { leadHours: 20, wrongPercent: 5, shortPercent: 8, fault: 'none' },
  faults: { 'closed for the day': 'Order again in the morning.', unplugged: UNPLUGGED },
  does: ['order'],
  async *ask(asked, { leadHours, wrongPercent, shortPercent }, { nowUtc, table, zone }) {
    if (asked.ask !== 'order') return;
    const now = nowUtc();
    const dueAt = addMinutes(now, leadHours * HOUR_MINUTES);
    // An order always comes to the same delivery, however often it is asked about.
    const seed = Number.parseInt(asked.order.id.replaceAll('-', '').slice(-8), 16);
    yield await Promise.resolve({
      says: 'order taken',
      dueAt,
      noteNumber: `DN-${(seed % 90_000) + 10_000}`,
      lines: simulateDelivery(
        asked.order.lines,
        { wrongShare: wrongPercent / 100, shortShare: shortPercent / 100 },
        table(),
        localDay(dueAt, zone()),
        seed,
      ),
    });
  },
};

const DEVICES: { readonly [K in DeviceId]: Device<K> } = {
  caliper,
  'bench-meter': benchMeter,
  'light-meter': lightMeter,
  winder,
  'leak-tester': leakTester,
  camera,
  'label-printer': labelPrinter,
  'message-outbox': messageOutbox,
  supplier,
};

const LAST_OUTPUT = 8;

/** The devices of the bench: how each stands, and the door through which each is asked. */
export function deviceHub(
  db: Db,
  clock: Clock,
  attachments: AttachmentStore,
  shop: Pick<World, 'ticketOf' | 'reach' | 'nowUtc' | 'zone' | 'table'>,
) {
  const rowOf = db.prepare<[string], { connected: 0 | 1; settings: string }>(
    'SELECT connected, settings FROM device WHERE id = ?',
  );
  const writeRow = db.prepare<[string, 0 | 1, string]>(
    `INSERT INTO device (id, connected, settings) VALUES (?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET connected = excluded.connected, settings = excluded.settings`,
  );
  const insertOutput = db.prepare<[string, string, string, string, string]>(
    'INSERT INTO device_output (device_id, job_id, words, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?)',
  );
  const outputOf = db.prepare<[string, number], DeviceState['output'][number]>(
    `SELECT words, job_id AS jobId, recorded_at AS atUtc FROM device_output
     WHERE device_id = ? ORDER BY sequence DESC LIMIT ?`,
  );
  let readings = 0;

  const state = (id: DeviceId): DeviceState => {
    const { name, start } = DEVICES[id];
    const row = rowOf.get(id);
    // Settings kept by an older program lack what it did not simulate yet.
    const stored = deviceSettings[id].safeParse({
      ...start,
      ...(row ? (JSON.parse(row.settings) as object) : {}),
    });
    const settings = stored.success ? stored.data : start;
    return {
      id,
      name,
      connected: row?.connected === 1,
      settings,
      fault: settings.fault === 'none' ? null : settings.fault,
      output: outputOf.all(id, LAST_OUTPUT),
    };
  };

  return {
    states: (): DeviceState[] => DEVICE_IDS.map(state),
    state,
    /** Connects or disconnects a device, or sets what it simulates. */
    change(
      id: DeviceId,
      change: { readonly connected?: boolean; readonly settings?: DeviceSettings[DeviceId] },
    ): DeviceState {
      const before = state(id);
      writeRow.run(
        id,
        (change.connected ?? before.connected) ? 1 : 0,
        JSON.stringify(change.settings ?? before.settings),
      );
      return state(id);
    },
    /** Asks a device; whatever ails it comes as the one thing it says. */
    async *ask<K extends DeviceId>(id: K, asked: DeviceAsk): AsyncGenerator<DeviceSays> {
      const device: Device<K> = DEVICES[id];
      const now = state(id);
      if (!device.does.includes(asked.ask)) {
        yield {
          says: 'fault',
          words: `The ${device.name.toLowerCase()} cannot do that.`,
          whatToDo: 'Ask another device.',
        };
        return;
      }
      if (!now.connected) {
        yield {
          says: 'fault',
          words: `The ${device.name.toLowerCase()} is not connected.`,
          whatToDo: 'Connect it on the devices page, or type the figure.',
        };
        return;
      }
      if (now.fault !== null) {
        yield {
          says: 'fault',
          words: `${device.name}: ${now.fault}.`,
          whatToDo: (device.faults as Readonly<Record<string, string>>)[now.fault] ?? UNPLUGGED,
        };
        return;
      }
      readings += 1;
      yield* device.ask(asked, now.settings as DeviceSettings[K], {
        seed: readings,
        attachments,
        ...shop,
        write: (words, jobId, technicianId) =>
          void insertOutput.run(id, jobId, words, technicianId, clock.nowUtc()),
      });
    },
  };
}
