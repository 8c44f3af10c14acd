import type {
  CustomerResource,
  DayResource,
  JobResource,
  JobSummary,
  Problem,
  StockResource,
} from '../contract';
import { Counter, delivery, fittedFromLot, entryOf, newJob, technicianId } from '../testing/counter';
import { idOf, movementOf } from '../testing/fixtures';
import { foldJob } from '../core/logbook';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const job = async (id: string): Promise<JobResource> =>
  (await counter.get<JobResource>(`/api/jobs/${id}`)).body;
const rack = async (): Promise<JobSummary[]> => (await counter.get<JobSummary[]>('/api/rack')).body;
const stock = async (): Promise<StockResource> => (await counter.get<StockResource>('/api/stock')).body;
const closing = { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: true };

describe('closing for the time being', () => {
  const request = {
    lines: [{ what: 'gasket 28.2 × 0.80', count: 1 }],
    supplier: '',
    expectedOn: '2026-03-24',
  };
  it('opens one follow-up job that waits for the part, however often the closing is sent or made', async () => {
    const id = await counter.takeIn('a');
    await counter.record(id, 'request', 'arrive.parts-request', request);
    expect((await counter.record(id, 'closed', 'seal.closed', closing)).status).toBe(201);
    expect((await counter.record(id, 'closed', 'seal.closed', closing)).status).toBe(200);
    await counter.record(id, 'closed again', 'seal.closed', closing);
    const { followedBy } = (await job(id)).job;
    expect(followedBy).toMatchObject([{ ticket: 'T0002-6', why: 'interim closing' }]);
    const follow = await job(followedBy[0]?.jobId ?? '');
    expect(follow.job).toMatchObject({
      watchId: (await job(id)).job.watchId,
      follows: { jobId: id, ticket: 'T0001-8', why: 'interim closing' },
    });
    expect(follow.customer?.name).toBe('Anders Pellwick');
    const { facts } = foldJob(follow.entries, counter.store.context());
    expect(facts.service?.payload.service).toBe('reseal and test');
    expect(facts.partsRequest?.payload).toEqual(request);
    expect(facts.watch?.payload.serial).toBe('4471902');
    expect(follow.entries.every((entry) => entry.technicianId === technicianId)).toBe(true);
    expect((await rack()).find((each) => each.ticket === 'T0002-6')).toMatchObject({
      waitsFor: 'gasket 28.2 × 0.80, expected 24 Mar 2026',
      partsExpectedOn: '2026-03-24',
    });
    expect((await rack()).find((each) => each.ticket === 'T0001-8')?.partsExpectedOn).toBeNull();
  });
  it('opens none when the watch is closed for good', async () => {
    const id = await counter.takeIn('a');
    await counter.record(id, 'closed', 'seal.closed', { ...closing, interim: false });
    expect((await job(id)).job.followedBy).toEqual([]);
    expect(await rack()).toHaveLength(1);
  });
});

describe('a fitting corrected twice', () => {
  it('takes one cell from its lot, as it did', async () => {
    await counter.post('/api/lots', delivery);
    const id = await counter.takeInMeasured('a');
    const fitting = {
      cellCode: '364',
      lotId: delivery.id,
      supplier: delivery.supplier,
      lotCode: delivery.lotCode,
      alkalineAgreed: false,
      ownersOwn: false,
    };
    await counter.record(id, 'fitted', 'cell.fitted', fitting);
    for (const [name, earlier] of [
      ['again', 'fitted'],
      ['once more', 'again'],
    ] as const) {
      const { id: corrected } = entryOf(earlier, 'cell.fitted', fitting);
      const answer = await counter.record(id, name, 'cell.fitted', fitting, { supersedes: [corrected] });
      expect(answer.status).toBe(201);
    }
    expect((await stock()).lots.map(({ balance }) => balance)).toEqual([delivery.count - 1]);
  });
});

describe('several watches on one visit', () => {
  it('share owner and receipt, and know each other', async () => {
    const first = newJob('a');
    await counter.post('/api/jobs', first);
    const second = { ...newJob('b'), visitId: first.visitId, customer: first.customer };
    expect((await counter.post('/api/jobs', second)).status).toBe(201);
    expect((await job(first.id)).job.sameVisit).toMatchObject([
      { ticket: 'T0002-6', watch: 'Orrelin C2140-3' },
    ]);
    expect((await job(second.id)).job.sameVisit).toMatchObject([{ ticket: 'T0001-8' }]);
    const receipt = await fetch(`${counter.url}/api/visits/${first.visitId}/receipt.pdf`);
    expect(receipt.headers.get('content-type')).toBe('application/pdf');
    expect(
      Buffer.from(await receipt.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    expect((await counter.get(`/api/visits/${idOf('none')}/receipt.pdf`)).status).toBe(404);
  });
});

describe('a comeback', () => {
  it('is tied to the earlier job of the same watch, and to no other', async () => {
    const first = newJob('a');
    await counter.post('/api/jobs', first);
    const back = { ...newJob('b'), watchId: first.watchId, customer: first.customer, followsJobId: first.id };
    expect((await counter.post('/api/jobs', back)).status).toBe(201);
    expect((await job(back.id)).job.follows).toMatchObject({ jobId: first.id, why: 'comeback' });
    const known = await counter.get<CustomerResource>(`/api/customers/${first.customer.id}`);
    expect(known.body.watches).toMatchObject([{ jobId: back.id, ticket: 'T0002-6' }]);
    const strange = { ...newJob('c'), followsJobId: first.id };
    expect(await counter.post<Problem>('/api/jobs', strange)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('not of this watch') as string },
    });
    expect(await rack()).toHaveLength(2);
  });
});

describe('stock by lot', () => {
  const kit = {
    ...delivery,
    id: idOf('kit'),
    item: 'kit' as const,
    code: 'KT-V21',
    lotCode: 'K-1',
    count: 2,
  };
  const ring = {
    ...delivery,
    id: idOf('ring'),
    item: 'gasket' as const,
    code: '30.5 × 0.70',
    lotCode: 'G-1',
  };
  const left = async (id: string): Promise<number | undefined> =>
    (await stock()).lots.find((lot) => lot.id === id)?.balance;

  it('takes kits and gaskets in, and follows what was fitted of them', async () => {
    for (const each of [kit, ring]) expect((await counter.post('/api/lots', each)).status).toBe(201);
    const id = await counter.takeIn('a');
    await counter.record(id, 'movement', 'identify.movement', movementOf('vessarin-210s', 'V-210S'));
    const accumulator = {
      kitCode: 'KT-V21',
      lotId: kit.id,
      supplier: '',
      lotCode: 'K-1',
      way: 'kit with tabs' as const,
      tabContactOhm: null,
      unchargedBecause: 'it swelled',
    };
    const fitted = await counter.record(id, 'kit', 'cell.accumulator', accumulator);
    expect(fitted.status).toBe(201);
    expect(await left(kit.id)).toBe(1);
    const gasket = {
      state: 'renewed' as const,
      findings: [],
      ageYears: null,
      meetsWater: false,
      greased: true,
      greasedBy: 'not noted' as const,
      profile: 'round' as const,
      size: '30.5 × 0.70',
      lotId: ring.id,
      reason: 'age unknown',
    };
    await counter.record(id, 'ring', 'seal.gasket', gasket);
    expect(await left(ring.id)).toBe(4);
    await counter.record(
      id,
      'ring kept',
      'seal.gasket',
      { ...gasket, state: 'reused' },
      { supersedes: [idOf('entry ring')] },
    );
    expect(await left(ring.id)).toBe(5);
    await counter.record(
      id,
      'undo',
      'logbook.withdrawn',
      { reason: 'wrong job' },
      { withdraws: idOf('entry kit') },
    );
    expect(await left(kit.id)).toBe(2);
  });

  it('counts a kit out of its blister as loose until it is fitted, and takes it once', async () => {
    await counter.post('/api/lots', kit);
    const id = await counter.takeIn('a');
    await counter.record(id, 'movement', 'identify.movement', movementOf('vessarin-210s', 'V-210S'));
    const out = { cellCode: 'KT-V21', lotId: kit.id, lotCode: 'K-1' };
    expect((await counter.record(id, 'other', 'cell.out', { ...out, cellCode: 'KT-V33' })).status).toBe(422);
    expect((await counter.record(id, 'out', 'cell.out', out)).status).toBe(201);
    expect(await left(kit.id)).toBe(1);
    const loose = async () => (await counter.get<DayResource>('/api/day')).body.loose;
    expect(await loose()).toMatchObject([{ cell: { kind: 'fresh', marking: 'KT-V21' } }]);
    await counter.record(id, 'kit', 'cell.accumulator', {
      kitCode: 'KT-V21',
      lotId: kit.id,
      supplier: '',
      lotCode: 'K-1',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: 'it swelled',
    });
    expect(await left(kit.id)).toBe(1);
    expect(await loose()).toEqual([]);
  });

  it('is put right by a count, which settles a lot to be counted', async () => {
    await counter.post('/api/lots', { ...delivery, count: 1 });
    for (const name of ['a', 'b']) {
      const id = await counter.takeInMeasured(name);
      await counter.record(id, `${name} fitted`, 'cell.fitted', fittedFromLot);
    }
    expect((await stock()).lots).toMatchObject([{ balance: 0, toBeCounted: true }]);
    const count = {
      id: idOf('count'),
      lotId: delivery.id,
      balanceSeen: 0,
      unbookedSeen: 1,
      counted: 3,
      reason: 'found behind the drawer',
      technicianId,
    };
    expect((await counter.post('/api/lots/count', count)).status).toBe(201);
    expect((await stock()).lots).toMatchObject([{ balance: 3, toBeCounted: false }]);
    expect(
      (await counter.post('/api/lots/count', { ...count, id: idOf('another'), lotId: idOf('none') })).status,
    ).toBe(404);
    expect((await counter.post('/api/lots/count', { ...count, counted: -1 })).status).toBe(400);
    expect((await counter.post('/api/lots/count', { ...count, technicianId: idOf('nobody') })).status).toBe(
      422,
    );
  });

  it('empties the bin of spent cells against a receipt, never of more than lies in it', async () => {
    const id = await counter.takeIn('a');
    await counter.record(id, 'binned', 'cell.old-settled', { taped: true, to: 'spent bin' });
    const collected = {
      id: idOf('collection'),
      count: 1,
      weightG: 0.4,
      collectedOn: '2026-03-17',
      receipt: 'VH-1',
      technicianId,
    };
    expect(await counter.post<Problem>('/api/collections', { ...collected, count: 2 })).toMatchObject({
      status: 422,
      body: { detail: 'The bin holds 1 spent cells, not 2.' },
    });
    expect((await counter.post('/api/collections', collected)).status).toBe(201);
    expect((await counter.post('/api/collections', collected)).status).toBe(200);
    expect(await stock()).toMatchObject({ spentInBin: 0, collections: [{ receipt: 'VH-1' }] });
  });

  it('shows a cell that is out and not settled as loose, until it is', async () => {
    const id = await counter.takeIn('a');
    await counter.record(id, 'found', 'cell.found', { marking: 'SR621SW', condition: 'clean' });
    expect(await rack()).toMatchObject([{ looseCells: [{ marking: 'SR621SW', kind: 'old' }] }]);
    await counter.record(id, 'binned', 'cell.old-settled', { taped: true, to: 'spent bin' });
    expect(await rack()).toMatchObject([{ looseCells: [] }]);
  });
});

describe('a serial of 500 characters', () => {
  it('is refused in words, at its field, and nothing is taken in', async () => {
    const given = newJob('a');
    const entries = given.entries.map((entry) =>
      entry.kind === 'arrive.watch'
        ? entryOf('long', 'arrive.watch', { ...entry.payload, serial: '7'.repeat(500) })
        : entry,
    );
    const { status, body } = await counter.post<Problem>('/api/jobs', { ...given, entries });
    expect(status).toBe(400);
    expect(body.fields?.[0]?.message).toContain('Serial: at most 60 characters');
    expect(await rack()).toEqual([]);
  });
});
