import {
  type BrowserDriverId,
  type DeviceAsk,
  type DeviceSays,
  type Driver,
  type DriverSettings,
  driverSettings,
} from '../../../contract';
import { readMeterLine, type MeteredQuantity } from '../../../core/craft/devices';
import { measures } from '../../../core/craft/health';
import { openTraceReader } from '../../../core/craft/tightness';
import { readQuantity } from '../../../core/craft/units';
import { type Line, linesOf, NoLine, readRecording, recordedLine } from './line';
import { openPort } from './serialPort';
import { nextTyped } from './typed';

/** What a driver needs of the bench. */
export interface Bench {
  /** Set once nobody waits for the device any more. */
  readonly signal: AbortSignal;
  readonly openPort: (driver: BrowserDriverId, baud: number, signal: AbortSignal) => Promise<Line>;
  readonly recording: (name: RecordingName) => Promise<string>;
}

type RecordingName = keyof typeof RECORDINGS;
const RECORDINGS = {
  'meter-V': () => import('./recordings/meter-V.jsonl?raw'),
  'meter-A': () => import('./recordings/meter-A.jsonl?raw'),
  'meter-Ohm': () => import('./recordings/meter-Ohm.jsonl?raw'),
  'light-meter': () => import('./recordings/light-meter.jsonl?raw'),
  'leak-tester': () => import('./recordings/leak-tester.jsonl?raw'),
};

export const theBench = (signal: AbortSignal): Bench => ({
  signal,
  openPort,
  recording: async (name) => (await RECORDINGS[name]()).default,
});

/** A meter that sends by itself does so several times in this time, ms. */
const METER_MS = 6000;
const TYPED_MS = 60_000;
/** A tester that sends nothing for so long is done, ms. */
const TESTER_SILENT_MS = 15_000;
/** A technician starts the test at the tester within this time, ms. */
const TESTER_STARTS_MS = 600_000;

const fault = (words: string, whatToDo: string): DeviceSays => ({ says: 'fault', words, whatToDo });

interface Ended {
  readonly signal: AbortSignal;
  /** Puts the end off again. */
  readonly later: (ms: number) => void;
  readonly done: () => void;
}

/** A signal that is set when `signal` is, or after so long. */
function endAfter(ms: number, signal: AbortSignal): Ended {
  const own = new AbortController();
  const end = (): void => own.abort();
  let timer = setTimeout(end, ms);
  signal.addEventListener('abort', end, { once: true });
  if (signal.aborted) end();
  return {
    signal: own.signal,
    later: (next) => {
      clearTimeout(timer);
      timer = setTimeout(end, next);
    },
    done: () => {
      clearTimeout(timer);
      signal.removeEventListener('abort', end);
    },
  };
}

/** What a line says while `listen` hears it; a line that cannot be opened is a fault. */
async function* overLine(
  open: () => Promise<Line>,
  listen: (line: Line) => AsyncGenerator<DeviceSays>,
): AsyncGenerator<DeviceSays> {
  let line: Line | null = null;
  try {
    line = await open();
    yield* listen(line);
  } catch (error) {
    yield error instanceof NoLine
      ? fault(error.message, error.whatToDo)
      : fault('The connection to the device was lost.', 'Check the cable of the device, then try again.');
  } finally {
    await line?.close();
  }
}

interface Reading {
  readonly driver: BrowserDriverId;
  readonly quantity: MeteredQuantity;
  readonly recorded: RecordingName;
  readonly settings: Pick<DriverSettings['light-meter-serial'], 'from' | 'baud' | 'command'>;
}

/** One reading of a meter: the first line it sends from its beginning on. */
async function* readMeter(
  { driver, quantity, recorded, settings: { from, baud, command } }: Reading,
  bench: Bench,
): AsyncGenerator<DeviceSays> {
  const ended = endAfter(METER_MS, bench.signal);
  const open = async (): Promise<Line> =>
    from === 'recording'
      ? recordedLine(readRecording(await bench.recording(recorded)), 1, ended.signal)
      : bench.openPort(driver, baud, ended.signal);
  try {
    yield* overLine(open, async function* (line) {
      if (command !== '') await line.write(`${command}\r\n`);
      for await (const { text, whole } of linesOf(line.bytes())) {
        // What is asked for begins with its answer; else one may have come into the middle of a line.
        if (!whole && command === '') continue;
        const read = readMeterLine(text, quantity);
        yield read.verdict === 'read'
          ? { says: 'figure', value: read.value, text: read.text }
          : fault(read.reason, read.whatToDo);
        return;
      }
      yield fault(
        'The meter sent no data.',
        'Turn the meter on and start its data output. If it needs a command, enter the command on the devices page.',
      );
    });
  } finally {
    ended.done();
  }
}

/** What each quantity comes in on a meter, among those a reading of stage 4 asks for. */
const METERED = new Set<string>(['voltageV', 'currentUA', 'resistanceKOhm']);

const meter: Driver<'bench-meter-serial', Bench> = {
  async *ask(asked, settings, bench) {
    if (asked.ask !== 'measure') return;
    const { quantity, words } = measures[asked.measure];
    if (!METERED.has(quantity)) {
      yield fault(`A meter on a serial port cannot measure the ${words}.`, 'Enter the figure by hand.');
      return;
    }
    const recorded = ({ voltage: 'meter-V', current: 'meter-A', resistance: 'meter-Ohm' } as const)[
      settings.recorded
    ];
    yield* readMeter(
      { driver: 'bench-meter-serial', quantity: quantity as MeteredQuantity, recorded, settings },
      bench,
    );
  },
};

const lightMeter: Driver<'light-meter-serial', Bench> = {
  async *ask(_asked, settings, bench) {
    yield* readMeter(
      { driver: 'light-meter-serial', quantity: 'illuminanceLux', recorded: 'light-meter', settings },
      bench,
    );
  },
};

const caliper: Driver<'caliper-keyboard', Bench> = {
  async *ask(_asked, _settings, { signal }) {
    yield { says: 'waiting', words: 'Waiting for the caliper. Press its button' };
    const ended = endAfter(TYPED_MS, signal);
    const text = await nextTyped(ended.signal);
    ended.done();
    if (text === null) {
      yield fault(
        'No reading came from the caliper within one minute.',
        'Press “Take”, then press the button on the caliper.',
      );
      return;
    }
    const read = readQuantity(text, 'lengthMm');
    yield read.verdict === 'read'
      ? { says: 'figure', value: read.value, text: text.trim() }
      : fault(
          `“${text.trim().slice(0, 40)}” is not a length.`,
          'Measure again, or enter the figure by hand.',
        );
  },
};

/** Columns of a line that a tester sends. */
const columnsOf = (text: string): string[] => text.split(/[;\t]/.test(text) ? /[;\t]/ : /,/);

const tester: Driver<'leak-tester-serial', Bench> = {
  async *ask(asked, { from, baud, columns, speed }, bench) {
    if (asked.ask !== 'trace') return;
    const ended = endAfter(TESTER_STARTS_MS, bench.signal);
    const open = async (): Promise<Line> =>
      from === 'recording'
        ? recordedLine(readRecording(await bench.recording('leak-tester')), speed, ended.signal)
        : bench.openPort('leak-tester-serial', baud, ended.signal);
    try {
      yield* overLine(open, async function* (line) {
        yield { says: 'waiting', words: 'Waiting for the first reading of the tester' };
        const reader = openTraceReader();
        let [lines, points] = [0, 0];
        if (columns !== '') {
          reader.row(columnsOf(columns), lines);
          yield { says: 'record part', text: `${columns}\n` };
        }
        for await (const { text, whole } of linesOf(line.bytes())) {
          ended.later(TESTER_SILENT_MS);
          // Half a line would be a reading that nobody took.
          if (!whole && columns !== '') continue;
          lines += 1;
          if (/^\s*end\s*$/i.test(text)) break;
          yield { says: 'record part', text: `${text}\n` };
          const sample = reader.row(columnsOf(text), lines);
          if (sample === null) continue;
          points += 1;
          yield { says: 'sample', sample, phase: null, ofS: null };
        }
        if (bench.signal.aborted) return;
        yield points === 0
          ? fault(
              'The tester sent data, but no readings could be recognized in it.',
              'Set the tester to send time, pressure and deflection. Enter its columns in that device’s settings on the devices page.',
            )
          : { says: 'record', name: 'the tester, serial port' };
      });
    } finally {
      ended.done();
    }
  },
};

/** Every driver that runs in the browser. One that the contract lists and this does not is a compile error. */
const BROWSER_DRIVERS: { readonly [D in BrowserDriverId]: Driver<D, Bench> } = {
  'caliper-keyboard': caliper,
  'bench-meter-serial': meter,
  'light-meter-serial': lightMeter,
  'leak-tester-serial': tester,
};

function isBrowserDriver(driver: string): driver is BrowserDriverId {
  return driver in BROWSER_DRIVERS;
}

function askKnown<D extends BrowserDriverId>(
  driver: D,
  settings: unknown,
  asked: DeviceAsk,
  bench: Bench,
): AsyncGenerator<DeviceSays> {
  const { schema, start } = driverSettings(driver);
  const read = schema.safeParse(settings);
  const own: Driver<D, Bench> = BROWSER_DRIVERS[driver];
  return own.ask(asked, read.success ? read.data : start, bench);
}

/** Asks a device that hangs on this computer. Whatever goes wrong is said like a fault. */
export async function* askAtBench(
  driver: string,
  settings: unknown,
  asked: DeviceAsk,
  bench: Bench,
): AsyncGenerator<DeviceSays> {
  if (isBrowserDriver(driver)) yield* askKnown(driver, settings, asked, bench);
  else
    yield fault(
      'This page is older than the server and does not support this connection.',
      'Reload the page, then try again.',
    );
}
