import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  readlinkSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import type { Attachment, Problem } from '../contract';
import { Counter, technicianId } from '../testing/counter';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

async function add(content: string): Promise<Attachment> {
  const response = await fetch(`${counter.url}/api/attachments?technicianId=${technicianId}&name=note.txt`, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: content,
  });
  expect(response.status).toBe(201);
  return (await response.json()) as Attachment;
}
const shown = (hash: string) => counter.get<string & Problem>(`/api/attachments/${hash}`);
/** Makes a file one that has lain there for two hours. */
const old = (path: string): void => utimesSync(path, Date.now() / 1000 - 7200, Date.now() / 1000 - 7200);

describe('a file on disk that is not what it was', () => {
  it.each([
    ['changed in place', (path: string) => writeFileSync(path, 'chalked 03/25')],
    ['cut short', (path: string) => writeFileSync(path, 'chal')],
    ['gone', (path: string) => rmSync(path)],
  ])('is put right when the same file comes again: %s', async (_, damage) => {
    const { hash } = await add('chalked 03/24');
    const path = counter.store.attachments.pathOf(hash);
    damage(path);
    expect((await add('chalked 03/24')).hash).toBe(hash);
    expect(readFileSync(path, 'utf8')).toBe('chalked 03/24');
  });

  it('is named as such, and not sent in half', async () => {
    const { hash } = await add('chalked 03/24');
    writeFileSync(counter.store.attachments.pathOf(hash), 'chal');
    const { status, body } = await shown(hash);
    expect([status, body.title]).toEqual([404, 'The file is gone']);
    expect(body.whatToDo).toContain('add it again');
  });
});

/** How often this process has a file open. */
function openHere(path: string): number {
  return readdirSync('/proc/self/fd').filter((each) => {
    try {
      return readlinkSync(`/proc/self/fd/${each}`) === path;
    } catch {
      return false;
    }
  }).length;
}

async function closedSoon(path: string): Promise<number> {
  for (let tries = 0; tries < 100 && openHere(path) > 0; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 50));
  return openHere(path);
}

describe('a file on its way to a window', () => {
  it('is closed where the window goes away, or asks for its size alone', async () => {
    const { hash } = await add('chalk'.repeat(6_000_000));
    const url = `${counter.url}/api/attachments/${hash}`;
    const path = counter.store.attachments.pathOf(hash);
    const gone = new AbortController();
    const reader = (await fetch(url, { signal: gone.signal })).body?.getReader();
    expect((await reader?.read())?.value?.length).toBeGreaterThan(0);
    expect(openHere(path)).toBe(1);
    gone.abort();
    expect(await closedSoon(path)).toBe(0);
    const size = await fetch(url, { method: 'HEAD' });
    expect(size.headers.get('content-length')).toBe('30000000');
    expect(await closedSoon(path)).toBe(0);
  });
});

describe('a look through the files', () => {
  it('sweeps what nothing names once it is old, lists what is missing, and leaves the rest', async () => {
    const [kept, lost, short] = [await add('kept'), await add('lost'), await add('short')];
    const { attachments } = counter.store;
    rmSync(attachments.pathOf(lost.hash));
    writeFileSync(attachments.pathOf(short.hash), 's');
    const [stray, young] = ['a'.repeat(64), 'b'.repeat(64)].map((hash) => {
      const path = attachments.pathOf(hash);
      mkdirSync(dirname(path), { recursive: true });
      writeFileSync(path, 'nobody names it');
      return path;
    });
    const [half, arriving] = [attachments.wayIn(), attachments.wayIn()];
    for (const path of [half, arriving]) writeFileSync(path, 'half');
    for (const path of [stray ?? '', half, attachments.pathOf(kept.hash)]) old(path);

    const found = await counter.store.health.lookThroughFiles();
    expect(found).toMatchObject({ unnamed: ['a'.repeat(64)], gone: [lost.hash], damaged: [short.hash] });
    expect(found.brokenOff).toHaveLength(1);
    expect([stray ?? '', half].map((path) => existsSync(path))).toEqual([false, false]);
    expect([young ?? '', arriving, attachments.pathOf(kept.hash)].map((path) => existsSync(path))).toEqual([
      true,
      true,
      true,
    ]);
    const health = await counter.get<object>('/api/health');
    expect(health.body).toMatchObject({ ready: true, files: { gone: 1, damaged: 1, swept: 2 } });
  });

  it('never takes a file that lay there unnamed and is added at that moment', async () => {
    const { hash } = await add('twice');
    const path = counter.store.attachments.pathOf(hash);
    const copy = join(dirname(path), 'c'.repeat(64));
    writeFileSync(copy, 'x');
    old(copy);
    const answers = await Promise.all([
      counter.store.health.lookThroughFiles(),
      add('at that moment'),
      counter.store.health.lookThroughFiles(),
    ]);
    expect(existsSync(counter.store.attachments.pathOf(answers[1].hash))).toBe(true);
  });
});

describe('health', () => {
  it('says not ready, and why, where files cannot be written', async () => {
    expect((await counter.get<{ ready: boolean }>('/api/health')).body.ready).toBe(true);
    rmSync(dirname(counter.store.attachments.wayIn()), { recursive: true });
    await new Promise((resolve) => setTimeout(resolve, 1100));
    const { status, body } = await counter.get<Problem & { ready: boolean }>('/api/health');
    expect([status, body.ready, body.title]).toEqual([503, false, 'Not ready']);
    expect(body.whatToDo).not.toBe('');
  });

  it('says which files are gone at once where the folder is another one', async () => {
    await add('kept');
    await counter.store.health.lookThroughFiles();
    expect((await counter.get('/api/health')).body).toMatchObject({ files: { gone: 0 } });
    const folder = dirname(dirname(counter.store.attachments.wayIn()));
    renameSync(folder, `${folder}.moved`);
    mkdirSync(join(folder, 'arriving'), { recursive: true });
    mkdirSync(join(folder, 'thumbs'), { recursive: true });
    expect((await counter.get('/api/health')).body).toMatchObject({ ready: true, files: { gone: 1 } });
    rmSync(folder, { recursive: true });
    renameSync(`${folder}.moved`, folder);
    expect((await counter.get('/api/health')).body).toMatchObject({ ready: true, files: { gone: 0 } });
  });

  it('says not ready within a second where another program locks the database, and stops nobody meanwhile', async () => {
    const db = await import('better-sqlite3');
    const other = new db.default(join(counter.dataDir, 'wax-lantern.db'), { timeout: 0 });
    other.exec('BEGIN IMMEDIATE');
    const began = performance.now();
    const [health, write, read] = await Promise.all([
      counter.get<Problem>('/api/health'),
      counter.post<Problem>('/api/technicians', {
        id: technicianId,
        name: 'Tess Quarrymoor',
        initials: 'TQ',
      }),
      counter.get('/api/rack'),
    ]);
    expect(performance.now() - began).toBeLessThan(1000);
    other.exec('COMMIT');
    other.close();
    expect([health.status, write.status, read.status]).toEqual([503, 503, 200]);
    expect(write.body.detail).toContain('Another program holds the database');
  });

  it('says not ready, and why, where the database cannot be written', async () => {
    const db = await import('better-sqlite3');
    const other = new db.default(join(counter.dataDir, 'wax-lantern.db'), { timeout: 0 });
    other.exec('DROP TABLE health');
    const { status, body } = await counter.get<Problem & { ready: boolean }>('/api/health');
    other.close();
    expect([status, body.ready]).toEqual([503, false]);
  });
});

describe('book and policy', () => {
  it('are never older than the database, whoever wrote there', async () => {
    const db = await import('better-sqlite3');
    const policyBefore = counter.store.shops.policy();
    const bookBefore = counter.store.catalogue.book();
    const other = new db.default(join(counter.dataDir, 'wax-lantern.db'));
    other.exec(
      `INSERT INTO policy_revision (body, recorded_at) SELECT body, recorded_at FROM policy_revision LIMIT 1`,
    );
    other.exec(
      `INSERT INTO catalogue_record (kind, record_id, body, removed, recorded_at)
       SELECT kind, record_id, body, 1, recorded_at FROM catalogue_record WHERE kind = 'cell' LIMIT 1`,
    );
    other.exec(`UPDATE shop SET name = 'Renamed'`);
    other.close();
    expect(counter.store.shops.policy().revision).toBeGreaterThan(policyBefore.revision);
    expect(counter.store.catalogue.book().cells).toHaveLength(bookBefore.cells.length - 1);
    expect(counter.store.shops.shop().name).toBe('Renamed');
  });
});
