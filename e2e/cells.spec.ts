import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { demoId } from '../demo/build';
import type { Lot } from '../src/core/craft/stock';
import {
  alsoRecord,
  card,
  expect,
  expectAccessible,
  goTo,
  openJob,
  recorded,
  seeUsual,
  setDevice,
  takenIn,
  test,
  typeAsDevice,
} from './counter';

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp' });

test('a half-legible marking comes back as alternatives, and the evidence says which source is wrong', async ({
  bench: page,
}) => {
  await openJob(page, 'draws-too-much', 'cell');
  await page.getByLabel('Marking of the old cell').fill('SR9?0W');
  await expect(lampOf(page)).toContainText('Partly legible');
  await expect(lampOf(page)).toContainText('SR920W');
  await page.getByLabel('Marking of the old cell').fill('ML920');
  await expect(lampOf(page)).toContainText('Rechargeable');
  await page.getByLabel('Marking of the old cell').fill('SR92O SW');
  await seeUsual(card(page, 'Cell found'), 'Cell found');
  await card(page, 'Cell found').getByRole('button', { name: 'Record' }).click();
  // Low drain where the chronograph draws: the same size, so the witnesses agree, but it is no.
  await expect(lampOf(page)).toContainText('SR920SW: nearly');
  await openJob(page, 'overdue-at-the-cell', 'cell');
  await expect(lampOf(page)).toContainText('the cell found is probably wrong');
  await expect(lampOf(page)).toContainText('Measure the depth of the well');
  // The measure that tells is taken where it is asked for.
  await lampOf(page).getByRole('textbox', { name: 'Across the well' }).fill('7.0');
  await page.getByRole('textbox', { name: 'Depth of the well' }).fill('2.35');
  await page.getByRole('textbox', { name: 'Depth of the well' }).press('Enter');
  await expect(card(page, 'The well measured').getByText('Well 7 mm across, 2.35 mm deep')).toBeVisible();
  await expect(lampOf(page)).toContainText('SR621SW: the cell found is probably wrong');
});

test('the fitting guide is ticked with one key, a fresh cell is loose until it is fitted, alkaline on the owner’s word', async ({
  bench: page,
}) => {
  await openJob(page, 'overdue-at-the-cell', 'cell');
  const guide = card(page, 'fitting guide');
  await expect(guide).toContainText('Push the cell against the spring first');
  await expect(guide.getByRole('note').filter({ hasText: 'the spring folds under it' })).toHaveCount(1);
  await guide.getByRole('checkbox', { name: 'Note how everything lies: done' }).check();
  await expect(guide).toContainText('1 of 10 done');
  await page.keyboard.press('Escape');
  await page.keyboard.press('a');
  await expect(guide).toContainText('10 of 10 done');
  await expect(card(page, 'How long it lasts')).toContainText(/\d+ to \d+ months/);
  await expectAccessible(page, 'the cell stage');

  const fit = card(page, 'Cell to fit');
  await expect(fit).toContainText('LR621 saves 0.50 EUR; a leak would cost 15.00 EUR to 38.00 EUR.');
  await expect(fit.getByRole('radio', { name: /LR621/ })).toHaveCount(0);
  await fit.getByRole('checkbox', { name: /The owner agrees to an alkaline cell/ }).check();
  await fit.getByRole('radio', { name: /LR621/ }).check();
  await fit.getByRole('button', { name: 'Fresh cell out of its blister' }).click();
  await expect(card(page, 'Loose: LR621')).toBeVisible();
  await fit.getByRole('button', { name: 'Fitted LR621 from lot NQ-204' }).click();
  await expect(card(page, 'Loose: LR621')).toHaveCount(0);
  await expect(fit).toContainText('Fitted: LR621, lot NQ-204');
  await goTo(page, '/stock');
  await expect(page.getByRole('row', { name: /LR621 19 NQ-204/ })).toBeVisible();
});

test('a dropped cell pauses the job until somebody was told', async ({ bench: page }) => {
  await openJob(page, 'overdue-at-the-cell', 'cell');
  await alsoRecord(page, 'A cell was dropped');
  const drop = card(page, 'A cell was dropped');
  await drop.getByLabel('Where it fell').fill('under the bench');
  await drop.getByRole('button', { name: 'Record' }).click();
  const paused = card(page, 'Dropped');
  await expect(paused).toContainText('If a child or an animal swallows it');
  await expect(page.getByRole('button', { name: /^Fitted SR621SW/ })).toHaveCount(0);
  await expect(card(page, 'Cell to fit')).toContainText('The job is paused');
  await paused.getByLabel('Who was informed, where was searched').fill('head of the shop, floor swept');
  await paused.getByRole('button', { name: 'Record' }).click();
  await expect(paused).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Fitted SR621SW/ })).toBeVisible();
});

test('the day closes only once each loose cell is somewhere', async ({ bench: page, tickets }) => {
  await goTo(page, '/stock/day');
  await page.getByRole('button', { name: 'Close the day' }).click();
  await expect(page.getByRole('alert')).toContainText('button cells are unaccounted for');
  await expectAccessible(page, 'the close of the day');
  for (const [marking, key] of [
    ['SR612SW', 'overdue-at-the-cell'],
    ['395', 'two-cells'],
  ] as const) {
    const loose = card(page, `${marking} of ${tickets.of(key)}`);
    await loose.getByRole('button', { name: 'Taped, in the bin' }).click();
    await expect(loose).toHaveCount(0);
  }
  await page.getByRole('button', { name: 'Close the day' }).click();
  await expect(page.getByText('The day is closed.').first()).toBeVisible();
  await expect(lampOf(page)).toContainText('17 Mar 2026');
});

test('a delivery that comes wrong is told line by line, set apart, and not booked twice', async ({
  bench: page,
}) => {
  await setDevice(page, 'supplier', { leadHours: 0, wrongPercent: 100, shortPercent: 0, fault: 'none' });
  await goTo(page, '/stock/orders');
  await page.getByLabel('Supplier', { exact: true }).fill('Saltmarsh Wholesale');
  await page.getByLabel('Cell or ring 1').fill('CR 1216');
  await expect(page.getByText(/● CR1216: lithium/)).toBeVisible();
  await page.getByLabel('How many 1').fill('5');
  await page.getByRole('button', { name: 'Send order' }).click();
  await expect(page.getByText('The supplier accepted the order.')).toBeVisible();
  // The demo has a delivery waiting already; the newest stands first.
  await expect(page.getByRole('button', { name: /^Receive note/ })).toHaveCount(2);
  await page
    .getByRole('button', { name: /^Receive note/ })
    .first()
    .click();
  const compared = page.getByRole('table', { name: 'Order and delivery compared' });
  await expect(compared).toContainText('5 × CR1216');
  await expect(compared).toContainText('another cell');
  await expect(compared).toContainText('easily confused');
  await expectAccessible(page, 'a delivery');
  await compared.getByRole('combobox').selectOption('into quarantine');
  await page.getByRole('button', { name: 'Book in delivery' }).click();
  await expect(page.getByText(/is booked in\.$/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Receive note/ })).toHaveCount(1);
  await expect(lampOf(page)).toContainText('In quarantine');
  await expect(card(page, 'Suppliers')).toContainText('Saltmarsh Wholesale: 1 delivery, 1 wrong');
});

test('a sample by the bench meter sets a doubtful lot aside, and a lot is traced to its watches', async ({
  bench: page,
}) => {
  await setDevice(page, 'bench-meter', {
    restVoltageV: 1.44,
    loadedVoltageV: 1.12,
    currentUA: 1.04,
    stoppedCurrentUA: 0.21,
    coilKOhm: 1.82,
    lowestRunningV: 1.14,
    rateSPerDay: 0.32,
    pulsesEveryS: 1,
    noisePercent: 0,
    fault: 'none',
  });
  await goTo(page, '/stock');
  await page.getByRole('button', { name: 'More of lot S-6220 of SR626SW' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByRole('region', { name: 'Sample' })
    .getByRole('button', { name: /take it from the bench meter/ })
    .click();
  await expect(dialog.getByRole('textbox', { name: 'Rest voltage' })).toHaveValue(/1\.44/);
  // What its print looks like is seen by nobody but the one who looks.
  await dialog.getByRole('button', { name: 'Record the sample' }).click();
  await expect(dialog.getByRole('region', { name: 'Sample' })).toContainText('Print on the cell: one of');
  await dialog.getByRole('radiogroup', { name: 'Print on the cell' }).getByRole('radio').first().check();
  await dialog.getByRole('button', { name: 'Record the sample' }).click();
  await expect(dialog).toContainText('In quarantine: 1.44 V is low');
  await expectAccessible(page, 'a lot');
  await dialog.getByRole('link', { name: 'Watches with a cell of this lot' }).click();
  await expect(page).toHaveURL(/\/stock\/trace/);
  const carried = page.getByRole('table', { name: 'Watches with this lot' });
  await expect(carried.getByRole('row').nth(1)).toContainText('SR626SW');
  await expect(carried.getByRole('row').nth(1)).toContainText(/0555/);
  await expectAccessible(page, 'a lot traced');
});

test('the finder finds by any name, by what the caliper says, and compares to scale', async ({
  bench: page,
}) => {
  await goTo(page, '/cells');
  await page.getByLabel('Name, or calibre').fill('sr 621');
  const found = card(page, 'Found');
  await expect(found.getByRole('row').nth(1)).toContainText('SR621');
  await page.getByLabel('Name, or calibre').fill('');
  await page.getByRole('textbox', { name: 'Across' }).fill('9.52');
  await page.getByRole('textbox', { name: 'Height' }).fill('2.05');
  await expect(found.getByRole('row').nth(1)).toContainText('9.5 × 2.1 mm');
  await found.getByRole('checkbox').nth(0).check();
  await page.getByRole('textbox', { name: 'Height' }).fill('2.7');
  await expect(found.getByRole('row').nth(1)).toContainText('× 2.7');
  await found.getByRole('checkbox').nth(0).check();
  const beside = card(page, 'Side by side');
  await expect(beside.getByRole('img')).toHaveCount(2);
  await expect(beside).toContainText('0.6 mm less');
  await expectAccessible(page, 'the finder');
  await page.getByLabel('Name, or calibre').fill('OR 41.2');
  await expect(card(page, 'By calibre')).toContainText('OR 41.2 takes SR621SW');
});

test('a cell that is in it is left, changed or recalled by what is known of it', async ({ bench: page }) => {
  const id = await takenIn(page, 'C2140-3', { service: 'reseal and test' });
  await goTo(page, `/jobs/${id}/cell`);
  await page.getByLabel('Marking of the old cell').fill('364');
  await seeUsual(card(page, 'Cell found'), 'Cell found');
  await card(page, 'Cell found').getByRole('button', { name: 'Record' }).click();
  await expect(lampOf(page)).toContainText('Cell in the watch');
  await expect(lampOf(page)).toContainText('proves little');
});

test('how long it lasts goes by how the owner uses it', async ({ bench: page }) => {
  await openJob(page, 'draws-too-much', 'cell');
  const life = card(page, 'How long it lasts');
  const months = async (): Promise<number> =>
    Number(/(\d+) to \d+ months/.exec((await life.textContent()) ?? '')?.[1] ?? 'NaN');
  await expect(life).toContainText(/\d+ to \d+ months/);
  await expect(life.getByRole('img', { name: /one in ten ends before/i })).toBeVisible();
  const before = await months();
  await alsoRecord(page, 'How it is used');
  const usage = card(page, 'How it is used');
  await usage.getByRole('textbox', { name: 'chronograph, a day' }).fill('43200');
  await usage.getByRole('button', { name: 'Record' }).click();
  await expect(usage).toContainText('Used daily: chronograph 43200 s');
  await expect.poll(months).toBeLessThan(before);
  await expect(life).toContainText('serviced, at');
});

test('what the cells of a supplier did here stands beside the forecast, and brings the visit forward', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'C2140-3', { service: 'cell only' });
  await recorded(page, id, 'identify.movement', {
    calibreId: 'orrelin-41-6',
    code: 'OR 41.6',
    revision: null,
    by: 'engraving',
    note: '',
  });
  await recorded(page, id, 'cell.found', { marking: 'SR626SW', condition: 'clean' });
  await goTo(page, `/jobs/${id}/cell`);
  const life = card(page, 'How long it lasts');
  const fit = card(page, 'Cell to fit');
  // Its cells leak and die early here: it stands behind, whatever its date.
  await expect(fit.getByRole('radio').first()).toHaveAccessibleName(/Saltmarsh Wholesale/);
  await expect(fit.getByRole('radio', { name: /S-6220/ })).toBeChecked();
  await fit.getByRole('radio', { name: /NQ-131/ }).check();
  await expect(life).toContainText(
    /SR626SW of Nettle & Quay Supplies lasted 0\.[78]\d? × the forecast here, [\d.]+ to 0\.\d+: \d+ of \d+ fitted here came back/,
  );
  await expect(life).toContainText('before the early end, from the life of these cells in this shop');
  await expect(life.getByRole('row', { name: /NQ-131/ })).toContainText('as here');
  // What is chosen is what is told of, before it goes in.
  await fit.getByRole('radio', { name: /S-6220/ }).check();
  await expect(life).toContainText('SR626SW of Saltmarsh Wholesale lasted');
  await expect(life.getByRole('row', { name: /NQ-131/ })).toContainText('as here');
  await fit.getByRole('radio', { name: /NQ-131/ }).check();
  await expect(life).toContainText('SR626SW of Nettle & Quay Supplies lasted');
  await fit.getByRole('radio', { name: /S-6220/ }).check();
  await fit.getByRole('button', { name: 'Fitted SR626SW from lot S-6220' }).click();
  await expect(life).toContainText('SR626SW of Saltmarsh Wholesale lasted');
  await expect(life).toContainText(/before the early end\./);
});

test('a pair is taken from one lot, and the reset contact is the one its print names', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'Q 228', { service: 'cell only' });
  await recorded(page, id, 'identify.movement', {
    calibreId: 'quillbeck-22-8',
    code: 'QB 22-8',
    revision: null,
    by: 'engraving',
    note: '',
  });
  await goTo(page, `/jobs/${id}/cell`);
  const hands = card(page, 'Hands: cell to fit');
  await expect(lampOf(page)).toContainText('All 2 from this lot. They are a set.');
  await card(page, 'Hands: cell found').getByRole('button', { name: 'No cell was found' }).click();
  await hands.getByRole('radio', { name: /NQ-131/ }).check();
  await hands.getByRole('button', { name: 'Fitted SR626SW from lot NQ-131' }).click();
  const display = card(page, 'Display: cell to fit');
  await expect(display.getByRole('radio', { name: /NQ-131/ })).toBeChecked();
  await display.getByRole('button', { name: 'Fitted SR626SW from lot NQ-131' }).click();
  await expect(display).toContainText('Fitted: SR626SW, lot NQ-131');
  await expect(card(page, 'display: fitting guide')).toContainText('Join the reset contact');
  await expect(card(page, 'display: fitting guide')).toContainText('as printed: “AC + SHORT”');
});

test('a forecast that breaks off is told, and drawn again on demand', async ({ bench: page }) => {
  await page.route(/life\.worker/, (route) => route.abort());
  await openJob(page, 'draws-too-much', 'cell');
  const life = page.getByRole('region', { name: 'How long it lasts' });
  await expect(life).toContainText('The forecast failed. The life of this cell is not known.');
  await page.unrouteAll();
  await life.getByRole('button', { name: 'Calculate again' }).click();
  await expect(life).toContainText(/\d+ to \d+ months/);
});

test('a forecast is stopped and drawn again', async ({ bench: page }) => {
  // The worker does not come before the drawing was stopped, however long that takes.
  let stopped = (): void => undefined;
  const untilStopped = new Promise<void>((resolve) => (stopped = resolve));
  await page.route(/life\.worker/, async (route) => {
    await untilStopped;
    // The page may have given it up meanwhile.
    await route.continue().catch(() => undefined);
  });
  await openJob(page, 'draws-too-much', 'cell');
  const life = card(page, 'How long it lasts');
  await expect(life.getByRole('progressbar', { name: 'Calculating the forecast' })).toBeVisible();
  await life.getByRole('button', { name: 'Stop' }).click();
  await expect(life).toContainText('The forecast was stopped.');
  stopped();
  await expect(life).not.toContainText(/\d+ to \d+ months/);
  await life.getByRole('button', { name: 'Calculate again' }).click();
  await expect(life).toContainText(/\d+ to \d+ months/);
});

test('goods in by a scanner: the box says its cell, lot, date and count', async ({ bench: page }) => {
  await goTo(page, '/stock');
  const goods = card(page, 'Goods in');
  await expect(goods).toBeVisible();
  // The machine is busy: the first sign comes well ahead of the rest.
  await typeAsDevice(page, '(240)CR1216(10)SM-77(17)320930(30)20', 600);
  await expect(goods.getByLabel('Code as printed')).toHaveValue('CR1216');
  await expect(goods.getByLabel('Lot')).toHaveValue('SM-77');
  await expect(goods.getByLabel('Best before')).toHaveValue('2032-09-30');
  await expect(goods.getByLabel('How many')).toHaveValue('20');
  await expect(lampOf(page)).toContainText('CR1612');
  // A scan into a field is typed as it is and sends nothing.
  await goods.getByLabel('Supplier').focus();
  await typeAsDevice(page, 'Saltmarsh Wholesale');
  await expect(goods.getByLabel('Supplier')).toHaveValue('Saltmarsh Wholesale');
  await expect(goods.getByText(/wanted|Required/)).toHaveCount(0);
  await typeAsDevice(page, '(17)321330');
  await expect(page.getByRole('alert').filter({ hasText: '(17)321330 is not a date.' })).toBeVisible();
  await goods.getByLabel('Price each').fill('0.99');
  await goods.getByRole('button', { name: 'Book in' }).click();
  await expect(goods).toContainText('20 of CR1216 booked in, lot SM-77.');
});

test('a delivery comes after its lead time, its note is read from a file, and comes short', async ({
  bench: page,
}) => {
  await setDevice(page, 'supplier', { leadHours: 0.002, wrongPercent: 0, shortPercent: 100, fault: 'none' });
  await goTo(page, '/stock/orders');
  await page.getByLabel('Supplier', { exact: true }).fill('Saltmarsh Wholesale');
  await page.getByLabel('Cell or ring 1').fill('CR2016');
  await page.getByLabel('How many 1').fill('10');
  await page.getByRole('button', { name: 'Send order' }).click();
  const coming = card(page, 'On order');
  await expect(coming).toContainText('10 × CR2016. Due Tue 17 Mar');
  await expect(coming).toContainText('10 × CR2016. Delivered, note', { timeout: 30_000 });
  const saved = page.waitForEvent('download');
  await coming
    .getByRole('link', { name: /as CSV$/ })
    .first()
    .click();
  const note = await (await saved).path();
  await page.getByLabel('Delivery note as CSV').setInputFiles(note);
  const compared = page.getByRole('table', { name: 'Order and delivery compared' });
  await expect(compared).toContainText('10 × CR2016');
  await expect(compared).toContainText('short');
  await expect(page.getByText('nothing is booked yet')).toBeVisible();
  await page.getByRole('button', { name: 'Book in delivery' }).click();
  await expect(page.getByText(/is booked in\.$/)).toBeVisible();
  await page.getByLabel('Delivery note as CSV').setInputFiles(note);
  await page.getByRole('button', { name: 'Book in delivery' }).click();
  await expect(page.getByText(/is booked in already/)).toBeVisible();
});

test('what is said of a loose cell while the server is away is kept', async ({ bench: page, tickets }) => {
  await goTo(page, '/stock/day');
  const loose = card(page, `SR612SW of ${tickets.of('overdue-at-the-cell')}`);
  await expect(loose).toBeVisible();
  await page.route('**/api/jobs/**', (route) => route.abort());
  await loose.getByRole('button', { name: 'Taped, in the bin' }).click();
  await expect(loose).toContainText('It is recorded when the server is back');
  await page.unroute('**/api/jobs/**');
  await expect(loose).toHaveCount(0, { timeout: 20_000 });
});

test('what runs low is ordered from the lamp of its job, and from the list beside the order', async ({
  bench: page,
}) => {
  const { lots } = (await (await page.request.get('/api/stock')).json()) as {
    lots: Lot[];
  };
  for (const [lotCode, counted] of [
    ['S-5107', 2],
    ['S-6031', 1],
  ] as const) {
    const lot = lots.find((each) => each.lotCode === lotCode);
    const answer = await page.request.post('/api/lots/count', {
      data: {
        id: randomUUID(),
        lotId: lot?.id,
        balanceSeen: lot?.balance,
        unbookedSeen: lot?.unbooked,
        counted,
        reason: 'counted by hand',
        technicianId: demoId('technician', 'edda'),
      },
    });
    expect(answer.status()).toBe(201);
  }
  const id = await takenIn(page, 'C0915-2', { service: 'cell only' });
  await recorded(page, id, 'identify.movement', {
    calibreId: 'orrelin-47-1',
    code: 'OR 47.1',
    revision: null,
    by: 'engraving',
    note: '',
  });
  await goTo(page, `/jobs/${id}/cell`);
  await expect(lampOf(page)).toContainText('Only 2 left.');
  await lampOf(page).getByRole('link', { name: 'Write order' }).click();
  await expect(page.getByLabel('Cell or ring 1')).toHaveValue('SR521SW');
  await expect(page.getByRole('button', { name: /^SR521SW,/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'SR616SW, 1 left' }).click();
  await expect(page.getByLabel('Cell or ring 2')).toHaveValue('SR616SW');
  await page.getByRole('button', { name: 'Send order' }).click();
  await expect(card(page, 'On order')).toContainText('10 × SR521SW, 10 × SR616SW');
  await expect(page.getByRole('button', { name: 'SR616SW, 1 left' })).toHaveCount(0);
});

test('an order is refused at the field that is wrong, and lines left blank are not sent', async ({
  bench: page,
}) => {
  await goTo(page, '/stock/orders');
  const order = card(page, 'Order');
  await order.getByLabel('Supplier').fill('Saltmarsh Wholesale');
  await order.getByRole('button', { name: 'Send order' }).click();
  await expect(order.getByLabel('Cell or ring 1')).toBeFocused();
  await expect(order.getByLabel('Cell or ring 1')).toHaveAccessibleDescription(/^Cell or ring: /);
  await order.getByRole('button', { name: 'Add line' }).click();
  await order.getByLabel('Cell or ring 2').fill('SR621SW');
  await order.getByLabel('How many 2').fill('none');
  await order.getByRole('button', { name: 'Send order' }).click();
  await expect(order.getByLabel('How many 1')).toBeFocused();
  await order.getByLabel('How many 1').fill('4');
  await expectAccessible(page, 'an order');
  await order.getByRole('button', { name: 'Send order' }).click();
  await expect(card(page, 'On order')).toContainText(/: 4 × SR621SW\./);
  await expect(order.getByLabel('Cell or ring 1')).toHaveValue('');
});

test('a caliper that types fills in the finder, across first, then the height', async ({ bench: page }) => {
  await goTo(page, '/cells');
  await expect(page.getByRole('textbox', { name: 'Across' })).toBeVisible();
  await page.keyboard.press('Escape');
  await typeAsDevice(page, '+0006.83 mm');
  await expect(page.getByRole('textbox', { name: 'Across' })).toHaveValue('+0006.83 mm');
  await typeAsDevice(page, '+0002.12 mm');
  await expect(page.getByRole('textbox', { name: 'Height' })).toHaveValue('+0002.12 mm');
  await expect(card(page, 'Found').getByRole('row').nth(1)).toContainText('6.8 × 2.1');
});

test('a kit out of its blister is loose until the accumulator is renewed', async ({ bench: page }) => {
  const id = await takenIn(page, 'V210-1', { service: 'recharge or new accumulator' });
  await recorded(page, id, 'identify.movement', {
    calibreId: 'vessarin-210s',
    code: 'V-210S',
    revision: null,
    by: 'engraving',
    note: '',
  });
  await goTo(page, `/jobs/${id}/cell`);
  await card(page, 'The kit').getByRole('button', { name: 'Fresh cell out of its blister' }).click();
  await expect(card(page, 'Loose: KT-V21')).toBeVisible();
  await seeUsual(card(page, 'Accumulator renewed'), 'Accumulator renewed');
  await card(page, 'Accumulator renewed')
    .getByLabel('Reason for skipping the test charge')
    .fill('it swelled');
  await card(page, 'Accumulator renewed').getByRole('button', { name: 'Renewed' }).click();
  await expect(card(page, 'Loose: KT-V21')).toHaveCount(0);
  // The guide for its holder stands there too, and the old accumulator is asked after.
  await expect(card(page, 'fitting guide')).toContainText('Loosen the bridge');
  await expect(card(page, 'The old cell')).toContainText('Taped, into the spent bin');
});
