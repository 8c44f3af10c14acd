import { setTimeout as pause } from 'node:timers/promises';
import { createHash } from 'node:crypto';
import { appendFileSync, mkdirSync, readdirSync, symlinkSync, writeFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join } from 'node:path';
import sharp from 'sharp';
import type {
  Attachment,
  DeviceAsk,
  DeviceId,
  DeviceSays,
  DriverSettings,
  DeviceState,
  JobResource,
  WatchResource,
  Problem,
} from '../contract';
import { Counter, newJob, technicianId } from '../testing/counter';
import { idOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

async function upload(bytes: Buffer | ReadableStream, name = 'photo.png', by = technicianId) {
  const sent = {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: bytes instanceof ReadableStream ? bytes : new Uint8Array(bytes),
    // A stream, whose length is not said beforehand, is sent before the answer is read.
    duplex: 'half',
  };
  const response = await fetch(
    `${counter.url}/api/attachments?technicianId=${by}&name=${encodeURIComponent(name)}`,
    sent,
  );
  return { status: response.status, body: (await response.json()) as Attachment & Problem };
}

const onDisk = (): string[] =>
  readdirSync(join(counter.dataDir, 'attachments'), { recursive: true, withFileTypes: true })
    .filter((each) => each.isFile())
    .filter((each) => !each.name.endsWith('.webp'))
    .map((each) => each.name);

/** What is left once the server had time to clear away: a sender cut off in the middle may know of it before. */
async function leftOnDisk(): Promise<string[]> {
  for (let tries = 0; tries < 40 && onDisk().length > 0; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 50));
  return onDisk();
}

describe('files', () => {
  it('are kept by their content, typed by their content, and given back as they were kept', async () => {
    const { status, body } = await upload(PNG, 'inside before.txt');
    expect([status, body.contentType, body.name]).toEqual([201, 'image/png', 'inside before.txt']);
    await upload(PNG, 'the same again.png');
    expect(onDisk()).toEqual([body.hash]);
    const response = await fetch(`${counter.url}/api/attachments/${body.hash}`);
    const kept = Buffer.from(await response.arrayBuffer());
    expect(kept).toHaveLength(body.bytes);
    expect(createHash('sha256').update(kept).digest('hex')).toBe(body.hash);
    const { data, info } = await sharp(kept).raw().toBuffer({ resolveWithObject: true });
    expect(data).toEqual(await sharp(PNG).raw().toBuffer());
    expect([info.width, info.height]).toEqual([1, 1]);
    expect(response.headers.get('content-type')).toBe('image/png');
    expect(response.headers.get('content-security-policy')).toContain('sandbox');
    expect((await counter.get(`/api/attachments/${'0'.repeat(64)}`)).status).toBe(404);
    expect((await counter.get('/api/attachments/..%2f..%2fwax-lantern.db')).status).toBe(404);
  });

  it('that are a page are never shown as one', async () => {
    const { body } = await upload(Buffer.from('<html><script>alert(1)</script></html>'), 'page.html');
    const response = await fetch(`${counter.url}/api/attachments/${body.hash}`);
    expect(response.headers.get('content-type')).toBe('application/octet-stream');
    expect(response.headers.get('content-disposition')).toContain('attachment');
    await response.arrayBuffer();
  });

  it('of 60 MB are refused in words, said beforehand or found on the way, and nothing is left', async () => {
    const big = Buffer.alloc(60 * 1024 * 1024);
    for (const sent of [big, new Blob([big]).stream()])
      expect(await upload(sent)).toMatchObject({
        status: 413,
        body: { detail: 'The file is too large. A file can have at most 50 MB.' },
      });
    expect(await leftOnDisk()).toEqual([]);
  });

  it('that break off leave nothing; empty ones and those of a stranger are refused', async () => {
    await new Promise<void>((resolve) => {
      const sending = httpRequest(
        `${counter.url}/api/attachments?technicianId=${technicianId}&name=half.png`,
        { method: 'POST', headers: { 'content-length': 1000 } },
      );
      sending.on('error', () => resolve());
      sending.write(PNG);
      setTimeout(() => sending.destroy(), 50);
    });
    expect(await leftOnDisk()).toEqual([]);
    expect((await upload(Buffer.alloc(0))).status).toBe(400);
    expect((await upload(PNG, 'x.png', idOf('stranger'))).status).toBe(422);
  });

  it('lose their names when the owner of their watch is erased', async () => {
    const job = await counter.takeIn('a');
    const { body } = await upload(PNG, 'Pellwick watch.png');
    await counter.record(
      job,
      'seen',
      'open.as-found',
      { found: ['residue'], note: '' },
      { attachments: [body.hash] },
    );
    await counter.post(`/api/customers/${newJob('a').customer.id}/erase`, { technicianId });
    const resource = (await counter.get<JobResource>(`/api/jobs/${job}`)).body;
    expect(resource.attachments).toMatchObject([{ hash: body.hash, name: 'file' }]);
  });

  it('belong to an entry only once they are here', async () => {
    const job = await counter.takeIn('a');
    const asFound = { found: ['residue' as const], note: '' };
    const early = await counter.record(job, 'early', 'open.as-found', asFound, {
      attachments: ['a'.repeat(64)],
    });
    expect(early).toMatchObject({ status: 422, body: { detail: 'A file it names is not here.' } });
    const { body } = await upload(PNG);
    const recorded = await counter.record(job, 'seen', 'open.as-found', asFound, {
      attachments: [body.hash],
    });
    expect(recorded.status).toBe(201);
    const resource = (await counter.get<JobResource>(`/api/jobs/${job}`)).body;
    expect(resource.attachments).toMatchObject([{ hash: body.hash, contentType: 'image/png' }]);
    expect(resource.entries.at(-1)?.attachments).toEqual([body.hash]);
    const watch = (await counter.get<WatchResource>(`/api/watches/${resource.job.watchId}`)).body;
    expect(watch.attachments).toEqual(resource.attachments);
  });
});

const change = (id: DeviceId, body: object) =>
  counter.post<DeviceState & Problem>(`/api/devices/${id}`, body);

async function ask(id: DeviceId, asked: DeviceAsk): Promise<DeviceSays[]> {
  const response = await fetch(`${counter.url}/api/devices/${id}/ask`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(asked),
  });
  return (await response.text())
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as DeviceSays);
}

/** A tester without noise or drift, fast. */
const TESTER: DriverSettings['leak-tester-stand-in'] = {
  stiffnessUmPerBar: 5,
  settlesPercent: 0,
  settlesInS: 1,
  volumeCm3: 1.5,
  leakUgPerMin: null,
  leaksAt: 3,
  leakSide: 'side',
  gross: 'no',
  noiseUm: 0,
  driftUmPerMin: 0,
  speed: 2000,
  fault: 'none',
};

describe('devices', () => {
  it('are nine, none connected at first, and say so when asked', async () => {
    const { body } = await counter.get<DeviceState[]>('/api/devices');
    expect(body.map((device) => [device.id, device.connected])).toEqual([
      ['caliper', false],
      ['bench-meter', false],
      ['light-meter', false],
      ['winder', false],
      ['leak-tester', false],
      ['camera', false],
      ['label-printer', false],
      ['message-outbox', false],
      ['supplier', false],
    ]);
    expect(await ask('caliper', { ask: 'length' })).toMatchObject([
      { says: 'fault', words: 'The caliper is not connected.' },
    ]);
  });

  it('give what they simulate, near enough, and what they were set to after the counter starts again', async () => {
    await change('caliper', { connected: true, settings: { valueMm: 28.2, unit: 'in', fault: 'none' } });
    const [read] = await ask('caliper', { ask: 'length' });
    expect(read).toMatchObject({
      says: 'figure',
      text: expect.stringMatching(/^\+0001\.1\d{3} in$/) as string,
    });
    if (read?.says === 'figure') expect(Math.abs(read.value - 28.2)).toBeLessThan(0.15);
    await counter.close({ keep: true });
    counter = await Counter.open({ dataDir: counter.dataDir });
    const { body } = await counter.get<DeviceState[]>('/api/devices');
    expect(body[0]).toMatchObject({ connected: true, settings: { valueMm: 28.2, unit: 'in' } });
  });

  it('read each measure of the bench meter within its noise', async () => {
    const settings = {
      restVoltageV: 1.55,
      loadedVoltageV: 1.4,
      currentUA: 1.2,
      stoppedCurrentUA: 0.2,
      coilKOhm: 1.9,
      lowestRunningV: 1.1,
      rateSPerDay: -0.4,
      pulsesEveryS: null,
      noisePercent: 0,
      fault: 'none',
    };
    await change('bench-meter', { connected: true, settings });
    for (const measure of ['restVoltageV', 'currentUA', 'coilKOhm', 'rateSPerDay'] as const) {
      expect(await ask('bench-meter', { ask: 'measure', measure })).toMatchObject([
        { says: 'figure', value: settings[measure] },
      ]);
    }
    expect(await ask('bench-meter', { ask: 'pulses' })).toEqual([{ says: 'pulses', everyS: null }]);
    await change('bench-meter', { settings: { ...settings, pulsesEveryS: 5, coilKOhm: 10_000 } });
    expect(await ask('bench-meter', { ask: 'pulses' })).toEqual([{ says: 'pulses', everyS: 5 }]);
    expect(await ask('bench-meter', { ask: 'measure', measure: 'coilKOhm' })).toEqual([
      { says: 'figure', value: 10_000, text: 'OL' },
    ]);
  });

  it('show a test second by second, phase by phase, and where bubbles rise', async () => {
    const settings = TESTER;
    await change('leak-tester', { connected: true, settings });
    const said = await ask('leak-tester', { ask: 'trace', pressureBar: 3, seconds: 60 });
    const samples = said.flatMap((each) => (each.says === 'sample' ? [each] : []));
    expect(samples[0]).toMatchObject({ sample: { atS: 0, overBar: 0, deflectionUm: 0 }, phase: 'baseline' });
    expect([...new Set(samples.map(({ phase }) => phase))]).toEqual([
      'baseline',
      'pressing',
      'settling under pressure',
      'watching under pressure',
      'venting',
      'settling after venting',
      'watching after venting',
    ]);
    expect(samples.at(60)?.sample).toEqual({ atS: 60, overBar: 3, deflectionUm: 15 });
    expect(said.at(-1)).toEqual({ says: 'trace', points: samples.length });
    const tank = { ask: 'tank', pressureBar: 3 } as const;
    expect(await ask('leak-tester', tank)).toEqual([{ says: 'bubbles', at: null, words: 'Nothing rises.' }]);
    await change('leak-tester', { settings: { ...settings, leakUgPerMin: 400 } });
    expect(await ask('leak-tester', tank)).toMatchObject([
      { says: 'bubbles', at: { side: 'side', clock: 3 } },
    ]);
  });

  it('give a running test more time, never less, and end it on demand', async () => {
    const settings = { ...TESTER, speed: 100 };
    await change('leak-tester', { connected: true, settings });
    const run = idOf('run');
    const changed = (seconds: number | null) => ask('leak-tester', { ask: 'change trace', run, seconds });
    const running = ask('leak-tester', { ask: 'trace', pressureBar: 3, seconds: 60, run });
    await pause(300);
    expect(await changed(30)).toMatchObject([
      { says: 'fault', words: expect.stringContaining('already runs for 60 s') as string },
    ]);
    expect(await changed(90)).toMatchObject([{ says: 'done' }]);
    const samples = (await running).flatMap((each) => (each.says === 'sample' ? [each] : []));
    // Baseline, pressure, settling and watch, twice but for the baseline, at the longer time.
    expect(samples.at(-1)?.ofS).toBe(15 + 2 * (3 + 12 + 90));
    expect(samples.at(-1)?.sample.atS).toBe(225);
    expect(await changed(120)).toMatchObject([{ says: 'fault', words: 'That test has already ended.' }]);
    const short = ask('leak-tester', { ask: 'trace', pressureBar: 3, seconds: 60, run });
    await pause(300);
    expect(await changed(null)).toMatchObject([{ says: 'done' }]);
    expect((await short).length).toBeLessThan(165);
  });

  it('say what ails them and what to do, and do not do it then', async () => {
    await change('label-printer', { connected: true, settings: { fault: 'out of labels' } });
    const job = await counter.takeIn('a');
    expect(await ask('label-printer', { ask: 'print label', jobId: job, technicianId })).toEqual([
      { says: 'fault', words: 'Label printer: out of labels.', whatToDo: 'Insert a new roll of labels.' },
    ]);
    await change('label-printer', { settings: { fault: 'none' } });
    expect(await ask('label-printer', { ask: 'print label', jobId: job, technicianId })).toEqual([
      { says: 'done', words: 'Label T0001-8 printed.' },
    ]);
    const { body } = await counter.get<DeviceState[]>('/api/devices');
    expect(body.find(({ id }) => id === 'label-printer')?.output).toMatchObject([
      { words: 'Label T0001-8', jobId: job },
    ]);
    expect(await ask('label-printer', { ask: 'length' })).toMatchObject([{ says: 'fault' }]);
  });

  it('tell the owner without writing down who that is', async () => {
    await change('message-outbox', { connected: true });
    const job = await counter.takeIn('a');
    const asked = { ask: 'tell the owner', jobId: job, technicianId, what: 'ready' } as const;
    expect(await ask('message-outbox', asked)).toEqual([
      { says: 'done', words: 'By phone to the owner of T0001-8: your watch is ready to collect.' },
    ]);
    await counter.post(`/api/customers/${newJob('a').customer.id}/erase`, { technicianId });
    expect(await ask('message-outbox', asked)).toMatchObject([
      { says: 'fault', words: 'The owner left neither phone nor e-mail.' },
    ]);
  });

  it('take a picture that is kept like any file', async () => {
    await change('camera', { connected: true, settings: { shows: 'leaked cell', fault: 'none' } });
    const [said] = await ask('camera', { ask: 'picture', technicianId });
    expect(said).toMatchObject({ says: 'picture', attachment: { contentType: 'image/png' } });
    if (said?.says === 'picture')
      expect((await fetch(`${counter.url}/api/attachments/${said.attachment.hash}`)).status).toBe(200);
  });

  it('are reached in another way where one is chosen, which keeps its own settings', async () => {
    await change('caliper', { connected: true, settings: { valueMm: 28.2, unit: 'in', fault: 'none' } });
    expect(await change('caliper', { driver: 'caliper-keyboard' })).toMatchObject({
      body: { driver: 'caliper-keyboard', settings: {}, connected: true },
    });
    // Such a one hangs on the computer at the bench, which is told so.
    expect(await ask('caliper', { ask: 'length' })).toEqual([
      { says: 'at the bench', driver: 'caliper-keyboard', settings: {} },
    ]);
    await counter.close({ keep: true });
    counter = await Counter.open({ dataDir: counter.dataDir });
    expect(await change('caliper', { driver: 'caliper-stand-in' })).toMatchObject({
      body: { settings: { valueMm: 28.2, unit: 'in' } },
    });
    expect(await change('caliper', { driver: 'winder-stand-in' })).toMatchObject({
      status: 422,
      body: { detail: 'Connected by: one of caliper-stand-in, caliper-keyboard for this device.' },
    });
    expect(await change('caliper', { driver: 'telepathy' })).toMatchObject({ status: 400 });
  });

  it('that only give a record are neither steered nor a tank', async () => {
    await change('leak-tester', { connected: true, driver: 'leak-tester-folder' });
    for (const [asked, words] of [
      [{ ask: 'tank', pressureBar: 3 }, 'watch for bubbles'],
      [{ ask: 'change trace', run: idOf('run'), seconds: null }, 'change a running test'],
    ] as const)
      expect(await ask('leak-tester', asked)).toEqual([
        {
          says: 'fault',
          words: `As it is connected now, the leak tester cannot ${words}.`,
          whatToDo: 'Choose another connection for it on the devices page, or enter the result by hand.',
        },
      ]);
  });

  it('refuse what they cannot simulate, and asking a device that is none', async () => {
    expect(await change('caliper', { settings: { valueMm: -3, unit: 'mm', fault: 'none' } })).toMatchObject({
      status: 400,
      body: { detail: expect.stringContaining('between 0 and 150 mm') as string },
    });
    expect((await counter.post('/api/devices/kettle', { connected: true })).status).toBe(404);
    expect((await counter.post('/api/devices/caliper/ask', { ask: 'nothing' })).status).toBe(400);
  });
});

describe('a tester that writes files', () => {
  const trace = { ask: 'trace', pressureBar: 3, seconds: 60 } as const;
  const RECORD = 'time (s);pressure (bar);deflection (µm)\r\n0;0;0\r\n1;3,00;5,25\r\n';
  const textOf = (said: readonly DeviceSays[]): string =>
    said.map((each) => (each.says === 'record part' ? each.text : '')).join('');
  /** Asked, and it waits already; all that it says comes once it is done. */
  async function awaited(): Promise<{ readonly said: Promise<DeviceSays[]> }> {
    const response = await fetch(`${counter.url}/api/devices/leak-tester/ask`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(trace),
    });
    const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
    if (!reader) throw new Error('no answer');
    let text = (await reader.read()).value ?? '';
    const rest = async (): Promise<DeviceSays[]> => {
      for (;;) {
        const { done, value = '' } = await reader.read();
        text += value;
        if (done)
          return text
            .trim()
            .split('\n')
            .map((line) => JSON.parse(line) as DeviceSays);
      }
    };
    return { said: rest() };
  }
  let folder: string;
  beforeEach(async () => {
    await change('leak-tester', { connected: true, driver: 'leak-tester-folder' });
    const { body } = await counter.get<DeviceState[]>('/api/devices');
    folder = body.find(({ id }) => id === 'leak-tester')?.folder ?? '';
    mkdirSync(folder, { recursive: true });
  });

  it('gives the file that comes after it was asked for, once it is whole, and no earlier one', async () => {
    writeFileSync(join(folder, 'monday.csv'), 'an earlier test');
    const asked = await awaited();
    writeFileSync(join(folder, 'not a record.pdf'), 'x');
    writeFileSync(join(folder, 'tuesday.csv'), RECORD.slice(0, 50));
    await pause(700);
    appendFileSync(join(folder, 'tuesday.csv'), RECORD.slice(50));
    const said = await asked.said;
    expect(textOf(said)).toBe(RECORD);
    expect(said[0]).toEqual({ says: 'waiting', words: `Waiting for the tester’s file in ${folder}` });
    expect(said.at(-1)).toEqual({ says: 'record', name: 'tuesday.csv' });
  });

  it('is read anew where it writes on in the same file, and never by a link out of the folder', async () => {
    writeFileSync(join(folder, 'last.csv'), 'an earlier test');
    const asked = await awaited();
    symlinkSync(join(counter.dataDir, 'wax-lantern.db'), join(folder, 'link.csv'));
    writeFileSync(join(folder, 'last.csv'), RECORD);
    const said = await asked.said;
    expect([textOf(said), said.at(-1)]).toEqual([RECORD, { says: 'record', name: 'last.csv' }]);
  });

  it('of which two come at once is not guessed at', async () => {
    const asked = await awaited();
    for (const name of ['a.csv', 'b.csv']) writeFileSync(join(folder, name), RECORD);
    expect((await asked.said).at(-1)).toMatchObject({
      says: 'fault',
      words: 'Several files changed at once: a.csv, b.csv.',
    });
  });

  it('gives its file to one watch alone: to the one it was asked for last', async () => {
    const first = await awaited();
    const second = await awaited();
    writeFileSync(join(folder, 'one.csv'), RECORD);
    expect((await first.said).at(-1)).toMatchObject({
      says: 'fault',
      words: 'Another window or watch is now waiting for the next file of the tester.',
    });
    expect((await second.said).at(-1)).toEqual({ says: 'record', name: 'one.csv' });
  });

  it('is stood in for by a recording that writes itself into the folder, and leaves nothing', async () => {
    await change('leak-tester', { settings: { from: 'recording', speed: 2000 } });
    const said = await ask('leak-tester', trace);
    expect(textOf(said).split('\r\n')).toHaveLength(168);
    expect(said.at(-1)).toEqual({ says: 'record', name: 'recorded-test.csv' });
    expect(readdirSync(folder)).toEqual([]);
  });
});
