import type { Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { demoId } from '../demo/build';
import { expect, expectAccessible, takenIn, test } from './counter';

const LOTS = 500;
const RACKED = 200;
const BOOKED = 5000;

/** Rows of a list that are in the page, drawn or not seen. */
const drawnIn = (page: Page, label: string) =>
  page.getByRole('region', { name: label }).getByRole('row').count();

test('a stock of 500 lots draws what is seen, scrolls to its end and is narrowed down by typing', async ({
  bench: page,
}) => {
  for (let each = 0; each < LOTS; each += 1) {
    const answer = await page.request.post('/api/lots', {
      data: {
        id: randomUUID(),
        item: 'cell',
        code: each % 2 === 0 ? 'SR621SW' : 'SR920SW',
        supplier: 'Saltmarsh Wholesale',
        lotCode: `LL-${each}`,
        madeOn: null,
        bestBefore: '2029-01-31',
        priceMinor: 60,
        count: 5,
        technicianId: demoId('technician', 'edda'),
      },
    });
    expect(answer.status()).toBeLessThan(300);
  }
  await page.goto('/stock');
  const list = page.getByRole('region', { name: 'Cells by lot, in stock' });
  await expect(list.getByRole('row').nth(3)).toBeVisible();
  expect(await drawnIn(page, 'Cells by lot, in stock')).toBeLessThan(60);
  await expect(list.getByRole('table')).toHaveAttribute('aria-rowcount', /^5\d\d$/);
  await list.evaluate((one) => one.scrollTo(0, one.scrollHeight));
  const last = await list.getByRole('table').getAttribute('aria-rowcount');
  await expect(list.locator(`[aria-rowindex="${last}"]`)).toBeVisible();
  await page.getByRole('searchbox', { name: /^Search 5\d\d lots/ }).fill('ll-123');
  await expect(list.getByRole('row')).toHaveCount(2);
  await expect(list).toContainText('LL-123');
  await list.getByRole('button', { name: 'Count lot LL-123 of SR920SW' }).click();
  await expect(page.getByRole('dialog', { name: /^Count lot LL-123/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('main').getByRole('searchbox').fill('nothing so called');
  await expect(page.getByText(/^None of the 5\d\d lots matches/)).toBeVisible();
  await page.getByRole('main').getByRole('searchbox').fill('');
  await expectAccessible(page, 'five hundred lots');
});

test('a rack of 200 draws what is seen, brings the open job into sight and is narrowed down by typing', async ({
  bench: page,
}) => {
  let last = '';
  for (let each = 0; each < RACKED; each += 1) last = await takenIn(page, `W-${each}`);
  await page.goto(`/jobs/${last}/arrive`);
  const rack = page.getByRole('navigation', { name: 'Rack' });
  await expect(rack.getByRole('heading')).toHaveText(/^Rack, 2\d\d$/);
  await expect(rack.locator('[aria-current="page"]')).toBeInViewport();
  expect(await rack.getByRole('link').count()).toBeLessThan(40);
  await rack.getByRole('searchbox', { name: 'Search the rack' }).fill('w-137');
  await expect(rack.getByRole('link')).toHaveCount(1);
  await rack.getByRole('link').click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('W-137');
  await rack.getByRole('searchbox').fill('nobody');
  await expect(rack).toContainText('No match in the rack');
  await rack.getByRole('searchbox').fill('');
  await expectAccessible(page, 'a rack of two hundred', { withRack: true });
});

test('a book of 5,000 draws what is seen and is narrowed down by typing', async ({ bench: page }) => {
  const rows = Array.from({ length: BOOKED }, (_, each) => `mk-${each},Maker ${each},`);
  const answer = await page.request.post(
    `/api/catalogue/tables/makers?dryRun=no&technicianId=${demoId('technician', 'edda')}`,
    { headers: { 'content-type': 'text/csv' }, data: ['id,name,sign', ...rows].join('\n') },
  );
  expect(await answer.text()).toContain('"errorsFound":0');
  await page.goto('/book/makers');
  const list = page.getByRole('region', { name: 'Makers in the book' });
  await expect(list.getByRole('row').nth(3)).toBeVisible();
  expect(await drawnIn(page, 'Makers in the book')).toBeLessThan(60);
  await page.getByLabel(/^Search 5,?\d\d\d/).fill('maker 4321');
  await expect(list.getByRole('row')).toHaveCount(2);
});

test('the book is read once and kept: a reload asks only for what changed, and a change brings one record', async ({
  bench: page,
}) => {
  /** Where the book was asked for, and the records that this address gives. */
  const asked: string[] = [];
  page.on('request', (request) => {
    if (request.url().includes('/api/catalogue/changes')) asked.push(request.url());
  });
  const given = async (url = ''): Promise<string[]> => {
    const lines = (await (await page.request.get(url)).text()).trim().split('\n');
    return lines.slice(1, -1).map((line) => (JSON.parse(line) as { readonly id: string }).id);
  };
  await page.goto('/book/makers');
  const list = page.getByRole('region', { name: 'Makers in the book' });
  await expect(list).toContainText('Orrelin');
  expect(await given(asked[0])).toContain('orrelin');
  const kept = () => page.evaluate(() => localStorage.getItem('wax.book') ?? '');
  await expect.poll(kept).toContain('"revision"');
  asked.length = 0;
  await page.reload();
  await expect(list).toContainText('Orrelin');
  expect(asked).toHaveLength(1);
  expect(await given(asked[0])).toEqual([]);
  const answer = await page.request.post(
    `/api/catalogue/tables/makers?dryRun=no&technicianId=${demoId('technician', 'edda')}`,
    { headers: { 'content-type': 'text/csv' }, data: 'id,name,sign\nnewcomer,Newcomer of Quay,' },
  );
  expect(await answer.text()).toContain('"errorsFound":0');
  await expect(list).toContainText('Newcomer of Quay');
  expect(asked).toHaveLength(2);
  expect(await given(asked[1])).toEqual(['newcomer']);
  await page.reload();
  await expect(list).toContainText('Newcomer of Quay');
  await expect(list).toContainText('Orrelin');
});
