import { readFileSync } from 'node:fs';
import type { Locator, Page } from '@playwright/test';
import type { JobResource } from '../src/contract';
import { expect, handSees, openJob, stands, tabTo, test } from './counter';

/** Counts the keys pressed beside the words typed. */
function countKeys(page: Page): { readonly pressed: () => number } {
  const { keyboard } = page;
  const press = keyboard.press.bind(keyboard);
  let pressed = 0;
  keyboard.press = async (key, options) => {
    pressed += 1;
    await press(key, options);
  };
  return { pressed: () => pressed };
}

/** Presses Enter on the button that leads to the next stage, once the focus has moved there by itself. */
async function onTo(page: Page, stage: string): Promise<void> {
  await expect(page.getByRole('link', { name: `Continue: ${stage}` })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: new RegExp(`^${stage}, `) })).toHaveAttribute(
    'aria-current',
    'step',
  );
}

/** What has the focus is wanted next: it stands on the screen as the stage opens, and nothing was scrolled for it. */
async function expectInView(page: Page, focused: Locator): Promise<void> {
  await expect(focused).toBeFocused();
  await expect(focused).toBeInViewport({ ratio: 1 });
  expect(await page.evaluate(() => scrollY)).toBe(0);
}

const ORDINARY_KEYS = 45;

test('a cell job from arrival to the signed record, by keyboard alone, in few keys and without scrolling', async ({
  page,
  counter,
  tickets,
}) => {
  await page.goto(counter.url);
  await expect(page.getByRole('button', { name: /Edda Vinterhal/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const keys = countKeys(page);

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
    // Not all is said yet: Enter goes to what is missing.
    await page.keyboard.press('Enter');
    await expect(page.getByRole('checkbox', { name: 'Stopped' })).toBeFocused();
    // Keys closer together than a hand’s are a device’s.
    await page.keyboard.press('Space', { delay: 60 });
    await expect(page.getByRole('checkbox', { name: 'Stopped' })).toBeChecked();
    await page.keyboard.press('m');
    await expect(page.getByRole('checkbox', { name: 'The owner agrees to them' })).toBeFocused();
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await expect(page.getByText(tickets.next).first()).toBeVisible();
    await expect(page.getByRole('img', { name: `QR code of ticket ${tickets.next}` })).toBeVisible();
    await expect(page.getByRole('img', { name: `Barcode of ticket ${tickets.next}` })).toBeVisible();
    await onTo(page, '2 Open');
  });

  await test.step('open', async () => {
    const lamp = page.getByRole('complementary', { name: 'Lamp' });
    await expect(lamp).toContainText('6.5 o’clock');
    await expectInView(page, page.getByRole('radio', { name: 'Film', exact: true }));
    await page.keyboard.press('q');
    await expect(page.getByRole('radio', { name: 'Freely', exact: true })).toBeFocused();
    await page.keyboard.press('e');
    await expect(page.getByRole('radio', { name: 'Freely', exact: true })).toBeChecked();
    await page.keyboard.press('Enter');
    await onTo(page, '3 Identify');
  });

  await test.step('identify', async () => {
    await expectInView(page, page.getByLabel('Engraving', { exact: true }));
    await page.keyboard.type('OR 41.2', { delay: 40 });
    await page.keyboard.press('Enter');
    await expectInView(page, page.getByRole('button', { name: 'Confirm OR 41.2' }));
    await handSees(page);
    await page.keyboard.press('Enter');
    await onTo(page, '4 Check');
  });

  await test.step('check', async () => {
    await expectInView(page, page.getByRole('textbox', { name: 'Rest voltage' }));
    await page.keyboard.type('1,21', { delay: 40 });
    await expect(page.getByText('Understood: 1.21 V')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Spent');
    await onTo(page, '5 Cell');
  });

  await test.step('cell', async () => {
    const lamp = page.getByRole('complementary', { name: 'Lamp' });
    await expect(lamp).toContainText('SR621SW');
    await expectInView(page, page.getByLabel('Marking of the old cell'));
    await page.keyboard.type('sr 621 sw (364)', { delay: 40 });
    await page.keyboard.press('Tab');
    await page.keyboard.press('q');
    await expect(page.getByRole('radio', { name: 'Clean' })).toBeChecked();
    await page.keyboard.press('Enter');
    await expect(lamp).toContainText('SR621SW: equal');
    await expectInView(page, page.getByRole('radio', { name: /SR621SW equal, lot S-6104/ }));
    await handSees(page);
    await page.keyboard.press('Enter');
    await expectInView(page, page.getByRole('button', { name: 'Taped, into the spent bin' }).first());
    await expect(page.getByRole('region', { name: 'The old cell' }).getByRole('note')).toContainText(
      'If a child or an animal swallows it',
    );
    await page.keyboard.press('q');
    await expect(stands(page, 'The old cell')).toContainText('spent bin');
    await onTo(page, '6 Seal and close');
  });

  await test.step('seal and close', async () => {
    await expectInView(page, page.getByRole('radio', { name: 'Renewed' }));
    await page.keyboard.press('q');
    await expect(page.getByRole('radio', { name: 'Renewed' })).toBeChecked();
    await expect(page.getByLabel('Ring taken from')).toBeFocused();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Space');
    await expect(page.getByRole('radio', { name: 'A trace, surplus off' })).toBeChecked();
    await page.keyboard.press('Enter');
    await expect(stands(page, 'Gasket')).toContainText('Gasket renewed (30.5 × 0.70), greased');
    await expectInView(page, page.getByRole('radio', { name: 'Thumbs' }));
    await page.keyboard.press('q');
    await expect(page.getByRole('radio', { name: 'Even all round' })).toBeFocused();
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await onTo(page, '8 Set and prove');
  });

  await test.step('set and prove', async () => {
    await expectInView(page, page.getByRole('radio', { name: 'It runs' }));
    await page.keyboard.press('q');
    await expect(page.getByLabel('Watched for')).toBeFocused();
    await page.keyboard.type('60', { delay: 40 });
    await page.keyboard.press('Enter');
    // The crown first: pulled afterwards it would take the time along.
    const crown = page.getByRole('radiogroup', { name: 'crown in every position' });
    await expectInView(page, crown.getByRole('radio', { name: 'works', exact: true }));
    await page.keyboard.press('Space');
    await page.keyboard.press('Enter');
    await expectInView(page, page.getByRole('button', { name: 'Set to the signal' }));
    await page.keyboard.press('q');
    await expectInView(page, page.getByRole('radio', { name: 'works', exact: true }).first());
    await page.keyboard.press('a');
    await onTo(page, '9 Hand back');
  });

  await test.step('hand back', async () => {
    await expect(
      page.getByRole('region', { name: 'Record for the owner' }).getByText('Water resistance was not tested'),
    ).toBeVisible();
    await expect(
      page.getByRole('region', { name: 'Record for the owner' }).getByText(/Come back by \d+ \w+ 20\d\d/),
    ).toBeVisible();
    await expectInView(page, page.getByRole('button', { name: 'Sign as EV' }));
    await handSees(page);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('img', { name: 'Signed EV' })).toBeVisible();
    await expectInView(page, page.getByLabel('Collected by'));
    await page.keyboard.type('the owner', { delay: 40 });
    await page.keyboard.press('Tab');
    await page.keyboard.type('14.00', { delay: 40 });
    await page.keyboard.press('Enter');
    await expect(stands(page, 'Handed over and paid')).toContainText('Collected by the owner');
    console.log(`An ordinary cell job: ${keys.pressed()} keys besides the words.`);
    expect(keys.pressed()).toBeLessThanOrEqual(ORDINARY_KEYS);
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
  await expect(page.getByRole('button', { name: 'Confirm OR 41.2' })).toBeFocused();
  await handSees(page);
  await press('Enter');
  await expect(page.getByRole('link', { name: /^Continue:/ })).toBeVisible();
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
