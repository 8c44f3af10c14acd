import { copyFileSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import type { KeptTakenIn, KeptWrites } from '../src/contract';
import { type ServerProcess, startServer } from '../src/testing/serverProcess';
import { type Held, inFolder, record, withJob } from './rest';

const DATABASE = 'wax-lantern.db';

/** What happens next: somebody asks, or the server ends without having noticed. */
const ENDS = ['noticed', 'SIGTERM', 'SIGKILL'] as const;

/** How a copy comes into the place of the database while the server runs. */
const WAYS = {
  'written over it': (copy: string, file: string) => copyFileSync(copy, file),
  'moved into its place': (copy: string, file: string) => {
    copyFileSync(copy, `${file}.copy`);
    renameSync(`${file}.copy`, file);
  },
  'deleted first': (copy: string, file: string) => {
    rmSync(file);
    copyFileSync(copy, file);
  },
} as const;

/** Takes in whatever an earlier server kept; gives what was refused. */
export async function takeInKept(server: ServerProcess): Promise<string[]> {
  const kept = (await (await fetch(`${server.url}/api/kept`)).json()) as KeptWrites[];
  const refused: string[] = [];
  for (const { name } of kept) {
    const answer = await fetch(`${server.url}/api/kept/${name}/take-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    });
    const taken = (await answer.json()) as KeptTakenIn;
    refused.push(...taken.refused.map(({ what, reason }) => `${what}: ${reason}`));
  }
  return refused;
}

/** Moves the log of a database away, as the refusal to start says. */
export function moveLogAway(dataDir: string): void {
  const aside = join(dataDir, 'aside');
  mkdirSync(aside, { recursive: true });
  for (const end of ['-wal', '-shm'])
    if (statSync(join(dataDir, `${DATABASE}${end}`), { throwIfNoEntry: false }))
      renameSync(join(dataDir, `${DATABASE}${end}`), join(aside, `${Date.now()}${end}`));
}

/** Starts a server over a folder, doing what it says where it will not start. */
export async function startOrObey(dataDir: string): Promise<ServerProcess> {
  try {
    return await startServer(dataDir);
  } catch (error) {
    if (!String(error).includes('belongs to another database')) throw error;
    moveLogAway(dataDir);
    return startServer(dataDir);
  }
}

async function idOf(answer: Response): Promise<string> {
  if (answer.status !== 201) throw new Error(`An entry was answered with ${answer.status}.`);
  return ((await answer.json()) as { id: string }).id;
}

/**
 * An earlier copy is put back under the running server, in every way, noticed before the server ends or not: nothing more
 * is acknowledged, the copy opens whole, and what was acknowledged can be taken in again.
 */
export const putBack = ({
  times,
  ends = ENDS,
}: {
  readonly times: number;
  readonly ends?: readonly (typeof ENDS)[number][];
}): Promise<Held> =>
  inFolder(async (dataDir) => {
    const broken: string[] = [];
    const file = join(dataDir, DATABASE);
    const copy = join(dataDir, 'copy-of-it');
    const first = await startServer(dataDir);
    const job = await withJob(first);
    await first.end('SIGTERM');
    let count = 0;
    const acknowledged: string[] = [];
    for (let time = 0; time < times; time += 1)
      for (const [words, put] of Object.entries(WAYS))
        for (const end of ends) {
          copyFileSync(file, copy);
          const server = await startServer(dataDir);
          for (let entry = 0; entry < 5; entry += 1)
            acknowledged.push(await idOf(await record(server, job, `put back ${count++}`)));
          put(copy, file);
          if (end === 'noticed') {
            const [health, write] = [
              await fetch(`${server.url}/api/health`),
              await record(server, job, `put back ${count++}`),
            ];
            if (health.status !== 503) broken.push(`${words}: health answers ${health.status}`);
            const { detail } = (await write.json()) as { detail?: string };
            if (write.status !== 503 || !detail?.includes('The database file was replaced'))
              broken.push(`${words}: a write is answered with ${write.status}, ${detail}`);
          }
          await server.end(end === 'noticed' ? 'SIGTERM' : end);
          const again = await startOrObey(dataDir);
          broken.push(...(await takeInKept(again)).map((each) => `${words}, ${end}: ${each}`));
          const held = (await (await fetch(`${again.url}/api/jobs/${job}`)).json()) as {
            entries: { id: string }[];
          };
          const ids = new Set(held.entries.map(({ id }) => id));
          broken.push(
            ...acknowledged.filter((id) => !ids.has(id)).map((id) => `${words}, ${end}: ${id} is lost`),
          );
          await again.end('SIGTERM');
        }
    if (readdirSync(dataDir).includes('acknowledged.jsonl')) broken.push('a clean end leaves its notes');
    return {
      words: `${times * ends.length * Object.keys(WAYS).length} copies put back, ${acknowledged.length} entries acknowledged`,
      broken,
    };
  });

/** The database is taken away and brought back while the server runs: it says so, and goes on. */
export const takenAway = ({ times }: { readonly times: number }): Promise<Held> =>
  inFolder(async (dataDir) => {
    const broken: string[] = [];
    const file = join(dataDir, DATABASE);
    const server = await startServer(dataDir);
    const job = await withJob(server);
    for (let time = 0; time < times; time += 1) {
      renameSync(file, `${file}.elsewhere`);
      const gone = await record(server, job, `gone ${time}`);
      if (gone.status !== 503) broken.push(`a write without a database is answered with ${gone.status}`);
      if ((await fetch(`${server.url}/api/health`)).status !== 503) broken.push('health says ready');
      renameSync(`${file}.elsewhere`, file);
      // Its log alone, as somebody does who tidies while it runs.
      renameSync(`${file}-wal`, `${file}-wal.elsewhere`);
      const withoutLog = await record(server, job, `without its log ${time}`);
      if (withoutLog.status !== 503)
        broken.push(`a write without its log is answered with ${withoutLog.status}`);
      renameSync(`${file}-wal.elsewhere`, `${file}-wal`);
      const back = await record(server, job, `back ${time}`);
      if (back.status !== 201) broken.push(`brought back, a write is answered with ${back.status}`);
    }
    await server.end('SIGTERM');
    return { words: `The database taken away ${times} times`, broken };
  });
