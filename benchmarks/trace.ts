import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, chromium, type Page } from '@playwright/test';
import { buildDemo, demoId, demoProgram } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';
import config from '../playwright.config';
import { createApp } from '../src/server/app';
import { openStore, runningClock, type Store } from '../src/server/store/store';

/** A task of the page longer than this keeps a key or a finger waiting. */
export const LONG_MS = 50;

interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly pid: number;
  readonly tid: number;
  readonly ts: number;
  readonly dur?: number;
  readonly args?: { readonly name?: string };
}

export interface TracedCounter {
  readonly store: Store;
  readonly page: Page;
  /** Does something and prints how long the longest task of the page took meanwhile; none may be long. */
  readonly during: (what: string, work: () => Promise<void>) => Promise<void>;
  readonly close: () => Promise<void>;
}

/** How long the tasks of the page's main thread took while something was done, ms, by the browser's own trace. */
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

/** The demo counter with its built pages in a browser, and somebody at the bench. */
export async function tracedCounter(): Promise<TracedCounter> {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-trace-'));
  await buildDemo(dataDir);
  const store = openStore({
    dataDir,
    clock: runningClock(DEMO_START_UTC),
    demo: true,
    program: demoProgram(),
  });
  const server = createServer(
    createApp({ store, host: '127.0.0.1', key: null, webDir: join(process.cwd(), 'dist', 'web') }),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const browser = await chromium.launch(config.use?.launchOptions ?? {});
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    baseURL: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
  });
  await context.addInitScript(
    (bench) => localStorage.setItem('wax-lantern.bench', bench),
    JSON.stringify({ name: 'window bench', technicianId: demoId('technician', 'edda') }),
  );
  const page = await context.newPage();
  return {
    store,
    page,
    during: async (what, work) => {
      const tasks = await tasksDuring(browser, page, work);
      const longest = Math.max(0, ...tasks);
      const long = tasks.filter((ms) => ms > LONG_MS).length;
      console.log(
        `${what}: longest task of the page ${longest.toFixed(0)} ms, ${(longest / LONG_MS).toFixed(2)} × a long task of ${LONG_MS} ms; ${long} long of ${tasks.length}.`,
      );
      if (long > 0) process.exitCode = 1;
    },
    close: async () => {
      await browser.close();
      server.closeAllConnections();
      server.close();
      store.close();
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}
