import {
  type Ask,
  type DeviceAsk,
  DEVICE_IDS,
  type DeviceId,
  DEVICES,
  type DeviceSays,
  type DeviceState,
  type Driver,
  type DriverId,
  driverOf,
  type DriverSettings,
  driverSettings,
  driversOf,
  type ServerDriverId,
} from '../../contract';
import type { AttachmentStore } from '../attachments/attachments';
import type { Clock } from '../store/clock';
import { type Db, inTransaction } from '../store/database';
import { SERVER_DRIVERS } from './drivers/all';
import type { World } from './drivers/world';

const LAST_OUTPUT = 8;

/** What is kept of the devices: how each is reached, the settings of each driver, and what went out. */
function keptDevices(db: Db) {
  const rowOf = db.prepare<[string], { connected: 0 | 1; driver: string | null }>(
    'SELECT connected, driver FROM device WHERE id = ?',
  );
  const settingsOf = db
    .prepare<[string], string>('SELECT settings FROM driver_settings WHERE driver_id = ?')
    .pluck();
  const writeRow = db.prepare<[string, 0 | 1, string]>(
    `INSERT INTO device (id, connected, driver) VALUES (?, ?, ?)
     ON CONFLICT (id) DO UPDATE SET connected = excluded.connected, driver = excluded.driver`,
  );
  const writeSettings = db.prepare<[string, string]>(
    `INSERT INTO driver_settings (driver_id, settings) VALUES (?, ?)
     ON CONFLICT (driver_id) DO UPDATE SET settings = excluded.settings`,
  );
  const insertOutput = db.prepare<[string, string, string, string, string]>(
    'INSERT INTO device_output (device_id, job_id, words, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?)',
  );
  const outputOf = db.prepare<[string, number], DeviceState['output'][number]>(
    `SELECT words, job_id AS jobId, recorded_at AS atUtc FROM device_output
     WHERE device_id = ? ORDER BY sequence DESC LIMIT ?`,
  );
  return {
    row: (id: DeviceId) => rowOf.get(id),
    output: (id: DeviceId) => outputOf.all(id, LAST_OUTPUT),
    wentOut: (id: DeviceId, jobId: string, words: string, by: string, atUtc: string): void =>
      void insertOutput.run(id, jobId, words, by, atUtc),
    write: inTransaction(
      db,
      (id: DeviceId, connected: boolean, driver: DriverId, changed: DriverSettings[DriverId] | null) => {
        writeRow.run(id, connected ? 1 : 0, driver);
        if (changed !== null) writeSettings.run(driver, JSON.stringify(changed));
      },
    ),
    settings(driver: DriverId): DriverSettings[DriverId] {
      const { schema, start } = driverSettings(driver);
      const stored = settingsOf.get(driver);
      // Settings kept by an older program lack what it did not know yet.
      const read = schema.safeParse({ ...start, ...(stored ? (JSON.parse(stored) as object) : {}) });
      return read.success ? read.data : start;
    },
  };
}

/** The devices of the bench: how each stands, and the door through which each is asked. */
export function deviceHub(
  db: Db,
  clock: Clock,
  attachments: AttachmentStore,
  shop: Omit<World, 'seed' | 'attachments' | 'write'>,
) {
  const kept = keptDevices(db);
  let readings = 0;

  const state = (id: DeviceId): DeviceState => {
    const row = kept.row(id);
    const drivers = driversOf(id);
    // A driver that a newer program knew is none here.
    const driver = drivers.find((each) => each === row?.driver) ?? drivers[0];
    const now = kept.settings(driver);
    return {
      id,
      name: DEVICES[id].name,
      connected: row?.connected === 1,
      driver,
      settings: now,
      does: driverOf(driver).does,
      fault: 'fault' in now && now.fault !== 'none' ? now.fault : null,
      folder: driver === 'leak-tester-folder' ? shop.testerFolder : null,
      output: kept.output(id),
    };
  };

  return {
    states: (): DeviceState[] => DEVICE_IDS.map(state),
    state,
    /** Connects or disconnects a device, chooses how it is reached, or sets its driver. */
    change(
      id: DeviceId,
      change: {
        readonly connected?: boolean;
        readonly driver?: DriverId;
        readonly settings?: DriverSettings[DriverId];
      },
    ): DeviceState {
      const before = state(id);
      const driver = change.driver ?? before.driver;
      kept.write(id, change.connected ?? before.connected, driver, change.settings ?? null);
      return state(id);
    },
    /** Asks a device; whatever ails it comes as the one thing it says. */
    async *ask(id: DeviceId, asked: DeviceAsk): AsyncGenerator<DeviceSays> {
      const now = state(id);
      const refusal = whyNotAsked(now, asked.ask);
      if (refusal !== null) {
        yield refusal;
        return;
      }
      if (!isServerDriver(now.driver)) {
        yield { says: 'at the bench', driver: now.driver, settings: now.settings };
        return;
      }
      readings += 1;
      yield* askDriver(now.driver, asked, now.settings, {
        seed: readings,
        attachments,
        ...shop,
        write: (words, jobId, technicianId) => kept.wentOut(id, jobId, words, technicianId, clock.nowUtc()),
      });
    },
  };
}

function isServerDriver(driver: DriverId): driver is ServerDriverId {
  return driver in SERVER_DRIVERS;
}

/** Asks the driver; the settings are those of this driver, as its schema has read them. */
function askDriver<D extends ServerDriverId>(
  driver: D,
  asked: DeviceAsk,
  settings: DriverSettings[DriverId],
  world: World,
): AsyncGenerator<DeviceSays> {
  const own: Driver<D, World> = SERVER_DRIVERS[driver];
  return own.ask(asked, settings as DriverSettings[D], world);
}

/** What a device is asked to do, in words. */
const ASKED_WORDS: Readonly<Record<Ask, string>> = {
  length: 'measure a length',
  light: 'measure light',
  turns: 'report its speed',
  measure: 'take an electrical reading',
  pulses: 'detect motor pulses',
  trace: 'record a test',
  'change trace': 'change a running test',
  tank: 'watch for bubbles',
  picture: 'take a picture',
  'print label': 'print a label',
  'tell the owner': 'send a message',
  order: 'take an order',
};

/** Why a device is not asked, as a fault it says itself; null where it is. */
function whyNotAsked({ id, name, connected, driver, does, fault }: DeviceState, ask: Ask): DeviceSays | null {
  const { faults = {} } = driverOf(driver);
  const says = (words: string, whatToDo: string): DeviceSays => ({ says: 'fault', words, whatToDo });
  if (!does.includes(ask))
    return says(
      `As it is connected now, the ${name.toLowerCase()} cannot ${ASKED_WORDS[ask]}.`,
      driversOf(id).some((other) => driverOf(other).does.includes(ask))
        ? 'Choose another connection for it on the devices page, or enter the result by hand.'
        : 'Ask another device.',
    );
  if (!connected)
    return says(
      `The ${name.toLowerCase()} is not connected.`,
      'Connect it on the devices page, or enter the result by hand.',
    );
  if (fault !== null) return says(`${name}: ${fault}.`, faults[fault] ?? 'Check the device at the bench.');
  return null;
}
