import Database from 'better-sqlite3';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type {
  CustomerResource,
  FindResult,
  JobResource,
  JobSummary,
  Problem,
  StockResource,
  WatchResource,
} from '../contract';
import { handback } from '../core/advice/handback';
import { foldJob, type Entry } from '../core/logbook';
import type { SeenBefore } from '../core/craft/identify';
import { Counter, delivery, entryOf, newJob, technicianId } from '../testing/counter';
import { idOf, movementOf, readingOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const fitting = {
  cellCode: 'SR621SW',
  lotId: delivery.id,
  supplier: delivery.supplier,
  lotCode: delivery.lotCode,
  alkalineAgreed: false,
  ownersOwn: false,
};
const stock = async () => (await counter.get<StockResource>('/api/stock')).body;

async function upToSigning(name = 'job'): Promise<string> {
  await counter.post('/api/lots', delivery);
  const job = await counter.takeIn(name);
  const put = async (
    ...args: Parameters<Counter['record']> extends [string, ...infer R] ? R : never
  ): Promise<void> => {
    const { status, body } = await counter.record(job, ...args);
    if (status !== 201) throw new Error(`${args[1]}: ${body.detail}`);
  };
  await put('back', 'open.back', {
    kind: 'snap-on',
    openedWith: 'case knife',
    protection: 'film',
    went: 'freely',
    spotClock: 6.5,
    lipClock: 6.5,
    seenFrom: 'behind',
    toolIds: [],
    separationMm: null,
    rearMm: null,
  });
  await put('movement', 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2', 'engraving'));
  await put('volts', 'check.reading', readingOf('restVoltageV', 1.2));
  await put('found', 'cell.found', { marking: '364', condition: 'clean' });
  await put('fitted', 'cell.fitted', fitting);
  await put('binned', 'cell.old-settled', { taped: true, to: 'spent bin' });
  await put('gasket', 'seal.gasket', {
    state: 'renewed',
    findings: [],
    ageYears: null,
    meetsWater: false,
    greased: true,
    greasedBy: 'not noted',
    profile: 'round',
    size: '',
    lotId: null,
    reason: 'age unknown',
  });
  await put('closed', 'seal.closed', {
    how: 'thumbs',
    seamEven: true,
    raisedClocks: [],
    seenFrom: null,
    interim: false,
  });
  await put('runs', 'set.runs', { runs: true, watchedSeconds: 60 });
  await put('time', 'set.time', { set: true });
  await put('functions', 'set.functions', {
    proved: { hands: 'works', 'seconds hand': 'works' },
    handedBackSo: '',
  });
  await put('crown', 'set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
  return job;
}

function signature(jobId: string) {
  const entries = counter.store.logbook.job(jobId)?.entries ?? [];
  const context = counter.store.context();
  const state = foldJob(entries, context);
  return {
    initials: 'TQ',
    catalogueRevision: context.catalogue.revision,
    policyRevision: context.policy.revision,
    restsOnSequence: state.lastSequence,
    statement: handback(state, counter.store.stock.lots(), context).statement,
  };
}

it('an entry of a time that has not come is refused, ten minutes of a fast clock apart', async () => {
  const job = await counter.takeIn('early');
  const at = (occurredAt: string) =>
    counter.record(job, `at ${occurredAt}`, 'check.reading', readingOf('restVoltageV', 1.4), { occurredAt });
  expect((await at('2026-03-17T12:10:00.000Z')).status).toBe(201);
  const { status, body } = await at('2026-03-17T12:10:01.000Z');
  expect([status, body.detail]).toEqual([422, expect.stringContaining('by this counter’s clock')]);
});

describe('taking a watch in', () => {
  it('gives a ticket, puts the job on the rack, and records who took it in', async () => {
    const answer = await counter.post<JobResource['job']>('/api/jobs', newJob('a'));
    expect(answer.status).toBe(201);
    expect(answer.body.ticket).toBe('T0001-8');
    const { body } = await counter.get<JobResource>(`/api/jobs/${answer.body.id}`);
    expect(body.entries.map((entry) => entry.kind)).toEqual([
      'arrive.received',
      'arrive.watch',
      'arrive.complaint',
      'arrive.service',
      'arrive.promise',
      'arrive.consent',
    ]);
    expect(body.entries.every((entry) => entry.technicianId === technicianId)).toBe(true);
    const rack = await counter.get<JobSummary[]>('/api/rack');
    expect(rack.body).toMatchObject([
      {
        ticket: 'T0001-8',
        customerName: 'Anders Pellwick',
        watch: 'Orrelin C2140-3',
        current: 'open',
        waitsFor: 'Open: how the back was opened',
      },
    ]);
  });

  it('is the same job when the same intake is sent again', async () => {
    await counter.takeIn('a');
    const again = await counter.post('/api/jobs', newJob('a'));
    expect(again.status).toBe(200);
    expect((await counter.get<JobSummary[]>('/api/rack')).body).toHaveLength(1);
  });

  it('is all or nothing: an intake with one refused entry leaves no trace', async () => {
    const bad = newJob('a');
    const entries = [...bad.entries, entryOf('early', 'handback.collected', { by: 'x', paidMinor: 0 })];
    const answer = await counter.post<Problem>('/api/jobs', { ...bad, entries });
    expect(answer.status).toBe(422);
    expect((await counter.get<JobSummary[]>('/api/rack')).body).toHaveLength(0);
    expect((await counter.get<FindResult>('/api/find?q=Pellwick')).body.customers).toHaveLength(0);
  });

  it('refuses a visit of another customer', async () => {
    await counter.takeIn('a');
    const answer = await counter.post<Problem>('/api/jobs', newJob('b', { visitId: idOf('visit a') }));
    expect(answer).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('another customer') as string },
    });
  });

  it('finds job and owner again by name, phone, serial and ticket', async () => {
    const id = await counter.takeIn('a');
    for (const q of [
      'pellwick',
      '05550199',
      '4471902',
      'T0001',
      'c2140',
      'pelwick',
      'palwick anders',
      'PELLWIKC',
      '0555 0199',
      'orelin',
      'an',
    ]) {
      const { body } = await counter.get<FindResult>(`/api/find?q=${q}`);
      expect([q, body.jobs.map((job) => job.id)]).toEqual([q, [id]]);
    }
    expect((await counter.get<FindResult>('/api/find?q=100%25')).body.jobs).toHaveLength(0);
    expect((await counter.get<{ jobId: string }>('/api/tickets/T0001-8')).body.jobId).toBe(id);
    expect((await counter.get('/api/tickets/T0001-7')).status).toBe(404);
  });
});

describe('finding', () => {
  it('follows the entries: what is recorded is found, what is corrected away is not', async () => {
    const job = await counter.takeIn('a');
    const found = async (q: string): Promise<string[]> =>
      (await counter.get<FindResult>(`/api/find?q=${encodeURIComponent(q)}`)).body.jobs.map(({ id }) => id);
    expect(await found('QB 22-4')).toEqual([]);
    await counter.record(job, 'm', 'identify.movement', movementOf('quillbeck-22-4', 'QB 22-4'));
    expect(await found('qb 22-4')).toEqual([job]);
    await counter.record(job, 'n', 'identify.movement', movementOf('orrelin-41-2', 'OR 41.2'), {
      supersedes: [idOf('entry m')],
    });
    expect(await found('QB 22-4')).toEqual([]);
  });

  it('finds an owner again in spite of a slip, and nobody for a stranger', async () => {
    await counter.takeIn('a');
    await counter.takeIn('b', {
      customer: { id: idOf('customer b'), name: 'Čestmír Ørvale', phone: '', email: '' },
    });
    const owners = async (q: string): Promise<string[]> =>
      (await counter.get<FindResult>(`/api/find?q=${encodeURIComponent(q)}`)).body.customers.map(
        ({ name }) => name,
      );
    expect(await owners('pelwick')).toEqual(['Anders Pellwick']);
    expect(await owners('cestmir')).toEqual(['Čestmír Ørvale']);
    expect(await owners('Thistle')).toEqual([]);
  });

  it.each(['"', "' OR 1=1 --", 'NEAR(a b)', '*', 'text:pell', '((', '😀😀😀'])(
    'takes “%s” for text, not for a query language',
    async (q) => {
      await counter.takeIn('a');
      expect((await counter.get<FindResult>(`/api/find?q=${encodeURIComponent(q)}`)).status).toBe(200);
    },
  );
});

describe('recording', () => {
  it('takes the same entry again as the same, and another body under its id as a conflict', async () => {
    const job = await counter.takeIn();
    const first = await counter.record(job, 'volts', 'check.reading', readingOf('restVoltageV', 1.31));
    const again = await counter.record(job, 'volts', 'check.reading', readingOf('restVoltageV', 1.31));
    const other = await counter.record(job, 'volts', 'check.reading', readingOf('restVoltageV', 1.5));
    expect([first.status, again.status, other.status]).toEqual([201, 200, 409]);
    expect(again.body).toEqual(first.body);
    expect(
      (await counter.get<JobResource>(`/api/jobs/${job}`)).body.entries.filter(
        (entry) => entry.kind === 'check.reading',
      ),
    ).toHaveLength(1);
  });

  it('refuses an entry nobody of this shop made, and one for no job', async () => {
    const job = await counter.takeIn();
    const stranger = await counter.record(
      job,
      'x',
      'set.time',
      { set: true },
      { technicianId: idOf('stranger') },
    );
    expect(stranger).toMatchObject({ status: 422, body: { title: 'Nobody signed for this' } });
    expect((await counter.record(idOf('no job'), 'y', 'set.time', { set: true })).status).toBe(404);
  });

  it('raises nothing and refuses a payload version it does not know', async () => {
    const job = await counter.takeIn();
    const answer = await counter.record(job, 'v', 'set.time', { set: true }, { payloadVersion: 0 });
    expect(answer.status).toBe(400);
  });

  it('tells everyone who listens', async () => {
    const job = await counter.takeIn();
    const stream = await fetch(`${counter.url}/api/news`);
    const reader = stream.body?.getReader();
    await reader?.read();
    await counter.record(job, 'n', 'set.time', { set: true });
    const chunk = await reader?.read();
    expect(new TextDecoder().decode(chunk?.value)).toContain(`"jobId":"${job}"`);
    await reader?.cancel();
  });
});

describe('stock and the spent bin', () => {
  it('takes a fitted cell from its lot and bins the old one, each in its entry’s transaction', async () => {
    await upToSigning();
    expect(await stock()).toMatchObject({
      lots: [{ code: 'SR621SW', balance: 4, toBeCounted: false }],
      spentInBin: 1,
    });
  });

  it('gives both back when they are withdrawn, and takes them again when the withdrawal is', async () => {
    const job = await upToSigning();
    await counter.record(
      job,
      'w1',
      'logbook.withdrawn',
      { reason: 'wrong watch' },
      { withdraws: idOf('entry fitted') },
    );
    await counter.record(
      job,
      'w2',
      'logbook.withdrawn',
      { reason: 'wrong watch' },
      { withdraws: idOf('entry binned') },
    );
    expect(await stock()).toMatchObject({ lots: [{ balance: 5 }], spentInBin: 0 });
    await counter.record(
      job,
      'w3',
      'logbook.withdrawn',
      { reason: 'was right after all' },
      { withdraws: idOf('entry w1') },
    );
    expect(await stock()).toMatchObject({ lots: [{ balance: 4 }], spentInBin: 0 });
  });

  it('moves the line with a correction to another lot', async () => {
    const job = await upToSigning();
    await counter.post('/api/lots', { ...delivery, id: idOf('lot 2'), lotCode: 'S-2', count: 3 });
    const corrected = await counter.record(
      job,
      'fitted 2',
      'cell.fitted',
      { ...fitting, lotId: idOf('lot 2'), lotCode: 'S-2' },
      { supersedes: [idOf('entry fitted')] },
    );
    expect(corrected.status).toBe(201);
    expect((await stock()).lots.map((lot) => [lot.lotCode, lot.balance])).toEqual([
      ['S-1', 5],
      ['S-2', 2],
    ]);
  });

  it('keeps every fitting when eight come for five cells: five lines, three to count, never below zero', async () => {
    await counter.post('/api/lots', delivery);
    const jobs = await Promise.all(
      Array.from({ length: 8 }, (_, index) => counter.takeInMeasured(`many ${index}`)),
    );
    const answers = await Promise.all(
      jobs.map((job, index) => counter.record(job, `many ${index} fitted`, 'cell.fitted', fitting)),
    );
    expect(answers.map((answer) => answer.status)).toEqual(Array(8).fill(201));
    expect(await stock()).toMatchObject({ lots: [{ balance: 0, toBeCounted: true, unbooked: 3 }] });
    expect(counter.store.stock.ledger().map(({ delta }) => delta)).toEqual([-1, -1, -1, -1, -1, 5]);
    const fitted = jobs.flatMap(
      (job) =>
        counter.store.logbook.job(job)?.entries.filter((entry: Entry) => entry.kind === 'cell.fitted') ?? [],
    );
    expect(fitted).toHaveLength(8);
  });

  it('books a delivery once, under the cell its name means, and refuses names of no cell and impossible dates', async () => {
    expect((await counter.post('/api/lots', delivery)).status).toBe(201);
    expect((await counter.post<Problem>('/api/lots', { ...delivery, id: idOf('again') })).status).toBe(409);
    expect(
      await counter.post<Problem>('/api/lots', {
        ...delivery,
        id: idOf('x'),
        lotCode: 'S-9',
        code: 'ZZ999',
      }),
    ).toMatchObject({ status: 422, body: { whatToDo: expect.stringContaining('364') as string } });
    const wrong = await counter.post<Problem>('/api/lots', {
      ...delivery,
      id: idOf('y'),
      lotCode: 'S-8',
      bestBefore: '1926-09-30',
      count: 0,
    });
    expect(wrong.status).toBe(400);
    expect(new Set(wrong.body.fields?.map((field) => field.path))).toEqual(new Set(['bestBefore', 'count']));
    expect((await stock()).lots).toHaveLength(1);
  });

  it('refuses to fit the wrong cell but keeps it as found', async () => {
    await counter.post('/api/lots', delivery);
    const job = await counter.takeIn();
    await counter.record(job, 'm', 'identify.movement', movementOf('pellorane-6108', 'PL 6108'));
    const refused = await counter.record(job, 'f', 'cell.fitted', fitting);
    expect(refused).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('too thin') as string },
    });
    expect((await stock()).lots[0]?.balance).toBe(5);
    expect(
      (await counter.record(job, 'g', 'cell.found', { marking: 'SR621SW', condition: 'clean' })).status,
    ).toBe(201);
  });
});

describe('signing and the papers', () => {
  it('lets one of two technicians who sign at once through, and tells the other why not', async () => {
    const job = await upToSigning();
    const payload = signature(job);
    const answers = await Promise.all([
      counter.record(job, 's1', 'handback.signed', payload),
      counter.record(job, 's2', 'handback.signed', payload),
    ]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([201, 422]);
    expect(answers.find((answer) => answer.status === 422)?.body.detail).toContain('signed already');
  });

  it('counts a watch that was looked at and went out unnamed among those in no book', async () => {
    const before = async () => (await counter.get<SeenBefore[]>('/api/movements/seen')).body;
    const [looked, unseen] = [await counter.takeIn('looked'), await counter.takeIn('unseen')];
    await counter.record(looked, 'e', 'identify.evidence', { look: 'jewels', value: '0', withinMm: 0 });
    for (const job of [looked, unseen]) {
      for (const stage of ['open', 'identify', 'check', 'cell', 'seal', 'set'] as const)
        await counter.record(job, `${job} ${stage}`, 'logbook.stage-skipped', {
          stage,
          reason: 'goes back as it came',
        });
      expect(await before()).toEqual(
        job === looked ? [] : [{ calibreId: null, revision: null, caseCode: 'C2140-3', jobs: 1 }],
      );
      const answer = await counter.record(job, `${job} signed`, 'handback.signed', signature(job));
      expect(answer.status).toBe(201);
    }
    expect(await before()).toEqual([{ calibreId: null, revision: null, caseCode: 'C2140-3', jobs: 1 }]);
  });

  it('keeps what was forecast for its cell as it was signed, though the job is summarised again', async () => {
    const job = await upToSigning();
    await counter.record(job, 'sign', 'handback.signed', signature(job));
    const file = new Database(join(counter.dataDir, 'wax-lantern.db'));
    const medianOf = (): unknown =>
      file
        .prepare(
          `SELECT visit ->> '$.places[0].fitted.forecast.medianMonths' FROM cell_visit WHERE job_id = ?`,
        )
        .pluck()
        .get(job);
    expect(medianOf()).toEqual(expect.any(Number));
    // As if the book had said something else then.
    file
      .prepare(
        `UPDATE cell_visit SET visit = json_set(visit, '$.places[0].fitted.forecast.medianMonths', 11)`,
      )
      .run();
    await counter.takeIn('later', {
      customer: { id: idOf('customer job'), name: 'Anders Pellwick-Thorne', phone: '0555 0299', email: '' },
    });
    expect((await counter.get<FindResult>('/api/find?q=05550299')).body.jobs).toHaveLength(2);
    expect(medianOf()).toBe(11);
    // Open again, it is forecast by what is known now.
    await counter.record(job, 'later', 'check.reading', readingOf('currentUA', 1.3));
    expect(medianOf()).not.toBe(11);
    file.close();
  });

  it('gives label, record, job file and calendar; the record stays as signed after a reopening', async () => {
    const job = await upToSigning();
    const payload = signature(job);
    await counter.record(job, 'sign', 'handback.signed', payload);
    await counter.record(job, 'later', 'check.reading', readingOf('currentUA', 1.3));
    for (const paper of ['label.pdf', 'record.pdf']) {
      const { status, type, body } = await counter.get<string>(`/api/jobs/${job}/${paper}`);
      expect([status, type, body.slice(0, 5)]).toEqual([200, 'application/pdf', '%PDF-']);
    }
    const file = await counter.get<{
      statement: unknown;
      entries: Entry[];
      book: { calibre: { id: string } };
    }>(`/api/jobs/${job}/job.json`);
    expect(file.body.statement).toEqual(payload.statement);
    expect(file.body.entries).toHaveLength(20);
    expect(file.body.book.calibre.id).toBe('orrelin-41-2');
    const calendar = await counter.get<string>(`/api/jobs/${job}/next-visit.ics`);
    expect(calendar.body).toContain('BEGIN:VEVENT');
    expect(calendar.body).toContain(
      `DTSTART;VALUE=DATE:${payload.statement.nextVisitOn?.replaceAll('-', '')}`,
    );
    for (const code of ['qr', 'bars']) {
      expect((await counter.get<string>(`/api/jobs/${job}/label/${code}.svg`)).body).toContain('<svg');
    }
  });

  it('has no calendar before a cell is fitted', async () => {
    const job = await counter.takeIn();
    expect((await counter.get(`/api/jobs/${job}/next-visit.ics`)).status).toBe(404);
  });
});

describe('bad input', () => {
  it.each([
    ['GET', '/api/nowhere', 404],
    ['GET', '/api/jobs/not-an-id', 404],
    ['GET', '/api/jobs/%E0%A4%A', 400],
    ['GET', '/api/find', 400],
    ['GET', '/api/find?q=%20', 400],
    ['POST', '/api/jobs', 400],
    ['POST', '/api/technicians', 400],
    ['GET', '/nowhere', 404],
  ])('%s %s is answered %i as a problem document', async (method, path, status) => {
    const answer =
      method === 'GET' ? await counter.get<Problem>(path) : await counter.post<Problem>(path, {});
    expect(answer.status).toBe(status);
    expect(answer.type).toContain('application/problem+json');
    expect(answer.body).toMatchObject({
      status,
      title: expect.any(String) as string,
      detail: expect.any(String) as string,
    });
    expect(JSON.stringify(answer.body)).not.toMatch(/at .*\.ts|node_modules|SQLITE/);
  });

  it.each([
    ['broken JSON', '{"kind":', 400],
    ['not an object', '"hello"', 400],
    ['a body over a megabyte', JSON.stringify({ text: 'x'.repeat(1_100_000) }), 413],
  ])('%s is refused', async (_, body, status) => {
    const job = await counter.takeIn();
    expect((await counter.post(`/api/jobs/${job}/entries`, body)).status).toBe(status);
  });

  it('says of each wrong field what is wrong and gives a good value', async () => {
    const job = await counter.takeIn();
    const reading = await counter.record(job, 'r', 'check.reading', readingOf('restVoltageV', 30));
    expect(reading.status).toBe(400);
    expect(reading.body.fields?.[0]).toMatchObject({
      path: 'payload.value',
      message: expect.stringMatching(/0 to 4\.5 V.*1\.55/) as string,
    });
    const found = await counter.record(job, 'f', 'cell.found', {
      marking: 'x'.repeat(500),
      condition: 'clean',
    });
    expect(found.body.fields?.[0]?.message).toMatch(/at most 60 characters.*SR 621 SW/);
    const loose = await counter.record(job, 'l', 'cell.old-settled', { taped: false, to: 'spent bin' });
    expect(loose.body.fields?.[0]?.message).toContain('taped');
  });

  it('treats quotes and SQL in a name as text', async () => {
    const name = `O'Quill"; DROP TABLE entry; --`;
    await counter.takeIn('a', { customer: { id: idOf('customer a'), name, phone: '', email: '' } });
    expect((await counter.get<JobSummary[]>('/api/rack')).body[0]?.customerName).toBe(name);
  });
});

describe('an owner', () => {
  const owner = (name: string) => `/api/customers/${idOf(`customer ${name}`)}`;
  const erase = (name: string, by = technicianId) =>
    counter.post<CustomerResource & Problem>(`${owner(name)}/erase`, { technicianId: by });

  it('is shown with every job, the newest first, and a new number reaches all envelopes', async () => {
    const first = await counter.takeIn('a');
    const second = await counter.takeIn('b', {
      customer: { id: idOf('customer a'), name: 'Anders Pellwick-Thorne', phone: '0555 0200', email: '' },
    });
    const { body } = await counter.get<CustomerResource>(owner('a'));
    expect(body).toMatchObject({
      customer: { name: 'Anders Pellwick-Thorne', phone: '0555 0200' },
      erasedAt: null,
    });
    expect(body.jobs.map((job) => job.id)).toEqual([second, first]);
    expect((await counter.get<JobSummary[]>('/api/rack')).body.map((job) => job.customerName)).toEqual(
      Array(2).fill('Anders Pellwick-Thorne'),
    );
    expect((await counter.get<FindResult>('/api/find?q=05550200')).body.jobs).toHaveLength(2);
  });

  it('has their watches as last described, and a watch has all its visits', async () => {
    const first = await counter.takeIn('a');
    const again = newJob('b', { watchId: idOf('watch a'), customer: newJob('a').customer });
    const second = await counter.takeIn('b', { watchId: again.watchId, customer: again.customer });
    await counter.takeIn('c', { customer: again.customer });
    await counter.record(
      second,
      'described',
      'arrive.watch',
      {
        maker: 'Orrelin',
        reference: 'C2140-3',
        serial: '4471902',
        engraved: 'for A.',
        ratingBar: 3,
        crownClock: 4,
      },
      { supersedes: [idOf('entry b watch')] },
    );
    const { body } = await counter.get<CustomerResource>(owner('a'));
    expect(body.watches.map(({ watchId, ticket, watch }) => [watchId, ticket, watch.crownClock])).toEqual([
      [idOf('watch a'), 'T0002-6', 4],
      [idOf('watch c'), 'T0003-4', 3],
    ]);
    const watch = await counter.get<WatchResource>(`/api/watches/${idOf('watch a')}`);
    expect(watch.body.visits.map((visit) => visit.jobId)).toEqual([second, first]);
    expect(watch.body.visits[0]?.entries).toHaveLength(7);
    expect((await counter.get('/api/watches/none')).status).toBe(404);
  });

  it('is erased from rack, search, papers and file, while the technical record stays whole', async () => {
    const job = await counter.takeIn('a');
    const before = (await counter.get<JobResource>(`/api/jobs/${job}`)).body.entries;
    expect(await erase('a')).toMatchObject({
      status: 200,
      body: { erasedAt: expect.any(String) as string, customer: { name: '', phone: '', email: '' } },
    });
    expect((await erase('a')).status).toBe(200);
    const after = (await counter.get<JobResource>(`/api/jobs/${job}`)).body;
    expect(after.entries).toEqual(before);
    expect(after.customer).toBeNull();
    expect((await counter.get<JobSummary[]>('/api/rack')).body).toMatchObject([
      { ticket: 'T0001-8', customerName: '', watch: 'Orrelin C2140-3' },
    ]);
    for (const q of ['pellwick', 'anders', '05550199']) {
      expect((await counter.get<FindResult>(`/api/find?q=${q}`)).body).toEqual({ jobs: [], customers: [] });
    }
    expect((await counter.get<FindResult>('/api/find?q=4471902')).body.jobs).toHaveLength(1);
    for (const paper of ['label.pdf', 'record.pdf'])
      expect((await counter.get(`/api/jobs/${job}/${paper}`)).status).toBe(200);
    expect(JSON.stringify((await counter.get(`/api/jobs/${job}/job.json`)).body)).not.toContain('Pellwick');
  });

  it('leaves no trace of the person in the database file', async () => {
    await counter.takeIn('a', {
      customer: {
        id: idOf('customer a'),
        name: 'Xanthippe Vyrkoldin',
        phone: '0999 123',
        email: 'xv@pier.example',
      },
    });
    const onDisk = (): string =>
      readdirSync(counter.dataDir, { recursive: true, withFileTypes: true })
        .filter((each) => each.isFile())
        .map((file) => readFileSync(join(file.parentPath, file.name)).toString('latin1'))
        .join('')
        .toLowerCase();
    expect(onDisk()).toContain('vyrkoldin');
    await erase('a');
    await counter.close({ keep: true });
    expect(onDisk()).not.toMatch(/vyrkoldin|xanthippe|xv@pier|0999 ?123|yrkol/);
    counter = await Counter.open({ dataDir: counter.dataDir });
  });

  it('who was erased is not filled in again, and only someone of the shop erases', async () => {
    await counter.takeIn('a');
    expect((await erase('a', idOf('stranger'))).status).toBe(422);
    expect((await erase('nobody')).status).toBe(404);
    await erase('a');
    const again = await counter.post<Problem>('/api/jobs', newJob('b', { customer: newJob('a').customer }));
    expect(again).toMatchObject({ status: 422, body: { detail: 'This owner was erased.' } });
    expect((await counter.get<CustomerResource>(owner('a'))).body.customer.name).toBe('');
  });
});

describe('people', () => {
  it('adds a technician once', async () => {
    const person = { id: idOf('new'), name: 'Una Saltmere', initials: 'US' };
    expect((await counter.post('/api/technicians', person)).status).toBe(201);
    expect((await counter.post('/api/technicians', person)).status).toBe(200);
    expect((await counter.post('/api/technicians', { ...person, name: 'Another' })).status).toBe(409);
  });
});
