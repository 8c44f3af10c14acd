import { crc32, deflateSync } from 'node:zlib';
import Database from 'better-sqlite3';
import { join } from 'node:path';
import { technicianId } from '../src/testing/jobs';
import { type ServerProcess, startServer } from '../src/testing/serverProcess';
import { type Held, inFolder, record, send, withJob } from './rest';

/** On a machine that does nothing else, 99 of 100 answers come within this, ms. */
export const HEALTH_MS = 100;

const chunk = (type: string, body: Uint8Array): Buffer => {
  const named = Buffer.concat([Buffer.from(type, 'latin1'), body]);
  const [size, check] = [Buffer.alloc(4), Buffer.alloc(4)];
  size.writeUInt32BE(body.length);
  check.writeUInt32BE(crc32(named));
  return Buffer.concat([size, named, check]);
};

/** A white PNG of so many pixels: a few kilobytes, and a gigabyte once it is unpacked. */
function plainPng(side: number): Uint8Array<ArrayBuffer> {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header.set([1, 0, 0, 0, 0], 8);
  return new Uint8Array(
    Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', header),
      chunk('IDAT', deflateSync(Buffer.alloc(side * (Math.ceil(side / 8) + 1)))),
      chunk('IEND', new Uint8Array()),
    ]),
  );
}

/** How long health takes while something else goes on: the slowest but one in a hundred, ms. */
async function healthBeside(server: ServerProcess, work: Promise<unknown>): Promise<number> {
  const tookMs: number[] = [];
  let isDone = false;
  const ended = work.finally(() => (isDone = true));
  while (!isDone) {
    const began = performance.now();
    await (await fetch(`${server.url}/api/health`)).text();
    tookMs.push(performance.now() - began);
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  await ended;
  tookMs.sort((a, b) => a - b);
  return tookMs[Math.floor(tookMs.length * 0.99)] ?? 0;
}

const upload = (server: ServerProcess, body: Uint8Array<ArrayBuffer>): Promise<Response> =>
  send(
    server,
    `/api/attachments?technicianId=${technicianId}&name=picture.png`,
    'application/octet-stream',
    body,
  );

/** Small pictures of very many pixels and a file of brackets: refused or taken, and health answers all the while. */
export const beside = ({
  times,
  mostMs,
}: {
  readonly times: number;
  readonly mostMs?: number;
}): Promise<Held> =>
  inFolder(async (dataDir) => {
    const server = await startServer(dataDir);
    await withJob(server);
    const broken: string[] = [];
    const slowest: string[] = [];
    const [huge, large] = [plainPng(16_384), plainPng(9000)];
    const brackets = '['.repeat(60_000_000);
    const works: readonly [string, number, () => Promise<Response[]>][] = [
      [
        'six pictures of 268 megapixels',
        413,
        () => Promise.all(Array.from({ length: 6 }, () => upload(server, huge))),
      ],
      [
        'six pictures of 81 megapixels',
        201,
        () => Promise.all(Array.from({ length: 6 }, () => upload(server, large))),
      ],
      [
        '60 MB of brackets',
        413,
        async () => [await send(server, '/api/jobs/import', 'application/octet-stream', brackets)],
      ],
    ];
    for (let time = 0; time < times; time += 1)
      for (const [words, status, work] of works) {
        const answers = work();
        const ms = await healthBeside(server, answers);
        slowest.push(`${words} ${Math.round(ms)} ms`);
        for (const answer of await answers)
          if (answer.status !== status) broken.push(`${words}: answered with ${answer.status}`);
        if (mostMs !== undefined && ms > mostMs) broken.push(`${words}: health takes ${Math.round(ms)} ms`);
      }
    await server.end('SIGTERM');
    return { words: `Health beside: ${slowest.join(', ')}`, broken };
  });

/** Another program locks the database: writes are refused at once and in words, reads go on, and all is well after. */
export const locked = ({ times }: { readonly times: number }): Promise<Held> =>
  inFolder(async (dataDir) => {
    const server = await startServer(dataDir);
    const job = await withJob(server);
    const broken: string[] = [];
    const other = new Database(join(dataDir, 'wax-lantern.db'), { timeout: 0 });
    for (let time = 0; time < times; time += 1) {
      other.exec('BEGIN IMMEDIATE');
      const began = performance.now();
      const answers = await Promise.all([
        ...Array.from({ length: 5 }, (_, count) => record(server, job, `locked ${time} ${count}`)),
        fetch(`${server.url}/api/rack`),
      ]);
      const tookMs = performance.now() - began;
      other.exec('COMMIT');
      const statuses = answers.map(({ status }) => status).join();
      if (statuses !== '503,503,503,503,503,200') broken.push(`beside a lock it answers ${statuses}`);
      if (tookMs > 2500) broken.push(`beside a lock it takes ${Math.round(tookMs)} ms`);
      const after = await record(server, job, `locked ${time} after`);
      if (after.status !== 201) broken.push(`once the lock is gone it answers ${after.status}`);
    }
    other.close();
    await server.end('SIGTERM');
    return { words: `The database locked by another program ${times} times`, broken };
  });
