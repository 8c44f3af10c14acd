import { copyFileSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Attachment, JobResource, KeptTakenIn, KeptWrites } from '../contract';
import { Counter, delivery, entryOf, newJob, technicianId } from '../testing/counter';
import { readingOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const notes = (): string => join(counter.dataDir, 'acknowledged.jsonl');
const database = (): string => join(counter.dataDir, 'wax-lantern.db');

/** What was recorded since `copy`, the copy put back, and the server started over it. */
async function startedOver(copy: string): Promise<readonly KeptWrites[]> {
  const acknowledged = readFileSync(notes());
  await counter.close({ keep: true });
  copyFileSync(copy, database());
  writeFileSync(notes(), acknowledged);
  counter = await Counter.open({ dataDir: counter.dataDir });
  return (await counter.get<KeptWrites[]>('/api/kept')).body;
}

async function copied(): Promise<string> {
  const { dataDir } = counter;
  await counter.close({ keep: true });
  const copy = join(dataDir, 'copy');
  copyFileSync(join(dataDir, 'wax-lantern.db'), copy);
  counter = await Counter.open({ dataDir });
  return copy;
}

const takeIn = (name: string) => counter.post<KeptTakenIn>(`/api/kept/${name}/take-in`, {});

describe('what was acknowledged, after a copy of the database was put back', () => {
  it('is kept and taken in again, files and all', async () => {
    const copy = await copied();
    const job = await counter.takeIn('lost');
    await counter.post('/api/lots', delivery);
    const uploaded = await fetch(
      `${counter.url}/api/attachments?technicianId=${technicianId}&name=chalk.txt`,
      {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: 'chalked 03/24',
      },
    );
    const { hash } = (await uploaded.json()) as Attachment;
    const reading = readingOf('restVoltageV', 1.4);
    await counter.record(job, 'lost reading', 'check.reading', reading, { attachments: [hash] });
    const [kept, ...others] = await startedOver(copy);
    expect(others).toEqual([]);
    expect(kept?.writes).toBe(4);
    expect((await counter.get(`/api/jobs/${job}`)).status).toBe(404);
    const { body } = await takeIn(kept?.name ?? '');
    expect(body).toEqual({ recorded: 4, heldBefore: 0, refused: [] });
    const { entries } = (await counter.get<JobResource>(`/api/jobs/${job}`)).body;
    expect(entries.at(-1)).toMatchObject({ kind: 'check.reading', attachments: [hash] });
    expect((await counter.get<string>(`/api/attachments/${hash}`)).body).toBe('chalked 03/24');
    expect((await counter.get<KeptWrites[]>('/api/kept')).body).toEqual([]);
  });

  it('that is refused now stays kept, with the reason; what is on record stays as it is', async () => {
    const job = await counter.takeIn('here');
    const copy = await copied();
    await counter.record(job, 'refused', 'check.reading', readingOf('restVoltageV', 1.4));
    await counter.takeIn('taken in since');
    const text = readFileSync(notes(), 'utf8');
    const refused = entryOf('refused now', 'check.reading', readingOf('restVoltageV', 1.4));
    writeFileSync(
      notes(),
      `${text}${JSON.stringify({ atUtc: '2026-03-17T12:00:00.000Z', method: 'POST', path: '/api/jobs/no-such-job/entries', body: refused })}\n{"atUtc":"2026`,
    );
    const [kept] = await startedOver(copy);
    const { body } = await takeIn(kept?.name ?? '');
    expect(body).toMatchObject({
      recorded: 2,
      refused: [{ what: 'a job that is not here: rest voltage: 1.4 V' }],
    });
    expect((await counter.get<KeptWrites[]>('/api/kept')).body).toMatchObject([{ writes: 1 }]);
    // A person discards it: it is offered no longer, and lies there still.
    expect((await counter.post(`/api/kept/${kept?.name ?? ''}/discard`, {})).status).toBe(200);
    expect((await counter.get<KeptWrites[]>('/api/kept')).body).toEqual([]);
    expect(existsSync(join(counter.dataDir, 'kept', `discarded-${kept?.name ?? ''}`))).toBe(true);
    expect((await counter.post(`/api/kept/${kept?.name ?? ''}/discard`, {})).status).toBe(404);
  });

  it('is gone with the owner whose details are erased', async () => {
    const copy = await copied();
    await counter.takeIn('lost');
    await counter.takeIn('lost too');
    const { customer } = newJob('lost');
    const [kept] = await startedOver(copy);
    await takeIn(kept?.name ?? '');
    expect(readFileSync(notes(), 'utf8')).toContain(customer.id);
    await counter.post(`/api/customers/${customer.id}/erase`, { technicianId });
    // Of the erasure itself the notes say whom, and nothing else of them.
    const lines = readFileSync(notes(), 'utf8').split('\n');
    expect(lines.filter((line) => line.includes(customer.id))).toHaveLength(1);
    expect(lines.find((line) => line.includes(customer.id))).toContain('/erase');
  });
});

it('a server that is killed over its own database keeps nothing, and one that ends leaves no notes', async () => {
  await counter.takeIn('here');
  const acknowledged = readFileSync(notes());
  expect(acknowledged.length).toBeGreaterThan(0);
  const { dataDir } = counter;
  await counter.close({ keep: true });
  expect(existsSync(join(dataDir, 'acknowledged.jsonl'))).toBe(false);
  writeFileSync(join(dataDir, 'acknowledged.jsonl'), acknowledged);
  counter = await Counter.open({ dataDir });
  expect((await counter.get<KeptWrites[]>('/api/kept')).body).toEqual([]);
});

it('a line of a newer program is kept, and no two files of one moment take the place of each other', async () => {
  const copy = await copied();
  await counter.takeIn('first');
  const newer = `${JSON.stringify({ atUtc: '2026-03-17T12:00:00.000Z', method: 'POST', path: '/api/jobs', shape: 'newer' })}\n`;
  writeFileSync(notes(), readFileSync(notes(), 'utf8') + newer);
  const [first] = await startedOver(copy);
  await counter.takeIn('second');
  const both = await startedOver(copy);
  expect(both.map(({ writes }) => writes)).toEqual([1, 1]);
  for (const { name } of both) expect((await takeIn(name)).body.refused).toEqual([]);
  const left = readFileSync(join(counter.dataDir, 'kept', first?.name ?? ''), 'utf8');
  expect(left).toBe(newer);
});

it('a log set aside goes once an owner is erased: its pages may name them', async () => {
  await counter.takeIn('here');
  mkdirSync(join(counter.dataDir, 'kept'), { recursive: true });
  const aside = join(counter.dataDir, 'kept', '2026-03-17T12-00-00.000Z-wax-lantern.db-wal');
  writeFileSync(aside, 'pages');
  await counter.post(`/api/customers/${newJob('here').customer.id}/erase`, { technicianId });
  expect(existsSync(aside)).toBe(false);
});

it('no file of kept writes is read from elsewhere', async () => {
  expect((await takeIn(encodeURIComponent('../wax-lantern.db'))).status).toBe(404);
  expect((await takeIn('writes-1.jsonl')).status).toBe(404);
});

it('of an owner whose details are erased nothing stands in the database or its log any more', async () => {
  await counter.takeIn('here');
  const { customer } = newJob('here');
  const holds = (file: string): boolean => readFileSync(file).includes(customer.name);
  expect(holds(`${database()}-wal`)).toBe(true);
  await counter.post(`/api/customers/${customer.id}/erase`, { technicianId });
  expect(holds(`${database()}-wal`)).toBe(false);
  const { dataDir } = counter;
  await counter.close({ keep: true });
  expect(holds(join(dataDir, 'wax-lantern.db'))).toBe(false);
  counter = await Counter.open({ dataDir });
});
