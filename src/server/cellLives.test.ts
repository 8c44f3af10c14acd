import Database from 'better-sqlite3';
import { join } from 'node:path';
import type { StockResource } from '../contract';
import type { ShopLife } from '../core/craft/life';
import { Counter, delivery, entryOf, fittedFromLot, newJob } from '../testing/counter';
import { idOf, movementOf, readingOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
  await counter.post('/api/lots', { ...delivery, madeOn: '2023-09-01', bestBefore: '2026-09-30', count: 40 });
});
afterEach(() => counter.close());

/** A visit of a watch on a day, with what was done to its cell. */
async function visit(
  watch: string,
  day: string,
  after: (job: string, at: { occurredAt: string }) => Promise<unknown>,
) {
  const at = { occurredAt: `${day}T10:00:00.000Z` };
  const name = `${watch} ${day}`;
  const plain = newJob(name, { watchId: idOf(`watch ${watch}`) });
  const job = await counter.takeIn(name, {
    ...plain,
    entries: plain.entries.map((entry) => ({ ...entry, ...at })),
  });
  await after(job, at);
  return job;
}
const fits = (watch: string, day: string) =>
  visit(watch, day, async (job, at) => {
    const name = `${watch} ${day}`;
    await counter.record(
      job,
      `${name} movement`,
      'identify.movement',
      movementOf('orrelin-41-2', 'OR 41.2'),
      at,
    );
    await counter.record(job, `${name} current`, 'check.reading', readingOf('currentUA', 1), at);
    const fitted = await counter.record(job, `${name} fitted`, 'cell.fitted', fittedFromLot, at);
    if (fitted.status !== 201) throw new Error(JSON.stringify(fitted.body));
  });
const comesSpent = (
  watch: string,
  day: string,
  stoppedOn: string | null,
  said: Partial<{ marking: string }> = {},
) =>
  visit(watch, day, async (job, at) => {
    const name = `${watch} ${day}`;
    await counter.record(job, `${name} stopped`, 'arrive.stopped', { stoppedOn }, at);
    await counter.record(
      job,
      `${name} found`,
      'cell.found',
      { marking: '364', condition: 'clean', ...said },
      at,
    );
    await counter.record(job, `${name} rest`, 'check.reading', readingOf('restVoltageV', 1.1), at);
  });
const lasts = async (): Promise<ShopLife | null | undefined> =>
  (await counter.get<StockResource>('/api/stock')).body.lots.find(({ id }) => id === delivery.id)?.lasts;

describe('how long the cells of a lot lasted here', () => {
  it('comes with the lot, from five seen again, and is worked out anew with each that is', async () => {
    const watches = ['a', 'b', 'c', 'd', 'e', 'f'];
    for (const watch of watches) await fits(watch, '2024-01-10');
    expect(await lasts()).toMatchObject({ verdict: 'too few', fitted: 6, seenAgain: 0 });
    for (const watch of watches.slice(0, 4)) await comesSpent(watch, '2025-05-02', '2025-04');
    expect(await lasts()).toMatchObject({ verdict: 'too few', seenAgain: 4, spent: 4 });
    await comesSpent('e', '2025-05-02', '2025-04');
    const factor = await lasts();
    expect(factor).toMatchObject({ verdict: 'factor', fitted: 6, seenAgain: 5, spent: 5 });
    // What was found was another cell: somebody changed it since.
    await counter.record(
      idOf('job e 2025-05-02'),
      'other',
      'cell.found',
      { marking: '371', condition: 'clean' },
      { supersedes: [idOf('entry e 2025-05-02 found')] },
    );
    expect(await lasts()).toMatchObject({ verdict: 'too few', seenAgain: 4 });
  });

  it('brings the next visit of the same cells forward, in the job as in the stock', async () => {
    for (const watch of ['a', 'b', 'c', 'd', 'e', 'f']) {
      await fits(watch, '2024-01-10');
      await comesSpent(watch, '2025-01-20', '2025-01');
    }
    const job = await fits('new', '2026-03-17');
    const { body } = await counter.get<{ lots: { lasts: ShopLife | null }[] }>(`/api/jobs/${job}`);
    expect(body.lots[0]?.lasts).toEqual(await lasts());
    expect(body.lots[0]?.lasts?.to).toBeLessThan(1);
  });

  it('is caught up with from jobs an earlier program wrote, once', async () => {
    for (const watch of ['a', 'b', 'c', 'd', 'e']) {
      await fits(watch, '2024-01-10');
      await comesSpent(watch, '2025-05-02', '2025-04');
    }
    const before = await lasts();
    expect(before?.verdict).toBe('factor');
    await counter.close({ keep: true });
    // As the migration leaves it: nothing worked out, every job of such a watch still missing.
    const db = new Database(join(counter.dataDir, 'wax-lantern.db'));
    db.exec("DELETE FROM cell_visit; DELETE FROM cell_visit_fitted; UPDATE job_summary SET basis = ''");
    db.close();
    counter = await Counter.open({ dataDir: counter.dataDir });
    await counter.store.logbook.fresh.all();
    expect(await lasts()).toEqual(before);
    const after = new Database(join(counter.dataDir, 'wax-lantern.db'), { readonly: true });
    expect(after.prepare("SELECT count(*) FROM job_summary WHERE basis = ''").pluck().get()).toBe(0);
    after.close();
  });

  it('is nothing of a ring', async () => {
    const ring = {
      ...delivery,
      id: idOf('ring'),
      item: 'gasket' as const,
      code: '30.5 × 0.70',
      lotCode: 'R-1',
    };
    await counter.post('/api/lots', ring);
    const { lots } = (await counter.get<StockResource>('/api/stock')).body;
    expect(lots.find(({ id }) => id === ring.id)?.lasts).toBeNull();
  });

  it('entries recorded in the wrong order say the same', async () => {
    for (const watch of ['a', 'b', 'c', 'd', 'e']) {
      await comesSpent(watch, '2025-05-02', '2025-04');
      await fits(watch, '2024-01-10');
    }
    expect(await lasts()).toMatchObject({ verdict: 'factor', seenAgain: 5 });
  });
});

it('a watch that comes with a date it cannot have stopped on is told which would do', async () => {
  const job = await counter.takeIn();
  const { status, body } = await counter.post<{ detail: string }>(
    `/api/jobs/${job}/entries`,
    entryOf('stopped', 'arrive.stopped', { stoppedOn: '2026-02-31' }),
  );
  expect(status).toBe(422);
  expect(JSON.stringify(body)).toContain('The date 2026-02-31 does not exist');
});
