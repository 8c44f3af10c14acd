import type { FindResult } from '../../contract';
import { Counter, newJob, technicianId } from '../../testing/counter';
import { idOf } from '../../testing/fixtures';

let counter: Counter;
const OWNERS = [
  ['Maren Oystrand', '0555 0142', 'maren@quay.example'],
  ['Søren Ångström', '0777 123', ''],
  ['Ilka O’Farrowdene', '', 'ilka.f@pier.example'],
  ['Bo Li', '0555 9999', ''],
] as const;

beforeAll(async () => {
  counter = await Counter.open();
  for (const [index, [name, phone, email]] of OWNERS.entries())
    await counter.takeIn(`owner ${index}`, {
      customer: { id: idOf(`customer owner ${index}`), name, phone, email },
    });
});
afterAll(() => counter.close());

const found = async (query: string): Promise<string[]> =>
  (await counter.get<FindResult>(`/api/find?q=${encodeURIComponent(query)}`)).body.customers.map(
    ({ name }) => name,
  );

describe('owners are found', () => {
  it.each([
    ['Oystrand', 'Maren Oystrand'],
    ['oyst', 'Maren Oystrand'],
    ['strand mar', 'Maren Oystrand'],
    ['0142', 'Maren Oystrand'],
    ['0555 0142', 'Maren Oystrand'],
    ['05550142', 'Maren Oystrand'],
    ['quay.example', 'Maren Oystrand'],
    ['angstrom', 'Søren Ångström'],
    ['ÅNGSTRÖM', 'Søren Ångström'],
    ['farrowdene', 'Ilka O’Farrowdene'],
    ['ilka f', 'Ilka O’Farrowdene'],
    ['Bo', 'Bo Li'],
    ['li', 'Bo Li'],
    ['oystrnad', 'Maren Oystrand'],
    ['maern oystrand', 'Maren Oystrand'],
  ])('by “%s”', async (query, name) => {
    expect(await found(query)).toContain(name);
  });

  it.each(['"', '*', 'AND', 'OR NOT', '%%', '__', "'; DROP TABLE customer; --", '-', 'NEAR(a b)', 'text:x'])(
    'or not, but nothing breaks on %s',
    async (query) => {
      const { status } = await counter.get<FindResult>(`/api/find?q=${encodeURIComponent(query)}`);
      expect([200, 400]).toContain(status);
      expect(await found('oystrand')).toEqual(['Maren Oystrand']);
    },
  );

  it('under a new name and number once they gave one, and no more under the old', async () => {
    const id = idOf('customer owner 3');
    await counter.post(
      '/api/jobs',
      newJob('again', { customer: { id, name: 'Bodil Lindqvarn', phone: '0555 4321', email: '' } }),
    );
    expect(await found('lindqvarn')).toEqual(['Bodil Lindqvarn']);
    expect(await found('4321')).toEqual(['Bodil Lindqvarn']);
    expect(await found('9999')).toEqual([]);
  });

  it('no more once they were erased, by no part of them', async () => {
    await counter.post(`/api/customers/${idOf('customer owner 2')}/erase`, { technicianId });
    for (const query of ['farrowdene', 'ilka', 'pier.example', 'lk']) expect(await found(query)).toEqual([]);
  });

  it('once each, though they brought several watches', async () => {
    const first = newJob('owner 0');
    await counter.post(
      '/api/jobs',
      newJob('second watch', {
        customer: { id: first.customer.id, name: 'Maren Oystrand', phone: '0555 0142', email: '' },
      }),
    );
    expect(await found('oystrand')).toEqual(['Maren Oystrand']);
    expect(await found('oystrnad')).toEqual(['Maren Oystrand']);
  });
});

describe('all or nothing', () => {
  it('a long piece of writing that fails leaves nothing', () => {
    const before = counter.store.logbook.all().length;
    expect(() =>
      counter.store.inOne(() => {
        const taken = counter.store.logbook.takeIn(newJob('in one'));
        expect(taken.outcome).toBe('taken in');
        throw new Error('the lights went out');
      }),
    ).toThrow('the lights went out');
    expect(counter.store.logbook.all()).toHaveLength(before);
    expect(counter.store.logbook.find('in one').jobs).toEqual([]);
  });
});
