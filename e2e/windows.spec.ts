import { expect, jobId, openJob, recorded, test } from './counter';
import { readingOf } from '../src/testing/fixtures';

const MANY = 10;

test('ten windows of one browser all load, share one live stream, and each shows what is recorded elsewhere', async ({
  bench: page,
  context,
  counter,
}) => {
  test.slow();
  await openJob(page, 'worn-engraving', 'check');
  const windows = [page];
  while (windows.length < MANY) {
    const another = await context.newPage();
    await another.goto(`/jobs/${jobId('worn-engraving')}/check`);
    await expect(another.getByRole('textbox', { name: 'Rest voltage' })).toBeVisible();
    windows.push(another);
  }
  expect(counter.streams()).toBe(1);
  await recorded(page, jobId('worn-engraving'), 'check.reading', readingOf('restVoltageV', 1.31));
  for (const each of windows)
    await expect(
      each.getByRole('region', { name: 'Rest voltage' }).getByText('Rest voltage: 1.31 V'),
    ).toBeVisible();

  // The window that opened the stream goes; the others hear on.
  await page.goto('about:blank');
  const [, second = page] = windows;
  await recorded(page, jobId('worn-engraving'), 'check.reading', readingOf('currentUA', 1.4));
  await expect(second.getByRole('region', { name: 'Current' }).getByText('1.4 µA').first()).toBeVisible();
  expect(counter.streams()).toBe(1);
});

test('the live stream comes back after it was turned away', async ({ bench: page, context, counter }) => {
  await context.addInitScript(() => delete (globalThis as { SharedWorker?: unknown }).SharedWorker);
  let turnedAway = 0;
  await context.route('**/api/news', async (route) => {
    turnedAway += 1;
    if (turnedAway === 1) await route.fulfill({ status: 503, body: 'Starting.' });
    else await route.continue();
  });
  await page.goto(`/jobs/${jobId('worn-engraving')}/check`);
  await expect.poll(() => counter.streams(), { timeout: 20_000 }).toBe(1);
  expect(turnedAway).toBeGreaterThan(1);
});
