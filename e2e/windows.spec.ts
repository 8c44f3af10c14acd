import type { Page } from '@playwright/test';
import type { JobResource } from '../src/contract';
import { card, expect, jobId, recorded, sitDown, stands, test } from './counter';
import { readingOf } from '../src/testing/fixtures';

const MANY = 10;

// One after the other: ten windows beside ten others leave a starting server no time.
test.describe.configure({ mode: 'default' });

test('ten windows of one browser all load, share one live stream, and each shows what is recorded elsewhere', async ({
  browser,
  counter,
}) => {
  test.slow();
  // Under a name of its own: windows of other tests may still be letting theirs go.
  const context = await browser.newContext({
    baseURL: counter.url.replace('127.0.0.1', 'localhost'),
    reducedMotion: 'reduce',
  });
  const streams = (): number => counter.streams('localhost');
  const windows: Page[] = [];
  while (windows.length < MANY) {
    const another = await context.newPage();
    await sitDown(another);
    await another.goto(`/jobs/${jobId('worn-engraving')}/check`);
    await expect(another.getByRole('textbox', { name: 'Rest voltage' })).toBeVisible();
    windows.push(another);
  }
  expect(streams()).toBe(1);
  const [first, second] = windows as [Page, Page];
  await recorded(first, jobId('worn-engraving'), 'check.reading', readingOf('restVoltageV', 1.31));
  for (const each of windows)
    await expect(stands(each, 'Rest voltage').getByText('Rest voltage: 1.31 V')).toBeVisible();

  // The window that opened the stream goes; the others hear on.
  await first.close();
  await recorded(second, jobId('worn-engraving'), 'check.reading', readingOf('currentUA', 1.4));
  await expect(stands(second, 'Current').getByText('Current: 1.4 µA')).toBeVisible();
  expect(streams()).toBe(1);
  await context.close();
});

test('the live stream comes back after it was turned away', async ({ browser, baseURL, counter: _ }) => {
  // In a browser of its own, where windows cannot share: there the stream is the window's, and can be turned away.
  const context = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  await context.addInitScript(() => delete (globalThis as { SharedWorker?: unknown }).SharedWorker);
  let turnedAway = 0;
  await context.route('**/api/news', async (route) => {
    turnedAway += 1;
    if (turnedAway === 1) await route.fulfill({ status: 503, body: 'Starting.' });
    else await route.continue();
  });
  const page = await context.newPage();
  await sitDown(page);
  await page.goto(`/jobs/${jobId('worn-engraving')}/check`);
  await expect.poll(() => turnedAway, { timeout: 20_000 }).toBeGreaterThan(1);
  await recorded(page, jobId('worn-engraving'), 'check.reading', readingOf('restVoltageV', 1.31));
  await expect(card(page, 'Rest voltage').getByText('Rest voltage: 1.31 V')).toBeVisible();
  await context.close();
});

test.describe('a server that goes away', () => {
  test.use({ ownProcess: true });

  test('sixty entries that wait in ten windows all arrive within twenty seconds of its return', async ({
    browser,
    counter,
  }) => {
    test.slow();
    const context = await browser.newContext({ baseURL: counter.url, reducedMotion: 'reduce' });
    const windows: Page[] = [];
    const job = jobId('worn-engraving');
    while (windows.length < MANY) {
      const another = await context.newPage();
      await sitDown(another);
      await another.goto(`/jobs/${job}/check`);
      await expect(another.getByRole('textbox', { name: 'Rest voltage' })).toBeVisible();
      windows.push(another);
    }
    await counter.kill();
    const EACH = 6;
    const recordSix = async (each: Page, at: number): Promise<void> => {
      for (let count = 0; count < EACH; count += 1) {
        // Figures as they are written: none ends in a nought.
        const volts = (
          1.01 +
          Math.floor((at * EACH + count) / 9) * 0.1 +
          ((at * EACH + count) % 9) * 0.01
        ).toFixed(2);
        if (count > 0) {
          await stands(each, 'Rest voltage')
            .getByRole('button', { name: /Rest voltage/ })
            .first()
            .click();
          await each.getByRole('button', { name: 'Correct: Rest voltage' }).click();
        }
        const field = each.getByRole('textbox', { name: 'Rest voltage' });
        await field.fill(volts);
        await field.press('Enter');
        await expect(each.getByText(`Rest voltage: ${volts} V`).first()).toBeVisible();
      }
    };
    await Promise.all(windows.map(recordSix));
    await counter.restart();
    const returned = Date.now();
    const arrived = async (): Promise<number> => {
      const answer = await fetch(`${counter.url}/api/jobs/${job}`);
      const { entries } = (await answer.json()) as JobResource;
      return entries.filter(({ kind, bench }) => kind === 'check.reading' && bench !== '').length;
    };
    await expect.poll(arrived, { timeout: 20_000, intervals: [250] }).toBeGreaterThanOrEqual(MANY * EACH);
    console.log(`Sixty entries of ten windows: ${Date.now() - returned} ms.`);
    await context.close();
  });
});
