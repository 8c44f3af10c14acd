import Database from 'better-sqlite3';
import { join } from 'node:path';
import type { JobSummary } from '../contract';
import { DEFAULT_POLICY } from '../core/craft/policy';
import type { LightPlaceTool } from '../core/craft/tools';
import { Counter, technicianId } from '../testing/counter';
import { movementOf } from '../testing/fixtures';
import { flatUnderLamp } from '../testing/lit';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const onRack = async (id: string): Promise<JobSummary | undefined> =>
  (await counter.get<JobSummary[]>('/api/rack')).body.find((job) => job.id === id);

async function decide(change: object): Promise<void> {
  const { revision: _, ...policy } = DEFAULT_POLICY;
  const answer = await counter.post('/api/policy', {
    shop: counter.store.shops.shop(),
    policy: { ...policy, ...change },
    basedOn: counter.store.shops.policy().revision,
    technicianId,
  });
  expect(answer.status).toBe(201);
}

describe('what is kept beside a job, before it is shown', () => {
  it('follows a policy that asks for another fact, though nothing was recorded since', async () => {
    const job = await counter.takeIn('a');
    const before = await onRack(job);
    expect(before?.waitsFor).not.toContain('use and exposure to water');
    const services = {
      ...DEFAULT_POLICY.services,
      'cell only': { requires: ['arrive.watch', 'arrive.wear'], priceMinor: 1700 },
    };
    await decide({ services });
    expect((await onRack(job))?.waitsFor).toContain('use and exposure to water');
    const { body } = await counter.get<string>('/api/lists/rack.csv');
    expect(body).toContain('use and exposure to water');
  });

  it('follows the light measured at a light place since the watch was laid there', async () => {
    const job = await counter.takeIn('lit');
    const movement = movementOf('vessarin-210s', 'V-210S');
    const named = await counter.record(job, 'named', 'identify.movement', movement);
    expect(named.status).toBe(201);
    expect((await counter.record(job, 'laid', 'cell.lit', flatUnderLamp)).status).toBe(201);
    const before = (await onRack(job))?.lit?.readyUtc ?? '';
    expect(before).not.toBe('');
    const [record] = counter.store.catalogue.history('lightPlace', 'lamp');
    const lamp = record?.body as LightPlaceTool;
    const written = await counter.post('/api/catalogue/records', {
      kind: 'lightPlace',
      id: 'lamp',
      body: { ...lamp, lux: lamp.lux / 4 },
      basedOn: record?.revision,
      technicianId,
    });
    expect(written.status).toBe(201);
    expect(((await onRack(job))?.lit?.readyUtc ?? '') > before).toBe(true);
  });

  it('stays as it was for a job of which it cannot be worked out, and no other waits for that', async () => {
    const warned = jest.spyOn(process, 'emitWarning').mockImplementation(() => undefined);
    const [odd, other] = [await counter.takeIn('odd'), await counter.takeIn('other')];
    const before = await onRack(odd);
    const db = new Database(join(counter.dataDir, 'wax-lantern.db'));
    db.exec(
      `CREATE TRIGGER odd BEFORE UPDATE ON job_summary WHEN NEW.job_id = '${odd}' AND NEW.summary <> OLD.summary
       BEGIN SELECT RAISE (ABORT, 'odd'); END;`,
    );
    db.close();
    const services = {
      ...DEFAULT_POLICY.services,
      'cell only': { requires: ['arrive.watch', 'arrive.wear'], priceMinor: 1700 },
    };
    await decide({ services });
    expect((await onRack(other))?.waitsFor).toContain('use and exposure to water');
    expect(await onRack(odd)).toEqual(before);
    expect(JSON.stringify(warned.mock.calls)).toContain(odd);
    warned.mockRestore();
  });

  it('is worked out anew after an upgrade, for rack and watch alike', async () => {
    const job = await counter.takeIn('a');
    const before = await onRack(job);
    const { dataDir } = counter;
    await counter.close({ keep: true });
    const db = new Database(join(dataDir, 'wax-lantern.db'));
    db.exec(
      `UPDATE job_summary SET basis = 'another program', summary = json_set(summary, '$.current', 'handback')`,
    );
    db.close();
    counter = await Counter.open({ dataDir });
    const [visit] = counter.store.logbook.summariesOfWatch(counter.store.logbook.job(job)?.job.watchId ?? '');
    expect(visit).toEqual(before);
    expect(await onRack(job)).toEqual(before);
  });
});
