import type { JobResource } from '../src/contract';
import { card, expect, goTo, handSees, jobId, openJob, recorded, takenIn, test } from './counter';

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
      await handSees(page);
      const after = await entries();
      await page.keyboard.press('Enter');
      await handSees(page);
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
  await expect(page.getByRole('complementary', { name: 'Lamp', exact: true })).toContainText('Next look');
  await handSees(page);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await handSees(page);
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
  await handSees(page);
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
  await expect(closed.getByRole('alert')).toContainText(
    'The position of this part is not recorded: insulator',
  );
  await expect(page.getByRole('button', { name: /needs? a decision/ })).toHaveCount(0);
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

test('the last letter typed into a field is no shortcut, whatever Enter is pressed on next', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'ZZ 4711', { service: 'cell only' });
  await goTo(page, `/jobs/${id}/open`);
  const back = card(page, 'Case back, measured');
  await back.getByRole('combobox', { name: 'Kind of back' }).focus();
  // “r” is the key of the fourth choice of the form: Plastic.
  await page.keyboard.type('screwed, r', { delay: 60 });
  const take = back.getByRole('button', { name: 'Diameter of a hole: take it from the caliper' });
  for (let tab = 0; tab < 3; tab += 1) await page.keyboard.press('Tab');
  await expect(take).toBeFocused();
  await page.keyboard.press('Enter');
  await handSees(page);
  await expect(back.getByRole('radio', { name: 'Plastic' })).not.toBeChecked();
  const { entries } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as JobResource;
  expect(entries.map(({ kind }) => kind)).not.toContain('open.measured');
});

test('the form of the next watch knows nothing of the one just taken in', async ({ bench: page }) => {
  await goTo(page, '/new');
  await page.getByRole('combobox', { name: 'Owner' }).fill('Dyveke Foursquare');
  await page.getByRole('textbox', { name: 'Phone' }).fill('0555 9004');
  await page.getByRole('textbox', { name: 'Engraved on the outside' }).fill('7733 WATER');
  await page.getByRole('textbox', { name: 'Water rating' }).fill('50 m');
  await page.getByRole('textbox', { name: 'Crown at' }).fill('3');
  await page.getByRole('checkbox', { name: 'Stopped' }).check();
  await page.getByRole('radio', { name: 'Reseal and test' }).check();
  await page.getByRole('checkbox', { name: 'The owner agrees to them' }).check();
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page).toHaveURL(/\/jobs\/[^/]+\/arrive$/);
  await page.keyboard.press('n');
  await expect(page.getByRole('combobox', { name: 'Owner' })).toHaveValue('');
  await expect(page.getByRole('textbox', { name: 'Water rating' })).toHaveValue('');
  await expect(page.getByRole('checkbox', { name: 'Stopped' })).not.toBeChecked();
});

test('a choice left open gets the focus when its form is refused', async ({ bench: page }) => {
  const id = await takenIn(page, 'ZZ 4711', { service: 'cell and reseal' });
  await goTo(page, `/jobs/${id}/seal`);
  const gasket = card(page, 'Gasket');
  await gasket.getByRole('radio', { name: 'Renewed' }).check();
  await gasket.getByRole('textbox', { name: 'Size' }).fill('30.5 × 0.70');
  await page.keyboard.press('Enter');
  await expect(gasket).toContainText('Silicone grease: choose yes or no.');
  await expect(gasket.getByRole('radio', { name: 'A trace, surplus off' })).toBeFocused();
});
