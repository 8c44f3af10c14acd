import type { CustomerResource, JobSummary, Problem } from '../contract';
import { activeRevisions } from '../core/logbook';
import { Counter, newJob, technicianId } from '../testing/counter';
import { idOf } from '../testing/fixtures';

let counter: Counter;
const { customer } = newJob('a');
const path = `/api/customers/${customer.id}`;
const owner = async () => (await counter.get<CustomerResource>(path)).body;
const ids = (revisions: CustomerResource['revisions']): string[] => revisions.map(({ id }) => id);

beforeEach(async () => {
  counter = await Counter.open();
  await counter.takeIn('a');
});
afterEach(() => counter.close());

const revision = (name: string, change: object, supersedes: readonly string[] = [customer.id]) => ({
  id: idOf(`revision ${name}`),
  name: customer.name,
  phone: customer.phone,
  email: customer.email,
  supersedes,
  technicianId,
  ...change,
});
const revise = (given: object) => counter.post<CustomerResource & Problem>(`${path}/details`, given);
/** The watch of another visit by the same owner, described as `change` says. */
const broughtAgain = (name: string, change: object, more: object = {}) =>
  counter.post<Problem>('/api/jobs', { ...newJob(name), customer: { ...customer, ...change }, ...more });

describe('an owner’s details', () => {
  it('put right keep who said what before, and stand on every envelope and in the search', async () => {
    const { status, body } = await revise(revision('b', { name: 'Anders Pellwyck', phone: '0555 0200' }));
    expect(status).toBe(201);
    expect(body.customer).toMatchObject({ name: 'Anders Pellwyck', phone: '0555 0200' });
    expect(body.revisions).toMatchObject([
      { name: 'Anders Pellwick', technicianId },
      { name: 'Anders Pellwyck', technicianId, supersedes: [customer.id] },
    ]);
    expect((await counter.get<JobSummary[]>('/api/rack')).body[0]?.customerName).toBe('Anders Pellwyck');
    const found = await counter.get<{ customers: { id: string }[] }>('/api/find?q=05550200');
    expect(found.body.customers).toMatchObject([{ id: customer.id }]);
  });

  it('changed by two hands at once stand beside each other, until a third settles it', async () => {
    await revise(revision('b', { phone: '0555 0200' }));
    await revise(revision('c', { phone: '0555 0300' }));
    const disputed = activeRevisions((await owner()).revisions);
    expect(disputed.map(({ phone }) => phone)).toEqual(['0555 0200', '0555 0300']);
    await revise(revision('d', { phone: '0555 0200' }, ids(disputed)));
    const settled = await owner();
    expect(activeRevisions(settled.revisions).map(({ phone }) => phone)).toEqual(['0555 0200']);
    expect(settled.customer.phone).toBe('0555 0200');
    expect(settled.revisions).toHaveLength(4);
  });

  it('sent twice are one revision; another body under the id is told', async () => {
    const given = revision('b', { phone: '0555 0200' });
    expect((await revise(given)).status).toBe(201);
    expect((await revise(given)).status).toBe(200);
    expect((await revise({ ...given, phone: '0555 0300' })).status).toBe(409);
    expect((await owner()).revisions).toHaveLength(2);
  });

  it.each<[string, object, number]>([
    ['in the place of nothing', { supersedes: [] }, 422],
    ['in the place of another’s', { supersedes: [idOf('another')] }, 422],
    ['by nobody', { technicianId: idOf('nobody') }, 422],
    ['without a name', { name: ' ' }, 400],
    ['with an address that is none', { email: 'quay' }, 400],
  ])('are refused %s', async (_, change, status) => {
    expect((await revise(revision('b', change))).status).toBe(status);
    expect((await owner()).revisions).toHaveLength(1);
  });

  it('of nobody known here are not found; of an erased person are refused, and nothing is left of them', async () => {
    expect((await counter.post(`/api/customers/${idOf('x')}/details`, revision('b', {}))).status).toBe(404);
    await revise(revision('b', { phone: '0555 0200' }));
    await counter.post(`${path}/erase`, { technicianId });
    expect((await revise(revision('c', { phone: '0555 0300' }))).status).toBe(422);
    expect(await owner()).toMatchObject({ customer: { name: '', phone: '' }, revisions: [] });
  });

  it('of a new owner whose id is that of a revision are kept all the same', async () => {
    await revise(revision('b', { phone: '0555 0200' }));
    const id = idOf('revision b');
    const taken = await counter.post('/api/jobs', { ...newJob('b'), customer: { ...customer, id } });
    expect(taken.status).toBe(201);
    expect((await counter.get<CustomerResource>(`/api/customers/${id}`)).body.revisions).toHaveLength(1);
  });

  it('given by nobody known here are refused with the watch, and nothing is kept of them', async () => {
    const job = newJob('by nobody');
    const entries = job.entries.map((entry) => ({ ...entry, technicianId: idOf('nobody') }));
    const { status, body } = await counter.post<Problem>('/api/jobs', { ...job, entries });
    expect([status, body.title]).toEqual([422, 'Nobody signed for this']);
    expect((await counter.get(`/api/customers/${job.customer.id}`)).status).toBe(404);
  });

  describe('as given when another watch is taken in', () => {
    it('are a revision where they differ from what was seen', async () => {
      await broughtAgain('b', { phone: '0555 0200' }, { customerSeen: [customer.id] });
      expect((await owner()).revisions).toMatchObject([{ phone: '0555 0199' }, { phone: '0555 0200' }]);
    });

    it('change nothing where they are as they were seen, though somebody put them right since', async () => {
      await revise(revision('b', { phone: '0555 0200' }));
      await broughtAgain('b', {}, { customerSeen: [customer.id] });
      expect((await owner()).customer.phone).toBe('0555 0200');
      expect((await owner()).revisions).toHaveLength(2);
    });

    it('disagree with what somebody put right since, where they change what was seen', async () => {
      await revise(revision('b', { phone: '0555 0200' }));
      await broughtAgain('b', { phone: '0555 0300' }, { customerSeen: [customer.id] });
      expect(activeRevisions((await owner()).revisions)).toHaveLength(2);
    });

    it('stand in the place of what is there, where a page says nothing of what it saw', async () => {
      await revise(revision('b', { phone: '0555 0200' }));
      await broughtAgain('b', { phone: '0555 0300' });
      expect(activeRevisions((await owner()).revisions)).toMatchObject([{ phone: '0555 0300' }]);
    });
  });
});
