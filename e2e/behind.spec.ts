import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from '../src/testing/serverProcess';
import {
  alsoRecord,
  card,
  expect,
  goTo,
  jobId,
  openJob,
  recorded,
  sitDown,
  stands,
  takenIn,
  test,
} from './counter';

let folder: string;
test.beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wax-files-'));
});
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** A file on disk to choose in the browser. */
function file(name: string, content: string | Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

test('the policy: ways of working, prices and what a service asks for hold at once, and nonsense is refused', async ({
  bench: page,
}) => {
  // A plain back asks for no film by itself: only the shop's way of working does.
  const plainBack = await takenIn(page, 'Q224B');
  const orderOfWork = page.getByRole('region', { name: 'Order of work' });
  await goTo(page, `/jobs/${plainBack}/open`);
  await expect(orderOfWork).toContainText('Protect the back with film');
  await goTo(page, '/policy');
  const form = page.getByRole('form', { name: 'Policy' });
  await form.getByRole('radio', { name: /^Bare tool/ }).check();
  await form.getByLabel('Cell only', { exact: true }).fill('17.50');
  await form.getByText('Cell only requires 15 facts').click();
  await form
    .getByRole('group', { name: 'cell only, Seal and close' })
    .getByLabel('how it was closed')
    .uncheck();
  await form.getByRole('button', { name: 'Save policy' }).click();
  await expect(form).toContainText('what is opened is closed again; ask for both');
  await form
    .getByRole('group', { name: 'cell only, Seal and close' })
    .getByLabel('how it was closed')
    .check();
  await form
    .getByRole('group', { name: 'cell only, Arrive' })
    .getByLabel('use and exposure to water')
    .check();
  await form.getByRole('button', { name: 'Save policy' }).click();
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Revision 2');
  await openJob(page, 'just-arrived', 'arrive');
  await expect(card(page, 'Use and exposure to water')).toBeVisible();
  await goTo(page, `/jobs/${plainBack}/open`);
  await expect(orderOfWork).toContainText('0 of ');
  await expect(orderOfWork).not.toContainText(/film/i);
  await openJob(page, 'just-arrived', 'open');
  // The shop's way is advised among the steps; what was done nobody fills in.
  await expect(card(page, 'Case back').getByRole('radio', { checked: true })).toHaveCount(0);
  await page.keyboard.press('n');
  await expect(page.getByText('Price from the list: 17.50 EUR')).toBeVisible();
});

test('the book: a calibre is corrected with its history kept, refused where it contradicts itself, entered anew', async ({
  bench: page,
}) => {
  await goTo(page, '/book/calibres/orrelin-41-2');
  await page.getByRole('button', { name: 'Edit' }).click();
  const form = page.getByRole('form', { name: 'Edit calibre' });
  await form.getByLabel('Current limit').fill('0.2');
  await form.getByRole('button', { name: 'Save to book' }).click();
  await expect(form.getByText('is under what is typical').first()).toBeVisible();
  await form.getByLabel('Current limit').fill('1.55');
  await form.getByRole('button', { name: 'Save to book' }).click();
  await expect(page.getByRole('region', { name: 'At the bench' })).toContainText('at most 1.55 µA');
  await expect(page.getByRole('region', { name: 'Revisions' })).toContainText('limitUA: 1.4 → 1.55');
  await expect(page.getByRole('region', { name: 'Revisions' })).toContainText('EV');

  await goTo(page, '/book/makers/new');
  const maker = page.getByRole('form', { name: 'New maker' });
  await maker.getByLabel('Id:').fill('Not An Id');
  await maker.getByLabel('Name', { exact: true }).fill('Thornquay');
  await maker.getByRole('button', { name: 'Another pattern' }).click();
  await maker.getByLabel('Pattern', { exact: true }).fill('TQ dd');
  await maker.getByRole('button', { name: 'Save to book' }).click();
  await expect(maker).toContainText('small letters, digits and dashes');
  await maker.getByLabel('Id:').fill('thornquay');
  await maker.getByRole('button', { name: 'Save to book' }).click();
  await expect(page.getByRole('heading', { name: 'Thornquay' })).toBeVisible();
  await page.getByRole('button', { name: 'Remove from the book' }).click();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByRole('region', { name: 'Makers', exact: true })).not.toContainText('Thornquay');
});

test('a table of the book: bad lines are listed and nothing changes, a good one shows what it would change first', async ({
  bench: page,
}) => {
  await goTo(page, '/book/cases');
  const csv = await (await page.request.get('/api/catalogue/tables/case-types.csv')).text();
  /** A line of the table: what is not said stays empty, but from where its lip is seen. */
  const line = (id: string, maker: string, code: string): string => {
    const said: Readonly<Record<string, string>> = {
      id,
      maker_id: maker,
      code,
      back_kind: 'snap-on',
      rating_bar: '3',
      crown_clock: '3',
      lip_seen_from: 'behind',
    };
    const columns = csv.split('\r\n')[0]?.split(',') ?? [];
    return `${columns.map((column) => said[column] ?? '').join(',')}\r\n`;
  };
  await page.getByRole('button', { name: 'CSV export and import' }).click();
  const table = page.getByRole('region', { name: 'Import case-types' });
  const chooser = page.getByLabel('CSV file for case-types');
  await chooser.setInputFiles(
    file('bad.csv', `${csv}x1,orrelin,C1"23-4,snap-on,3,3,,\r\n${line('x2', 'nobody', 'C1234-5')}`),
  );
  await expect(table).toContainText('Nothing was changed: 2 of');
  await expect(table.getByRole('row', { name: /quotation mark/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /maker_id Maker “nobody” is not in the book/ })).toBeVisible();
  await chooser.setInputFiles(
    file(
      'good.csv',
      `${csv.replace('C2140-3,snap-on,3,', 'C2140-3,snap-on,5,')}${line('x1', 'orrelin', 'C1234-5')}`,
    ),
  );
  await expect(table).toContainText('To add: 1, to change: 1');
  await expect(table).toContainText('c2140-3: ratingBar');
  await table.getByRole('button', { name: 'Apply changes' }).click();
  await expect(table).toContainText('Added: 1, changed: 1');
  await expect(page.getByRole('row', { name: /C1234-5/ })).toBeVisible();
});

test('devices: connected and disconnected, a fault says what to do, labels and messages go out', async ({
  bench: page,
}) => {
  await goTo(page, '/devices');
  const printer = page.getByRole('region', { name: 'Label printer' });
  await printer.getByText('What this stand-in simulates').click();
  await printer.getByLabel('Fault').selectOption('out of labels');
  await printer.getByRole('button', { name: 'Save settings' }).click();
  await expect(printer).toContainText('■ out of labels');
  await openJob(page, 'just-arrived', 'arrive');
  await page.getByRole('button', { name: 'Print the label' }).click();
  await expect(page.getByText('Label printer: out of labels. Insert a new roll of labels.')).toBeVisible();
  await goTo(page, '/devices');
  await printer.getByText('What this stand-in simulates').click();
  await printer.getByLabel('Fault').selectOption('none');
  await printer.getByRole('button', { name: 'Save settings' }).click();
  await expect(printer).toContainText('● connected');
  await openJob(page, 'waits-for-owner', 'handback');
  await page.getByRole('button', { name: 'Tell the owner it is ready' }).click();
  await expect(page.getByText(/By phone to the owner of T\d+-\d: your watch is ready/)).toBeVisible();
  await goTo(page, '/devices');
  await page.getByRole('button', { name: 'Try the device: Caliper' }).click();
  await expect(page.getByRole('region', { name: 'Caliper' }).getByRole('status')).toContainText(
    /\+0030\.\d\d mm/,
  );
  await page.getByRole('button', { name: 'Disconnect: Bench meter' }).click();
  await openJob(page, 'just-arrived', 'check');
  await expect(page.getByRole('textbox', { name: 'Current', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Current: take it from the bench meter' })).toHaveCount(0);
});

test('the stock: a lot is counted, spent cells are collected against a receipt, loose cells are named', async ({
  bench: page,
  tickets,
}) => {
  await goTo(page, '/stock');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText(
    `${tickets.of('overdue-at-the-cell')}: SR612SW, out of the watch and not accounted for.`,
  );
  await page.getByRole('button', { name: 'Count lot S-6104 of SR621SW' }).click();
  const count = page.getByRole('dialog', { name: 'Count lot S-6104 of SR621SW' });
  await count.getByLabel('Counted').fill('11');
  await count.getByLabel('Reason').fill('counted at closing');
  await count.getByRole('button', { name: 'Counted' }).click();
  await expect(page.getByRole('row', { name: /SR621SW 11 S-6104/ })).toBeVisible();
  const bin = page.getByRole('region', { name: 'Spent cells' });
  await bin.getByRole('textbox', { name: 'Cells' }).fill('9999');
  await bin.getByLabel('Receipt').fill('VHT-2301');
  await bin.getByRole('button', { name: 'Collected' }).click();
  await expect(bin).toContainText('Weight');
  await bin.getByLabel('Weight').fill('12.5');
  await bin.getByRole('button', { name: 'Collected' }).click();
  await expect(bin).toContainText('not 9999. Count the bin again.');
  await bin.getByRole('textbox', { name: 'Cells' }).fill('5');
  // Another bench tapes a cell into it meanwhile: what is typed stays.
  await recorded(page, jobId('overdue-at-the-cell'), 'cell.old-settled', { taped: true, to: 'spent bin' });
  await expect(lamp).not.toContainText('SR612SW, out of the watch and not accounted for.');
  await expect(bin.getByLabel('Receipt')).toHaveValue('VHT-2301');
  await bin.getByRole('button', { name: 'Collected' }).click();
  await expect(bin).toContainText('5 cells, 12.5 g, receipt VHT-2301');
});

test('photographs go with what was found; one of 60 MB is refused in words', async ({ bench: page }) => {
  await openJob(page, 'just-arrived', 'open');
  await alsoRecord(page, 'As found, before anything is touched');
  const found = card(page, 'As found, before anything is touched');
  await found.getByLabel('Photo or file').setInputFiles(file('huge.jpg', Buffer.alloc(60 * 1024 * 1024)));
  await expect(
    page.getByText('huge.jpg: The file is too large. A file can have at most 50 MB.'),
  ).toBeVisible();
  await found
    .getByLabel('Photo or file')
    .setInputFiles(join('src', 'server', 'devices', 'drivers', 'pictures', 'movement.png'));
  await expect(found.getByRole('img', { name: 'movement.png' })).toBeVisible();
  await found.getByRole('checkbox', { name: 'Tool marks' }).check();
  await found.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(found.getByText('As found: tool marks')).toBeVisible();
  await expect(found).toContainText('1 file');
  await page.reload();
  await found.getByRole('button').click();
  await expect(found.getByRole('img', { name: 'movement.png' })).toBeVisible();
});

test('a job goes to another counter as a file and arrives whole, once', async ({
  bench: page,
  browser,
  tickets,
}) => {
  const saved = await (await page.request.get(`/api/jobs/${jobId('to-close')}/job.json`)).text();
  const elsewhere = join(folder, 'elsewhere');
  const server = await startServer(elsewhere);
  try {
    const context = await browser.newContext({ baseURL: server.url });
    const there = await context.newPage();
    await sitDown(there);
    const added = await there.request.post(`${server.url}/api/technicians`, {
      data: { id: '018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f', name: 'Una Saltmere', initials: 'US' },
    });
    expect(added.status()).toBe(201);
    await there.addInitScript(() =>
      localStorage.setItem(
        'wax-lantern.bench',
        JSON.stringify({
          name: 'bench',
          technicianId: '018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f',
          singleKeys: true,
        }),
      ),
    );
    await there.goto('/new');
    const chooser = there.getByLabel('Job file from another counter');
    await chooser.setInputFiles(file('holiday.json', '{"format":"album"}'));
    await expect(there.getByText('This is not a job or visit from a Wax Lantern counter.')).toBeVisible();
    await chooser.setInputFiles(file('damaged.json', saved.replace('"open.as-found"', '"open.as-lost"')));
    await expect(there.getByText(/entries\.\d+\.kind/)).toBeVisible();
    await expect(there.getByRole('navigation', { name: 'Rack' })).toContainText('No watch is waiting');
    await chooser.setInputFiles(file('job.json', saved));
    await expect(there.getByRole('heading', { level: 1 })).toContainText('T0001-8');
    await there.getByRole('link', { name: /^1 Arrive, / }).click();
    await expect(there.getByRole('region', { name: 'Visit' })).toContainText(
      `Imported from another counter, where it was ${tickets.of('to-close')}.`,
    );
    await there.getByRole('link', { name: /^2 Open, / }).click();
    const asFound = stands(there, 'As found, before anything is touched');
    await asFound.getByRole('button').click();
    await expect(asFound.getByRole('img', { name: 'leaked-cell.png' })).toBeVisible();
    await there.goto('/new');
    await chooser.setInputFiles(file('again.json', saved));
    await expect(there.getByRole('heading', { level: 1 })).toContainText('T0001-8');
    await expect(there.getByRole('navigation', { name: 'Rack' }).getByRole('link')).toHaveCount(1);
    await context.close();
  } finally {
    await server.end('SIGTERM');
  }
});
