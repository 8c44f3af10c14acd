import type { Page } from '@playwright/test';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { movementOf, readingOf } from '../src/testing/fixtures';
import type { JobResource } from '../src/contract';
import { STAGES_FETCHED_MARK } from '../src/web/stages/stages';
import { bySomebody, card, expect, expectAccessible, jobId, openJob, sitDown, test } from './counter';

const status = (page: Page) => page.getByRole('status').filter({ hasText: /server is away|not sent yet/ });

async function recordVoltage(page: Page, volts: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Rest voltage' }).fill(volts);
  await page.getByRole('textbox', { name: 'Rest voltage' }).press('Enter');
  await expect(card(page, 'Rest voltage').getByText(`Rest voltage: ${volts} V`)).toBeVisible();
}

test.describe('a server of its own', () => {
  test.use({ ownProcess: true });

  test('the server is killed in the middle and comes back: nothing is lost, nothing is doubled', async ({
    bench: page,
    counter,
  }) => {
    await openJob(page, 'worn-engraving', 'check');
    // The other stages, with all they import, come a moment after the first, for just this case.
    await page.waitForFunction((mark) => performance.getEntriesByName(mark).length > 0, STAGES_FETCHED_MARK);
    await counter.kill();
    await recordVoltage(page, '1.31');
    await expect(status(page)).toContainText('1 entry is stored in this browser and not sent yet');
    await page.keyboard.press('3');
    await page.getByRole('button', { name: 'Confirm PL 6180' }).click();
    await expect(status(page)).toContainText('2 entries are stored in this browser');
    await expect(page.getByRole('region', { name: 'Movement', exact: true })).toContainText('PL 6180');
    await counter.restart();
    await expect(status(page)).toHaveCount(0, { timeout: 20_000 });
    const job = (await (
      await page.request.get(`/api/jobs/${jobId('worn-engraving')}`)
    ).json()) as JobResource;
    expect(job.entries.filter((entry) => entry.kind === 'check.reading')).toHaveLength(1);
    expect(job.entries.filter((entry) => entry.kind === 'identify.movement')).toHaveLength(1);
  });
});

test('what waits survives a reload of the page, and the job still opens as last seen', async ({
  bench: page,
  context,
}) => {
  await openJob(page, 'worn-engraving', 'check');
  await expect(page.getByRole('textbox', { name: 'Rest voltage' })).toBeVisible();
  await context.route('**/api/**', (route) => route.abort());
  await recordVoltage(page, '1.29');
  await page.reload();
  await expect(card(page, 'Rest voltage').getByText('Rest voltage: 1.29 V')).toBeVisible();
  await expect(card(page, 'Rest voltage')).toContainText('waiting to be saved');
  await expect(status(page)).toContainText('1 entry is stored in this browser and not sent yet');
  await context.unroute('**/api/**');
  await expect(status(page)).toHaveCount(0, { timeout: 20_000 });
  const job = (await (await page.request.get(`/api/jobs/${jobId('worn-engraving')}`)).json()) as JobResource;
  expect(job.entries.filter((entry) => entry.kind === 'check.reading')).toHaveLength(1);
});

test('a server that cannot keep anything is not called away: what it says stands there, and the entry waits', async ({
  bench: page,
}) => {
  await openJob(page, 'worn-engraving', 'check');
  await page.route('**/api/jobs/*/entries', (route) =>
    route.fulfill({
      status: 503,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        type: '/problems/not-ready',
        title: 'The server cannot keep anything now',
        status: 503,
        detail: 'The disk of the server is full: nothing more can be stored.',
        whatToDo: 'Make room on it.',
      }),
    }),
  );
  await recordVoltage(page, '1.31');
  const line = page.getByRole('status').filter({ hasText: 'not sent yet' });
  await expect(line).toContainText(
    'The disk of the server is full: nothing more can be stored. Make room on it.',
  );
  await expect(line).toContainText('1 entry is stored in this browser and not sent yet');
  await expect(line).not.toContainText('away');
  await page.unroute('**/api/jobs/*/entries');
  await expect(line).toHaveCount(0, { timeout: 20_000 });
});

test('a refused entry goes to “needs you”, says why, and stays until it is settled', async ({
  bench: page,
  context,
  request,
}) => {
  await openJob(page, 'overdue-at-the-cell', 'cell');
  const fit = page.getByRole('button', { name: /^Fitted SR621SW/ });
  await expect(fit).toBeVisible();
  await context.route('**/api/jobs/*/entries', (route) => route.abort());
  await fit.click();
  await expect(status(page)).toContainText('1 entry is stored in this browser');
  // Meanwhile somebody finds out that it is another movement, with a thicker cell.
  const job = (await (await request.get(`/api/jobs/${jobId('overdue-at-the-cell')}`)).json()) as JobResource;
  const before = job.entries.find((entry) => entry.kind === 'identify.movement');
  const answer = await request.post(`/api/jobs/${jobId('overdue-at-the-cell')}/entries`, {
    data: {
      id: '018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f',
      kind: 'identify.movement',
      payload: movementOf('quillbeck-15-1', 'QB 15-1'),
      payloadVersion: 1,
      occurredAt: '2026-03-17T09:41:00.000Z',
      technicianId: before?.technicianId,
      bench: 'back bench',
      supersedes: [before?.id],
    },
  });
  expect(answer.status()).toBe(201);
  await context.unroute('**/api/jobs/*/entries');
  const needsYou = page.getByRole('button', { name: '1 needs a decision' });
  await expect(needsYou).toBeVisible({ timeout: 20_000 });
  await page.reload();
  await needsYou.click();
  const dialog = page.getByRole('dialog', { name: 'Needs a decision' });
  await expect(dialog).toContainText('Fitted: SR621SW');
  await expect(dialog).toContainText('too thin');
  await dialog.getByRole('button', { name: 'Retry' }).click();
  await expect(dialog).toContainText('too thin');
  await dialog.getByRole('button', { name: 'Discard entry' }).click();
  await expect(needsYou).toHaveCount(0);
});

test('two windows on one job see each other’s entries without asking', async ({
  bench: one,
  browser,
  counter,
}) => {
  const two = await (await browser.newContext({ baseURL: counter.url })).newPage();
  await sitDown(two, 'milo', 'back bench');
  await openJob(one, 'worn-engraving', 'check');
  await openJob(two, 'worn-engraving', 'check');
  await expect(two.getByRole('textbox', { name: 'Current' })).toBeVisible();
  for (const [from, to, label, value] of [
    [one, two, 'Rest voltage', '1.31 V'],
    [two, one, 'Current', '1.02 µA'],
  ] as const) {
    await from.getByRole('textbox', { name: label }).fill(value);
    await from.getByRole('textbox', { name: label }).press('Enter');
    // Sooner than anything is asked for again by the clock: the news came by itself.
    await expect(card(to, label).getByText(`${label}: ${value}`)).toBeVisible({
      timeout: 10_000,
    });
  }
  await two.context().close();
});

test('two technicians sign at once: one signature stands, the other is told so', async ({
  browser,
  counter,
}) => {
  const [one, other] = await Promise.all(
    (['edda', 'milo'] as const).map(async (technician) => {
      const page = await (await browser.newContext({ baseURL: counter.url })).newPage();
      await sitDown(page, technician, `${technician}’s bench`);
      await openJob(page, 'ready-to-sign', 'handback');
      await expect(page.getByRole('button', { name: /^Sign as/ })).toBeEnabled();
      return page;
    }),
  );
  if (!one || !other) throw new Error('no pages');
  // Neither hears of the other before both have signed.
  for (const page of [one, other]) await page.context().route('**/api/jobs/*', (route) => route.abort());
  await Promise.all([one, other].map((page) => page.getByRole('button', { name: /^Sign as/ }).click()));
  for (const page of [one, other]) await page.context().unroute('**/api/jobs/*');
  const job = async (): Promise<JobResource> =>
    (await (await one.request.get(`/api/jobs/${jobId('ready-to-sign')}`)).json()) as JobResource;
  await expect
    .poll(async () => (await job()).entries.filter((entry) => entry.kind === 'handback.signed').length)
    .toBe(1);
  // The one who came second saw their own seal for a moment, until the server said no.
  const answer = (): Promise<number[]> =>
    Promise.all([one, other].map((page) => page.getByRole('button', { name: '1 needs a decision' }).count()));
  await expect.poll(async () => (await answer()).sort()).toEqual([0, 1]);
  const refused = (await answer())[0] === 1 ? one : other;
  await refused.getByRole('button', { name: '1 needs a decision' }).click();
  await expect(refused.getByRole('dialog')).toContainText('The job is signed already');
});

test('a view that did not come in time says so, and leaves rack and head; the others open with the server away', async ({
  rack: page,
  context,
}) => {
  // Of the views behind the counter one is not fetched while the server is there.
  await context.route('**/assets/DevicesPage*', (route) => route.abort());
  await page.reload();
  await page.waitForFunction(() =>
    performance.getEntriesByType('resource').some(({ name }) => name.includes('ToolsPage')),
  );
  await context.setOffline(true);
  const head = page.getByRole('banner');
  await head.getByRole('link', { name: 'Policy' }).click();
  await expect(page.getByRole('heading', { name: 'Policy', level: 1 })).toBeVisible();
  await head.getByRole('link', { name: 'Devices' }).click();
  await expect(page.getByRole('alert')).toContainText(
    'The connection to the server was lost before this view was loaded.',
  );
  await expect(page.getByRole('navigation', { name: 'Rack' })).toBeVisible();
  await head.getByRole('link', { name: 'Tools' }).click();
  await expect(page.getByRole('main')).toContainText('This view loads when the server is back.');
  await context.setOffline(false);
  await expect(page.getByRole('heading', { name: 'Tools', level: 1 })).toBeVisible();
});

test('records that the database lost are offered on the first page, added, and what is refused is discarded', async ({
  counter,
  rack: page,
}) => {
  const at = { atUtc: '2026-03-17T09:31:00.000Z', method: 'POST' };
  const technician = { id: '018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f', name: 'Ottar Gull', initials: 'OG' };
  const reading = bySomebody('check.reading', readingOf('restVoltageV', 1.31));
  mkdirSync(join(counter.dataDir, 'kept'), { recursive: true });
  writeFileSync(
    join(counter.dataDir, 'kept', 'writes-2026-03-17T09-40-00-000Z-1.jsonl'),
    [
      { ...at, path: '/api/technicians', body: technician },
      { ...at, path: '/api/jobs/nowhere/entries', body: reading },
    ]
      .map((write) => `${JSON.stringify(write)}\n`)
      .join(''),
  );
  await page.goto('/');
  const kept = page.getByRole('region', { name: 'Records not in the database' });
  await kept.getByRole('button', { name: 'Add 2 records' }).click();
  await expect(kept.getByRole('status')).toHaveText('1 added, 0 already in the database, 1 refused.');
  await expect(kept).toContainText('a job that is not here: rest voltage: 1.31 V.');
  await expectAccessible(page, 'the first page, with records that were refused');
  await kept.getByRole('button', { name: 'Discard 1 record' }).click();
  await expect(kept).toHaveCount(0);
});
