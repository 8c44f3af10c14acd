import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer, type ServerProcess } from '../src/testing/serverProcess';
import {
  alsoRecord,
  card,
  expect,
  expectAccessible,
  goTo,
  openJob,
  stands,
  test,
  typeAsDevice,
} from './counter';

test.describe('a brand-new shop', () => {
  let dataDir: string;
  let server: ServerProcess;
  test.beforeEach(async () => {
    dataDir = mkdtempSync(join(tmpdir(), 'wax-new-'));
    server = await startServer(dataDir);
  });
  test.afterEach(async () => {
    await server.end('SIGTERM');
    rmSync(dataDir, { recursive: true, force: true });
  });

  test('takes its first technician, its first lot and its first watch, without a book', async ({
    browser,
  }) => {
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    await page.goto('/');
    const who = page.getByRole('dialog', { name: 'Who is at the bench?' });
    await who.getByLabel('Name').fill('Una Saltmere');
    await who.getByLabel('Initials').fill('toolong');
    await who.getByRole('button', { name: 'Add technician' }).click();
    await expect(who).toContainText('Initials: at most 4 characters');
    await who.getByLabel('Initials').fill('us');
    await who.getByRole('button', { name: 'Add technician' }).click();
    await expect(who).toHaveCount(0);
    await expect(page.getByRole('navigation', { name: 'Rack' })).toContainText('No watch is waiting');
    await expectAccessible(page, 'empty rack');

    await page.goto('/book');
    await expect(page.getByText('The book has no calibre yet')).toBeVisible();
    await page.goto('/stock');
    await expect(page.getByText('The stock is empty')).toBeVisible();
    await page.getByLabel('Code as printed').fill('371');
    await page.getByLabel('Supplier').fill('Saltmarsh Wholesale');
    await page.getByLabel('Lot', { exact: true }).fill('S-1');
    await page.getByLabel('Price each').fill('0.74');
    await card(page, 'Goods in').getByLabel('How many').fill('10');
    await page.getByRole('button', { name: 'Book in' }).click();
    await expect(page.getByRole('row', { name: /SR920SW 10 S-1/ })).toBeVisible();

    await page.keyboard.press('n');
    await page.getByRole('combobox', { name: 'Owner' }).fill('Anders Pellwick');
    await page.getByRole('checkbox', { name: 'Stopped' }).check();
    await page.getByRole('checkbox', { name: 'The owner agrees to them' }).check();
    await page.getByRole('button', { name: 'Take in' }).click();
    await expect(page.getByRole('img', { name: 'Barcode of ticket T0001-8' })).toBeVisible();
    await page.keyboard.press('3');
    const hand = page.getByRole('region', { name: 'Picked by hand' });
    await hand.getByRole('combobox', { name: 'Calibre' }).fill('ZZ 12');
    await hand.getByRole('button', { name: 'Confirm this movement' }).click();
    await expect(page.getByRole('region', { name: 'Movement', exact: true })).toContainText(
      'ZZ 12 not in the book',
    );
    await page.context().close();
  });
});

test('over a network the counter asks for its key, once', async ({ browser }) => {
  const dataDir = mkdtempSync(join(tmpdir(), 'wax-key-'));
  const server = await startServer(dataDir, { HOST: '0.0.0.0', WAX_KEY: 'a-long-enough-secret' });
  const address = server.url.replace('0.0.0.0', '127.0.0.1');
  const page = await (await browser.newContext()).newPage();
  await page.goto(address);
  await expect(page.getByRole('heading', { name: 'Key wanted' })).toBeVisible();
  await expectAccessible(page, 'key page');
  await page.getByLabel('Key').fill('a-long-enough-secret');
  await page.getByRole('button', { name: 'Enter' }).click();
  await expect(page.getByRole('dialog', { name: 'Who is at the bench?' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('dialog', { name: 'Who is at the bench?' })).toBeVisible();
  await page.context().close();
  await server.end('SIGTERM');
  rmSync(dataDir, { recursive: true, force: true });
});

test('the working of an answer is there on demand, on every stage that computes one', async ({
  bench: page,
}) => {
  for (const [key, stage, words] of [
    ['worn-engraving', 'identify', 'pattern PL dddd of Pellorane'],
    ['draws-too-much', 'check', 'at most 2.4 µA'],
    ['overdue-at-the-cell', 'cell', 'IEC 60086-3'],
    ['to-close', 'seal', 'renew from 5 bar'],
    ['to-set-and-prove', 'set', 'the 1st after a month'],
    ['ready-to-sign', 'handback', 'usable × capacity'],
  ] as const) {
    await openJob(page, key, stage);
    const lamp = page.getByRole('complementary', { name: 'Lamp' });
    await expect(lamp).not.toContainText(words);
    await lamp.getByRole('button', { name: 'Open all' }).click();
    await expect(lamp).toContainText(words);
  }
});

test('the book shows a calibre with its layout, found by its code', async ({ rack: page }) => {
  await page.keyboard.press('/');
  await page.getByLabel(/^Ticket, owner/).fill('qb22');
  await page.getByRole('button', { name: /QB 22-4 Calibre of Quillbeck/ }).click();
  await expect(
    page.getByRole('img', { name: /Layout of QB 22-4 from behind.*2 cell places, 1 coil/ }),
  ).toBeVisible();
  await expect(page.getByRole('note')).toContainText('never exchange their places');
});

test('a test recorded changes what may be said about water, and no more than that', async ({
  bench: page,
}) => {
  await openJob(page, 'to-set-and-prove', 'test');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText('Water resistance was not tested');
  await page.getByRole('radio', { name: 'Pushed home' }).check();
  await page.getByRole('button', { name: 'Record' }).click();
  await page.getByRole('radio', { name: 'Dry air' }).check();
  await page.getByLabel('Watched for').fill('60');
  await page.getByRole('radio', { name: 'No leak seen', exact: true }).check();
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByText('Pressure: wanted for dry air and wet tests')).toBeVisible();
  await page.getByLabel('Pressure').fill('300 kPa');
  await page.getByRole('button', { name: 'Record' }).click();
  // A tester's word alone is no figure.
  await expect(lamp).toContainText('is no proof: nothing was measured');
  await expect(lamp).toContainText('Water resistance was not tested');
  await page.getByRole('radio', { name: 'Wet' }).check();
  await page.getByLabel('Watched for').fill('60');
  await page.getByRole('radio', { name: 'No leak seen', exact: true }).check();
  await page.getByLabel('Pressure').fill('300 kPa');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(lamp).toContainText(
    /Tested at 3 bar, wet, for 60 seconds, on 17 Mar 2026: no leak was found\. Nothing beyond this was tested\./,
  );
  await openJob(page, 'worn-engraving', 'test');
  await expect(page.getByText('Close it before you test it')).toBeVisible();
});

test('an owner is found in spite of a slip, shown with their jobs, and erased without the record', async ({
  rack: page,
  tickets,
}) => {
  await page.keyboard.press('/');
  await page.getByLabel(/^Ticket, owner/).fill('oystrnad');
  await page.getByRole('button', { name: /Maren Oystrand Owner, 0555 0142/ }).click();
  await expect(page.getByRole('heading', { name: 'Maren Oystrand' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Jobs' })).toContainText(
    `${tickets.of('just-arrived')} Orrelin C2140-3`,
  );
  await expectAccessible(page, 'owner');
  await page.getByRole('button', { name: 'Erase this person' }).click();
  await page
    .getByRole('dialog', { name: 'Erase this person?' })
    .getByRole('button', { name: 'Cancel' })
    .click();
  await page.getByRole('button', { name: 'Erase this person' }).click();
  await page
    .getByRole('dialog', { name: 'Erase this person?' })
    .getByRole('button', { name: 'Erase', exact: true })
    .click();
  await expect(page.getByRole('heading', { name: 'Erased owner' })).toBeVisible();
  await page
    .getByRole('region', { name: 'Jobs' })
    .getByRole('link', { name: tickets.of('just-arrived') })
    .click();
  await expect(page.getByText('owner erased')).toBeVisible();
  await page.keyboard.press('/');
  await page.getByLabel(/^Ticket, owner/).fill('oystrand');
  await expect(page.getByText('No results for “oystrand”.')).toBeVisible();
});

test('a watch that comes back is known again: what worked last time comes first, and its page shows every visit', async ({
  rack: page,
  tickets,
}) => {
  await page.keyboard.press('n');
  await page.getByRole('combobox', { name: 'Owner' }).pressSequentially('Ostervale');
  await page.getByRole('option', { name: /Bram Ostervale/ }).click();
  await page
    .getByRole('radio', { name: `Orrelin C2140-3, serial 4471902, last ${tickets.of('waits-for-owner')}` })
    .check();
  await expect(page.getByRole('textbox', { name: 'Serial' })).toHaveValue('4471902');
  await page.getByRole('checkbox', { name: 'Loses time' }).check();
  await page.getByRole('checkbox', { name: 'The owner agrees to them' }).check();
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page.getByRole('img', { name: `Barcode of ticket ${tickets.next}` })).toBeVisible();

  await page.keyboard.press('2');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText('Opened last, 17 Mar 2026');
  await expect(lamp).toContainText('the tool went in at 6.5 o’clock');
  await alsoRecord(page, 'For next time');
  const note = card(page, 'For next time');
  await note.getByLabel('Note for next time').fill('the lip is worn: broad knife');
  await note.getByRole('button', { name: 'Record note' }).click();
  await expect(stands(page, 'For next time 1')).toContainText('the lip is worn: broad knife');
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('4');
  await page.getByRole('textbox', { name: 'Current' }).fill('1.61');
  await page.getByRole('textbox', { name: 'Current' }).press('Enter');
  await expect(card(page, 'Current').getByText('Current: 1.61 µA')).toBeVisible();

  await page.getByRole('link', { name: 'This watch was here once before' }).click();
  await expect(page.getByRole('heading', { name: 'Orrelin C2140-3, serial 4471902' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Visits', exact: true })).toContainText(tickets.next);
  await expect(page.getByRole('region', { name: 'Visits', exact: true })).toContainText(
    tickets.of('waits-for-owner'),
  );
  await expect(
    page.getByRole('img', { name: /Current\. 17 Mar 2026: 1.04 µA; 17 Mar 2026: 1.61 µA/ }),
  ).toBeVisible();
  await expect(page.getByRole('region', { name: 'Cells fitted' })).toContainText('SR626SW, lot S-6220');
  await expect(lamp).toContainText('the lip is worn: broad knife');
  await expectAccessible(page, 'watch');
});

test('a double click reminds one owner, not the next who moves up under it', async ({ bench: page }) => {
  await goTo(page, '/');
  const due = page.getByRole('region', { name: 'Reminders due' });
  const [first, second] = [due.getByRole('listitem').first(), due.getByRole('listitem').nth(1)];
  await expect(second).toBeVisible();
  const [done, next] = [await first.getAttribute('aria-label'), await second.getAttribute('aria-label')];
  await first.getByRole('button', { name: `${done}: reminded by phone` }).dblclick({ delay: 60 });
  await expect(due.getByRole('listitem', { name: done ?? '' })).toHaveCount(0);
  await expect(first).toHaveAttribute('aria-label', next ?? '');
  await page.reload();
  await expect(first).toHaveAttribute('aria-label', next ?? '');
  // Pressed again it is meant.
  await first.getByRole('button', { name: `${next}: reminded by phone` }).click();
  await expect(due.getByRole('listitem', { name: next ?? '' })).toHaveCount(0);
});

test('owners whose watch is due again are reminded, once', async ({ bench: page }) => {
  await goTo(page, '/');
  const due = page.getByRole('region', { name: 'Reminders due' });
  await expect(due).toContainText('due on');
  const first = due.getByRole('listitem').first();
  const ticket = (await first.getAttribute('aria-label')) ?? '';
  await expectAccessible(page, 'the day with owners to remind');
  await first.getByRole('button', { name: `${ticket}: reminded by phone` }).click();
  await expect(due.getByRole('listitem', { name: ticket })).toHaveCount(0);
  await page.reload();
  await expect(due).toContainText('due on');
  await expect(due.getByRole('listitem', { name: ticket })).toHaveCount(0);
  await typeAsDevice(page, ticket);
  await page.getByText(/Logbook of this job/).click();
  await expect(page.getByText('reminded of the next visit by phone').first()).toBeVisible();
});
