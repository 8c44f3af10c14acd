import fc from 'fast-check';
import type { CarriedLot, DayResource, Order, Problem, StockResource } from '../contract';
import type { Lot } from '../core/craft/stock';
import { Counter, entryOf, newJob, technicianId } from '../testing/counter';
import { idOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const delivery = {
  id: idOf('lot'),
  item: 'cell' as const,
  code: 'SR621SW',
  supplier: 'Saltmarsh Wholesale',
  lotCode: 'S-1',
  madeOn: '2025-09-17',
  bestBefore: '2028-09-30',
  priceMinor: 60,
  count: 5,
  technicianId,
};
const out = { cellCode: 'SR621SW', lotId: delivery.id, lotCode: 'S-1' };
const fitting = {
  cellCode: 'SR621SW',
  lotId: delivery.id,
  supplier: delivery.supplier,
  lotCode: 'S-1',
  alkalineAgreed: false,
  ownersOwn: false,
};
const stock = async (): Promise<StockResource> => (await counter.get<StockResource>('/api/stock')).body;
const day = async (): Promise<DayResource> => (await counter.get<DayResource>('/api/day')).body;
const balance = async (): Promise<number | undefined> => (await stock()).lots[0]?.balance;

describe('a fresh cell out of its blister', () => {
  beforeEach(() => counter.post('/api/lots', delivery));

  it('is loose until it is fitted, and taken from its lot once', async () => {
    const job = await counter.takeInMeasured('a');
    await counter.record(job, 'out', 'cell.out', out);
    expect(await balance()).toBe(4);
    expect((await day()).loose).toMatchObject([
      { jobId: job, cell: { kind: 'fresh', marking: 'SR621SW', entryId: idOf('entry out') } },
    ]);
    await counter.record(job, 'fitted', 'cell.fitted', fitting);
    expect(await balance()).toBe(4);
    expect((await day()).loose).toEqual([]);
    await counter.record(
      job,
      'undo',
      'logbook.withdrawn',
      { reason: 'x' },
      { withdraws: idOf('entry fitted') },
    );
    expect(await balance()).toBe(4);
    expect((await day()).loose).toHaveLength(1);
  });

  it('goes back to its lot, or into the bin, and back again when that is withdrawn', async () => {
    const job = await counter.takeInMeasured('a');
    await counter.record(job, 'out', 'cell.out', out);
    const settled = { outEntryId: idOf('entry out') };
    await counter.record(job, 'back', 'cell.out-settled', { ...settled, to: 'back in its lot' });
    expect(await balance()).toBe(5);
    await counter.record(
      job,
      'undo',
      'logbook.withdrawn',
      { reason: 'x' },
      { withdraws: idOf('entry back') },
    );
    expect(await balance()).toBe(4);
    await counter.record(job, 'bin', 'cell.out-settled', { ...settled, to: 'spent bin' });
    expect(await stock()).toMatchObject({ lots: [{ balance: 4 }], spentInBin: 1 });
    expect((await day()).loose).toEqual([]);
  });

  it('adds up to the ledger, whatever is done in whatever order', async () => {
    const job = newJob('walk');
    await counter.post('/api/jobs', job);
    let made = 0;
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('out', 'fit', 'back', 'bin', 'withdraw', 'drop'), { maxLength: 12 }),
        (acts) => {
          for (const act of acts) {
            made += 1;
            const entries = counter.store.logbook.job(job.id)?.entries ?? [];
            const name = `walk ${made}`;
            const lastOut = entries.findLast(({ kind }) => kind === 'cell.out');
            const last = entries.findLast(({ kind }) => kind.startsWith('cell.'));
            const append = (entry: ReturnType<typeof entryOf>): void =>
              void counter.store.logbook.append(job.id, entry);
            if (act === 'out') append(entryOf(name, 'cell.out', out));
            if (act === 'fit') append(entryOf(name, 'cell.fitted', fitting));
            if ((act === 'back' || act === 'bin') && lastOut)
              append(
                entryOf(name, 'cell.out-settled', {
                  outEntryId: lastOut.id,
                  to: act === 'back' ? 'back in its lot' : 'spent bin',
                }),
              );
            if (act === 'withdraw' && last)
              append(entryOf(name, 'logbook.withdrawn', { reason: 'walk' }, { withdraws: last.id }));
          }
          const [lot] = counter.store.stock.lots();
          const sum = counter.store.stock.ledger().reduce((total, { delta }) => total + delta, 0);
          expect([lot?.balance, (lot?.balance ?? -1) >= 0]).toEqual([sum, true]);
          expect(counter.store.stock.spentInBin()).toBeGreaterThanOrEqual(0);
        },
      ),
      { numRuns: 25 },
    );
  });
});

describe('a dropped cell', () => {
  it('pauses the job until it is found or somebody was told, and is no longer loose then', async () => {
    await counter.post('/api/lots', delivery);
    const job = await counter.takeInMeasured('a');
    await counter.record(job, 'found', 'cell.found', { marking: '364', condition: 'clean' });
    await counter.record(job, 'dropped', 'cell.dropped', { what: 'the old cell', where: 'under the bench' });
    expect((await day()).loose).toMatchObject([{ cell: { dropped: true } }]);
    expect(await counter.record(job, 'fitted', 'cell.fitted', fitting)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('dropped') as string },
    });
    const ended = { droppedEntryId: idOf('entry dropped'), outcome: 'escalated' as const };
    expect(
      (await counter.record(job, 'silent', 'cell.dropped-settled', { ...ended, words: '' })).status,
    ).toBe(400);
    await counter.record(job, 'told', 'cell.dropped-settled', { ...ended, words: 'head of the shop told' });
    expect((await counter.record(job, 'fitted', 'cell.fitted', fitting)).status).toBe(201);
    expect((await day()).loose).toEqual([]);
  });
});

describe('the close of the day', () => {
  it('lists each loose cell and is refused while one is', async () => {
    const job = await counter.takeInMeasured('a');
    await counter.record(job, 'found', 'cell.found', { marking: '364', condition: 'clean' });
    const close = { day: '2026-03-17', technicianId };
    expect(await counter.post<Problem>('/api/day/close', close)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('364 of T0001-8') as string },
    });
    await counter.record(job, 'binned', 'cell.old-settled', { taped: true, to: 'spent bin' });
    expect((await counter.post('/api/day/close', { ...close, day: '2026-03-16' })).status).toBe(422);
    expect((await counter.post('/api/day/close', close)).status).toBe(201);
    expect((await counter.post('/api/day/close', close)).status).toBe(200);
    expect(await day()).toMatchObject({ closed: true, spentInBin: 1 });
    expect((await stock()).lastClosed).toBe('2026-03-17');
  });
});

describe('a lot', () => {
  beforeEach(() => counter.post('/api/lots', delivery));

  it('is set aside by a doubtful sample, gives nothing while it is, and is released by hand', async () => {
    const sample = {
      id: idOf('s'),
      lotId: delivery.id,
      restVoltageV: 1.58,
      print: 'sharp and whole',
      technicianId,
    };
    expect(await counter.post('/api/lots/sample', sample)).toMatchObject({
      status: 201,
      body: { verdict: { verdict: 'good' } },
    });
    expect((await counter.post('/api/lots/sample', sample)).status).toBe(200);
    await counter.post('/api/lots/sample', { ...sample, id: idOf('s2'), restVoltageV: 1.47 });
    expect(await stock()).toMatchObject({
      lots: [{ quarantined: expect.stringContaining('1.47 V is low') as string }],
      samples: [{ verdict: 'doubtful', restVoltageV: 1.47 }],
    });
    const job = await counter.takeInMeasured('a');
    expect(await counter.record(job, 'f', 'cell.fitted', fitting)).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('quarantine') as string },
    });
    await counter.post('/api/lots/quarantine', { lotId: delivery.id, reason: '', technicianId });
    expect((await counter.record(job, 'f', 'cell.fitted', fitting)).status).toBe(201);
    expect(
      (await counter.post('/api/lots/sample', { ...sample, id: idOf('x'), lotId: idOf('none') })).status,
    ).toBe(404);
  });

  it('is traced to the watches that carry it now, with their owners, and no others', async () => {
    const [a, b] = [await counter.takeInMeasured('a'), await counter.takeInMeasured('b')];
    await counter.record(a, 'fa', 'cell.fitted', fitting);
    await counter.record(b, 'fb', 'cell.fitted', fitting);
    const carried = async (): Promise<CarriedLot> =>
      (
        await counter.get<CarriedLot>(
          `/api/lots/carried?${new URLSearchParams({ supplier: delivery.supplier, lot: 'S-1' }).toString()}`,
        )
      ).body;
    expect(await carried()).toMatchObject({
      fitted: 2,
      leaked: 0,
      watches: [{ jobId: a, customerName: newJob('a').customer.name }, { jobId: b }],
    });
    // The same watch comes back and takes a cell of another lot; it leaked, and is told of.
    const again = await counter.takeInMeasured('again', { watchId: newJob('a').watchId });
    await counter.record(again, 'leak', 'check.leakage', {
      place: 'contact',
      severity: 'crust',
      xMm: null,
      yMm: null,
      treated: '',
      decision: 'cleaned, observe',
      supplier: delivery.supplier,
      lotCode: 'S-1',
      currentBeforeUA: null,
      currentAfterUA: null,
    });
    await counter.record(
      again,
      'fc',
      'cell.fitted',
      { ...fitting, lotId: null, lotCode: 'elsewhere', ownersOwn: true },
      {
        occurredAt: '2026-03-17T12:05:00.000Z',
      },
    );
    expect(await carried()).toMatchObject({ fitted: 2, leaked: 1, watches: [{ jobId: b }] });
    expect((await stock()).suppliers).toMatchObject([{ supplier: delivery.supplier, fitted: 3, leaked: 1 }]);
    await counter.record(b, 'undo', 'logbook.withdrawn', { reason: 'x' }, { withdraws: idOf('entry fb') });
    expect((await carried()).watches).toEqual([]);
    const csv = await counter.get<string>('/api/lots/carried.csv?supplier=Saltmarsh%20Wholesale&lot=S-1');
    expect(csv.body).toContain('supplier,lot,cell,fitted_at');
  });

  it('gives away no more than it has, and what goes into the bin is in it', async () => {
    const given = {
      id: idOf('dulled'),
      lotId: delivery.id,
      count: 2,
      reason: 'dulled',
      to: 'spent bin',
      technicianId,
    };
    expect((await counter.post('/api/lots/give-away', { ...given, count: 6 })).status).toBe(422);
    expect((await counter.post('/api/lots/give-away', given)).status).toBe(201);
    expect(await stock()).toMatchObject({ lots: [{ balance: 3 }], spentInBin: 2 });
    await counter.post('/api/lots/give-away', { ...given, id: idOf('back'), count: 3, to: 'supplier' });
    expect(await stock()).toMatchObject({ lots: [], emptyLots: 1, spentInBin: 2 });
    expect((await counter.get<Lot[]>('/api/lots/empty')).body).toMatchObject([
      { lotCode: 'S-1', balance: 0 },
    ]);
    expect((await counter.get(`/api/lots/${delivery.id}/ledger`)).body).toHaveLength(3);
  });

  it.each([
    [
      'a count below zero',
      '/api/lots/count',
      {
        id: idOf('count'),
        lotId: delivery.id,
        balanceSeen: 5,
        unbookedSeen: 0,
        counted: -1,
        reason: 'x',
        technicianId,
      },
      400,
    ],
    ['an unknown type', '/api/lots', { ...delivery, id: idOf('n'), lotCode: 'N', code: 'VX99' }, 422],
    [
      'a date in the wrong century',
      '/api/lots',
      { ...delivery, id: idOf('n'), lotCode: 'N', bestBefore: '2082-09-30' },
      422,
    ],
    ['made tomorrow', '/api/lots', { ...delivery, id: idOf('n'), lotCode: 'N', madeOn: '2026-03-18' }, 422],
    ['the same lot twice', '/api/lots', { ...delivery, id: idOf('n') }, 409],
  ] as const)('refuses %s and changes nothing', async (_, path, body, status) => {
    const before = await stock();
    expect((await counter.post<Problem>(path, body)).status).toBe(status);
    expect(await stock()).toEqual(before);
  });
});

describe('orders and deliveries', () => {
  const order = {
    id: idOf('order'),
    supplier: 'Saltmarsh Wholesale',
    lines: [
      { item: 'cell', code: '364', count: 10 },
      { item: 'cell', code: 'CR1216', count: 5 },
    ],
    technicianId,
  };
  const supplierWith = (settings: object) =>
    counter.post('/api/devices/supplier', {
      connected: true,
      settings: { leadHours: 0, wrongPercent: 0, shortPercent: 0, fault: 'none', ...settings },
    });

  it('says what ails the supplier, and places nothing then', async () => {
    expect((await counter.post<Problem>('/api/orders', order)).body.detail).toContain('not connected');
    await supplierWith({ fault: 'closed for the day' });
    expect((await counter.post('/api/orders', order)).status).toBe(422);
    expect((await stock()).orders).toEqual([]);
  });

  it('come after their lead time, are compared line by line, and are booked in once', async () => {
    await supplierWith({ leadHours: 2 });
    expect((await counter.post<Order>('/api/orders', order)).body.note).toBeNull();
    await supplierWith({});
    const due = (await counter.post<Order>('/api/orders', { ...order, id: idOf('due') })).body;
    expect(due.note?.checked.map(({ verdict }) => verdict)).toEqual(['as ordered', 'as ordered']);
    const note = {
      id: idOf('delivery'),
      supplier: order.supplier,
      noteNumber: due.note?.noteNumber ?? '',
      orderId: due.id,
      lines: due.note?.lines.map((line) => ({ line, take: 'into stock' })) ?? [],
      technicianId,
    };
    expect((await counter.post('/api/deliveries', note)).status).toBe(201);
    expect((await counter.post('/api/deliveries', note)).status).toBe(200);
    expect((await counter.post('/api/deliveries', { ...note, id: idOf('twice') })).status).toBe(409);
    const now = await stock();
    expect(now.lots.map(({ code, balance: left }) => [code, left])).toEqual([
      ['CR1216', 5],
      ['SR621SW', 10],
    ]);
    expect(now.orders.find(({ id }) => id === due.id)?.received).toBe(true);
    expect(now.suppliers).toMatchObject([{ deliveries: 1, wrong: 0, short: 0 }]);
  });

  it('that come wrong are told with what was ordered, and count against the supplier', async () => {
    await supplierWith({ wrongPercent: 100 });
    const { note } = (await counter.post<Order>('/api/orders', order)).body;
    expect(note?.checked.map(({ verdict }) => verdict)).toEqual(['another cell', 'another cell']);
    expect(note?.checked[1]?.reasons.join(' ')).toContain('easily confused');
    await counter.post('/api/deliveries', {
      id: idOf('delivery'),
      supplier: order.supplier,
      noteNumber: note?.noteNumber,
      orderId: order.id,
      lines: note?.lines.map((line, index) => ({
        line,
        take: index === 0 ? 'into quarantine' : 'sent back',
      })),
      technicianId,
    });
    expect(await stock()).toMatchObject({
      lots: [{ quarantined: expect.stringContaining('set aside') as string }],
      suppliers: [{ deliveries: 1, wrong: 1 }],
    });
  });

  it('are read from a file, and back into the same lines', async () => {
    await supplierWith({});
    const { note, id } = (await counter.post<Order>('/api/orders', order)).body;
    const { body: csv } = await counter.get<string>(`/api/orders/${id}/note.csv`);
    const read = await counter.post('/api/deliveries/read', { csv });
    expect(read.body).toEqual({
      supplier: 'Saltmarsh Wholesale',
      noteNumber: note?.noteNumber,
      lines: note?.lines,
    });
    for (const [wrong, words] of [
      ['', 'no line'],
      ['a,b\n1,2', 'no column'],
      [csv.replace(/,10,/, ',ten,'), 'Line 2'],
      [csv.replace(/cell/, 'clock'), 'kind of goods'],
      [csv.replace(/2025-10-17/, '17.10.2025'), 'not a date'],
      [csv.replace(/2025-10-17/, '2027-99-99'), '“2027-99-99” is not a date'],
      [csv.replace(/2025-10-17/, '2027-02-29'), 'not a date'],
      [csv.replace(/Saltmarsh Wholesale/, 'Nettle'), 'more than one delivery note'],
      [csv.replace(/,cell,/, ',cell,"'), 'not a table'],
    ] as const)
      expect((await counter.post<Problem>('/api/deliveries/read', { csv: wrong })).body.detail).toContain(
        words,
      );
    // A note need not say whose it is: then the hand does.
    const unnamed = csv.replaceAll('Saltmarsh Wholesale', '');
    expect((await counter.post('/api/deliveries/read', { csv: unnamed })).body).toMatchObject({
      supplier: '',
      lines: note?.lines,
    });
  });
});
