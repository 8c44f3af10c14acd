import type { FindResult } from '../src/contract';
import {
  atRest,
  card,
  correct,
  expect,
  goTo,
  jobId,
  openJob,
  seeUsual,
  takenIn,
  test,
  typeAsDevice,
} from './counter';

test.describe('devices that type', () => {
  test('a caliper’s or meter’s figure goes to the next measure wanted, never to a shortcut', async ({
    bench: page,
  }) => {
    await openJob(page, 'worn-engraving', 'check');
    await expect(page.getByRole('textbox', { name: 'Rest voltage' })).toBeVisible();
    await typeAsDevice(page, '1,31');
    await expect(page.getByRole('textbox', { name: 'Rest voltage' })).toHaveValue('1,31');
    await expect(page.getByText('Understood: 1.31 V')).toBeVisible();
    await expect(page).toHaveURL(/\/check$/);
  });

  test('a scanned ticket opens its job, wherever the focus is', async ({ rack: page, tickets }) => {
    await typeAsDevice(page, tickets.of('to-close'));
    await expect(page).toHaveURL(new RegExp(jobId('to-close')));
    await openJob(page, 'worn-engraving', 'identify');
    const field = page.getByRole('region', { name: 'Picked by hand' }).getByLabel('Calibre');
    await field.focus();
    await openJob(page, 'just-arrived', 'identify');
    const engraving = page.getByLabel('Engraving', { exact: true });
    await engraving.fill('OR 4');
    await engraving.focus();
    await typeAsDevice(page, tickets.of('to-close'));
    await expect(page).toHaveURL(new RegExp(jobId('to-close')));
    await page.goBack();
    await expect(engraving).not.toHaveValue(/T0/);
  });

  test('a figure goes into no text and no search: it is shown, and offered', async ({ bench: page }) => {
    await openJob(page, 'just-arrived', 'identify');
    const engraving = page.getByLabel('Engraving', { exact: true });
    await engraving.fill('OR 4');
    await engraving.focus();
    await typeAsDevice(page, '1.55V');
    await expect(engraving).toHaveValue('OR 4');
    const answer = page.getByText('1.55V was scanned, but no field here takes it.');
    await expect(answer).toBeVisible();
    await page.getByRole('button', { name: 'Enter in the last field' }).click();
    await expect(engraving).toHaveValue('1.55V');
    await page.keyboard.press('Escape');
    await openJob(page, 'worn-engraving', 'check');
    await expect(page.getByRole('textbox', { name: 'Rest voltage' })).toBeVisible();
    await page.keyboard.press('/');
    const find = page.getByRole('dialog', { name: 'Find' });
    await expect(find).toBeVisible();
    await typeAsDevice(page, '12.34');
    await expect(page.getByText('12.34 was scanned, but no field here takes it.')).toBeVisible();
    await expect(find.getByRole('textbox')).toHaveValue('');
  });

  test('a misread ticket is told, not opened', async ({ rack: page }) => {
    await typeAsDevice(page, 'T0010-0');
    await expect(page.getByText(/looks like a ticket, but its check digit/)).toBeVisible();
  });
});

test.describe('keys', () => {
  test('the overlay lists what works here, and single keys can be switched off', async ({ bench: page }) => {
    await openJob(page, 'to-close');
    await page.keyboard.press('?');
    const keys = page.getByRole('dialog', { name: 'Keys' });
    for (const label of ['New job', 'Undo your last entry', 'Open a stage of the job', 'Record the form'])
      await expect(keys).toContainText(label);
    await keys.getByRole('switch', { name: /Use single keys/ }).click();
    await page.keyboard.press('Escape');
    await expect(keys).toHaveCount(0);
    await page.keyboard.press('2', { delay: 20 });
    await atRest(page);
    await expect(page).toHaveURL(/\/seal$/);
  });

  test('digits open stages, / finds, Esc leaves a field', async ({ bench: page, tickets }) => {
    await openJob(page, 'to-close');
    await page.keyboard.press('3');
    await expect(page).toHaveURL(/\/identify$/);
    await page.keyboard.press('/');
    await page.getByLabel(/^Ticket, owner/).fill('thistlwick');
    await expect(
      page.getByRole('button', { name: new RegExp(`${tickets.of('to-set-and-prove')}.*Ragna Thistlewick`) }),
    ).toBeVisible();
    await page.getByLabel(/^Ticket, owner/).fill('sr 927 w');
    await expect(page.getByRole('dialog')).toContainText('As a cell: SR927W');
    await page.keyboard.press('Escape');
    await openJob(page, 'worn-engraving', 'check');
    await page.getByRole('textbox', { name: 'Current' }).focus();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('textbox', { name: 'Current' })).not.toBeFocused();
  });
});

test('the way on stands at the foot of a page longer than the screen', async ({ bench: page }) => {
  await openJob(page, 'worn-engraving', 'arrive');
  const wayOn = page.getByRole('link', { name: 'Continue: 3 Identify' });
  await expect(wayOn).toBeInViewport({ ratio: 1 });
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeGreaterThan(800);
  // What the keyboard comes to behind it is not hidden.
  await page.getByText(/^Logbook of this job/).scrollIntoViewIfNeeded();
  await expect(page.getByText(/^Logbook of this job/)).toBeInViewport();
});

test('n before anybody is at the bench goes on to the new job once somebody is', async ({ page }) => {
  await page.goto('/');
  const who = page.getByRole('dialog', { name: 'Who is at the bench?' });
  await expect(who).toBeVisible();
  await page.keyboard.press('n');
  await expect(who).toContainText('After that you can start a new job.');
  await who.getByRole('button', { name: /Edda/ }).click();
  await expect(page.getByRole('heading', { name: 'New job', level: 1 })).toBeVisible();
});

test.describe('the logbook', () => {
  test('a correction stands in place of the entry, and an undo brings the old one back', async ({
    bench: page,
  }) => {
    await openJob(page, 'draws-too-much', 'check');
    const current = card(page, 'Current');
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('2 times the limit');
    await correct(page, 'Current');
    await current.getByRole('textbox', { name: 'Current' }).fill('1.5');
    await current.getByRole('button', { name: 'Record the correction' }).click();
    await expect(current.getByText('Current: 1.5 µA')).toBeVisible();
    await page.getByText(/^Logbook of this job/).click();
    await expect(page.getByRole('row', { name: /Current: 4.85 µA corrected/ })).toBeVisible();
    await page.getByRole('heading', { level: 1 }).click();
    await page.keyboard.press('u');
    const dialog = page.getByRole('dialog', { name: 'Undo?' });
    await expect(dialog).toContainText('current: 1.5 µA');
    await page.keyboard.press('Enter');
    await expect(current.getByText('Current: 4.85 µA')).toBeVisible();
  });

  test('a conflict shows, names both, and is settled by a person', async ({ bench: page }) => {
    await openJob(page, 'conflict', 'check');
    const conflict = page.getByRole('region', { name: 'Conflict to settle' });
    await expect(conflict).toContainText('2 corrections');
    await conflict.getByRole('button', { name: 'Rest voltage: 1.54 V is right' }).click();
    await expect(conflict).toHaveCount(0);
    await expect(card(page, 'Rest voltage').getByText('Rest voltage: 1.54 V')).toBeVisible();
  });

  test('a stage is skipped only with a reason, which stays on the wick and on the record', async ({
    bench: page,
  }) => {
    await openJob(page, 'to-close', 'seal');
    await page.getByRole('button', { name: 'Skip this stage' }).click();
    const dialog = page.getByRole('dialog', { name: /Skip Seal and close/ });
    await dialog.getByRole('button', { name: 'Skip stage' }).click();
    await expect(dialog).toContainText('Reason: fill this in');
    await dialog.getByLabel('Reason').fill('owner closes it herself');
    await dialog.getByRole('button', { name: 'Skip stage' }).click();
    await expect(
      page.getByRole('link', { name: '6 Seal and close, skipped: owner closes it herself' }),
    ).toBeVisible();
    await page.keyboard.press('9');
    await expect(page.getByText('Seal and close not done: owner closes it herself.')).toBeVisible();
  });

  test('nothing is signed while a part lies on the tray', async ({ bench: page }) => {
    await openJob(page, 'part-on-the-tray', 'handback');
    await expect(page.getByRole('button', { name: 'Sign as EV' })).toBeDisabled();
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Still on the tray: screw');
    await page.keyboard.press('2');
    const tray = page.getByRole('region', { name: 'Parts tray' });
    await tray.getByRole('button', { name: /^4 × screw, 1 to 4.*: back in place$/ }).click();
    await tray.getByRole('button', { name: /^buzzer spring, .*: lost$/ }).click();
    await page.keyboard.press('9');
    const slip = page.getByRole('region', { name: 'Record for the owner' });
    await expect(slip).toContainText('Lost at our bench: buzzer spring.');
    await expect(page.getByRole('button', { name: 'Sign as EV' })).toBeDisabled();
    // Lost, it wants an order, and the alarm it serves proved once more.
    await page.keyboard.press('2');
    await tray.getByRole('button', { name: 'Add to the parts request' }).click();
    await page.keyboard.press('8');
    const functions = card(page, 'Functions of this movement');
    await correct(page, 'Functions of this movement');
    await functions.getByRole('button', { name: 'Record the correction' }).click();
    await page.keyboard.press('9');
    await expect(slip).toContainText('Lost at our bench: buzzer spring; a new one is on order.');
    await page.getByRole('button', { name: 'Sign as EV' }).click();
    await expect(page.getByRole('img', { name: 'Signed EV' })).toBeVisible();
  });

  test('a fact after the signature reopens the job and leaves the record given as it was', async ({
    bench: page,
  }) => {
    await openJob(page, 'waits-for-owner', 'check');
    const loaded = page.getByRole('textbox', { name: 'Voltage under load' });
    await loaded.fill('1.1');
    await loaded.press('Enter');
    await page.getByRole('link', { name: 'Continue: 9 Hand back' }).click();
    await expect(page.getByRole('region', { name: 'Signature' })).toContainText(
      'A later record reopened the job',
    );
    await page.getByRole('button', { name: 'Sign as EV' }).click();
    await expect(page.getByRole('img', { name: 'Signed EV' })).toBeVisible();
  });
});

test.describe('the cell stage', () => {
  test('warns of a look-alike found, and offers only lots that may go in', async ({ bench: page }) => {
    await openJob(page, 'overdue-at-the-cell', 'cell');
    const lamp = page.getByRole('complementary', { name: 'Lamp' });
    await expect(lamp).toContainText('SR612SW: never');
    await expect(lamp).toContainText('easily confused with SR621SW');
    const lots = page.getByRole('radiogroup', { name: 'Lot to take' });
    await expect(lots.getByRole('radio')).toHaveCount(2);
    await page.getByText('excluded').click();
    await expect(page.getByText(/NQ-118: Past its best-before date \(28 Feb 2026\)/)).toBeVisible();
    await lamp.getByRole('button', { name: 'Open all' }).click();
    await expect(lamp).toContainText('IEC 60086-3');
  });

  test('fits each of two cells in its own place, and takes them from stock', async ({ bench: page }) => {
    await openJob(page, 'two-cells', 'cell');
    await page.getByRole('button', { name: 'Fitted SR927SW from lot S-9270' }).click();
    const display = card(page, 'Display: cell found');
    await display.getByLabel('Marking of the old cell').fill('CR1612');
    await display.getByRole('button', { name: 'Record' }).click();
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText(
      'CR1612 is easily confused with CR1216',
    );
    await page.getByRole('button', { name: 'Fitted CR1216 from lot S-1216' }).click();
    await expect(card(page, 'Display: cell to fit')).toContainText('Fitted: CR1216');
    await page.goto('/stock');
    await expect(page.getByRole('row', { name: /SR927SW 7 S-9270/ })).toBeVisible();
    await expect(page.getByRole('row', { name: /CR1216 5 S-1216/ })).toBeVisible();
  });

  test('takes “no cell found” for an ordinary case', async ({ bench: page }) => {
    await openJob(page, 'draws-too-much', 'cell');
    await page.getByRole('button', { name: 'No cell was found' }).click();
    await expect(card(page, 'Cell found').getByText('No cell found')).toBeVisible();
    await expect(card(page, 'The old cell')).toHaveCount(0);
  });

  test('goes on with a movement that is not in the book', async ({ bench: page }) => {
    await openJob(page, 'worn-engraving', 'identify');
    const hand = page.getByRole('region', { name: 'Picked by hand' });
    await hand.getByRole('combobox', { name: 'Calibre' }).fill('XX 77');
    await hand.getByRole('button', { name: 'Confirm this movement' }).click();
    await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Not in the book');
    await page.keyboard.press('5');
    await page.getByLabel('Marking of the old cell').fill('371');
    const cellFound = card(page, 'Cell found');
    await seeUsual(cellFound, 'Cell found');
    await cellFound.getByRole('button', { name: 'Record' }).click();
    // It goes by the cell found, out of a lot with its date, like any other.
    const fit = card(page, 'Cell to fit');
    await fit.getByRole('button', { name: /^Fitted SR920SW from lot/ }).click();
    await expect(fit.getByText(/^Fitted: SR920SW, lot /)).toBeVisible();
    await expect(page.getByRole('region', { name: 'fitting guide' })).toContainText(
      'Not in the book and not recorded yet',
    );
  });
});

test.describe('what is typed wrongly', () => {
  test('is refused at the field, with the reason and a good value, and nothing typed is lost', async ({
    bench: page,
  }) => {
    await openJob(page, 'worn-engraving', 'check');
    const volts = page.getByRole('textbox', { name: 'Rest voltage' });
    await volts.fill('30');
    await volts.press('Enter');
    await expect(page.getByText(/plausible is 0 to 4.5 V; 30 is probably/)).toBeVisible();
    await volts.fill('one and a half');
    await expect(page.getByText(/is not one figure with a unit/)).toBeVisible();
    await volts.press('Enter');
    await expect(volts).toHaveValue('one and a half');
  });

  test('an intake without owner, complaint or consent stays and says what is wanted', async ({
    rack: page,
  }) => {
    await page.keyboard.press('n');
    await page.getByLabel('Serial').fill('K-1');
    await page.getByRole('button', { name: 'Take in' }).click();
    await expect(page.getByText('Name: fill this in, e.g. “Maren Oystrand”.')).toBeVisible();
    await expect(page.getByText(/pick it, or write it/)).toBeVisible();
    await page.reload();
    await expect(page.getByLabel('Serial')).toHaveValue('K-1');
  });

  test('an owner is found again, and the book fills in the case', async ({ rack: page, tickets }) => {
    await page.keyboard.press('n');
    await page.getByRole('combobox', { name: 'Owner' }).pressSequentially('Oystr');
    await page.getByRole('option', { name: /Maren Oystrand, 0555 0142/ }).click();
    await expect(page.getByLabel('Phone')).toHaveValue('0555 0142');
    await page.getByLabel('Reference').fill('k61/08');
    await expect(page.getByLabel('Maker')).toHaveValue('Pellorane');
    await expect(page.getByLabel('Water rating')).toHaveValue('5');
    await expect(page.getByLabel('Crown at')).toHaveValue('4');
    await page.getByRole('checkbox', { name: 'Loses time' }).check();
    await page.getByRole('checkbox', { name: 'The owner agrees to them' }).check();
    await page.getByRole('button', { name: 'Take in' }).click();
    await expect(page.getByText(tickets.next).first()).toBeVisible();
    const found = (await (await page.request.get('/api/find?q=Oystrand')).json()) as FindResult;
    expect(found.customers).toHaveLength(1);
    expect(found.jobs).toHaveLength(2);
  });

  test('an address that leads nowhere says so', async ({ bench: page }) => {
    for (const [path, what] of [
      ['/nowhere', 'page'],
      ['/jobs/018f3c1e-7a2b-7c3d-8e4f-5a6b7c8d9e0f', 'job'],
      [`/jobs/${jobId('to-close')}/polish`, 'stage'],
      ['/book/calibres/none', 'calibre'],
    ]) {
      await page.goto(path as string);
      await expect(page.getByRole('heading', { name: `There is no such ${what} here` })).toBeVisible();
    }
  });
});

test('what was done to the gasket is said by hand, beside an advice that thinks along', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'C2140-3', { service: 'cell and reseal' });
  await goTo(page, `/jobs/${id}/seal`);
  const gasket = card(page, 'Gasket');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(gasket.getByRole('radio', { checked: true })).toHaveCount(0);
  await gasket.getByRole('button', { name: 'Record' }).click();
  await expect(gasket.getByText(/Silicone grease: choose yes or no/)).toBeVisible();
  await gasket.getByLabel('Gasket age').fill('2');
  await expect(lamp).toContainText('Reuse');
  await gasket.getByRole('checkbox', { name: 'Nicked' }).check();
  await expect(lamp).toContainText('Renew');
  await expect(gasket.getByRole('radio', { checked: true })).toHaveCount(0);
  await gasket.getByRole('radio', { name: 'Left in place' }).check();
  await gasket.getByRole('radio', { name: 'None', exact: true }).check();
  await gasket.getByLabel('Reason for not following the advice').fill('the owner declined');
  await gasket.getByRole('button', { name: 'Record' }).click();
  await expect(gasket.getByText('Gasket left in place')).toBeVisible();
  await expect(lamp).toContainText('Decided differently: the owner declined');
});

test('the tool and its spot go with the kind of back', async ({ bench: page }) => {
  await openJob(page, 'just-arrived', 'open');
  await expect(page.getByLabel('Position of the tool')).toHaveValue('6.5');
  await page.getByRole('button', { name: 'Measure' }).click();
  await page.getByLabel('Kind of back').selectOption('screwed, notched');
  await expect(page.getByLabel('Opened with')).toHaveValue('two- or three-jaw wrench');
  await expect(page.getByLabel('Position of the tool')).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Order of work' })).toContainText(
    'Jaws that slip scratch the back',
  );
});

test('goods are booked in once, read by the lamp, and refused where they make no sense', async ({
  bench: page,
}) => {
  await page.goto('/stock');
  await page.getByLabel('Code as printed').fill('SR 621 SW');
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('SR621SW');
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Easily confused with');
  await page.getByLabel('Supplier').fill('Nettle & Quay Supplies');
  await page.getByLabel('Lot', { exact: true }).fill('NQ-300');
  await page.getByLabel('Best before').fill('1926-01-01');
  await page.getByRole('button', { name: 'Book in' }).click();
  await expect(page.getByText(/Best before: a day in the wrong century/)).toBeVisible();
  await page.getByLabel('Best before').fill('2028-10-31');
  await page.getByRole('button', { name: 'Book in' }).click();
  await expect(page.getByText(/Price each: a sum/)).toBeVisible();
  await expect(page.getByText(/How many: between/)).toBeVisible();
  await page.getByLabel('Price each').fill('0,62');
  await card(page, 'Goods in').getByLabel('How many').fill('10');
  await page.getByRole('button', { name: 'Book in' }).click();
  await expect(page.getByText('10 of SR 621 SW booked in, lot NQ-300.')).toBeVisible();
  await expect(page.getByRole('row', { name: /SR621SW 10 NQ-300/ })).toBeVisible();
});
