import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import type { NewEntry, Problem } from '../../contract';
import type { Entry } from '../../core/logbook';
import { Counter, entryOf } from '../../testing/counter';
import { idOf, readingOf } from '../../testing/fixtures';
import type * as Queue from './waiting';

/** A page: the queue's module loaded afresh, over the same browser database and a real server. */
type Page = typeof Queue & { readonly recorded: string[] };

let counter: Counter;
let job: string;
let tests = 0;
/** Stands between the page and the server; a test makes it fail as a network does. */
let network: (path: string, init: RequestInit) => Promise<Response>;
const pages: Page[] = [];

async function openPage(): Promise<Page> {
  jest.resetModules();
  const queue = await import('./waiting');
  const recorded: string[] = [];
  const page = { ...queue, recorded };
  await queue.startWaiting((_, entry: Entry | null) => {
    if (entry !== null) recorded.push(entry.id);
    return Promise.resolve();
  });
  pages.push(page);
  return page;
}

const online = (path: string, init: RequestInit): Promise<Response> => realFetch(counter.url + path, init);
const away = (): Promise<Response> => Promise.reject(new TypeError('Failed to fetch'));
const realFetch = globalThis.fetch;

beforeEach(async () => {
  counter = await Counter.open();
  // A job of its own for each test: a page that a test left retrying cannot reach the next one's.
  tests += 1;
  job = await counter.takeIn(`queue ${tests}`);
  network = online;
  globalThis.indexedDB = new IDBFactory();
  // The page's fetch and its window, as small as the queue needs them.
  globalThis.fetch = ((path: string, init: RequestInit) =>
    String(path).startsWith('/') ? network(path, init) : realFetch(path, init)) as typeof fetch;
  (globalThis as { window?: unknown }).window = new EventTarget();
});
afterEach(async () => {
  // Ends the retries of pages that a test left with the server away.
  network = () => Promise.resolve(new Response(JSON.stringify({}), { status: 418 }));
  await Promise.all(pages.splice(0).map((page) => page.sendNow()));
  globalThis.fetch = realFetch;
  delete (globalThis as { window?: unknown }).window;
  await counter.close();
});

const volts = (name: string, value: number): NewEntry =>
  entryOf(name, 'check.reading', readingOf('restVoltageV', value));
const onRecord = (): string[] =>
  (counter.store.logbook.job(job)?.entries ?? [])
    .filter((entry) => entry.kind === 'check.reading')
    .map((entry) => entry.id);

async function until(what: () => boolean): Promise<void> {
  for (let tries = 0; tries < 1500 && !what(); tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 10));
  expect(what()).toBe(true);
}

it('a kept record that cannot be read is set aside by itself, and the others are sent', async () => {
  network = away;
  const earlier = await openPage();
  await earlier.putWaiting(job, volts('good', 1.4));
  const { browserStore } = await import('./browserStore');
  const store = await browserStore();
  const odd = { id: 'odd', order: 1, jobId: job, entry: undefined, refused: null };
  await store.put('waiting', odd as never);
  await store.put('waiting', {
    id: 'odder',
    order: 2,
    jobId: job,
    entry: { kind: 'check.reading' },
  } as never);
  network = online;
  const page = await openPage();
  await page.sendNow();
  expect(onRecord()).toContain(idOf('entry good'));
  const { entries } = page.readWaiting();
  expect(entries.map(({ id, refused }) => [id, refused?.title])).toEqual([
    ['odd', 'Unreadable entry'],
    ['odder', 'Unreadable entry'],
  ]);
  expect(page.readWaiting().away).toBe(false);
  const { waitingInWords } = await import('./kept');
  for (const each of entries) expect(waitingInWords(each)).toContain('an entry of the kind');
  // A person discards them.
  await page.discardEntry('odd');
  await page.discardEntry('odder');
  expect(page.readWaiting().entries).toEqual([]);
});

it('sends an entry and lets it go once it is on record', async () => {
  const page = await openPage();
  await page.putWaiting(job, volts('a', 1.3));
  await until(() => page.readWaiting().entries.length === 0);
  expect(onRecord()).toEqual([idOf('entry a')]);
  expect(page.recorded).toEqual([idOf('entry a')]);
  expect(page.readWaiting()).toMatchObject({ away: false, onlyInMemory: false });
});

it('shows an entry at once, and keeps it by the time its promise is fulfilled', async () => {
  network = away;
  const page = await openPage();
  const kept = page.putWaiting(job, volts('a', 1.3));
  expect(page.readWaiting().entries).toHaveLength(1);
  await kept;
  const reloaded = await openPage();
  expect(reloaded.readWaiting().entries).toHaveLength(1);
});

it('keeps entries through a reload with the server away, and sends them in the order they were made', async () => {
  network = away;
  const page = await openPage();
  for (const [name, value] of [
    ['a', 1.1],
    ['b', 1.2],
    ['c', 1.3],
  ] as const)
    await page.putWaiting(job, volts(name, value));
  await until(() => page.readWaiting().away);
  const reloaded = await openPage();
  expect(reloaded.readWaiting().entries.map((entry) => entry.id)).toEqual(
    ['a', 'b', 'c'].map((name) => idOf(`entry ${name}`)),
  );
  network = online;
  await reloaded.sendNow();
  await until(() => reloaded.readWaiting().entries.length === 0);
  expect(onRecord()).toEqual(['a', 'b', 'c'].map((name) => idOf(`entry ${name}`)));
});

it('does no harm when the answer is lost and the entry is sent again', async () => {
  let lost = 0;
  network = async (path, init) => {
    const answer = await online(path, init);
    if (init.method !== 'POST' || lost > 0) return answer;
    lost += 1;
    return away();
  };
  const page = await openPage();
  await page.putWaiting(job, volts('a', 1.3));
  await until(() => lost === 1);
  await page.sendNow();
  await until(() => page.readWaiting().entries.length === 0);
  expect(lost).toBe(1);
  expect(onRecord()).toEqual([idOf('entry a')]);
});

it('passes over an entry at which the server fails, shows it with what to do, and sends the others', async () => {
  const failed: Problem = {
    type: '/problems/failed',
    title: 'This went wrong here',
    status: 500,
    detail: 'The server could not do it.',
    whatToDo: 'Try again.',
  };
  network = (path, init) =>
    (init.body as string | undefined)?.includes(idOf('entry a'))
      ? Promise.resolve(new Response(JSON.stringify(failed), { status: 500 }))
      : online(path, init);
  const page = await openPage();
  await page.putWaiting(job, volts('a', 1.3));
  await page.putWaiting(job, volts('b', 1.4));
  await until(() => onRecord().length === 1);
  await until(() => page.readWaiting().entries.length === 1);
  expect(onRecord()).toEqual([idOf('entry b')]);
  expect(page.readWaiting()).toMatchObject({
    away: false,
    entries: [{ id: idOf('entry a'), refused: { whatToDo: 'Try again.' } }],
  });
});

it('holds up nobody with an entry that another version of the page left, and says what to do', async () => {
  network = away;
  const newer = { ...volts('a', 1.3), payloadVersion: 99 };
  const page = await openPage();
  await page.putWaiting(job, newer);
  await page.putWaiting(job, volts('b', 1.4));
  network = online;
  const reloaded = await openPage();
  await reloaded.sendNow();
  await until(() => onRecord().length === 1);
  await until(() => reloaded.readWaiting().entries.length === 1);
  const [left] = reloaded.readWaiting().entries;
  expect(left?.refused?.detail).toContain('cannot read an entry');
  const { waitingInWords } = await import('./kept');
  expect(left && waitingInWords(left)).toBe('an entry of the kind check.reading');
});

it('waits on a server that fails, and takes a refusal for a refusal', async () => {
  network = () => Promise.resolve(new Response('broken', { status: 502 }));
  const page = await openPage();
  await page.putWaiting(job, volts('a', 1.3));
  await until(() => page.readWaiting().away);
  expect(page.readWaiting().entries[0]?.refused).toBeNull();
  network = online;
  await page.putWaiting(job, volts('b', 30));
  await page.sendNow();
  await until(() => page.readWaiting().entries.every((entry) => entry.refused !== null));
  expect(page.readWaiting().entries.map((entry) => [entry.id, entry.refused?.status])).toEqual([
    [idOf('entry b'), 400],
  ]);
  expect(onRecord()).toEqual([idOf('entry a')]);
});

it.each([
  ['the key is wanted first', () => new Response('{}', { status: 401 })],
  ['the answer makes no sense', () => new Response('<html>', { status: 201 })],
])('keeps the entry to send again when %s', async (_, answer) => {
  network = () => Promise.resolve(answer());
  const page = await openPage();
  await page.putWaiting(job, volts('a', 1.3));
  await until(() => page.readWaiting().away);
  expect(page.readWaiting().entries).toMatchObject([{ id: idOf('entry a'), refused: null }]);
  network = online;
  await page.sendNow();
  await until(() => page.readWaiting().entries.length === 0);
  expect(onRecord()).toEqual([idOf('entry a')]);
});

it('keeps a refused entry through a reload, sends it again only when asked, and lets it go on a person’s word', async () => {
  const page = await openPage();
  await page.putWaiting(job, volts('b', 30));
  await until(() => page.readWaiting().entries[0]?.refused !== null);
  let sent = 0;
  network = (path, init) => {
    sent += 1;
    return online(path, init);
  };
  const reloaded = await openPage();
  await reloaded.sendNow();
  expect(sent).toBe(0);
  const [refused] = reloaded.readWaiting().entries;
  if (!refused) throw new Error('lost');
  await reloaded.tryAgain(refused);
  await until(() => sent === 1 && reloaded.readWaiting().entries[0]?.refused !== null);
  await reloaded.discardEntry(refused.id);
  expect((await openPage()).readWaiting().entries).toEqual([]);
});

it('goes on past a refused entry to the next', async () => {
  network = away;
  const page = await openPage();
  await page.putWaiting(job, volts('bad', 30));
  await page.putWaiting(job, volts('good', 1.4));
  network = online;
  await page.sendNow();
  await until(() => page.readWaiting().entries.length === 1);
  expect(onRecord()).toEqual([idOf('entry good')]);
});

it('takes up what another window left behind', async () => {
  network = away;
  const one = await openPage();
  const two = await openPage();
  await one.putWaiting(job, volts('a', 1.3));
  expect(two.readWaiting().entries).toEqual([]);
  network = online;
  await two.sendNow();
  await until(() => two.readWaiting().entries.length === 0);
  expect(onRecord()).toEqual([idOf('entry a')]);
});
