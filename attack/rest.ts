import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { JobResource } from '../src/contract';
import { readingOf } from '../src/testing/fixtures';
import { entryOf, newJob, technicianId } from '../src/testing/jobs';
import { type ServerProcess, startServer } from '../src/testing/serverProcess';

/** What an attack found: nothing, where everything held. `skipped`: why it could not be made here. */
export interface Held {
  readonly words: string;
  readonly broken: readonly string[];
  readonly skipped?: string;
}

interface Given {
  readonly times: number;
}

export async function inFolder<T>(work: (dataDir: string) => Promise<T>): Promise<T> {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-attack-'));
  try {
    return await work(dataDir);
  } finally {
    rmSync(dataDir, { recursive: true, force: true });
  }
}

type Body = string | Uint8Array<ArrayBuffer>;

export const send = (
  server: ServerProcess,
  path: string,
  type: string,
  body: Body,
  headers: object = {},
): Promise<Response> =>
  fetch(server.url + path, { method: 'POST', headers: { 'content-type': type, ...headers }, body });

export const record = (server: ServerProcess, job: string, name: string): Promise<Response> =>
  send(
    server,
    `/api/jobs/${job}/entries`,
    'application/json',
    JSON.stringify(entryOf(name, 'check.reading', readingOf('restVoltageV', 1.4))),
  );

export async function withJob(server: ServerProcess): Promise<string> {
  const person = { id: technicianId, name: 'Tess Quarrymoor', initials: 'TQ' };
  await send(server, '/api/technicians', 'application/json', JSON.stringify(person));
  const job = newJob('attacked');
  const taken = await send(server, '/api/jobs', 'application/json', JSON.stringify(job));
  if (taken.status !== 201) throw new Error(`The job was not taken in: ${await taken.text()}`);
  return job.id;
}

/** Bodies too large, too deep or packed to burst: each refused in words, the server there all the while. */
export const heavy = ({ times }: Given): Promise<Held> =>
  inFolder(async (dataDir) => {
    const server = await startServer(dataDir, { NODE_OPTIONS: '--max-old-space-size=1024' });
    const job = await withJob(server);
    const table = `/api/catalogue/tables/makers?technicianId=${technicianId}&dryRun=yes`;
    const packed = { 'content-encoding': 'gzip' };
    const bomb = new Uint8Array(gzipSync(Buffer.alloc(60 * 1024 * 1024, 0x20)));
    const bodies: (() => Promise<Response>)[] = [
      () => send(server, '/api/jobs', 'application/json', bomb, packed),
      () => send(server, table, 'text/csv', bomb, packed),
      () => send(server, '/api/jobs', 'application/json', '['.repeat(900_000)),
      () => send(server, '/api/jobs', 'application/json', `[${'1,'.repeat(400_000)}1]`),
      () => send(server, table, 'text/csv', 'a,b,c\n'.repeat(300_000)),
      () => send(server, '/api/jobs/import', 'application/octet-stream', '{"a":'.repeat(5_000_000)),
    ];
    const broken: string[] = [];
    for (let time = 0; time < times; time += 1) {
      const statuses = await Promise.all(
        bodies.map((each) =>
          each().then(
            (response) => response.status,
            (error: unknown) => String(error),
          ),
        ),
      );
      statuses.forEach((status, index) => {
        if (status !== 413) broken.push(`heavy body ${index} was answered with ${status}`);
      });
      if ((await fetch(`${server.url}/api/jobs/${job}`)).status !== 200)
        broken.push('the job does not answer');
    }
    await server.end('SIGTERM');
    return { words: `${times * bodies.length} heavy bodies`, broken };
  });

const DISK_MB = 16;

/** A disk that is full: said so, nothing lost, and on again once there is room. Only where a small disk can be made. */
export const fullDisk = ({ times }: Given): Promise<Held> =>
  inFolder(async (dataDir) => {
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'tmpfs', dataDir], { stdio: 'ignore' });
    } catch {
      return { words: 'A full disk', broken: [], skipped: 'no small disk may be mounted here' };
    }
    const broken: string[] = [];
    const kept: string[] = [];
    let refused = 0;
    try {
      const server = await startServer(dataDir);
      const job = await withJob(server);
      const filler = join(dataDir, 'filler');
      for (let time = 0; time < times; time += 1) {
        try {
          writeFileSync(filler, Buffer.alloc(DISK_MB * 1024 * 1024));
        } catch {
          // It is full now, which is what was wanted.
        }
        for (let count = 0; count < 200; count += 1) {
          const name = `disk ${time} ${count}`;
          const answer = await record(server, job, name);
          if (answer.status === 201) kept.push(((await answer.json()) as { id: string }).id);
          else {
            const { detail } = (await answer.json()) as { detail: string };
            if (answer.status !== 503 || !detail.includes('full')) broken.push(`${answer.status}: ${detail}`);
            refused += 1;
          }
        }
        // A write larger than what is left of the pages there are.
        const file = await send(
          server,
          `/api/attachments?technicianId=${technicianId}&name=large.bin`,
          'application/octet-stream',
          new Uint8Array(8 * 1024 * 1024),
        );
        if (file.status !== 503) broken.push(`a file on a full disk was answered with ${file.status}`);
        await new Promise((resolve) => setTimeout(resolve, 1100));
        const health = await fetch(`${server.url}/api/health`);
        if (health.status !== 503) broken.push(`health on a full disk answers ${health.status}`);
        rmSync(filler);
        await new Promise((resolve) => setTimeout(resolve, 1100));
        if ((await fetch(`${server.url}/api/health`)).status !== 200)
          broken.push('not ready with room again');
        const after = await record(server, job, `disk ${time} after`);
        if (after.status !== 201) broken.push(`with room again it answers ${after.status}`);
      }
      const { entries } = (await (await fetch(`${server.url}/api/jobs/${job}`)).json()) as JobResource;
      const held = new Set(entries.map(({ id }) => id));
      broken.push(...kept.filter((id) => !held.has(id)).map((id) => `${id} was acknowledged and is lost`));
      await server.end('SIGTERM');
    } finally {
      execFileSync('umount', ['-l', dataDir]);
    }
    return { words: `A full disk ${times} times, ${refused} writes refused, ${kept.length} kept`, broken };
  });

/** A second server over the same folder: always refused, the first untouched. */
export const twoServers = ({ times }: Given): Promise<Held> =>
  inFolder(async (dataDir) => {
    const first = await startServer(dataDir);
    const job = await withJob(first);
    const broken: string[] = [];
    for (let time = 0; time < times; time += 1) {
      const [second, written] = await Promise.all([
        startServer(dataDir).then(
          async (server) => {
            await server.end('SIGKILL');
            return 'started';
          },
          (error: unknown) => String(error),
        ),
        record(first, job, `two ${time}`),
      ]);
      if (!second.includes('Another server has the folder')) broken.push(`the second server: ${second}`);
      if (written.status !== 201) broken.push(`the first answered ${written.status}`);
    }
    await first.end('SIGTERM');
    return { words: `${times} second servers`, broken };
  });

const WINDOWS = 60;
const COMES_WITHIN_MS = 20_000;

/** Waits for what is to come, no longer than even a busy machine takes; whoever asked looks what came. */
async function until(came: () => boolean): Promise<void> {
  const giveUp = Date.now() + COMES_WITHIN_MS;
  while (!came() && Date.now() < giveUp) await new Promise((resolve) => setTimeout(resolve, 50));
}

/** Many windows that listen, some of them gone in the middle: each that is there hears each entry, in order. */
export const windows = ({ times }: Given): Promise<Held> =>
  inFolder(async (dataDir) => {
    const server = await startServer(dataDir);
    const job = await withJob(server);
    const heard = Array.from({ length: WINDOWS }, () => 0);
    const stands = new Set<number>();
    const ends = Array.from({ length: WINDOWS }, () => new AbortController());
    const listening = ends.map(async ({ signal }, index) => {
      const response = await fetch(`${server.url}/api/news`, { signal });
      const pieces = response.body?.pipeThrough(new TextDecoderStream());
      if (!pieces) return;
      try {
        for await (const piece of pieces) {
          stands.add(index);
          heard[index] = (heard[index] ?? 0) + (piece.match(/"entry"/g)?.length ?? 0);
        }
      } catch {
        // It was closed, as a window is.
      }
    });
    // A stream says at once that it stands: only from then on must its window hear.
    await until(() => stands.size === WINDOWS);
    for (let time = 0; time < times; time += 1) {
      await record(server, job, `window ${time}`);
      if (time === Math.floor(times / 2))
        ends.filter((_, index) => index % 3 === 0).forEach((end) => end.abort());
    }
    const deaf = (): number[] =>
      heard.flatMap((count, index) => (index % 3 === 0 || count === times ? [] : [index]));
    await until(() => deaf().length === 0);
    const broken = deaf().map((index) => `window ${index} heard ${heard[index]} of ${times}`);
    await server.end('SIGTERM');
    await Promise.allSettled(listening);
    return { words: `${WINDOWS} windows, ${times} entries`, broken };
  });
