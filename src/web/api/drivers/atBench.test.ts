import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type BrowserDriverId, type DeviceAsk, type DeviceSays, DRIVERS, driverOf } from '../../../contract';
import type { Measure } from '../../../core/craft/health';
import { askAtBench, type Bench } from './atBench';
import { type Line, NoLine } from './line';
import { expectTyped, giveTyped } from './typed';

const RECORDINGS = join(process.cwd(), 'src/web/api/drivers/recordings');

/** A port on which a device sends these texts, each as a piece, and keeps what is written to it. */
class Port implements Line {
  readonly written: string[] = [];
  closed = 0;
  constructor(
    private readonly sends: readonly string[],
    private readonly breaks = false,
  ) {}
  async *bytes(): AsyncGenerator<Uint8Array> {
    for (const text of this.sends) yield await Promise.resolve(new TextEncoder().encode(text));
    if (this.breaks) throw new Error('The device has been lost.');
  }
  write(text: string): Promise<void> {
    this.written.push(text);
    return Promise.resolve();
  }
  close(): Promise<void> {
    this.closed += 1;
    return Promise.resolve();
  }
}

const benchWith = (port: Line | Error, signal = new AbortController().signal): Bench => ({
  signal,
  openPort: () => (port instanceof Error ? Promise.reject(port) : Promise.resolve(port)),
  recording: (name) => Promise.resolve(readFileSync(join(RECORDINGS, `${name}.jsonl`), 'utf8')),
});

async function said(
  driver: BrowserDriverId,
  settings: object,
  asked: DeviceAsk,
  bench: Bench,
): Promise<DeviceSays[]> {
  const all: DeviceSays[] = [];
  for await (const says of askAtBench(driver, settings, asked, bench)) all.push(says);
  return all;
}

const SERIAL = { from: 'serial port', baud: 9600, command: '', recorded: 'voltage' };
const measure = (what: Measure): DeviceAsk => ({ ask: 'measure', measure: what });
const meter = (port: Line | Error, settings: object = {}, what: Measure = 'restVoltageV') =>
  said('bench-meter-serial', { ...SERIAL, ...settings }, measure(what), benchWith(port));

describe('a meter on a serial line', () => {
  it('gives its first whole reading: one begins to listen in the middle of a line', async () => {
    const port = new Port(['2 V DC\r\n1.5', '52 V DC\r\n1.551 V DC\r\n']);
    expect(await meter(port)).toEqual([{ says: 'figure', value: 1.552, text: '1.552 V' }]);
    expect(port.closed).toBe(1);
  });

  it('is asked by its command, and the first line is its answer', async () => {
    const port = new Port(['1.552 V DC\r']);
    expect(await meter(port, { command: 'READ?' })).toMatchObject([{ says: 'figure', value: 1.552 }]);
    expect(port.written).toEqual(['READ?\r\n']);
  });

  it('set to something else, or silent, gives no figure and says what to do', async () => {
    expect(await meter(new Port(['x\r\n1.552 V DC\r\n']), {}, 'currentUA')).toEqual([
      {
        says: 'fault',
        words: 'The meter shows V, “1.552 V DC”.',
        whatToDo: 'Set the meter to direct current (µA DC), then take the reading again.',
      },
    ]);
    expect(await meter(new Port([]))).toMatchObject([{ says: 'fault', words: 'The meter sent no data.' }]);
    expect(await meter(new Port(['1.552 V DC\r\n']))).toMatchObject([{ says: 'fault' }]);
    expect(await meter(new Port([]), {}, 'rateSPerDay')).toMatchObject([
      { says: 'fault', whatToDo: 'Enter the figure by hand.' },
    ]);
  });

  it('whose line cannot be opened or breaks off says so, and its port is let go', async () => {
    expect(await meter(new NoLine('No port is chosen.', 'Choose one.'))).toEqual([
      { says: 'fault', words: 'No port is chosen.', whatToDo: 'Choose one.' },
    ]);
    const lost = new Port(['half a li'], true);
    expect(await meter(lost)).toMatchObject([
      { says: 'fault', words: 'The connection to the device was lost.' },
    ]);
    expect(lost.closed).toBe(1);
  });

  it.each([
    ['voltage', 'restVoltageV', 1.5, 1.6],
    ['current', 'currentUA', 1, 1.1],
    ['resistance', 'coilKOhm', 1.8, 1.85],
  ] as const)('is stood in for by a recording of %s', async (recorded, what, from, to) => {
    const [says] = await meter(new Error('no port is opened'), { from: 'recording', recorded }, what);
    expect(says?.says === 'figure' ? says.value : says).toBeGreaterThan(from);
    expect(says?.says === 'figure' ? says.value : says).toBeLessThan(to);
  });

  it('measures light, too', async () => {
    const asked = { ask: 'light' } as const;
    const settings = { from: 'recording', baud: 9600, command: '' };
    const [says] = await said('light-meter-serial', settings, asked, benchWith(new Error('none')));
    expect(says?.says === 'figure' ? says.value : says).toBeCloseTo(5230, -2);
  });
});

const TESTER = { from: 'serial port', baud: 9600, columns: '', speed: 2000 };
const trace: DeviceAsk = { ask: 'trace', pressureBar: 3, seconds: 60 };
const partsOf = (all: readonly DeviceSays[]): string =>
  all.map((says) => (says.says === 'record part' ? says.text : '')).join('');
const samplesOf = (all: readonly DeviceSays[]) =>
  all.flatMap((says) => (says.says === 'sample' ? [says] : []));

describe('a tester on a serial line', () => {
  it('gives its record as it sent it, and each reading as it comes, without a phase it does not know', async () => {
    const all = await said(
      'leak-tester-serial',
      { ...TESTER, from: 'recording' },
      trace,
      benchWith(new Error('none')),
    );
    const sent = readFileSync('src/server/devices/drivers/recordings/recorded-test.csv', 'utf8');
    expect(partsOf(all)).toBe(sent.replaceAll('\r\n', '\n').replace('µm', 'um'));
    expect(samplesOf(all)).toHaveLength(166);
    expect(samplesOf(all)[20]).toMatchObject({ phase: null, ofS: null });
    expect(all.at(-1)).toMatchObject({ says: 'record' });
  });

  it('that sends no heading is read by the columns that were set, from its first whole line', async () => {
    const port = new Port(['.00;5.2\r\n', '1;3,00;5,25\r\n2;3,00', ';5,26\r\n3;3,00;5']);
    const all = await said(
      'leak-tester-serial',
      { ...TESTER, columns: 'time (s); pressure (bar); deflection (µm)' },
      trace,
      benchWith(port),
    );
    expect(samplesOf(all).map(({ sample }) => sample)).toEqual([
      { atS: 1, overBar: 3, deflectionUm: 5.25 },
      { atS: 2, overBar: 3, deflectionUm: 5.26 },
    ]);
    expect(partsOf(all)).not.toContain('3;3,00;5');
  });

  it('that sends nothing to be read, or is given up, gives no record', async () => {
    const all = await said('leak-tester-serial', TESTER, trace, benchWith(new Port(['hello\r\nworld\r\n'])));
    expect(all.at(-1)).toMatchObject({
      says: 'fault',
      words: 'The tester sent data, but no readings could be recognized in it.',
    });
    const stopped = new AbortController();
    const heard: DeviceSays[] = [];
    for await (const says of askAtBench(
      'leak-tester-serial',
      { ...TESTER, from: 'recording', speed: 200 },
      trace,
      benchWith(new Error('none'), stopped.signal),
    )) {
      heard.push(says);
      if (says.says === 'sample') stopped.abort();
    }
    expect(samplesOf(heard)).toHaveLength(1);
    expect(heard.at(-1)?.says).toBe('sample');
  });
});

describe('a caliper that types', () => {
  const typed = (text: string) => {
    const asked = said('caliper-keyboard', {}, { ask: 'length' }, benchWith(new Error('none')));
    // As a caliper is pressed: once it is waited for.
    return Promise.all([asked, new Promise((resolve) => setTimeout(resolve, 5)).then(() => giveTyped(text))]);
  };

  it('gives what it typed to whoever waits for it, and to nobody else', async () => {
    expect(giveTyped('14.20')).toBe(false);
    const [says, taken] = await typed('+0014.20 mm');
    expect(taken).toBe(true);
    expect(says.at(-1)).toEqual({ says: 'figure', value: 14.2, text: '+0014.20 mm' });
    expect(giveTyped('14.20')).toBe(false);
  });

  it('may type before the way to it is known, and is heard all the same', async () => {
    const end = expectTyped(new AbortController().signal);
    expect([giveTyped('14.20'), giveTyped('15.30')]).toEqual([true, false]);
    const all = await said('caliper-keyboard', {}, { ask: 'length' }, benchWith(new Error('none')));
    expect(all.at(-1)).toEqual({ says: 'figure', value: 14.2, text: '14.20' });
    end();
    const stopped = new AbortController();
    expectTyped(stopped.signal);
    stopped.abort();
    expect(giveTyped('14.20')).toBe(false);
  });

  it('gives no length from what is none, and is no longer waited for once that was stopped', async () => {
    const [says] = await typed('T1024-7');
    expect(says.at(-1)).toMatchObject({ says: 'fault', words: '“T1024-7” is not a length.' });
    const stopped = new AbortController();
    const asked = said(
      'caliper-keyboard',
      {},
      { ask: 'length' },
      benchWith(new Error('none'), stopped.signal),
    );
    await new Promise((resolve) => setTimeout(resolve, 5));
    stopped.abort();
    expect((await asked).at(-1)?.says).toBe('fault');
    expect(giveTyped('14.20')).toBe(false);
  });
});

it('a driver of the browser is asked nothing but what it says it does, and of another nothing is known', async () => {
  for (const id of Object.keys(DRIVERS) as (keyof typeof DRIVERS)[])
    if (driverOf(id).runs === 'browser') expect(driverOf(id).does.length).toBeGreaterThan(0);
  const all: DeviceSays[] = [];
  for await (const says of askAtBench('a newer one', {}, { ask: 'light' }, benchWith(new Error('none'))))
    all.push(says);
  expect(all).toMatchObject([{ says: 'fault', whatToDo: 'Reload the page, then try again.' }]);
});
