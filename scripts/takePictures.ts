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

/** The tester has run, and what it showed is judged. */
const RUNNING = '11-test';

/** Each with the part of the page, and the question of the lamp, that it is about. */
const views: readonly (readonly [name: string, path: string, region?: string, question?: string])[] = [
  ['01-day', '/'],
  ['02-new-job', '/new'],
  ['04-open', job('part-awaited', 'open')],
  ['06-identify', job('worn-engraving', 'identify')],
  ['07-check', job('draws-too-much', 'check')],
  ['09-cell', job('overdue-at-the-cell', 'cell')],
  ['10-seal-and-close', job('to-close', 'seal'), undefined, 'Ring for this groove'],
  [RUNNING, job('failed-test', 'test')],
  ['12-set-and-prove', job('to-set-and-prove', 'set')],
  ['13-hand-back', job('waits-for-owner', 'handback')],
  ['14-stock', '/stock'],
  ['15-book', '/book/calibres/orrelin-41-2'],
  ['16-tools', '/tools'],
  ['17-watch', `/watches/${demoId('watch', 'draws-too-much')}`],
  ['19-devices', '/devices'],
  ['21-cells', '/cells'],
  ['24-leaks', '/leaks'],
  ['25-running', '/running'],
  ['26-light', '/light'],
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
for (const [name, path, region, question] of views) {
  const page = await context.newPage();
  await page.goto(path);
  await page.getByRole('complementary', { name: 'Lamp' }).waitFor();
  if (path === '/') await page.getByRole('region', { name: 'Reminders due' }).waitFor();
  await page.waitForTimeout(700);
  if (region !== undefined) {
    await page
      .getByRole('region', { name: region })
      .evaluate((one) => one.scrollIntoView({ block: 'center' }));
    await page.waitForTimeout(1500);
  }
  if (question !== undefined)
    await page
      .getByRole('complementary', { name: 'Lamp' })
      .getByText(question)
      .evaluate((one) => {
        const lamp = one.closest('[aria-label="Lamp"]');
        if (lamp) lamp.scrollTop += one.getBoundingClientRect().top - lamp.getBoundingClientRect().top - 16;
      });
  if (path === '/cells') {
    // The finder shows something once it was asked.
    await page.getByLabel('Name, or calibre').fill('sr6');
    for (const at of [0, 1, 3]) await page.getByRole('checkbox').nth(at).check();
    await page.evaluate(() => scrollTo(0, 0));
  }
  if (name === RUNNING) {
    const form = page.getByRole('region', { name: 'Record a test' });
    await form.getByRole('radio', { name: 'Dry air' }).check();
    await form.getByLabel('Pressure').fill('5');
    await form.getByLabel('Watched for').fill('180');
    await form.getByRole('button', { name: 'Run it on the tester' }).click();
    await page.getByText('Result of this record').waitFor({ timeout: 60_000 });
    await page.waitForTimeout(1500);
    await page.evaluate(() => scrollTo(0, 0));
  }
  await page.screenshot({ path: join(FOLDER, `${name}.png`) });
  console.log(join(FOLDER, `${name}.png`));
  await page.close();
}
await browser.close();
await server.end('SIGTERM');
rmSync(dataDir, { recursive: true, force: true });
