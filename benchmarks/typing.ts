import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, chromium, type Page } from '@playwright/test';
import { buildDemo, demoId } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';
import config from '../playwright.config';
import { createApp } from '../src/server/app';
import { openStore, runningClock } from '../src/server/store';
import { inventedCalibres, inventedMakers } from '../src/testing/observations';

/** Does the page stay free while evidence is typed, over a book of thousands? Read off the browser's own trace. */
const CALIBRES = 5000;
const LONG_MS = 50;
const TYPED = 'OR 41.? C2140-3';
const MARK = 'XA 3?81';

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  readonly ts: number;
  readonly dur?: number;
  readonly args?: { readonly name?: string };
}

const dataDir = mkdtempSync(join(tmpdir(), 'wax-typing-'));
await buildDemo(dataDir);
const store = openStore({ dataDir, clock: runningClock(DEMO_START_UTC), demo: true });
const makers = inventedMakers(24);
store.catalogue.write('maker', makers);
store.catalogue.write('calibre', inventedCalibres(CALIBRES, makers, 9));
const server = createServer(
  createApp({ store, host: '127.0.0.1', key: null, webDir: join(process.cwd(), 'dist', 'web') }),
);
await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
const baseURL = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;

/** How long the tasks of the page's main thread took while something was done, ms. */
async function tasksDuring(browser: Browser, page: Page, work: () => Promise<void>): Promise<number[]> {
  await browser.startTracing(page, {
    categories: ['toplevel', 'devtools.timeline', 'disabled-by-default-devtools.timeline', '__metadata'],
  });
  await work();
  const { traceEvents } = JSON.parse((await browser.stopTracing()).toString('utf8')) as {
    traceEvents: TraceEvent[];
  };
  const pages = new Set(
    traceEvents
      .filter(({ name, args }) => name === 'thread_name' && args?.name === 'CrRendererMain')
      .map(({ pid, tid }) => `${pid}/${tid}`),
  );
  return traceEvents
    .filter(({ name, pid, tid }) => name === 'RunTask' && pages.has(`${pid}/${tid}`))
    .map(({ dur }) => (dur ?? 0) / 1000);
}

const browser = await chromium.launch(config.use?.launchOptions ?? {});
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL });
await context.addInitScript(
  (bench) => localStorage.setItem('wax-lantern.bench', bench),
  JSON.stringify({ name: 'window bench', technicianId: demoId('technician', 'edda') }),
);
const page = await context.newPage();
await page.goto(`/jobs/${demoId('job', 'just-arrived')}/identify`);
const engraving = page.getByLabel('Engraving', { exact: true });
await engraving.fill('OR');
await page.getByRole('region', { name: 'Candidates' }).waitFor();
await engraving.fill('');
await page.waitForTimeout(1500);
const tasks = await tasksDuring(browser, page, async () => {
  await engraving.pressSequentially(TYPED, { delay: 90 });
  await page.getByRole('textbox', { name: 'Mark on the movement' }).pressSequentially(MARK, { delay: 90 });
  await page.getByRole('textbox', { name: 'Width', exact: true }).pressSequentially('23.31', { delay: 90 });
  await page.waitForTimeout(500);
});
const longest = Math.max(0, ...tasks);
const long = tasks.filter((ms) => ms > LONG_MS);
console.log(
  `Typing ${TYPED.length + MARK.length + 5} keys of evidence over ${store.catalogue.book().calibres.length} calibres: longest task of the page ${longest.toFixed(0)} ms, ${(longest / LONG_MS).toFixed(2)} × a long task of ${LONG_MS} ms; ${long.length} long of ${tasks.length}.`,
);
if (long.length > 0) process.exitCode = 1;
await browser.close();
server.closeAllConnections();
server.close();
store.close();
rmSync(dataDir, { recursive: true, force: true });
