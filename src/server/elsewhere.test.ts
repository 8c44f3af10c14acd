import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type {
  CarriedLot,
  JobFile,
  JobImported,
  JobResource,
  JobSummary,
  Problem,
  SavedSize,
} from '../contract';
import type { EntryKind, Payloads } from '../core/logbook';
import { Counter, delivery, entryOf, fittedFromLot, newJob, technicianId } from '../testing/counter';
import { idOf, readingOf } from '../testing/fixtures';

let here: Counter;
let there: Counter;
beforeEach(async () => {
  here = await Counter.open();
  there = await Counter.open();
});
afterEach(async () => {
  await here.close();
  await there.close();
});

const PHOTO = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

/** A job with a photograph, a fitted cell, a correction and a conflict, made here. */
async function made(): Promise<string> {
  await here.post('/api/lots', delivery);
  const job = await here.takeInMeasured('a');
  const photo = await fetch(`${here.url}/api/attachments?technicianId=${technicianId}&name=before.png`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: new Uint8Array(PHOTO),
  });
  const { hash } = (await photo.json()) as { hash: string };
  await here.record(job, 'seen', 'open.as-found', { found: ['residue'], note: '' }, { attachments: [hash] });
  await here.record(job, 'volts', 'check.reading', readingOf('restVoltageV', 1.2));
  for (const [name, value] of [
    ['one', 1.31],
    ['other', 1.13],
  ] as const)
    await here.record(job, name, 'check.reading', readingOf('restVoltageV', value), {
      supersedes: [idOf('entry volts')],
    });
  await here.record(job, 'fitted', 'cell.fitted', fittedFromLot);
  return job;
}

const saved = async (from: Counter, job: string): Promise<JobFile> =>
  (await from.get<JobFile>(`/api/jobs/${job}/job.json`)).body;

async function takeIn(to: Counter, file: unknown) {
  const response = await fetch(`${to.url}/api/jobs/import`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: typeof file === 'string' ? file : JSON.stringify(file),
  });
  return { status: response.status, body: (await response.json()) as JobImported[] & Problem };
}

const bare = (resource: JobResource) => resource.entries.map(({ sequence: _, ...entry }) => entry);

describe('a job that goes to another counter', () => {
  it('arrives whole, photographs and conflict included, under a ticket of that counter', async () => {
    const job = await made();
    await there.takeIn('of its own');
    const { status, body } = await takeIn(there, await saved(here, job));
    expect(status).toBe(201);
    expect(body).toMatchObject([{ jobId: job, ticket: 'T0002-6', cameAs: 'T0001-8', outcome: 'new here' }]);
    const [mine, yours] = await Promise.all(
      [here, there].map(async (counter) => (await counter.get<JobResource>(`/api/jobs/${job}`)).body),
    );
    if (!mine || !yours) throw new Error('not read');
    expect(bare(yours)).toEqual(bare(mine).map((entry) => ({ ...entry, counter: 'Test counter' })));
    expect(yours.customer).toEqual(mine.customer);
    expect(yours.attachments).toEqual(mine.attachments);
    expect(yours.job.cameAs).toBe('T0001-8');
    const [photo, theirs] = await Promise.all(
      [here, there].map(async ({ url }) => {
        const answer = await fetch(`${url}/api/attachments/${mine.attachments[0]?.hash ?? ''}`);
        return Buffer.from(await answer.arrayBuffer());
      }),
    );
    expect(photo?.length).toBeGreaterThan(0);
    expect(theirs).toEqual(photo);
    const found = await there.get<{ jobs: { conflict: boolean }[] }>('/api/find?q=T0001-8');
    expect(found.body.jobs.some((each) => each.conflict)).toBe(true);
    expect(there.store.stock.lots()).toEqual([]);
  });

  it('is not doubled when it comes again; only what is new is added', async () => {
    const job = await made();
    const file = await saved(here, job);
    await takeIn(there, file);
    expect((await takeIn(there, file)).body).toMatchObject([{ outcome: 'here already', entriesAdded: 0 }]);
    await here.record(job, 'later', 'open.technique', { note: 'clicks late' });
    expect((await takeIn(there, await saved(here, job))).body).toMatchObject([
      { outcome: 'entries added', entriesAdded: 1 },
    ]);
    expect((await takeIn(here, await saved(there, job))).body).toMatchObject([{ outcome: 'here already' }]);
    expect((await there.get<unknown[]>('/api/rack')).body).toHaveLength(1);
    expect(there.store.shops.technicians()).toHaveLength(1);
  });

  it('goes with its whole visit', async () => {
    const first = newJob('a');
    await here.post('/api/jobs', first);
    await here.post('/api/jobs', { ...newJob('b'), visitId: first.visitId, customer: first.customer });
    const visit = (await here.get(`/api/visits/${first.visitId}/visit.json`)).body;
    expect((await takeIn(there, visit)).body).toMatchObject([
      { outcome: 'new here' },
      { outcome: 'new here' },
    ]);
    const arrived = (await there.get<JobResource>(`/api/jobs/${first.id}`)).body;
    expect(arrived.job.sameVisit).toHaveLength(1);
  });

  it('comes without the person, once the person was erased', async () => {
    const job = await made();
    await here.post(`/api/customers/${newJob('a').customer.id}/erase`, { technicianId });
    await takeIn(there, await saved(here, job));
    expect((await there.get<JobResource>(`/api/jobs/${job}`)).body.customer).toBeNull();
    await takeIn(there, { ...(await saved(here, job)), customer: newJob('a').customer });
    expect((await there.get<JobResource>(`/api/jobs/${job}`)).body.customer).toBeNull();
  });
});

describe('a file that cannot be taken in is refused in words, and leaves nothing', () => {
  const nothingCame = async (): Promise<void> => {
    expect((await there.get<unknown[]>('/api/rack')).body).toEqual([]);
    expect((await there.get<string>('/api/lists/jobs.csv')).body.trim().split('\r\n')).toHaveLength(1);
  };

  it.each([
    ['no JSON', 'PK\u0003\u0004', 'not a job or visit'],
    ['a list', '[1, 2]', 'not a job or visit'],
    ['of another program', { format: 'bookkeeping', formatVersion: 1 }, 'not a job or visit'],
    ['of a newer version', { format: 'wax-lantern-job', formatVersion: 9 }, 'version 9'],
    ['a visit without jobs', { format: 'wax-lantern-visit', formatVersion: 2 }, 'jobs.0'],
  ])('%s', async (_, file, words) => {
    const { status, body } = await takeIn(there, file);
    expect([status, body.detail.includes(words)]).toEqual([400, true]);
    await nothingCame();
  });

  it.each<[string, (file: JobFile) => object, string]>([
    [
      'an entry changed by hand',
      (file) => ({ ...file, entries: [{ ...file.entries[0], kind: 'arrive.nothing' }] }),
      'entries.0',
    ],
    [
      'an entry by nobody',
      (file) => ({ ...file, technicians: [{ id: idOf('x'), name: 'X', initials: 'X' }] }),
      'Nobody in the file',
    ],
    ['a file left out', (file) => ({ ...file, attachments: [] }), 'not in here'],
    [
      'a photograph that changed',
      (file) => ({ ...file, attachments: file.attachments.map((each) => ({ ...each, base64: 'AAAA' })) }),
      'has changed since it was stored',
    ],
    ['no entries', (file) => ({ ...file, entries: [] }), 'at least one'],
  ])('%s', async (_, damage, words) => {
    const { status, body } = await takeIn(there, damage(await saved(here, await made())));
    expect([status, body.detail]).toEqual([400, expect.stringContaining(words)]);
    await nothingCame();
  });

  it('an entry that says something else than the one on record', async () => {
    const job = await made();
    const file = await saved(here, job);
    await takeIn(there, file);
    const entries = file.entries.map((entry) =>
      entry.kind === 'arrive.complaint' ? { ...entry, payload: { picked: [], words: 'other words' } } : entry,
    );
    expect((await takeIn(there, { ...file, entries })).status).toBe(409);
  });
});

/** An entry as it stands in a file of another counter. */
const inFile = <K extends EntryKind>(
  jobId: string,
  name: string,
  kind: K,
  payload: Payloads[K],
  more: object = {},
) => ({
  ...entryOf(name, kind, payload),
  jobId,
  sequence: 900,
  recordedAt: '2026-03-17T11:00:00.000Z',
  counter: null,
  ...more,
});

const signature: Payloads['handback.signed'] = {
  initials: 'TQ',
  catalogueRevision: 1,
  policyRevision: 1,
  restsOnSequence: 1,
  statement: {
    found: [],
    done: [],
    fitted: [],
    tested: [],
    notDone: [],
    water: 'Water resistant to 3 bar.',
    nextVisitOn: null,
    nextVisit: '',
    warranty: '',
    priceMinor: 0,
  },
};

describe('entries of a file for a job that is here are judged like those typed here', () => {
  let job: string;
  let file: JobFile;
  const inStock = () => here.store.stock.lots().map(({ balance }) => balance);
  const wholeJob = async () => (await here.get<JobResource>(`/api/jobs/${job}`)).body;
  const withMore = (...more: object[]) => ({ ...file, entries: [...file.entries, ...more] });
  const leavesAll = async (given: object, status: number, words: string): Promise<void> => {
    const before = [await wholeJob(), inStock(), here.store.shops.technicians()];
    const { status: got, body } = await takeIn(here, given);
    expect([got, body.detail]).toEqual([status, expect.stringContaining(words)]);
    expect([await wholeJob(), inStock(), here.store.shops.technicians()]).toEqual(before);
  };
  beforeEach(async () => {
    await here.post('/api/lots', delivery);
    job = await here.takeInMeasured('a');
    file = await saved(here, job);
  });

  it('move this stock, and stand as that counter’s', async () => {
    const { status } = await takeIn(here, withMore(inFile(job, 'f', 'cell.fitted', fittedFromLot)));
    expect([status, inStock()]).toEqual([201, [4]]);
    expect((await wholeJob()).entries.at(-1)).toMatchObject({ kind: 'cell.fitted', counter: 'Test counter' });
    await takeIn(here, withMore(inFile(job, 'f', 'cell.fitted', fittedFromLot)));
    expect(inStock()).toEqual([4]);
  });

  it.each<[string, object[], string]>([
    [
      'a fitting from no lot here',
      [{ ...fittedFromLot, lotId: idOf('elsewhere') }],
      'This lot is not in the stock.',
    ],
    ['another type than fits', [{ ...fittedFromLot, cellCode: 'CR2032' }], ''],
  ])('are refused: %s', async (_, [payload], words) => {
    await leavesAll(withMore(inFile(job, 'f', 'cell.fitted', payload as typeof fittedFromLot)), 422, words);
  });

  it('count as they are told the second time, where the first was refused whole and left nothing', async () => {
    const answer = (promisedAt: string) => inFile(job, 'n', 'arrive.promise', { promisedAt });
    await leavesAll(
      withMore(
        answer('2026-03-18T10:00:00.000Z'),
        inFile(job, 'f', 'cell.fitted', { ...fittedFromLot, lotId: idOf('elsewhere') }),
      ),
      422,
      'This lot is not in the stock.',
    );
    expect((await takeIn(here, withMore(answer('2026-03-19T10:00:00.000Z')))).status).toBe(201);
    const rack = (await here.get<{ id: string; promisedAt: string }[]>('/api/rack')).body;
    expect(rack.find(({ id }) => id === job)?.promisedAt).toBe('2026-03-19T10:00:00.000Z');
  });

  it('cannot sign', async () => {
    await leavesAll(withMore(inFile(job, 's', 'handback.signed', signature)), 422, 'It would sign');
  });

  it('bring somebody along only with what they recorded', async () => {
    const stranger = { id: idOf('stranger'), name: 'Ona Quayle', initials: 'OQ' };
    const refused = inFile(job, 's', 'handback.signed', signature, { technicianId: stranger.id });
    await leavesAll({ ...withMore(refused), technicians: [...file.technicians, stranger] }, 422, 'sign');
  });

  it('cannot take back what was fitted or taken here, nor correct it', async () => {
    await here.record(job, 'own', 'cell.fitted', fittedFromLot);
    file = await saved(here, job);
    const own = idOf('entry own');
    const gone = inFile(job, 'w', 'logbook.withdrawn', { reason: 'so' }, { withdraws: own });
    await leavesAll(
      withMore(gone),
      422,
      'It would withdraw a record of this counter: fitted: SR621SW, lot S-1.',
    );
    const corrected = inFile(
      job,
      'c',
      'cell.fitted',
      { ...fittedFromLot, lotCode: 'S-2' },
      { supersedes: [own] },
    );
    await leavesAll(
      withMore(corrected),
      422,
      'It would withdraw a record of this counter: fitted: SR621SW, lot S-1.',
    );
    expect(inStock()).toEqual([4]);
  });

  it('stand or fall together', async () => {
    const good = inFile(job, 'n', 'open.technique', { note: 'clicks late' });
    const bad = inFile(job, 'f', 'cell.fitted', { ...fittedFromLot, lotId: idOf('elsewhere') });
    await leavesAll(withMore(good, bad), 422, `entry ${file.entries.length + 2}`);
  });

  it('belong to the owner, watch and visit the job has', async () => {
    const note = inFile(job, 'n', 'open.technique', { note: 'clicks late' });
    for (const other of ['watchId', 'visitId'])
      await leavesAll(
        { ...withMore(note), job: { ...file.job, [other]: idOf('other') } },
        422,
        'names another',
      );
    await leavesAll({ ...withMore(note), customerId: idOf('other') }, 422, 'names another');
  });
});

describe('a job of another counter that is new here', () => {
  it('keeps its signature as that counter’s, wherever it is shown', async () => {
    const job = await there.takeIn('a');
    const file = await saved(there, job);
    const entries = [...file.entries, inFile(job, 's', 'handback.signed', signature)];
    expect((await takeIn(here, { ...file, entries })).status).toBe(201);
    const [onRack] = (await here.get<JobSummary[]>('/api/rack')).body;
    expect(onRack?.signedBy).toBe('TQ at another counter, Test counter');
    const csv = (await here.get<string>(`/api/jobs/${job}/logbook.csv`)).body;
    expect(csv.split('\r\n').at(-2)).toContain('Test counter');
    const again = await saved(here, job);
    expect(new Set(again.entries.map(({ counter }) => counter))).toEqual(new Set(['Test counter']));
    await here.record(job, 'w', 'logbook.withdrawn', { reason: 'no' }, { withdraws: idOf('entry s') });
    expect((await here.get<JobSummary[]>('/api/rack')).body[0]?.signedBy).toContain('another counter');
  });

  it.each<[string, (file: JobFile, mine: string) => object | Promise<object>, number, string]>([
    [
      'in a visit of this counter',
      async (file, mine) => {
        const own = await saved(here, mine);
        const { visitId } = own.job;
        return {
          ...file,
          job: { ...file.job, visitId },
          customerId: own.customerId,
          customer: own.customer,
          entries: file.entries.map((entry) =>
            entry.kind === 'arrive.received'
              ? { ...entry, payload: { ...entry.payload, visitId, customerId: own.customerId } }
              : entry,
          ),
        };
      },
      422,
      'stand in a visit of this counter',
    ],
    [
      'received for another owner than it names',
      (file) => ({ ...file, customerId: idOf('other') }),
      422,
      'another owner, watch or visit',
    ],
    [
      'that follows a job of another watch',
      (file, mine) => ({ ...file, job: { ...file.job, follows: { jobId: mine, why: 'comeback' } } }),
      422,
      'which is of another watch',
    ],
    [
      'that takes a signature back',
      (file) => ({
        ...file,
        entries: [
          ...file.entries,
          inFile(file.job.id, 's', 'handback.signed', signature),
          inFile(file.job.id, 'w', 'logbook.withdrawn', { reason: 'x' }, { withdraws: idOf('entry s') }),
        ],
      }),
      422,
      'A signature cannot be withdrawn.',
    ],
    [
      'that was never received',
      (file) => ({ ...file, entries: file.entries.filter(({ kind }) => kind !== 'arrive.received') }),
      422,
      'The date of receipt is missing.',
    ],
    [
      'with an empty file',
      (file) => ({
        ...file,
        attachments: [
          {
            hash: 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855',
            name: 'nothing.png',
            contentType: 'image/png',
            bytes: 1,
            base64: '',
          },
        ],
      }),
      400,
      'is empty',
    ],
  ])('is refused whole: %s', async (_, change, status, words) => {
    const mine = await here.takeIn('mine');
    const job = await there.takeIn('a');
    const stranger = { id: idOf('stranger'), name: 'Ona Quayle', initials: 'OQ' };
    const file = await change(await saved(there, job), mine);
    const { status: got, body } = await takeIn(here, {
      ...file,
      technicians: [{ id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' }, stranger],
    });
    expect([got, body.detail]).toEqual([status, expect.stringContaining(words)]);
    expect((await here.get<JobSummary[]>('/api/rack')).body.map(({ id }) => id)).toEqual([mine]);
    expect(here.store.shops.technicians()).toHaveLength(1);
    expect((await here.get(`/api/customers/${newJob('a').customer.id}`)).status).toBe(404);
  });

  it('leaves none of its files behind once it is refused, and takes away none that are known', async () => {
    const job = await made();
    const file = await saved(here, job);
    const lying = (of: Counter): string[] =>
      readdirSync(join(of.dataDir, 'attachments'), { recursive: true, withFileTypes: true })
        .filter((each) => each.isFile())
        .map((each) => each.name);
    const wrong = { ...file, entries: file.entries.filter(({ kind }) => kind !== 'arrive.received') };
    expect((await takeIn(there, wrong)).status).toBe(422);
    expect(lying(there)).toEqual([]);
    const before = lying(here);
    const another = { ...file, customerId: newJob('another').customer.id };
    expect((await takeIn(here, another)).status).toBe(422);
    expect(lying(here)).toEqual(before);
  });

  it('says how large it will be, and what another counter takes', async () => {
    const job = await made();
    const size = (await here.get<SavedSize>(`/api/jobs/${job}/job.json/size`)).body;
    const text = JSON.stringify(await saved(here, job));
    expect(size.bytes).toBeGreaterThan(text.length);
    expect(size.mostElsewhereBytes).toBe(200 * 1024 * 1024);
    const { visitId } = (await here.get<JobResource>(`/api/jobs/${job}`)).body.job;
    expect((await here.get(`/api/visits/${visitId}/visit.json/size`)).body).toEqual(size);
    // Packed again it would take ten times as long.
    const answer = await fetch(`${here.url}/api/jobs/${job}/job.json`, {
      headers: { 'accept-encoding': 'gzip' },
    });
    expect(answer.headers.get('content-encoding')).toBeNull();
    await answer.text();
  });

  it('is refused whole where a file of it cannot be stored', async () => {
    const job = await made();
    const file = await saved(here, job);
    const [{ hash = '' } = {}] = file.attachments;
    // Something lies where its folder must be made.
    writeFileSync(join(there.dataDir, 'attachments', hash.slice(0, 2)), '');
    const { status, body } = await takeIn(there, file);
    expect([status, body.title]).toEqual([503, 'The server cannot keep anything now']);
    expect((await there.get<JobSummary[]>('/api/rack')).body).toEqual([]);
    expect((await there.get(`/api/customers/${file.customerId}`)).status).toBe(404);
  });

  it('comes packed, too; what does not unpack, or has another packing, is refused', async () => {
    const file = JSON.stringify(await saved(there, await there.takeIn('a')));
    const send = async (packing: string, body: Uint8Array<ArrayBuffer>) =>
      (
        await fetch(`${here.url}/api/jobs/import`, {
          method: 'POST',
          headers: { 'content-type': 'application/octet-stream', 'content-encoding': packing },
          body,
        })
      ).status;
    expect(await send('gzip', new Uint8Array(Buffer.from(file)))).toBe(400);
    expect(await send('zebra', new Uint8Array(Buffer.from(file)))).toBe(415);
    expect(await send('gzip', new Uint8Array(gzipSync(file)))).toBe(201);
  });

  it('nested too deep is refused before it is read', async () => {
    const { status, body } = await takeIn(here, `${'['.repeat(100_000)}${']'.repeat(100_000)}`);
    expect([status, body.detail]).toEqual([413, expect.stringContaining('40 levels')]);
  });

  it('with many wrong places names the first, and says how many', async () => {
    const file = await saved(there, await there.takeIn('a'));
    const [entry] = file.entries;
    const entries = Array.from({ length: 300 }, () => ({ ...entry, kind: 'arrive.nothing' }));
    const { status, body } = await takeIn(here, { ...file, entries });
    expect([status, body.fields?.length, body.fieldsFound]).toEqual([400, 200, 300]);
    expect(body.detail).toContain('And 280 more.');
  });
});

describe('a file that tells of a watch that is here', () => {
  /** The same watch as taken in here, taken in and given another cell there under another owner, as a file. */
  async function answer(mine: string, wellMeasured = true): Promise<JobFile> {
    await there.post('/api/lots', { ...delivery, lotCode: 'S-9' });
    const job = await there.takeIn('theirs', { watchId: newJob('a').watchId });
    if (wellMeasured) await there.record(job, 'theirs measured', 'cell.well-measured', WELL);
    const fitted = { ...OURS, lotCode: 'S-9' };
    expect((await there.record(job, 'theirs fitted', 'cell.fitted', fitted, LATER)).status).toBe(201);
    expect(job).not.toBe(mine);
    return saved(there, job);
  }
  const OURS = { ...fittedFromLot, supplier: delivery.supplier };
  const WELL = { diameterMm: 7, depthMm: 2.3 };
  const LATER = { occurredAt: '2026-03-17T12:05:00.000Z' };

  it('takes it off no list of watches that carry a lot: what it says stands beside', async () => {
    await here.post('/api/lots', delivery);
    const mine = await here.takeInMeasured('a');
    await here.record(mine, 'mine fitted', 'cell.fitted', OURS);
    const before = (await here.get<CarriedLot>('/api/lots/carried?supplier=Saltmarsh Wholesale&lot=S-1'))
      .body;
    expect(before.watches).toMatchObject([{ jobId: mine, laterElsewhere: null }]);
    expect((await takeIn(here, await answer(mine))).status).toBe(201);
    const { body } = await here.get<CarriedLot>('/api/lots/carried?supplier=Saltmarsh Wholesale&lot=S-1');
    expect(body.watches).toMatchObject([
      { jobId: mine, laterElsewhere: { cellCode: 'SR621SW', counter: 'Test counter' } },
    ]);
    const csv = (await here.get<string>('/api/lots/carried.csv?supplier=Saltmarsh Wholesale&lot=S-1')).body;
    expect(csv).toContain('SR621SW, 2026-03-17T12:05:00.000Z, Test counter');
    // What this shop fits there next takes its place.
    const again = await here.takeIn('again', { watchId: newJob('a').watchId });
    await here.record(again, 'again measured', 'cell.well-measured', WELL);
    await here.post('/api/lots', { ...delivery, id: idOf('lot of another'), lotCode: 'S-2' });
    const other = { ...OURS, lotId: idOf('lot of another'), lotCode: 'S-2' };
    expect((await here.record(again, 'again fitted', 'cell.fitted', other, LATER)).status).toBe(201);
    expect(
      (await here.get<CarriedLot>('/api/lots/carried?supplier=Saltmarsh Wholesale&lot=S-1')).body.watches,
    ).toEqual([]);
  });

  it.each([
    [
      'received',
      (file: JobFile) => ({ ...file, job: { ...file.job, receivedAt: '9999-01-01T00:00:00.000Z' } }),
      400,
    ],
    [
      'received',
      (file: JobFile) => ({ ...file, job: { ...file.job, receivedAt: '0000-01-01T00:00:00.000Z' } }),
      400,
    ],
    [
      'received',
      (file: JobFile) => ({ ...file, job: { ...file.job, receivedAt: '2026-03-17T12:10:01.000Z' } }),
      422,
    ],
    ['recorded', (file: JobFile) => withFirst(file, { recordedAt: '9999-01-01T00:00:00.000Z' }), 400],
    ['recorded', (file: JobFile) => withFirst(file, { recordedAt: '2026-03-18T12:00:00.000Z' }), 422],
    ['done', (file: JobFile) => withFirst(file, { occurredAt: '2026-03-18T12:00:00.000Z' }), 422],
  ])('is refused where it was %s at a time nobody saw yet', async (_, change, status) => {
    const file = change(await answer(''));
    expect((await takeIn(here, file)).status).toBe(status);
    expect((await here.get<JobSummary[]>('/api/rack')).body).toEqual([]);
  });
});

const withFirst = (file: JobFile, change: object) => ({
  ...file,
  entries: file.entries.map((entry, index) => (index === 0 ? { ...entry, ...change } : entry)),
});

describe('lists as CSV', () => {
  it('are the rack, all jobs, the stock, its ledger, the collections and the logbook of a job', async () => {
    const job = await made();
    const lines = async (path: string): Promise<string[]> =>
      (await here.get<string>(path)).body.trim().split('\r\n');
    expect(await lines('/api/lists/rack.csv')).toHaveLength(2);
    expect((await lines('/api/lists/jobs.csv'))[1]).toContain('T0001-8');
    expect((await lines('/api/lists/stock.csv'))[1]).toBe(
      'cell,SR621SW,4,S-1,Saltmarsh Wholesale,2025-09-17,2028-09-30,60,no,',
    );
    expect(
      (await lines('/api/lists/ledger.csv')).slice(1).map((line) => line.split(',').slice(2, 8).join(',')),
    ).toEqual(['cell,SR621SW,S-1,-1,fitted,T0001-8', 'cell,SR621SW,S-1,5,goods in,']);
    expect(await lines('/api/lists/collections.csv')).toHaveLength(1);
    const logbook = await lines(`/api/jobs/${job}/logbook.csv`);
    expect(logbook).toHaveLength(13);
    expect(logbook.join()).toContain('as found: residue');
    expect(await lines(`/api/customers/${newJob('a').customer.id}/jobs.csv`)).toHaveLength(2);
    expect(await lines(`/api/watches/${newJob('a').watchId}/visits.csv`)).toHaveLength(2);
    for (const path of ['lists/nothing', `customers/${idOf('x')}/jobs`, `watches/${idOf('x')}/visits`])
      expect((await here.get(`/api/${path}.csv`)).status).toBe(404);
  });

  it('hold nothing a spreadsheet would run', async () => {
    await here.takeIn('a', {
      customer: { id: idOf('customer a'), name: '=HYPERLINK("x")', phone: '', email: '' },
    });
    expect((await here.get<string>('/api/lists/rack.csv')).body).toContain("'=HYPERLINK");
  });
});
