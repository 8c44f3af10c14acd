import type { JobResource } from '../src/contract';
import { card, expect, goTo, jobId, openJob, recorded, takenIn, test } from './counter';

const STAGES = ['arrive', 'open', 'identify', 'check', 'cell', 'seal', 'test', 'set', 'handback'] as const;
const TEXT = 'zq 7';

test('any text, Enter, Enter: at every stage that text is recorded and nothing else', async ({
  bench: page,
}) => {
  test.setTimeout(180_000);
  const id = await takenIn(page, 'ZZ 4711', { service: 'cell and reseal' });
  const entries = async (): Promise<JobResource['entries']> =>
    ((await (await page.request.get(`/api/jobs/${id}`)).json()) as JobResource).entries;
  for (const stage of STAGES)
    await test.step(stage, async () => {
      await goTo(page, `/jobs/${id}/${stage}`);
      await expect(page.getByRole('complementary', { name: 'Lamp', exact: true })).toBeVisible();
      const before = await entries();
      await page.keyboard.press('m');
      const isText = await page.evaluate(() => {
        const { activeElement: at } = document;
        return at instanceof HTMLInputElement && at.type === 'text';
      });
      if (isText) await page.keyboard.type(TEXT, { delay: 60 });
      await page.keyboard.press('Enter');
      // As long as the page needs to lead the hand on.
      await page.waitForTimeout(700);
      const after = await entries();
      await page.keyboard.press('Enter');
      await page.waitForTimeout(700);
      const last = await entries();
      expect(last.length - after.length).toBe(0);
      if (!isText) return;
      const added = after.slice(before.length);
      expect(added.length).toBeLessThanOrEqual(1);
      for (const { payload } of added) expect(JSON.stringify(payload)).toContain(TEXT);
    });
});

test('an engraving that settles nothing leads to the next look, and names no movement', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'ZZ 4711', { service: 'cell only' });
  await goTo(page, `/jobs/${id}/identify`);
  const engraving = page.getByRole('textbox', { name: 'Engraving', exact: true });
  await engraving.fill('WATER RESIST');
  await engraving.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Lamp', exact: true })).toContainText('Look next at');
  await page.waitForTimeout(700);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(700);
  const { entries } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as JobResource;
  expect(entries.map(({ kind }) => kind)).not.toContain('identify.movement');
});

test('an Enter held down records once', async ({ bench: page }) => {
  const id = await takenIn(page, 'ZZ 4711', { service: 'cell only' });
  await goTo(page, `/jobs/${id}/cell`);
  const before = ((await (await page.request.get(`/api/jobs/${id}`)).json()) as JobResource).entries.length;
  const marking = card(page, 'Cell found').getByRole('textbox').first();
  await marking.fill('SR621SW');
  for (let repeat = 0; repeat < 6; repeat += 1) await page.keyboard.down('Enter');
  await page.keyboard.up('Enter');
  await page.waitForTimeout(700);
  const { entries } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as JobResource;
  expect(entries.slice(before).map(({ kind }) => kind)).not.toContain('cell.fitted');
});

test('what would be refused is said at its form, and is not sent', async ({ bench: page }) => {
  const id = await takenIn(page, 'C2140-3', { service: 'cell and reseal' });
  await recorded(page, id, 'open.part', {
    part: 'insulator',
    position: 'which way up, to be noted',
    count: 1,
    serves: [],
    step: '',
  });
  await goTo(page, `/jobs/${id}/seal`);
  const closed = card(page, 'Closed');
  await closed.getByRole('radio', { name: 'Thumbs' }).check();
  await closed.getByRole('radio', { name: 'Even all round' }).check();
  await closed.getByRole('button', { name: 'Record' }).click();
  await expect(closed.getByRole('alert')).toContainText('Where it sat was to be noted: insulator');
  await expect(page.getByRole('button', { name: /needs you/ })).toHaveCount(0);
});

test('another watch lying open puts no serial under the hand', async ({ bench: page }) => {
  await openJob(page, 'just-arrived', 'open');
  await recorded(page, jobId('just-arrived'), 'open.together', {
    otherJobId: jobId('two-cells'),
    otherTicket: 'T0002-6',
    otherSerial: '55-120',
  });
  await goTo(page, `/jobs/${jobId('just-arrived')}/seal`);
  const serial = page.getByRole('textbox', { name: 'Serial in the back' });
  await expect(serial).toBeVisible();
  for (let press = 0; press < 4; press += 1) {
    await page.keyboard.press('m');
    await expect(serial).not.toBeFocused();
    await page.keyboard.press('Escape');
  }
});
