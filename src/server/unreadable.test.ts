import { ENTRY_KINDS, kindDefinition } from '../contract';
import type { JobResource, WatchResource, Problem, CustomerResource } from '../contract';
import { Counter, entryOf, NOW } from '../testing/counter';
import { idOf, readingOf } from '../testing/fixtures';
import { samples } from '../testing/samples';
import { openConnection } from './store/database';
import { join } from 'node:path';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

/** A row in the log that no program of this version wrote, as a newer one or a hand in the database leaves it. */
function slip(jobId: string, row: { kind: string; payloadVersion: number; payload: string }): void {
  const db = openConnection(join(counter.dataDir, 'wax-lantern.db'));
  db.prepare(
    `INSERT INTO entry (id, job_id, kind, payload_version, payload, occurred_at, recorded_at, technician_id, bench, well, supersedes, withdraws, attachments)
     VALUES (@id, @jobId, @kind, @payloadVersion, @payload, @at, @at, @technicianId, 'far bench', NULL, '[]', NULL, '[]')`,
  ).run({
    ...row,
    id: idOf(`slip ${row.kind} ${row.payload}`),
    jobId,
    at: NOW,
    technicianId: idOf('technician'),
  });
  db.close();
}

const UNREADABLE = [
  [
    'of a newer version',
    { kind: 'check.reading', payloadVersion: 99, payload: '{"measure":"restVoltageV"}' },
  ],
  ['of no kind known', { kind: 'check.aura', payloadVersion: 1, payload: '{}' }],
  ['named like what every object has', { kind: 'constructor', payloadVersion: 1, payload: '{}' }],
  ['without a payload', { kind: 'seal.closed', payloadVersion: 1, payload: 'null' }],
  [
    'of another shape',
    { kind: 'cell.found', payloadVersion: 1, payload: '{"marking":{"a":1},"condition":"clean"}' },
  ],
] as const;

describe('a log no entry can break', () => {
  it.each(UNREADABLE)('an entry %s is a line, and everything goes on', async (_, row) => {
    const job = await counter.takeIn('held');
    await counter.record(job, 'before', 'check.reading', readingOf('restVoltageV', 1.3));
    slip(job, row);
    const { status, body } = await counter.get<JobResource>(`/api/jobs/${job}`);
    expect(status).toBe(200);
    expect(body.unreadable).toMatchObject([{ kind: row.kind, technicianId: idOf('technician') }]);
    expect(body.unreadable[0]?.reason).not.toBe('');
    expect(body.entries.some(({ id }) => id === idOf('entry before'))).toBe(true);

    const watch = await counter.get<WatchResource>(`/api/watches/${body.job.watchId}`);
    expect(watch.body.visits[0]?.unreadable).toHaveLength(1);
    const owner = await counter.get<CustomerResource>(`/api/customers/${body.customer?.id ?? ''}`);
    expect(owner.status).toBe(200);
    for (const paper of ['label.pdf', 'record.pdf', 'job.json', 'logbook.csv'])
      expect([paper, (await counter.get(`/api/jobs/${job}/${paper}`)).status]).toEqual([paper, 200]);
    expect((await counter.get<string>(`/api/jobs/${job}/logbook.csv`)).body).toContain(
      'cannot be read by this version',
    );
    const file = await counter.get<{ unreadable: unknown[] }>(`/api/jobs/${job}/job.json`);
    expect(file.body.unreadable).toHaveLength(1);

    const later = await counter.record(job, 'after', 'check.reading', readingOf('restVoltageV', 1.2));
    expect(later.status).toBe(201);
    const erased = await counter.post(`/api/customers/${body.customer?.id ?? ''}/erase`, {
      technicianId: idOf('technician'),
    });
    expect(erased.status).toBeLessThan(300);
    expect((await counter.get(`/api/jobs/${job}`)).status).toBe(200);
  });

  it('keeps what a later rule would not allow: only another shape is not read', async () => {
    const job = await counter.takeIn('kept');
    slip(job, {
      kind: 'check.reading',
      payloadVersion: kindDefinition('check.reading').version,
      payload: JSON.stringify({ ...readingOf('restVoltageV', 1.3), value: 47 }),
    });
    const { body } = await counter.get<JobResource>(`/api/jobs/${job}`);
    expect(body.unreadable).toEqual([]);
    expect(body.entries.at(-1)?.payload).toMatchObject({ value: 47 });
  });
});

describe('what is sent', () => {
  it.each(ENTRY_KINDS)('%s of a newer version is refused in words', async (kind) => {
    const job = await counter.takeIn(kind);
    const { version } = kindDefinition(kind);
    const answer = await counter.post<Problem>(`/api/jobs/${job}/entries`, {
      ...entryOf('newer', kind, samples[kind]),
      payloadVersion: version + 1,
    });
    expect(answer.status).toBe(400);
    expect(answer.body.detail).toContain(`${version + 1} is newer than this program knows (${version})`);
  });

  it.each(ENTRY_KINDS)('%s without a payload is refused in words, of every version', async (kind) => {
    const job = await counter.takeIn(kind);
    for (let version = 1; version <= kindDefinition(kind).version; version += 1)
      for (const payload of [null, 7, 'x', []]) {
        const answer = await counter.post<Problem>(`/api/jobs/${job}/entries`, {
          ...entryOf('none', kind, samples[kind]),
          payload,
          payloadVersion: version,
        });
        expect([version, payload, answer.status]).toEqual([version, payload, 400]);
      }
  });
});
