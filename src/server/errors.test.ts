import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pino } from 'pino';
import type { Problem } from '../contract';
import { Counter, technicianId } from '../testing/counter';
import { idOf } from '../testing/fixtures';
import { createApp } from './app';

let counter: Counter;
let server: Server;
let url: string;
let logged: { err?: { message: string; stack: string }; requestId?: string }[];

beforeEach(async () => {
  counter = await Counter.open();
  logged = [];
  const webDir = join(counter.dataDir, 'web');
  mkdirSync(join(webDir, 'assets'), { recursive: true });
  writeFileSync(join(webDir, 'index.html'), '<!doctype html>');
  const log = pino({}, { write: (line) => void logged.push(JSON.parse(line) as (typeof logged)[number]) });
  server = createServer(createApp({ store: counter.store, host: '127.0.0.1', key: null, webDir, log }));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  await counter.close();
});

async function asked(path: string, init: RequestInit = {}): Promise<{ status: number; problem: Problem }> {
  const response = await fetch(url + path, init);
  expect(response.headers.get('content-type')).toContain('application/problem+json');
  const problem = (await response.json()) as Problem;
  expect(problem.requestId).toBe(response.headers.get('x-request-id'));
  return { status: response.status, problem };
}

const posted = (path: string, body: unknown) =>
  asked(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

const delivery = (change: object) => ({
  id: idOf('delivery'),
  supplier: 'Saltmarsh Wholesale',
  noteNumber: 'D-1',
  orderId: null,
  technicianId,
  lines: [],
  ...change,
});
const line = (count: number) => ({
  line: {
    item: 'cell',
    code: 'SR621SW',
    lotCode: 'S-1',
    count,
    priceMinor: 40,
    madeOn: null,
    bestBefore: '2028-01-31',
  },
  take: 'into stock',
});

describe('no failure goes unexplained', () => {
  it('one in the program is in the log with message, stack and the id that the answer shows', async () => {
    const broken = jest.spyOn(counter.store.logbook, 'rack').mockImplementation(() => {
      throw new TypeError('the rack fell over');
    });
    const { status, problem } = await asked('/api/rack');
    broken.mockRestore();
    expect(status).toBe(500);
    expect(JSON.stringify(problem)).not.toContain('fell over');
    expect(logged).toMatchObject([{ err: { message: 'the rack fell over' }, requestId: problem.requestId }]);
    expect(logged[0]?.err?.stack).toContain('errors.test');
  });

  it.each([
    ['SQLITE_FULL', 'disk of the server is full'],
    ['ENOSPC', 'disk of the server is full'],
    ['SQLITE_READONLY_DBMOVED', 'cannot be written to'],
    ['EROFS', 'cannot be written to'],
    ['SQLITE_CORRUPT_INDEX', 'damaged'],
    ['SQLITE_IOERR_FSYNC', 'does not read or write'],
    ['SQLITE_BUSY', 'Another program'],
  ])('%s is named as what it is, with what to do', async (code, words) => {
    const broken = jest.spyOn(counter.store.logbook, 'rack').mockImplementation(() => {
      throw Object.assign(new Error(code), { code });
    });
    const { status, problem } = await asked('/api/rack');
    broken.mockRestore();
    expect(status).toBe(503);
    expect(problem.detail).toContain(words);
    expect(problem.whatToDo).toBeTruthy();
    expect(logged).toHaveLength(1);
  });

  it.each([
    ['a file that is not there', '/assets/none.js', {}, 404],
    ['an address that cannot be read', '/assets/%E0%A4%A', {}, 400],
    ['a way out of the folder', '/assets/..%2f..%2fwax-lantern.db', {}, 403],
    [
      'a body whose packing is broken',
      '/api/jobs',
      {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' },
        body: gzipSync('{"id":1}').subarray(0, 12),
      },
      400,
    ],
    [
      'a body in an unknown packing',
      '/api/jobs',
      {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'content-encoding': 'zebra' },
        body: '{}',
      },
      415,
    ],
    [
      'a body that grows too large when it is unpacked',
      '/api/jobs',
      {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' },
        body: gzipSync(JSON.stringify({ words: 'x'.repeat(3_000_000) })),
      },
      413,
    ],
  ] as const)('%s is refused in words', async (_, path, init, wanted) => {
    const { status, problem } = await asked(path, init);
    expect([status, problem.status]).toEqual([wanted, wanted]);
    expect(problem.whatToDo).toBeTruthy();
    expect(logged).toEqual([]);
  });

  it('a note with one lot on two lines, or for an order nobody placed, is refused and changes nothing', async () => {
    const twice = await posted('/api/deliveries', delivery({ lines: [line(4), line(6)] }));
    expect(twice.status).toBe(422);
    expect(twice.problem.detail).toContain('Two lines of this delivery note have the same lot code');
    const unknown = await posted(
      '/api/deliveries',
      delivery({ orderId: idOf('nobody’s order'), lines: [line(4)] }),
    );
    expect(unknown.status).toBe(404);
    expect(counter.store.stock.lotsInUse()).toEqual([]);
  });
});

describe('a job whose file is gone', () => {
  it('is exported with that said, and arrives elsewhere without it', async () => {
    const kept = await fetch(`${url}/api/attachments?name=note.txt&technicianId=${technicianId}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: 'a note about a back',
    });
    const { hash } = (await kept.json()) as { hash: string };
    const job = await counter.takeIn('with a file');
    await counter.record(job, 'noted', 'open.technique', { note: 'late click' }, { attachments: [hash] });
    writeFileSync(counter.store.attachments.pathOf(hash), 'something else');
    const response = await fetch(`${url}/api/jobs/${job}/job.json`);
    expect(response.status).toBe(200);
    const file = (await response.json()) as { attachments: unknown[]; filesMissing: unknown[] };
    expect(file).toMatchObject({ attachments: [], filesMissing: [{ hash, name: 'note.txt' }] });
    const elsewhere = await Counter.open();
    const taken = await fetch(`${elsewhere.url}/api/jobs/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: JSON.stringify(file),
    });
    expect(taken.status).toBeLessThan(300);
    expect((await elsewhere.get(`/api/jobs/${job}`)).status).toBe(200);
    await elsewhere.close();
  });
});
