import type { JobFile, JobImported, JobResource, Problem } from '../contract';
import { Counter, delivery, newJob, technicianId } from '../testing/counter';
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
  await here.record(job, 'fitted', 'cell.fitted', {
    cellCode: 'SR621SW',
    lotId: delivery.id,
    supplier: '',
    lotCode: 'S-1',
    alkalineAgreed: false,
    ownersOwn: false,
  });
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
    expect(bare(yours)).toEqual(bare(mine));
    expect(yours.customer).toEqual(mine.customer);
    expect(yours.attachments).toEqual(mine.attachments);
    expect(yours.job.cameAs).toBe('T0001-8');
    const photo = await fetch(`${there.url}/api/attachments/${mine.attachments[0]?.hash ?? ''}`);
    expect(Buffer.from(await photo.arrayBuffer())).toEqual(PHOTO);
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
    ['no JSON', 'PK\u0003\u0004', 'no job or visit'],
    ['a list', '[1, 2]', 'no job or visit'],
    ['of another program', { format: 'bookkeeping', formatVersion: 1 }, 'no job or visit'],
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
      'not what it was',
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
