import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Locator, type Page, test as base } from '@playwright/test';
import axe from 'axe-core';
import { demoId, demoProgram } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';
import type { DeviceId, DriverSettings } from '../src/contract';
import type { EntryKind, Payloads } from '../src/core/logbook';
import { makeTicket } from '../src/core/craft/tickets';
import { newEntryOf } from '../src/testing/fixtures';
import { createApp } from '../src/server/app';
import { openStore, runningClock } from '../src/server/store/store';
import { type ServerProcess, startServer } from '../src/testing/serverProcess';
import { demoData, demoTickets } from './demoOnce';

/** The demo counter as a technician finds it: the built application over a database of its own. */
export interface Counter {
  readonly url: string;
  readonly dataDir: string;
  /** Kills the server in the middle of whatever it does. */
  kill(): Promise<void>;
  /** Starts it again at the same address over the same data. */
  restart(): Promise<void>;
  /** How many live streams are open to it under one of its names. */
  streams(name: string): number;
}

/** The tickets of the demo: of a job of the scenario, and the one the next watch taken in will get. */
export interface Tickets {
  of(key: string): string;
  readonly next: string;
}

interface Fixtures {
  tickets: Tickets;
  /** Whether the server runs in a process of its own, so that it can be killed. */
  ownProcess: boolean;
  counter: Counter;
  /** A page with Edda Vinterhal at the bench, nothing opened yet. */
  bench: Page;
  /** The same with the rack before her, as the application opens. */
  rack: Page;
}

interface OfWorker {
  /** One address for every test of a worker: what the browser has fetched and compiled serves the next test too. */
  port: number;
  /** One window for every test of a worker, emptied between two of them. */
  window: Page;
}

const PLAIN_PAGE = '/api/health';

const at = (port: number): string => `http://127.0.0.1:${port}`;

/** Leaves nothing of a test in the window: no other pages, routes, storage, nor what was on the screen. */
async function emptied(window: Page, port: number): Promise<Page> {
  const context = window.context();
  for (const other of context.pages()) if (other !== window) await other.close();
  // What a form keeps for a reload belongs to the test that typed it.
  if (window.url().startsWith('http')) await window.evaluate(() => sessionStorage.clear());
  await window.unrouteAll();
  await context.unrouteAll();
  // A page of the same address that is not the application: elsewhere the browser would begin a process anew.
  await window.goto(PLAIN_PAGE);
  await context.clearCookies();
  const session = await context.newCDPSession(window);
  await session.send('Storage.clearDataForOrigin', {
    origin: at(port),
    storageTypes: 'local_storage,indexeddb',
  });
  await session.detach();
  await window.setViewportSize({ width: 1280, height: 800 });
  await window.emulateMedia({ media: 'screen', colorScheme: 'light', reducedMotion: 'reduce' });
  return window;
}

export const test = base.extend<Fixtures, OfWorker>({
  port: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const probe = createServer();
      await new Promise<void>((resolve) => probe.listen(0, '127.0.0.1', resolve));
      const { port } = probe.address() as AddressInfo;
      await new Promise((resolve) => probe.close(resolve));
      await use(port);
    },
    { scope: 'worker' },
  ],
  window: [
    async ({ browser, port }, use) => {
      // A click waits until its target stands still: nothing moves here.
      const context = await browser.newContext({ baseURL: at(port), reducedMotion: 'reduce' });
      const window = await context.newPage();
      // What a test wants of a page it waits for: nothing hangs on a font that comes late.
      const goto = window.goto.bind(window);
      window.goto = (url, options) => goto(url, { waitUntil: 'domcontentloaded', ...options });
      await use(window);
      await context.close();
    },
    { scope: 'worker' },
  ],
  // eslint-disable-next-line no-empty-pattern
  tickets: async ({}, use) => {
    const byJob = demoTickets();
    await use({
      of: (key) => byJob.get(demoId('job', key)) ?? key,
      next: makeTicket(byJob.size + 1),
    });
  },
  ownProcess: [false, { option: true }],
  counter: async ({ ownProcess, port }, use) => {
    const dataDir = mkdtempSync(join(tmpdir(), 'wax-e2e-'));
    cpSync(demoData(), dataDir, { recursive: true });
    await (ownProcess ? inItsOwnProcess : inThisProcess)(dataDir, port, use);
    rmSync(dataDir, { recursive: true, force: true });
  },
  baseURL: async ({ port }, use) => use(at(port)),
  context: async ({ page }, use) => use(page.context()),
  page: async ({ window, counter: _, port }, use) => use(await emptied(window, port)),
  bench: async ({ page }, use) => {
    await page.evaluate(takeBench, benchOf());
    await use(page);
  },
  rack: async ({ bench }, use) => {
    await bench.goto('/');
    await expect(bench.getByRole('heading', { name: /^Rack/ })).toBeVisible();
    await use(bench);
  },
});

const notHere = (words: string) => (): never => {
  throw new Error(words);
};

/** The server as it is started by hand, for tests that kill it. */
async function inItsOwnProcess(
  dataDir: string,
  port: number,
  use: (counter: Counter) => Promise<void>,
): Promise<void> {
  const start = (): Promise<ServerProcess> =>
    startServer(dataDir, { WAX_DEMO_START: DEMO_START_UTC, PORT: String(port) });
  let server = await start();
  await use({
    url: server.url,
    dataDir,
    kill: () => server.end('SIGKILL'),
    async restart() {
      server = await start();
    },
    streams: notHere('Live streams are counted only in the process of the test.'),
  });
  await server.end('SIGKILL');
}

/** The same application over the same database, without a process of its own to wait for. */
async function inThisProcess(
  dataDir: string,
  port: number,
  use: (counter: Counter) => Promise<void>,
): Promise<void> {
  const store = openStore({
    dataDir,
    clock: runningClock(DEMO_START_UTC),
    demo: true,
    program: demoProgram(),
  });
  const server = createServer(
    createApp({ store, host: '127.0.0.1', key: null, webDir: join(process.cwd(), 'dist', 'web') }),
  );
  // A connection left idle is not closed just as a busy machine uses it again.
  server.keepAliveTimeout = 120_000;
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  const streams = new Map<object, string>();
  server.on('request', (request, response) => {
    if (request.url !== '/api/news') return;
    streams.set(response, request.headers.host ?? '');
    response.on('close', () => streams.delete(response));
  });
  const never = notHere('Only a server in its own process can be killed: test.use({ ownProcess: true }).');
  await use({
    url: at(port),
    dataDir,
    kill: never,
    restart: never,
    streams: (name) => [...streams.values()].filter((host) => host.startsWith(name)).length,
  });
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
  store.close();
}

export { expect };

const BENCH_KEY = 'wax-lantern.bench';

const benchOf = (technician = 'edda', name = 'window bench'): readonly [string, string] => [
  BENCH_KEY,
  JSON.stringify({ name, technicianId: demoId('technician', technician), singleKeys: true }),
];

const takeBench = ([key, value]: readonly [string, string]): void => localStorage.setItem(key, value);

/** Puts a technician at the bench of a window of its own, before any page loads. */
export async function sitDown(page: Page, technician = 'edda', bench = 'window bench'): Promise<void> {
  await page.addInitScript(takeBench, benchOf(technician, bench));
}

export const jobId = (key: string): string => demoId('job', key);

/** An entry as another bench would send it. */
export const bySomebody = <K extends EntryKind>(kind: K, payload: Payloads[K]) =>
  newEntryOf(kind, payload, {
    id: randomUUID(),
    technicianId: demoId('technician', 'edda'),
    occurredAt: '2026-03-17T09:41:00.000Z',
  });

interface TakenIn {
  readonly crownClock?: number;
  readonly service?: Payloads['arrive.service']['service'];
  readonly complaint?: Payloads['arrive.complaint']['picked'];
}

/** A watch taken in at another bench: straight to the server, as its own test shows the form. */
export async function takenIn(
  page: Page,
  reference: string,
  { crownClock = 3, service = 'cell only', complaint = ['stopped'] }: TakenIn = {},
): Promise<string> {
  const id = randomUUID();
  const answer = await page.request.post('/api/jobs', {
    data: {
      id,
      visitId: randomUUID(),
      watchId: randomUUID(),
      customer: { id: randomUUID(), name: 'Ylva Marrowgate', phone: '0555 0911', email: '' },
      entries: [
        bySomebody('arrive.watch', {
          maker: '',
          reference,
          serial: '',
          engraved: '',
          ratingBar: null,
          crownClock,
        }),
        bySomebody('arrive.complaint', {
          picked: complaint,
          words: complaint.length === 0 ? 'not right' : '',
        }),
        bySomebody('arrive.service', { service, priceMinor: 1400 }),
        bySomebody('arrive.promise', { promisedAt: '2026-03-17T12:30:00.000Z' }),
        bySomebody('arrive.consent', { risks: ['old parts'], given: true }),
      ],
    },
  });
  expect(answer.status()).toBe(201);
  return id;
}

/** A fact recorded at another bench. */
export async function recorded<K extends EntryKind>(
  page: Page,
  id: string,
  kind: K,
  payload: Payloads[K],
  well: string | null = null,
  at: { readonly occurredAt?: string } = {},
): Promise<void> {
  const answer = await page.request.post(`/api/jobs/${id}/entries`, {
    data: { ...bySomebody(kind, payload), well, ...at },
  });
  expect(answer.status()).toBe(201);
}

/** What a stand-in simulates from now on. */
export async function setDevice(page: Page, device: DeviceId, settings: object): Promise<void> {
  const answer = await page.request.post(`/api/devices/${device}`, { data: { connected: true, settings } });
  expect(answer.status()).toBe(200);
}

/** A tight case on a tester that runs much faster than the clock, for a test to change. */
export const FAST_TESTER: DriverSettings['leak-tester-stand-in'] = {
  stiffnessUmPerBar: 5,
  settlesPercent: 2,
  settlesInS: 5,
  volumeCm3: 1.3,
  leakUgPerMin: null,
  leaksAt: 3,
  leakSide: 'side',
  gross: 'no',
  noiseUm: 0.02,
  driftUmPerMin: 0,
  speed: 2000,
  fault: 'none',
};

/** Goes to a view by its address, or, where the application stands in the window already, as one of its own links would. */
export async function goTo(page: Page, path: string): Promise<void> {
  const stands = await page.evaluate((to) => {
    if (document.querySelector('nav[aria-label="Rack"]') === null || location.pathname === to) return false;
    // The lamp that stands now is not the one waited for.
    document.querySelector('[aria-label="Lamp"]')?.setAttribute('aria-label', 'Lamp of before');
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
    return true;
  }, path);
  if (!stands) await page.goto(path);
  if (path.startsWith('/jobs/'))
    await expect(page.getByRole('complementary', { name: 'Lamp', exact: true })).toBeVisible();
}

/** Opens a job of the demo at a stage, without loading the application anew where it stands already. */
export async function openJob(page: Page, key: string, stage = ''): Promise<void> {
  await goTo(page, `/jobs/${jobId(key)}${stage && `/${stage}`}`);
}

/** A fact of the stage: its form, or its line once it is recorded. */
export const card = (page: Page, name: string): Locator =>
  page.getByRole('region', { name, exact: true }).or(page.getByRole('listitem', { name, exact: true }));

/** The line of a fact that is recorded. */
export const stands = (page: Page, name: string): Locator =>
  page.getByRole('listitem', { name, exact: true });

/** Opens the form of a fact that is not asked of every job; finds it by its name, as a hand would. */
export async function alsoRecord(page: Page, name: string): Promise<void> {
  // A stage that has just come may still draw itself anew, and closes the list: then it is asked for once more.
  await expect(async () => {
    await page.getByRole('combobox', { name: /^More to record/ }).fill(name);
    await page.getByRole('listbox').getByRole('option', { name, exact: true }).click({ timeout: 4000 });
  }).toPass();
}

/** Opens the line of a recorded fact and its form. */
export async function correct(page: Page, name: string): Promise<void> {
  const line = stands(page, name);
  await line.getByRole('button').first().click();
  await line.getByRole('button', { name: `Correct: ${name}` }).click();
}

/** What is seen in the usual case, by card: its choices by their group, and what is typed. Forms hold nothing themselves. */
const USUAL: Readonly<
  Record<
    string,
    { readonly picks: readonly (string | RegExp)[]; readonly typed?: Readonly<Record<string, string>> }
  >
> = {
  'Case back': { picks: ['Film', 'Freely'] },
  'Cell found': { picks: ['Clean'] },
  Gasket: { picks: ['Renewed', 'A trace, surplus off'] },
  // However this back closes, its first way.
  Closed: { picks: [/./, 'Even all round'] },
  'Does it run?': { picks: ['It runs'], typed: { 'Watched for': '60' } },
  'The crown': { picks: ['Pushed home'] },
  'Crown, bezel and bracelet': { picks: ['works'] },
  'Charged and watched': { picks: ['Light', 'Steps normally'] },
  'Accumulator renewed': { picks: ['Kit with tabs'] },
};

/** Says in a card what is seen in the usual case, as a hand would, and leaves what was said already. */
export async function seeUsual(card: Locator, name: string): Promise<void> {
  const usual = USUAL[name];
  for (const pick of usual?.picks ?? []) {
    const radio = card.getByRole('radio', { name: pick, exact: true }).first();
    const said = await radio.evaluate((one) => {
      const { name: group, form } = one as HTMLInputElement;
      return form?.querySelector(`input[name="${group}"]:checked`) !== null;
    });
    if (!said) await radio.check();
  }
  for (const [label, text] of Object.entries(usual?.typed ?? {})) {
    const field = card.getByLabel(label);
    if ((await field.inputValue()) === '') await field.fill(text);
  }
}

/** Presses Tab until the focus is where it is wanted; fails if it never gets there. */
export async function tabTo(page: Page, target: Locator, most = 60): Promise<void> {
  for (let count = 0; count < most; count += 1) {
    if (await target.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never reached ${target.toString()}`);
}

/** Milliseconds between a device's keys. */
const DEVICE_KEY_MS = 4;

/**
 * Types as a device does: keys a few milliseconds apart, ended by Enter. Sent to the browser with their times and
 * all at once, because waiting for each would be a hand's pace on a busy machine. `heldUpMs`: what a busy machine lets
 * pass between handing over the first key and the rest.
 */
export async function typeAsDevice(page: Page, text: string, heldUpMs = 0): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const start = Date.now() / 1000;
  const keys = [...[...text].map((key) => ({ key, text: key })), { key: 'Enter', text: '\r' }];
  const sent = keys.map(({ key, text: typed }, index) => async () => {
    const timestamp = start + (index * DEVICE_KEY_MS) / 1000;
    await Promise.all([
      session.send('Input.dispatchKeyEvent', { type: 'keyDown', key, text: typed, timestamp }),
      session.send('Input.dispatchKeyEvent', { type: 'keyUp', key, timestamp: timestamp + 0.001 }),
    ]);
  });
  const [first, ...rest] = sent;
  const begun = first?.();
  if (heldUpMs > 0) await page.waitForTimeout(heldUpMs);
  await Promise.all([begun, ...rest.map((send) => send())]);
  await session.detach();
}

/**
 * As long as a hand takes to see where the focus went, and a little more: an Enter sooner than that belongs to what went
 * before. The one time that a test lets pass, because the application measures it.
 */
export const handSees = (page: Page): Promise<void> => page.waitForTimeout(600);

/** Two frames on, once nothing moves or fades any more. */
export const atRest = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const frame = (): Promise<unknown> => new Promise(requestAnimationFrame);
    await frame();
    await frame();
    const moving = document
      .getAnimations()
      .filter(({ effect }) => effect?.getTiming().iterations !== Infinity);
    await Promise.allSettled(moving.map(({ finished }) => finished));
  });

/** The rack stands beside every view and is scanned with the day's own, so that each scan of another is half as long. */
const RACK = 'nav[aria-label="Rack"]';

interface AxeOptions {
  readonly withRack?: boolean;
  /** The rules to run; all where none are named. */
  readonly runOnly?: string[];
}

export async function expectAccessible(
  page: Page,
  what: string,
  { withRack = false, runOnly }: AxeOptions = {},
): Promise<void> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const violations = await page.evaluate(
    async ([exclude, rules]) => {
      const { axe: here } = window as unknown as { readonly axe: typeof axe };
      // Only what fails is written up: telling where everything else passed takes most of the time.
      const answer = await here.run(
        { include: [['html']], exclude },
        { resultTypes: ['violations'], ...rules },
      );
      return answer.violations.map(
        ({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(' | ')}`,
      );
    },
    [withRack ? [] : [[RACK]], runOnly === undefined ? {} : { runOnly }] as const,
  );
  expect(violations.map((violation) => `${what}: ${violation}`)).toEqual([]);
}
