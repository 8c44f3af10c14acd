import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { idOf } from '../testing/fixtures';
import { buildServer, readyServer, startServer } from '../testing/serverProcess';
import { openConnection } from './store/database';
import { openStore } from './store/store';

let dataDir: string;
const database = (): string => join(dataDir, 'wax-lantern.db');

/** The bytes of the database; null where it is gone. */
const content = (): string | null => (existsSync(database()) ? readFileSync(database(), 'base64') : null);

/** Starts the server where it will not, and gives what it says. */
function refused(): { readonly status: number | null; readonly said: string } {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [join(process.cwd(), 'dist/server/main.js')],
    {
      env: { ...process.env, PORT: '0', WAX_DATA: dataDir },
      encoding: 'utf8',
      timeout: 20_000,
    },
  );
  return { status, said: stdout + stderr };
}

beforeAll(readyServer, 200_000);
beforeEach(() => {
  dataDir = mkdtempSync(join(tmpdir(), 'wax-start-'));
  openStore({ dataDir }).close();
});
afterEach(() => rmSync(dataDir, { recursive: true, force: true }));

const filesBeside = (): void => {
  mkdirSync(join(dataDir, 'attachments', 'ab'), { recursive: true });
  writeFileSync(join(dataDir, 'attachments', 'ab', 'abcd'), 'kept');
};

describe('a server that must not start', () => {
  it.each([
    [
      'its database gone beside files',
      () => (filesBeside(), rmSync(database())),
      'is gone, and files of a shop',
    ],
    [
      'its database empty beside files',
      () => (filesBeside(), writeFileSync(database(), '')),
      'is empty, and files',
    ],
    ['something else in its place', () => writeFileSync(database(), 'x'.repeat(5000)), 'is not a database'],
    [
      'a damaged database',
      () => {
        const bytes = readFileSync(database());
        bytes.fill(0xa5, 4096, 4096 * 6);
        writeFileSync(database(), bytes);
      },
      'is damaged',
    ],
    [
      'a database of a newer program',
      () => {
        const db = openConnection(database());
        db.prepare('INSERT INTO migration (number, name) VALUES (999, ?)').run('999_later.sql');
        db.close();
      },
      'written by a newer program',
    ],
  ])('with %s says so and the way back, without a stack, and changes nothing', (_, spoil, words) => {
    spoil();
    const before = content();
    const { status, said } = refused();
    expect(status).toBe(1);
    expect(said).toContain(words);
    expect(said).toMatch(/WAX_DATA/);
    expect(said).not.toMatch(/at .*\.js:\d+/);
    expect(content()).toBe(before);
  });

  it('because the log of another database lies beside it says what to move, and starts once that is done', () => {
    const copy = readFileSync(database());
    // Each opening numbers the database anew.
    openStore({ dataDir }).close();
    const store = openStore({ dataDir });
    store.shops.addTechnician({ id: idOf('technician'), name: 'Tess Quarrymoor', initials: 'TQ' });
    const log = readFileSync(`${database()}-wal`);
    store.close();
    writeFileSync(database(), copy);
    writeFileSync(`${database()}-wal`, log);
    const { status, said } = refused();
    expect(status).toBe(1);
    expect(said).toContain('belongs to another database');
    expect(said).toContain('move wax-lantern.db-wal and wax-lantern.db-shm to another folder');
    expect(readFileSync(database()).equals(copy)).toBe(true);
    rmSync(`${database()}-wal`);
    const again = openStore({ dataDir });
    expect(again.shops.technicians()).toEqual([]);
    again.close();
  });

  it('because its log lies there without it says that', () => {
    const store = openStore({ dataDir });
    store.shops.addTechnician({ id: idOf('technician'), name: 'Tess Quarrymoor', initials: 'TQ' });
    const log = readFileSync(`${database()}-wal`);
    store.close();
    rmSync(database());
    writeFileSync(`${database()}-wal`, log);
    expect(refused().said).toContain('is gone, and its log lies beside it');
  });

  it('because another has the database open says that, though the lock file was deleted', async () => {
    const first = await startServer(dataDir);
    rmSync(join(dataDir, 'in-use.db'));
    const { status, said } = refused();
    expect(status).toBe(1);
    expect(said).toContain('Another server or program has the database');
    expect((await fetch(`${first.url}/api/health`)).status).toBe(200);
    await first.end('SIGTERM');
  });

  it('because another has the folder says that, and may once the other is gone however it went', async () => {
    const first = await startServer(dataDir);
    const { status, said } = refused();
    expect(status).toBe(1);
    expect(said).toContain('Another server has the folder');
    await first.end('SIGKILL');
    const second = await startServer(dataDir);
    expect((await fetch(`${second.url}/api/health`)).status).toBe(200);
    await second.end('SIGTERM');
  });
});

it('ends on a signal within five seconds, what is being answered finished and listeners let go', async () => {
  const server = await startServer(dataDir);
  const news = await fetch(`${server.url}/api/news`);
  const heard = news.text();
  const asked = Promise.all(Array.from({ length: 20 }, () => fetch(`${server.url}/api/stock`)));
  const answers = await asked;
  const started = Date.now();
  await server.end('SIGTERM');
  expect(Date.now() - started).toBeLessThan(5000);
  expect(answers.map(({ status }) => status)).toEqual(Array.from({ length: 20 }, () => 200));
  await expect(heard).resolves.toContain('data: null');
  expect(server.child.exitCode).toBe(0);
});

describe('what starts it', () => {
  /** Starts the server as `npm start` does, once everything is built. */
  const served = (): { child: ChildProcess; ready: Promise<string>; ended: Promise<number | null> } => {
    const child = spawn(
      process.execPath,
      ['--input-type=module', '-e', `import { serve } from './scripts/prepare.mjs'; serve({});`],
      { env: { ...process.env, PORT: '0', WAX_DATA: dataDir }, stdio: ['ignore', 'pipe', 'inherit'] },
    );
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
    const ready = new Promise<string>((resolve) => {
      createInterface({ input: child.stdout }).on('line', (line) => {
        const url = /ready at (\S+)/.exec(line)?.[1];
        if (url) resolve(url);
      });
    });
    return { child, ready, ended };
  };

  it('passes a signal on, however often it comes, and ends with the code of the server', async () => {
    const { child, ready, ended } = served();
    const url = await ready;
    for (let times = 0; times < 3; times += 1) child.kill('SIGTERM');
    expect(await ended).toBe(0);
    await expect(fetch(`${url}/api/health`)).rejects.toThrow();
  });

  it('ends the server when npm is gone, however it went', async () => {
    const start = `import { serve } from './scripts/prepare.mjs'; serve({});`;
    const npm = spawn(
      process.execPath,
      [
        '-e',
        `require('node:child_process').spawn(process.execPath, ['--input-type=module', '-e', ${JSON.stringify(start)}], { stdio: 'inherit' })`,
      ],
      {
        env: { ...process.env, PORT: '0', WAX_DATA: dataDir, npm_lifecycle_event: 'start' },
        stdio: ['ignore', 'pipe', 'inherit'],
      },
    );
    const url = await new Promise<string>((resolve) => {
      createInterface({ input: npm.stdout }).on('line', (line) => {
        const found = /ready at (\S+)/.exec(line)?.[1];
        if (found) resolve(found);
      });
    });
    npm.kill('SIGKILL');
    const answers = (): Promise<boolean> =>
      fetch(`${url}/api/health`).then(
        () => true,
        () => false,
      );
    for (let times = 0; times < 50 && (await answers()); times += 1)
      await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await answers()).toBe(false);
  });

  it('ends with the code of a server that did not start', async () => {
    writeFileSync(database(), 'x'.repeat(5000));
    expect(await served().ended).toBe(1);
  });
});

it('goes on with the build it was started with, however often another is made', async () => {
  const server = await startServer(dataDir);
  for (let times = 0; times < 5; times += 1) buildServer();
  const technician = { id: idOf('technician'), name: 'Tess Quarrymoor', initials: 'TQ' };
  await fetch(`${server.url}/api/technicians`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(technician),
  });
  // Reading a table loads more of the build, long after the start.
  const read = await fetch(
    `${server.url}/api/catalogue/tables/makers?technicianId=${technician.id}&dryRun=yes`,
    {
      method: 'POST',
      headers: { 'content-type': 'text/csv' },
      body: 'id,name,sign\nfenwick,Fenwick,kite',
    },
  );
  expect(await read.text()).toContain('"added":1');
  await server.end('SIGTERM');
  const builds = readdirSync(join(process.cwd(), 'dist')).filter((name) => /^server-\d/.test(name));
  expect(builds.length).toBeLessThanOrEqual(6);
}, 200_000);

it('refuses to listen off loopback without a key, and says why', async () => {
  await expect(startServer(dataDir, { HOST: '0.0.0.0' })).rejects.toThrow(/WAX_KEY/);
  await expect(startServer(dataDir, { PORT: 'abc' })).rejects.toThrow(/not a port/);
});
