import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { buildDemo, demoId } from '../demo/build';
import { DEMO_START_UTC } from '../demo/scenario';
import config from '../playwright.config';
import { startServer } from '../src/testing/serverProcess';

const FOLDER = join('docs', 'screenshots');
const job = (key: string, stage: string): string => `/jobs/${demoId('job', key)}/${stage}`;

const views: readonly (readonly [name: string, path: string])[] = [
  ['01-day', '/'],
  ['02-new-job', '/new'],
  ['03-arrive', job('just-arrived', 'arrive')],
  ['04-open', job('just-arrived', 'open')],
  ['05-identify', job('worn-engraving', 'identify')],
  ['06-check', job('draws-too-much', 'check')],
  ['07-cell', job('overdue-at-the-cell', 'cell')],
  ['08-seal-and-close', job('to-close', 'seal')],
  ['09-test', job('failed-test', 'test')],
  ['10-set-and-prove', job('to-set-and-prove', 'set')],
  ['11-hand-back', job('waits-for-owner', 'handback')],
  ['12-conflict', job('conflict', 'check')],
  ['13-stock', '/stock'],
  ['14-book', '/book/calibres/orrelin-41-2'],
  ['15-watch', `/watches/${demoId('watch', 'draws-too-much')}`],
  ['17-policy', '/policy'],
  ['18-devices', '/devices'],
  ['16-owner', `/customers/${demoId('customer', 'draws-too-much')}`],
];

const dataDir = mkdtempSync(join(tmpdir(), 'wax-pictures-'));
await buildDemo(dataDir);
const server = await startServer(dataDir, { WAX_DEMO_START: DEMO_START_UTC });
const browser = await chromium.launch(config.use?.launchOptions ?? {});
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: server.url });
await context.addInitScript(
  (bench) => localStorage.setItem('wax-lantern.bench', bench),
  JSON.stringify({ name: 'window bench', technicianId: demoId('technician', 'edda') }),
);
mkdirSync(FOLDER, { recursive: true });
for (const [name, path] of views) {
  const page = await context.newPage();
  await page.goto(path);
  await page.getByRole('complementary', { name: 'Lamp' }).waitFor();
  await page.waitForTimeout(700);
  await page.screenshot({ path: join(FOLDER, `${name}.png`) });
  console.log(join(FOLDER, `${name}.png`));
  await page.close();
}
await browser.close();
await server.end('SIGTERM');
rmSync(dataDir, { recursive: true, force: true });
