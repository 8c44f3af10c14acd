import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { JobResource } from '../contract';
import { delivery, entryOf, newJob, technicianId } from '../testing/counter';
import { idOf, readingOf } from '../testing/fixtures';
import { buildServer, type ServerProcess, startServer } from '../testing/serverProcess';
import { openConnection } from './store/database';

const ROUNDS = 20;
const WRITERS = 4;

let dataDir: string;
beforeAll(() => {
  buildServer();
  dataDir = mkdtempSync(join(tmpdir(), 'wax-crash-'));
});
afterAll(() => rmSync(dataDir, { recursive: true, force: true }));

async function post(server: ServerProcess, path: string, body: unknown): Promise<number> {
  const response = await fetch(server.url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return response.status;
}

/** Writes entries one after another until the server is gone; gives the ids it was told are on disk. */
async function writeUntilGone(
  server: ServerProcess,
  job: string,
  writer: string,
  onRecord: () => void,
): Promise<string[]> {
  const acknowledged: string[] = [];
  for (let count = 0; ; count += 1) {
    const entry =
      count % 3 === 2
        ? entryOf(`${writer} fitted ${count}`, 'cell.fitted', {
            cellCode: 'SR621SW',
            lotId: delivery.id,
            supplier: '',
            lotCode: 'S-1',
            alkalineAgreed: false,
            ownersOwn: false,
          })
        : entryOf(`${writer} ${count}`, 'check.reading', readingOf('restVoltageV', 1 + (count % 50) / 100));
    try {
      if ((await post(server, `/api/jobs/${job}/entries`, entry)) === 201) {
        acknowledged.push(entry.id);
        onRecord();
      }
    } catch {
      return acknowledged;
    }
  }
}

it(`loses no acknowledged entry and corrupts nothing when killed ${ROUNDS} times during writes`, async () => {
  const acknowledged: string[] = [];
  let killedWhileWriting = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const server = await startServer(dataDir);
    if (round === 0) {
      await post(server, '/api/technicians', { id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' });
      await post(server, '/api/lots', { ...delivery, count: 10_000 });
    }
    const job = newJob(`crash ${round}`);
    expect(await post(server, '/api/jobs', job)).toBe(201);
    acknowledged.push(...job.entries.map((entry) => entry.id));
    let begun: () => void = () => undefined;
    const firstWritten = new Promise<void>((resolve) => (begun = resolve));
    const writing = Promise.all(
      Array.from({ length: WRITERS }, (_, writer) =>
        writeUntilGone(server, job.id, `round ${round} writer ${writer}`, begun),
      ),
    );
    // Three of four rounds are killed among the writes however slow the machine is, the others wherever they are.
    if (round % 4 !== 0) await firstWritten;
    await new Promise((resolve) => setTimeout(resolve, 40 + ((round * 37) % 160)));
    await server.end('SIGKILL');
    const written = (await writing).flat();
    if (written.length > 0) killedWhileWriting += 1;
    acknowledged.push(...written);
  }
  expect(killedWhileWriting).toBeGreaterThan(ROUNDS / 2);

  const server = await startServer(dataDir);
  const held = new Set<string>();
  for (let round = 0; round < ROUNDS; round += 1) {
    const response = await fetch(`${server.url}/api/jobs/${idOf(`job crash ${round}`)}`);
    for (const entry of ((await response.json()) as JobResource).entries) held.add(entry.id);
  }
  await server.end('SIGTERM');
  expect(acknowledged.filter((id) => !held.has(id))).toEqual([]);

  const db = openConnection(join(dataDir, 'wax-lantern.db'));
  expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
  expect(db.pragma('foreign_key_check')).toEqual([]);
  // Entry and ledger line were written together or not at all.
  const fittings = db
    .prepare("SELECT count(*) FROM entry WHERE kind = 'cell.fitted'")
    .pluck()
    .get() as number;
  expect(db.prepare('SELECT balance FROM stock_lot').pluck().get()).toBe(10_000 - fittings);
  expect(db.prepare('SELECT count(*) FROM job_summary').pluck().get()).toBe(ROUNDS);
  db.close();
}, 240_000);

it('refuses to listen off loopback without a key, and says why', async () => {
  await expect(startServer(dataDir, { HOST: '0.0.0.0' })).rejects.toThrow(/WAX_KEY/);
  await expect(startServer(dataDir, { PORT: 'abc' })).rejects.toThrow(/not a port/);
});
