import type { JobResource, Problem, StockResource } from '../contract';
import { Counter, delivery, entryOf, fittedFromLot, newJob, technicianId } from '../testing/counter';
import { idOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
  await counter.post('/api/lots', delivery);
});
afterEach(() => counter.close());

const stock = async () => (await counter.get<StockResource>('/api/stock')).body;
const count = {
  id: idOf('count'),
  lotId: delivery.id,
  balanceSeen: 5,
  unbookedSeen: 0,
  counted: 7,
  reason: 'two behind the drawer',
  technicianId,
};
const away = {
  id: idOf('away'),
  lotId: delivery.id,
  count: 2,
  reason: 'dulled',
  to: 'spent bin',
  technicianId,
};
const deliveryNote = {
  id: idOf('delivery'),
  supplier: 'Saltmarsh Wholesale',
  noteNumber: 'D-1',
  orderId: null,
  technicianId,
  lines: [
    {
      line: {
        item: 'cell',
        code: '364',
        count: 5,
        lotCode: 'S-9',
        madeOn: null,
        bestBefore: null,
        priceMinor: 60,
      },
      take: 'into stock',
    },
  ],
};

describe('a write sent twice', () => {
  it.each<[string, string, object, object]>([
    ['goods in', '/api/lots', { ...delivery, id: idOf('other lot'), lotCode: 'S-2' }, { count: 6 }],
    ['a count', '/api/lots/count', count, { counted: 8 }],
    ['things given away', '/api/lots/give-away', away, { count: 1 }],
    [
      'an order',
      '/api/orders',
      {
        id: idOf('order'),
        supplier: 'Saltmarsh Wholesale',
        lines: [{ item: 'cell', code: '364', count: 10 }],
        technicianId,
      },
      { supplier: 'Another House' },
    ],
    ['a delivery', '/api/deliveries', deliveryNote, { noteNumber: 'D-2' }],
    ['a watch taken in', '/api/jobs', newJob('twice'), { watchId: idOf('another watch') }],
    [
      'a watch taken in, with another owner',
      '/api/jobs',
      newJob('twice'),
      { customer: { ...newJob('twice').customer, phone: '0555 0000' } },
    ],
    [
      'a watch taken in, with another complaint',
      '/api/jobs',
      newJob('twice'),
      {
        entries: newJob('twice').entries.map((entry) =>
          entry.kind === 'arrive.complaint'
            ? entryOf('twice complaint', 'arrive.complaint', { picked: ['stopped'], words: 'at night' })
            : entry,
        ),
      },
    ],
  ])('%s: is the same again, and with another body is told', async (_, path, body, change) => {
    await counter.post('/api/devices/supplier', {
      connected: true,
      settings: { leadHours: 0, wrongPercent: 0, shortPercent: 0, fault: 'none' },
    });
    const first = await counter.post(path, body);
    expect(first.status).toBe(201);
    const after = await stock();
    const second = await counter.post(path, body);
    expect([second.status, second.body]).toEqual([200, first.body]);
    const other = await counter.post<Problem>(path, { ...body, ...change });
    expect([other.status, other.body.detail]).toEqual([409, 'Something else is on record under this id.']);
    expect(await stock()).toEqual(after);
  });

  it('under the id of something else is told, whatever it is', async () => {
    const job = newJob('a');
    await counter.post('/api/lots/count', { ...count, id: job.id });
    expect((await counter.post('/api/jobs', job)).status).toBe(409);
    expect((await counter.post('/api/lots/give-away', { ...away, id: job.id })).status).toBe(409);
  });

  it('at the same moment is written once', async () => {
    const answers = await Promise.all(
      Array.from({ length: 6 }, () => counter.post('/api/lots/count', count)),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 200, 200, 200, 200, 201]);
    expect((await stock()).lots[0]?.balance).toBe(7);
  });

  it('that was refused the first time may be sent again put right, under its id', async () => {
    expect((await counter.post('/api/lots/give-away', { ...away, count: 9 })).status).toBe(422);
    expect((await counter.post('/api/lots/give-away', { ...away, count: 2 })).status).toBe(201);
  });

  it('a watch taken in is the same again after its owner was put right and the job went on', async () => {
    const job = newJob('a');
    await counter.post('/api/jobs', job);
    await counter.record(job.id, 'n', 'open.technique', { note: 'late click' });
    expect((await counter.post('/api/jobs', job)).status).toBe(200);
    expect((await counter.get<JobResource>(`/api/jobs/${job.id}`)).body.entries).toHaveLength(7);
  });
});

describe('a count', () => {
  const fit = async (name: string): Promise<void> => {
    const job = await counter.takeInMeasured(name);
    const { status } = await counter.record(job, `${name} fitted`, 'cell.fitted', fittedFromLot);
    expect(status).toBe(201);
  };

  it('of a lot from which a cell was fitted since is told so, with the job, and changes nothing', async () => {
    await fit('a');
    const { status, body } = await counter.post<Problem>('/api/lots/count', count);
    expect(status).toBe(409);
    expect(body.detail).toBe('The ledger showed 5 when this was counted. Since then: −1 fitted T0001-8.');
    expect((await stock()).lots[0]?.balance).toBe(4);
    expect((await counter.post('/api/lots/count', { ...count, balanceSeen: 4 })).status).toBe(201);
  });

  it('of an empty lot is told of what was taken beyond it', async () => {
    await counter.post('/api/lots/count', { ...count, id: idOf('to none'), counted: 0 });
    await fit('a');
    const { status, body } = await counter.post<Problem>('/api/lots/count', { ...count, balanceSeen: 0 });
    expect([status, body.detail]).toEqual([409, expect.stringContaining('1 more taken than booked')]);
  });
});
