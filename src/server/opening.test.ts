import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Attachment, ImportNews, JobResource, JobSummary, Problem, ToolsServed } from '../contract';
import { foldJob } from '../core/logbook';
import { samples } from '../testing/samples';
import { Counter, entryOf, technicianId } from '../testing/counter';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const facts = async (id: string) =>
  foldJob((await counter.get<JobResource>(`/api/jobs/${id}`)).body.entries, counter.store.context()).facts;
const opened = samples['open.back'];

describe('two watches that lie open at once', () => {
  const together = async (id: string) =>
    (await facts(id)).together.map(({ payload }) => [payload.otherTicket, payload.otherSerial]);

  it('are told of each other once one has a serial in its back, in the same transaction', async () => {
    const [a, b] = [await counter.takeIn('a'), await counter.takeIn('b')];
    await counter.record(a, 'a open', 'open.back', opened);
    await counter.record(b, 'b open', 'open.back', opened);
    expect([await together(a), await together(b)]).toEqual([[], []]);
    const serial = await counter.record(a, 'a serial', 'open.inside-serial', { serial: '55-120' });
    expect(serial.status).toBe(201);
    expect(await together(a)).toEqual([['T0002-6', '']]);
    expect(await together(b)).toEqual([['T0001-8', '55-120']]);
    await counter.record(b, 'b serial', 'open.inside-serial', { serial: '70333' });
    expect(await together(a)).toEqual([['T0002-6', '70333']]);
    expect(await together(b)).toEqual([['T0001-8', '55-120']]);
    expect((await counter.get<JobSummary[]>('/api/rack')).body.map(({ lyingOpen }) => lyingOpen)).toEqual(
      expect.arrayContaining([
        { sinceUtc: '2026-03-17T10:00:00.000Z', insideSerial: '55-120' },
        { sinceUtc: '2026-03-17T10:00:00.000Z', insideSerial: '70333' },
      ]),
    );
  });

  it('sent again, or one closed before the other is opened, nothing is written', async () => {
    const [a, b] = [await counter.takeIn('a'), await counter.takeIn('b')];
    await counter.record(a, 'a serial', 'open.inside-serial', { serial: '55120' });
    await counter.record(a, 'a open', 'open.back', opened);
    await counter.record(a, 'a closed', 'seal.closed', {
      ...samples['seal.closed'],
      seamEven: true,
      raisedClocks: [],
    });
    await counter.record(b, 'b open', 'open.back', opened);
    expect([await together(a), await together(b)]).toEqual([[], []]);
    await counter.record(a, 'a open again', 'open.back', opened);
    await counter.record(a, 'a open again', 'open.back', opened);
    expect([await together(a), await together(b)]).toEqual([[['T0002-6', '']], [['T0001-8', '55120']]]);
  });
});

describe('the tools of the shop', () => {
  it('count the jobs each opened, as the facts stand, and what was referred for want of one', async () => {
    const served = async () => (await counter.get<ToolsServed>('/api/tools/served')).body;
    expect(await served()).toEqual({ served: [], wantedInYear: 0 });
    const [a, b] = [await counter.takeIn('a'), await counter.takeIn('b')];
    await counter.record(a, 'a', 'open.back', { ...opened, toolIds: ['die-12-305', 'die-holder'] });
    await counter.record(b, 'b', 'open.back', { ...opened, toolIds: ['die-12-305'] });
    expect((await served()).served.map(({ toolId, jobs }) => [toolId, jobs])).toEqual([
      ['die-12-305', 2],
      ['die-holder', 1],
    ]);
    const first = entryOf('a', 'open.back', opened).id;
    await counter.record(a, 'a corrected', 'open.back', opened, { supersedes: [first] });
    expect((await served()).served.map(({ toolId, jobs }) => [toolId, jobs])).toEqual([
      ['die-12-305', 1],
      ['knife', 1],
    ]);
    const decision = {
      decision: 'referred',
      reason: 'no suitable opener',
      to: 'the maker',
      told: '',
    } as const;
    await counter.record(b, 'b referred', 'arrive.decision', decision);
    expect((await served()).wantedInYear).toBe(1);
    const withdrawn = entryOf('b referred', 'arrive.decision', decision).id;
    await counter.record(
      b,
      'b after all',
      'logbook.withdrawn',
      { reason: 'die found' },
      { withdraws: withdrawn },
    );
    expect((await served()).wantedInYear).toBe(0);
  });

  it('go out as CSV and come in again; a wrench whose travel ends before it begins changes nothing', async () => {
    const csv = (await counter.get<string>('/api/catalogue/tables/wrenches.csv')).body;
    expect(csv.split('\r\n')[0]).toBe(
      'id,name,cost_minor,jaws,travel_min_mm,travel_max_mm,rear_min_mm,rear_max_mm,jaw_widths_mm,pin_diameters_mm',
    );
    const send = async (text: string) => {
      const response = await fetch(
        `${counter.url}/api/catalogue/tables/wrenches?technicianId=${technicianId}&dryRun=no`,
        { method: 'POST', headers: { 'content-type': 'text/csv' }, body: text },
      );
      const news = (await response.text())
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as ImportNews);
      const last = news.at(-1);
      if (!last || !('report' in last)) throw new Error('no report');
      return last.report;
    };
    expect(await send(csv)).toMatchObject({ added: 0, changed: 0, same: 3, errors: [] });
    const more = `${csv}wide,wide wrench,9900,3,20,50,18,44,2.4 | 3,\r\n`;
    expect(await send(more)).toMatchObject({ added: 1, errors: [] });
    expect(counter.store.catalogue.book().wrenches.map(({ id }) => id)).toContain('wide');
    const wrong = await send(`${csv}odd,odd wrench,100,2,40,20,,,2,\r\n`);
    expect(wrong).toMatchObject({ applied: false });
    expect(wrong.errors).toMatchObject([{ line: 5, column: 'travel_max_mm' }]);
    expect(wrong.errors[0]?.reason).toContain('40 mm to 20 mm');
  });

  it('a setting over the travel of its tool is refused in words', async () => {
    const id = await counter.takeIn('a');
    const answer = await counter.record(id, 'over', 'open.back', {
      ...opened,
      kind: 'screwed, notched',
      toolIds: ['hand-wrench'],
      separationMm: 48,
    });
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain(
      '48 mm is outside the travel of hand wrench, three jaws, 10 to 27 mm',
    );
  });

  it.each([
    [{ notchCount: 1 }, 'notchCount', 'One notch'],
    [{ notchCount: 24, notchWidthMm: 5, pitchMm: 30 }, 'notchWidthMm', '120 mm'],
    [{ lipClock: 13 }, 'lipClock', 'between 0.5 and 12'],
  ])('measures that cannot be, %j, are refused at the door', async (change, path, words) => {
    const id = await counter.takeIn('a');
    const { status, body } = await counter.post<Problem>(
      `/api/jobs/${id}/entries`,
      entryOf('measured', 'open.measured', {
        ...samples['open.measured'],
        kind: 'screwed, notched',
        ...change,
      }),
    );
    expect(status).toBe(400);
    expect(body.fields?.find((field) => field.path.endsWith(path))?.message).toContain(words);
  });
});

describe('photographs', () => {
  const upload = async (bytes: Buffer, name: string) => {
    const response = await fetch(
      `${counter.url}/api/attachments?technicianId=${technicianId}&name=${encodeURIComponent(name)}`,
      { method: 'POST', body: new Uint8Array(bytes) },
    );
    return { status: response.status, body: (await response.json()) as Attachment & Problem };
  };
  const kept = async (hash: string): Promise<Buffer> =>
    Buffer.from(await (await fetch(`${counter.url}/api/attachments/${hash}`)).arrayBuffer());
  const plain = () => sharp({ create: { width: 800, height: 600, channels: 3, background: '#806040' } });
  const WHERE = { IFD0: { Make: 'Lenscraft' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '61/1 12/1 5/1' } };

  it.each(['jpeg', 'png', 'webp'] as const)('%s: lose where they were taken', async (format) => {
    const taken = await plain().toFormat(format).withExif(WHERE).toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const { status, body } = await upload(taken, `back.${format}`);
    expect([status, body.contentType]).toEqual([201, `image/${format}`]);
    const clean = await kept(body.hash);
    expect(clean.length).toBe(body.bytes);
    const { exif, xmp, width, height } = await sharp(clean).metadata();
    expect([exif, xmp, width, height]).toEqual([undefined, undefined, 800, 600]);
    expect(clean.includes('Lenscraft')).toBe(false);
  });

  it('stand as the camera held them, once the camera’s word for it is gone', async () => {
    const sideways = await plain().jpeg().withMetadata({ orientation: 6 }).toBuffer();
    const { width, height } = await sharp(
      await kept((await upload(sideways, 'sideways.jpg')).body.hash),
    ).metadata();
    expect([width, height]).toEqual([600, 800]);
  });

  it('downloaded here and added again are the same file', async () => {
    const { hash } = (await upload(await plain().jpeg().toBuffer(), 'back.jpg')).body;
    const again = await upload(await kept(hash), 'back again.jpg');
    expect([again.status, again.body.hash]).toEqual([201, hash]);
  });

  it('of more pixels than any camera makes are refused in words', async () => {
    const huge = await sharp({ create: { width: 16_000, height: 8000, channels: 3, background: '#fff' } })
      .png({ compressionLevel: 9 })
      .toBuffer();
    const { status, body } = await upload(huge, 'huge.png');
    expect([status, body.detail]).toEqual([
      413,
      'The picture is too large. A picture can have at most 120 megapixels.',
    ]);
  });

  it('have a small picture of their own; other files have none', async () => {
    const { body } = await upload(await plain().jpeg().toBuffer(), 'back.jpg');
    const thumb = await fetch(`${counter.url}/api/attachments/${body.hash}/thumb`);
    expect(thumb.headers.get('content-type')).toBe('image/webp');
    const small = await sharp(Buffer.from(await thumb.arrayBuffer())).metadata();
    expect([small.width, small.height]).toEqual([360, 270]);
    const text = await upload(Buffer.from('a note'), 'note.txt');
    expect((await fetch(`${counter.url}/api/attachments/${text.body.hash}/thumb`)).status).toBe(404);
    expect((await fetch(`${counter.url}/api/attachments/${'0'.repeat(64)}/thumb`)).status).toBe(404);
  });

  it('damaged, or of a kind nobody here can clean, are refused, and nothing is left of them', async () => {
    const jpeg = await plain().jpeg().withExif(WHERE).toBuffer();
    const damaged = await upload(Buffer.concat([jpeg.subarray(0, 20), Buffer.alloc(400, 7)]), 'broken.jpg');
    expect([damaged.status, damaged.body.detail]).toEqual([
      400,
      'The picture is damaged and cannot be read.',
    ]);
    const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(60)]);
    const strange = await upload(heic, 'phone.heic');
    expect(strange.status).toBe(400);
    expect(strange.body.detail).toContain('the place where it was taken cannot be removed');
    expect(strange.body.whatToDo).toContain('JPEG or PNG');
    const left = readdirSync(join(counter.dataDir, 'attachments'), { recursive: true, withFileTypes: true });
    expect(left.filter((each) => each.isFile())).toEqual([]);
  });

  it('a mark names a photograph of its own job', async () => {
    const id = await counter.takeIn('a');
    const picture = readFileSync(join('src', 'server', 'devices', 'drivers', 'pictures', 'movement.png'));
    const { hash } = (await upload(picture, 'movement.png')).body;
    const mark = { ...samples['open.photo-mark'], photo: hash };
    expect((await counter.record(id, 'early', 'open.photo-mark', mark)).status).toBe(422);
    await counter.record(id, 'found', 'open.as-found', samples['open.as-found'], { attachments: [hash] });
    expect((await counter.record(id, 'mark', 'open.photo-mark', mark)).status).toBe(201);
    expect((await facts(id)).photoMarks.map(({ payload }) => payload)).toEqual([mark]);
  });
});
