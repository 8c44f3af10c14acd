import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { JobResource } from '../src/contract';
import { card, expect, openJob, tabTo, test } from './counter';

/** Goes to a choice by Tab and takes it. */
async function pick(page: Page, name: string): Promise<void> {
  await tabTo(page, page.getByRole('radio', { name, exact: true }));
  await page.keyboard.press('Space');
}

/** Presses Enter on the button that leads to the next stage, once the focus has moved there by itself. */
async function onTo(page: Page, stage: string): Promise<void> {
  await expect(page.getByRole('link', { name: `On to ${stage}` })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: new RegExp(`^${stage}, `) })).toHaveAttribute(
    'aria-current',
    'step',
  );
}

test('a cell job from arrival to the signed record, by keyboard alone', async ({
  page,
  counter,
  tickets,
}) => {
  await page.goto(counter.url);
  await expect(page.getByRole('button', { name: /Edda Vinterhal/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await test.step('arrive', async () => {
    await page.keyboard.press('n');
    await expect(page.getByRole('combobox', { name: 'Owner' })).toBeFocused();
    await page.keyboard.type('Siv Kettlemoor', { delay: 40 });
    await page.keyboard.press('Tab');
    await page.keyboard.type('0555 0777', { delay: 40 });
    await tabTo(page, page.getByLabel('Reference'));
    await page.keyboard.type('C2140-3', { delay: 40 });
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Back: snap-on');
    await tabTo(page, page.getByLabel('Serial'));
    await page.keyboard.type('4480021', { delay: 40 });
    await tabTo(page, page.getByRole('checkbox', { name: 'Stopped' }));
    await page.keyboard.press('Space');
    await tabTo(page, page.getByRole('checkbox', { name: 'The owner agrees to them' }));
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await expect(page.getByText(tickets.next).first()).toBeVisible();
    await expect(page.getByRole('img', { name: `QR code of ticket ${tickets.next}` })).toBeVisible();
    await expect(page.getByRole('img', { name: `Barcode of ticket ${tickets.next}` })).toBeVisible();
    await page.keyboard.press('m');
    await onTo(page, '2 Open');
  });

  await test.step('open', async () => {
    const lamp = page.getByRole('complementary', { name: 'Lamp' });
    await expect(lamp).toContainText('6.5 o’clock');
    await page.keyboard.press('m');
    await expect(page.getByLabel('Opened with')).toBeFocused();
    await pick(page, 'Film');
    await pick(page, 'Freely');
    await page.keyboard.press('Enter');
    await onTo(page, '3 Identify');
  });

  await test.step('identify', async () => {
    await page.keyboard.press('m');
    await expect(page.getByLabel('Engraving', { exact: true })).toBeFocused();
    await page.keyboard.type('OR 41.?', { delay: 40 });
    await expect(page.getByRole('region', { name: 'Candidates' })).toContainText('worn place taken as 2');
    await page.keyboard.press('Backspace');
    await page.keyboard.type('2', { delay: 40 });
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: 'It is OR 41.2' })).toBeFocused();
    await page.keyboard.press('Enter');
    await onTo(page, '4 Check');
  });

  await test.step('check', async () => {
    await page.keyboard.press('m');
    await expect(page.getByRole('textbox', { name: 'Rest voltage' })).toBeFocused();
    await page.keyboard.type('1,21', { delay: 40 });
    await expect(page.getByText('Understood: 1.21 V')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Spent');
    await onTo(page, '5 Cell');
  });

  await test.step('cell', async () => {
    const lamp = page.getByRole('complementary', { name: 'Lamp' });
    await expect(lamp).toContainText('SR621SW');
    await page.keyboard.press('m');
    await expect(page.getByLabel('Marking of the old cell')).toBeFocused();
    await page.keyboard.type('sr 621 sw (364)', { delay: 40 });
    await pick(page, 'Clean');
    await page.keyboard.press('Enter');
    await expect(lamp).toContainText('SR621SW: equal');
    await expect(page.getByRole('radio', { name: /SR621SW equal, lot S-6104/ })).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('radio', { name: 'Insulated with tape' })).toBeFocused();
    await page.keyboard.press('Space');
    await pick(page, 'Spent bin');
    await expect(card(page, 'The old cell').getByRole('note')).toContainText('swallowed by a child');
    await page.keyboard.press('Enter');
    await onTo(page, '6 Seal and close');
  });

  await test.step('seal and close', async () => {
    await page.keyboard.press('m');
    await expect(page.getByRole('radio', { name: 'Renewed' })).toBeFocused();
    await page.keyboard.press('Space');
    await tabTo(page, page.getByLabel('Ring taken from'));
    await page.keyboard.press('ArrowDown');
    await pick(page, 'A trace, surplus off');
    await page.keyboard.press('Enter');
    await expect(card(page, 'Gasket').getByText('Gasket renewed (30.5 × 0.70), greased')).toBeVisible();
    await expect(page.getByRole('radio', { name: 'Thumbs' })).toBeFocused();
    await page.keyboard.press('Space');
    await pick(page, 'Even all round');
    await page.keyboard.press('Enter');
    await onTo(page, '8 Set and prove');
  });

  await test.step('set and prove', async () => {
    await page.keyboard.press('m');
    await expect(page.getByRole('radio', { name: 'It runs by its own step' })).toBeFocused();
    await page.keyboard.press('Space');
    await tabTo(page, page.getByLabel('Watched for'));
    await page.keyboard.type('60', { delay: 40 });
    await page.keyboard.press('Enter');
    await expect(page.getByRole('radio', { name: 'Set to the signal' })).toBeFocused();
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('radio', { name: 'works', exact: true }).first()).toBeFocused();
    await page.keyboard.press('a');
    await expect(page.getByRole('radio', { name: 'works', exact: true }).first()).toBeChecked();
    await page.keyboard.press('Enter');
    const crown = page.getByRole('radiogroup', { name: 'crown in every position' });
    await expect(crown.getByRole('radio', { name: 'works', exact: true })).toBeFocused();
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await onTo(page, '9 Hand back');
  });

  await test.step('hand back', async () => {
    await expect(
      page.getByRole('region', { name: 'Record for the owner' }).getByText('Water resistance was not tested'),
    ).toBeVisible();
    await expect(
      page.getByRole('region', { name: 'Record for the owner' }).getByText(/Come back by \d+ \w+ 20\d\d/),
    ).toBeVisible();
    await page.keyboard.press('m');
    await expect(page.getByRole('button', { name: 'Sign as EV' })).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('img', { name: 'Signed EV' })).toBeVisible();
    await expect(page.getByLabel('Collected by')).toBeVisible();
    await page.keyboard.press('m');
    await expect(page.getByLabel('Collected by')).toBeFocused();
    await page.keyboard.type('the owner', { delay: 40 });
    await page.keyboard.press('Tab');
    await page.keyboard.type('14.00', { delay: 40 });
    await page.keyboard.press('Enter');
    await expect(card(page, 'Handed over and paid').getByText('Collected by the owner')).toBeVisible();
  });

  await test.step('the papers', async () => {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Whole job (JSON)' }).click();
    const file = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
      entries: unknown[];
      statement: { fitted: string[] };
    };
    expect(file.entries.length).toBeGreaterThan(15);
    expect(file.statement.fitted[0]).toContain('SR621SW');
    const id = page.url().split('/')[4];
    const record = await page.request.get(`/api/jobs/${id}/record.pdf`);
    expect((await record.body()).subarray(0, 5).toString()).toBe('%PDF-');
    const job = (await (await page.request.get(`/api/jobs/${id}`)).json()) as JobResource;
    expect(new Set(job.entries.map((entry) => entry.technicianId)).size).toBe(1);
  });
});

test('from mat to recommended cell with its cautions in at most six inputs', async ({ bench: page }) => {
  await openJob(page, 'just-arrived', 'identify');
  let inputs = 0;
  const press = async (key: string): Promise<void> => {
    inputs += 1;
    await page.keyboard.press(key);
  };
  const type = async (text: string): Promise<void> => {
    inputs += 1;
    await page.keyboard.type(text, { delay: 40 });
  };
  await press('m');
  await expect(page.getByLabel('Engraving', { exact: true })).toBeFocused();
  await type('OR 41.2');
  await press('Enter');
  await expect(page.getByRole('button', { name: 'It is OR 41.2' })).toBeFocused();
  await press('Enter');
  await expect(page.getByRole('link', { name: /^On to/ })).toBeVisible();
  await press('5');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText('SR621SW');
  await expect(lamp).toContainText('Lot S-6104');
  await expect(
    page
      .getByRole('region', { name: 'fitting guide' })
      .getByRole('note')
      .filter({ hasText: 'drops beside the cell and touches the motor' }),
    // On the way out, and again on the way in.
  ).toHaveCount(2);
  await expect(lamp.getByRole('note').filter({ hasText: 'pushed toward the coil' })).toBeVisible();
  console.log(`From mat to recommended cell: ${inputs} inputs.`);
  expect(inputs).toBeLessThanOrEqual(6);
});
