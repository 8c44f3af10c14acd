import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import {
  alsoRecord,
  card,
  expect,
  expectAccessible,
  goTo,
  openJob,
  recorded,
  seeUsual,
  stands,
  sitDown,
  takenIn,
  test,
  typeAsDevice,
} from './counter';

const MOVEMENT = join('src', 'server', 'devices', 'drivers', 'pictures', 'movement.png');

async function toOpen(page: Page, id: string): Promise<void> {
  await goTo(page, `/jobs/${id}/open`);
  await expect(page.getByRole('region', { name: 'Order of work' })).toBeVisible();
}

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp' });
const order = (page: Page) => page.getByRole('region', { name: 'Order of work' });
const tray = (page: Page) => page.getByRole('region', { name: 'Parts tray' });
const caseBack = (page: Page) => card(page, 'Case back');

/** All steps as shown, and how the back came off. */
async function openedFreely(page: Page): Promise<void> {
  await page.keyboard.press('a');
  await expect(tray(page)).toContainText('back');
  await seeUsual(caseBack(page), 'Case back');
  await caseBack(page).getByRole('button', { name: 'Record' }).click();
  await expect(caseBack(page)).toContainText('with case knife');
}

test('one watch of each kind of back: its own opener, its own order, one key, everything on the tray', async ({
  bench: page,
}) => {
  test.setTimeout(120_000);
  const kinds: readonly {
    reference: string;
    opener: string;
    steps: readonly string[];
    onTray: readonly string[];
    figures?: readonly string[];
  }[] = [
    {
      reference: 'C0915-2',
      opener: 'case knife',
      // Nobody saw what holds the strap: no bar lies on the tray.
      steps: ['Move the strap or bracelet out of the way', 'Case knife in at 3 o’clock, seen from behind'],
      onTray: ['back'],
    },
    {
      reference: 'C2210-1',
      opener: 'hand wrench, three jaws',
      steps: ['Move the strap or bracelet out of the way', 'Press down and turn', 'Spin it off'],
      onTray: ['back', 'gasket'],
      figures: ['25.63 mm', '22.2 mm'],
    },
    {
      reference: 'VC210-04',
      opener: 'bench wrench, three jaws',
      steps: ['Set bench wrench, three jaws'],
      onTray: ['back'],
      figures: ['24.6 mm', '21.3 mm'],
    },
    {
      reference: 'C3312-4',
      opener: 'die 12/30.5 in die holder',
      steps: ['Assemble die 12/30.5 in die holder'],
      onTray: ['back'],
      figures: ['shank S5'],
    },
    {
      reference: '418D-20',
      opener: 'screwdriver 1.4',
      steps: ['Undo 4 screws crosswise', 'Lift the plate level'],
      onTray: ['4 × screw', 'plate'],
    },
    {
      reference: '377A-05',
      opener: 'case knife',
      steps: ['under the bezel in at 9 o’clock, seen from the dial', 'Take dial and movement out together'],
      onTray: ['bezel', 'movement'],
    },
    {
      reference: 'Q224B',
      opener: 'hatch key',
      steps: ['Mark the angle of the hatch', 'Turn the hatch with hatch key'],
      onTray: ['hatch'],
    },
    {
      reference: 'DK114',
      opener: 'thumbs, then blunt blade',
      steps: [
        'Hold the watch steady on the mat',
        'Slide the lock to open',
        'Loosen the adhesive',
        'Lift the panel',
      ],
      onTray: ['panel', 'adhesive'],
    },
  ];
  for (const { reference, opener, steps, onTray, figures = [] } of kinds) {
    await test.step(reference, async () => {
      await toOpen(page, await takenIn(page, reference));
      await expect(lampOf(page)).toContainText(opener);
      for (const words of figures) await expect(lampOf(page)).toContainText(words);
      for (const words of steps) await expect(order(page)).toContainText(words);
      await expect(
        lampOf(page).getByRole('img', { name: /^The case from (behind|the dial), to scale/ }),
      ).toBeVisible();
      await expect(caseBack(page).getByLabel('Opened with')).toHaveValue(opener);
      await page.keyboard.press('a');
      for (const part of onTray) await expect(tray(page)).toContainText(part);
      // How it went nobody saw yet.
      await expect(caseBack(page).getByRole('radio', { checked: true })).toHaveCount(0);
    });
  }
});

test('a back nobody knows is measured with the caliper; the drawing and the setting move along', async ({
  bench: page,
}) => {
  await toOpen(page, await takenIn(page, 'unmarked'));
  const form = card(page, 'Case back, measured');
  await expect(lampOf(page)).toContainText('The kind of back is not recorded yet');
  await expect(order(page)).not.toContainText('Lift the back');
  await form.getByLabel('Kind of back').selectOption('screwed, notched');
  await expect(lampOf(page)).toContainText('Measure first: the number of notches');
  await form.getByLabel('Notches').fill('8');
  await page.keyboard.press('Escape');
  // The count is no measure of a caliper: the figure goes to the first length still empty.
  await typeAsDevice(page, '+0002.20 mm');
  await expect(form.getByRole('textbox', { name: 'Width of a notch', exact: true })).toHaveValue(
    '+0002.20 mm',
  );
  await form.getByRole('textbox', { name: 'Pitch circle', exact: true }).fill('34,2');
  await expect(lampOf(page)).toContainText('bench wrench, three jaws');
  const drawing = lampOf(page).getByRole('img', { name: /^The case from behind/ });
  await expect(drawing).toHaveAttribute('aria-label', /jaws 24\.18 mm apart and 29\.19 mm to the rear jaw/);
  await form.getByRole('textbox', { name: 'Pitch circle', exact: true }).fill('30');
  await expect(drawing).toHaveAttribute('aria-label', /jaws 21\.21 mm apart/);

  // The chord of an odd count takes the circle's place.
  await form.getByRole('textbox', { name: 'Pitch circle', exact: true }).fill('');
  await form.getByLabel('Notches').fill('5');
  await form.getByRole('textbox', { name: 'Distance to the farthest notch', exact: true }).fill('28.53');
  await expect(drawing).toHaveAttribute('aria-label', /jaws 17\.63 mm apart/);

  // What cannot be is refused, in words that say which contradicts which.
  await form.getByRole('textbox', { name: 'Width of a notch', exact: true }).fill('19');
  await expect(lampOf(page)).toContainText('5 notches 19 mm wide need 95 mm');
  await form.getByRole('button', { name: 'Record' }).click();
  await expect(form).toContainText('the circumference of a 30 mm pitch circle is only 94.24 mm');
  await form.getByLabel('Notches').fill('1');
  await expect(lampOf(page)).toContainText('One notch is not enough for a wrench');
  await form.getByLabel('Notches').fill('5');
  await form.getByRole('textbox', { name: 'Width of a notch', exact: true }).fill('2.6');
  await form.getByRole('button', { name: 'Record' }).click();
  await expect(form).toContainText('Back measured: screwed, notched, 5 notches');
  await lampOf(page).getByText('Other ways, and why not').click();
  await expect(lampOf(page)).toContainText('off centre: it tips and slips');
  await expectAccessible(page, 'a measured back');

  // A setting over the travel of the tool named is refused at its field.
  await seeUsual(caseBack(page), 'Case back');
  await caseBack(page).getByRole('textbox', { name: 'Front pair set to' }).fill('48');
  await caseBack(page).getByRole('button', { name: 'Record' }).click();
  await expect(caseBack(page)).toContainText('48 mm is outside the travel of');
  await caseBack(page).getByRole('textbox', { name: 'Front pair set to' }).fill('17.6');
  await caseBack(page).getByRole('button', { name: 'Record' }).click();
  await expect(caseBack(page)).toContainText('Back opened: screwed, notched, with hand wrench, three jaws');
  await expect(caseBack(page)).toContainText('set to 17.6 mm, rear 27.13 mm');
});

test('the drawing is calibrated once and then stands to size', async ({ bench: page }) => {
  await openJob(page, 'just-arrived', 'open');
  const drawing = page.getByRole('img', { name: /^The case from behind/ });
  await page.getByRole('button', { name: 'Actual size' }).click();
  const dialog = page.getByRole('dialog', { name: 'Drawings to size on this screen' });
  await expect(dialog.getByRole('img', { name: 'A bar of 85.6 mm' })).toBeVisible();
  await dialog.getByRole('slider', { name: 'Length of the bar' }).focus();
  await page.keyboard.press('Home');
  for (let press = 0; press < 3; press += 1) await page.keyboard.press('PageUp');
  await expectAccessible(page, 'calibrating');
  const perMm = Number((await dialog.getByText('pixels per millimetre').textContent())?.split(' ')[0]);
  await dialog.getByRole('button', { name: 'Save scale' }).click();
  // The back of this case is 32.8 mm across, drawn with 5 mm round it.
  const wide = (await drawing.boundingBox())?.width ?? 0;
  expect(Math.abs(wide - (32.8 + 10) * perMm)).toBeLessThan(1);
  await page.reload();
  await page.getByRole('button', { name: 'Actual size' }).click();
  await expect(dialog).toHaveCount(0);
  expect(Math.abs(((await drawing.boundingBox())?.width ?? 0) - wide)).toBeLessThan(1);
});

test('where nothing of the shop opens it: refer, or buy, and whether that pays', async ({ bench: page }) => {
  await toOpen(page, await takenIn(page, 'unmarked'));
  const form = card(page, 'Case back, measured');
  await form.getByLabel('Kind of back').selectOption('screwed, patterned');
  await form.getByRole('textbox', { name: 'Flats', exact: true }).fill('12');
  await form.getByRole('textbox', { name: 'Across the flats', exact: true }).fill('31.9');
  await expect(lampOf(page)).toContainText('Look at the teeth');
  await form.getByLabel('Form of the teeth').selectOption('flat facets');
  await expect(lampOf(page)).toContainText('No die of this shop');
  await expect(lampOf(page)).toContainText(
    'die 12/31.5, is 0.4 mm too small across the flats. Do not use the nearest size.',
  );
  await expect(lampOf(page)).toContainText('a die of 12 flats, 31.9 mm across');
  await expect(order(page)).toContainText('Stop: refer the watch, or buy the tool');
  await expect(order(page).getByRole('button', { name: /All done as shown/ })).toHaveCount(0);
  await lampOf(page).getByLabel('The tool costs, EUR').fill('21.00');
  await expect(lampOf(page)).toContainText('After 4 jobs');
  await lampOf(page).getByRole('link', { name: 'Refer it at stage 1' }).click();
  await expect(page.getByRole('link', { name: /^1 Arrive, / })).toHaveAttribute('aria-current', 'step');
});

test('steps are ticked one by one; a part lost adds its proof, its order and its line', async ({
  bench: page,
}) => {
  const id = await takenIn(page, '418D-20');
  await toOpen(page, id);
  await order(page).getByRole('checkbox', { name: 'Clean the rim: done' }).check();
  await expect(order(page)).toContainText('1 of 7 done');
  await order(page).getByRole('checkbox', { name: 'Undo 4 screws crosswise: done' }).check();
  await expect(tray(page)).toContainText('4 × screw, 1 to 4, clockwise from 12, seen from behind');
  await order(page).getByRole('checkbox', { name: 'Lift the plate level: done' }).check();
  await alsoRecord(page, 'Part removed');
  const off = card(page, 'Part removed');
  await off.getByLabel('Part', { exact: true }).selectOption('buzzer spring');
  await off.getByLabel('Where it sat').fill('beneath the plate, upright');
  // Another bench lays a part on the tray meanwhile: what is typed here stays.
  await recorded(page, id, 'open.part', {
    part: 'insulator',
    position: 'in the well',
    count: 1,
    serves: [],
    step: '',
  });
  await expect(tray(page)).toContainText('insulator, in the well');
  await off.getByLabel('Photo or file').setInputFiles(MOVEMENT);
  await expect(off.getByRole('img', { name: 'movement.png' })).toBeVisible();
  await off.getByRole('button', { name: 'Add to tray' }).click();
  await expect(tray(page)).toContainText('used for: alarm');
  await expect(tray(page).getByRole('img', { name: 'movement.png' })).toBeVisible();
  await tray(page)
    .getByRole('button', { name: '4 × screw, 1 to 4, clockwise from 12, seen from behind: place, photo' })
    .click();
  await tray(page).getByLabel('Where it sat', { exact: true }).fill('1 to 4; 3 is the short one');
  await tray(page).getByRole('button', { name: 'Record the correction' }).click();
  await expect(tray(page)).toContainText('4 × screw, 1 to 4; 3 is the short one');
  await tray(page).getByRole('button', { name: 'buzzer spring, beneath the plate, upright: lost' }).click();
  await expect(tray(page)).toContainText('Lost, to be ordered: buzzer spring');
  await goTo(page, `/jobs/${id}/handback`);
  const slip = page.getByRole('region', { name: 'Record for the owner' });
  await expect(slip).toContainText('Lost at our bench: buzzer spring.');
  await expect(lampOf(page)).toContainText('Lost and not ordered: buzzer spring.');
  await expect(lampOf(page)).toContainText('alarm heard, since the buzzer spring was lost');
  await goTo(page, `/jobs/${id}/open`);
  await tray(page).getByRole('button', { name: 'Add to the parts request' }).click();
  await expect(tray(page)).not.toContainText('to be ordered');
  await tray(page)
    .getByRole('button', { name: /^All 4 back in place/ })
    .click();
  await expect(lampOf(page)).toContainText('Nothing open');
  await goTo(page, `/jobs/${id}/handback`);
  await expect(slip).toContainText('Lost at our bench: buzzer spring; a new one is on order.');
});

test('photographs are added, pasted and marked, and stand beside what this shop leaves', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'C2140-3');
  await toOpen(page, id);
  await alsoRecord(page, 'As found, before anything is touched');
  const found = card(page, 'As found, before anything is touched');
  await found.getByRole('button', { name: 'Take a photo' }).click();
  await expect(found.getByRole('img')).toHaveCount(1);
  const bytes = readFileSync(join('src', 'server', 'devices', 'drivers', 'pictures', 'back.png')).toString(
    'base64',
  );
  await found.getByRole('group', { name: 'Photos and files' }).evaluate((element, base64) => {
    const data = new DataTransfer();
    const content = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
    data.items.add(new File([content], 'pasted.png', { type: 'image/png' }));
    element.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  }, bytes);
  // A picture this counter has already keeps the name it came with.
  await expect(found.getByRole('img', { name: 'back.png' })).toBeVisible();
  await found.getByRole('checkbox', { name: 'Tool marks' }).check();
  await found.getByRole('button', { name: 'Record', exact: true }).click();

  const marked = page.getByRole('region', { name: 'Photographs' });
  await marked.getByRole('button', { name: 'Mark back.png' }).click();
  await marked.locator('figure').click({ position: { x: 100, y: 80 } });
  await expect(marked.getByRole('textbox', { name: 'Across' })).not.toHaveValue('50');
  await marked.getByLabel('What it shows').selectOption('tool mark');
  await marked.getByRole('radio', { name: 'An earlier hand' }).check();
  await marked.getByLabel('Note').fill('beside the notch');
  await marked.getByRole('button', { name: 'Set the mark' }).click();
  await expect(
    marked.getByRole('img', { name: /marked: tool mark, an earlier hand: beside the notch/ }),
  ).toBeVisible();
  // The same from the keyboard: by arrow keys, or by two figures in percent.
  await marked.getByRole('button', { name: /^The mark: 50 % across, 50 % down/ }).press('ArrowRight');
  await expect(marked.getByRole('textbox', { name: 'Across' })).toHaveValue('52');
  await marked.getByRole('button', { name: /^The mark: 52 % across/ }).press('Shift+ArrowUp');
  await expect(marked.getByRole('textbox', { name: 'Down' })).toHaveValue('49.5');
  await marked.getByRole('textbox', { name: 'Across' }).fill('62');
  await marked.getByRole('textbox', { name: 'Down' }).fill('40,5');
  await marked.getByLabel('What it shows').selectOption('residue');
  await marked.getByRole('radio', { name: 'This shop' }).check();
  await marked.getByRole('button', { name: 'Set the mark' }).click();
  await marked.getByRole('button', { name: 'All photographs' }).click();
  await expect(marked).toContainText('2 □ residue, this shop');
  await expectAccessible(page, 'marked photographs');

  await goTo(page, `/jobs/${id}/seal`);
  const beside = page.getByRole('region', { name: 'Photographs' });
  await expect(beside).toContainText('1 ○ tool mark, an earlier hand: beside the notch');
  const asClosed = card(page, 'Closing check');
  await asClosed.getByRole('button', { name: 'Take a photo' }).click();
  await asClosed.getByLabel('Changes made here').fill('contact straightened');
  await asClosed.getByRole('button', { name: 'Record' }).click();
  await expect(stands(page, 'Closing check')).toContainText('Closing check: contact straightened');
  // Before and now are zoomed and moved together, by buttons, keys and wheel.
  const views = beside.locator('.react-transform-component');
  const placesOf = () => views.evaluateAll((all) => all.map((one) => (one as HTMLElement).style.transform));
  await expect(views).toHaveCount(2);
  await beside.getByRole('button', { name: 'Zoom both in' }).click();
  const together = async (): Promise<string> => {
    const [left = '', right] = await placesOf();
    expect(left).toBe(right);
    return left;
  };
  const zoomed = await together();
  expect(zoomed).toContain('scale(1.5)');
  await beside.getByRole('group', { name: /^As found and now/ }).press('ArrowLeft');
  expect(await together()).not.toBe(zoomed);
  await views.first().hover();
  await page.mouse.wheel(0, -200);
  await expect.poll(async () => (await placesOf())[0]).not.toContain('scale(1.5)');
  await expect.poll(async () => new Set(await placesOf()).size).toBe(1);
  await beside.getByRole('button', { name: 'Show all of both' }).click();
  await expect(beside.getByRole('status')).toHaveText('100 %');
  await expectAccessible(page, 'as found, and now');
});

test('a second watch opened beside one with a serial in its back: warned, and both paired at closing', async ({
  bench: page,
  counter,
  browser,
}) => {
  const [a, b] = [await takenIn(page, 'C2140-3'), await takenIn(page, 'C2140-3')];
  await toOpen(page, a);
  await openedFreely(page);
  await alsoRecord(page, 'Serial inside the back');
  const serial = card(page, 'Serial inside the back');
  await serial.getByLabel('Serial inside the back').fill('55-120');
  await serial.getByRole('button', { name: 'Record' }).click();
  await expect(serial).toContainText('Serial inside the back: 55-120');

  const other = await browser.newPage({ baseURL: counter.url });
  await sitDown(other, 'milo', 'second bench');
  await other.goto(`/jobs/${b}/open`);
  // A window of its own loads the whole application anew, beside everything else that runs.
  await expect(lampOf(other)).toBeVisible({ timeout: 60_000 });
  await expect(lampOf(other)).toContainText('Open one watch at a time');
  await expect(lampOf(other)).toContainText('with serial 55-120 inside the back');
  await expect(order(other)).toBeVisible();
  await openedFreely(other);
  await expect(caseBack(other)).not.toContainText('waiting to be saved');
  await other.goto(`/jobs/${b}/seal`);
  const paired = other.getByRole('region', { name: 'Back and case paired' });
  await paired.getByLabel('Serial in the back').fill('55120');
  await paired.getByRole('button', { name: 'Record' }).click();
  await expect(lampOf(other)).toContainText('Exchanged');
  await expect(lampOf(other)).toContainText('the two backs are exchanged. Open both watches again.');
  await other.close();

  await goTo(page, `/jobs/${a}/seal`);
  const own = card(page, 'Back and case paired');
  await expect(own).toContainText('55-120 is expected');
  await own.getByLabel('Serial in the back').fill('55120');
  await own.getByRole('button', { name: 'Record' }).click();
  await expect(lampOf(page)).toContainText('Paired');
});

test('what worked last time comes first', async ({ bench: page }) => {
  await openJob(page, 'draws-too-much', 'open');
  await order(page).getByText('Show the steps').click();
  await expect(order(page).getByRole('listitem').first()).toContainText(
    'Open it as last time: three-jaw wrench',
  );
  await expect(order(page).getByRole('listitem').first()).toContainText('current near its limit');
});

test('the tools page: what each served, a new one entered, contradictions refused, a table in', async ({
  bench: page,
}) => {
  await goTo(page, '/tools');
  const wrenches = page.getByRole('region', { name: 'Wrenches', exact: true });
  await expect(wrenches.getByRole('row', { name: /hand wrench, three jaws/ })).toContainText(/\d+, last/);
  await expect(wrenches.getByRole('row', { name: /hand wrench, three jaws/ })).toContainText('EUR earned');
  await lampOf(page).getByLabel('The tool costs, EUR').fill('145');
  await lampOf(page).getByLabel('Jobs per month that need it').fill('2');
  await expect(lampOf(page)).toContainText('After 25 jobs');
  await expectAccessible(page, 'tools');

  await wrenches.getByRole('link', { name: 'New wrench' }).click();
  const form = page.getByRole('form', { name: 'New wrench' });
  await form.getByLabel(/^Id/).fill('wide-wrench');
  await form.getByLabel(/^Name/).fill('wide wrench');
  await form.getByLabel('It cost').fill('99');
  await form.getByRole('textbox', { name: 'Jaws open from', exact: true }).fill('40');
  await form.getByRole('textbox', { name: 'Jaws open to', exact: true }).fill('20');
  await form.getByRole('textbox', { name: 'Rear jaw from', exact: true }).fill('10');
  await form.getByRole('textbox', { name: 'Rear jaw to', exact: true }).fill('44');
  await form.getByLabel('Jaw widths, mm').fill('2.4 3');
  await form.getByRole('button', { name: 'Save to book' }).click();
  await expect(form).toContainText('The jaws open from 40 mm to 20 mm: the maximum is below the minimum.');
  await form.getByRole('textbox', { name: 'Jaws open from', exact: true }).fill('20');
  await form.getByRole('textbox', { name: 'Jaws open to', exact: true }).fill('50');
  await form.getByRole('button', { name: 'Save to book' }).click();
  await expect(page.getByRole('heading', { name: 'wide wrench' })).toBeVisible();

  await goTo(page, '/tools');
  await page.getByRole('button', { name: 'CSV export and import: Screwdrivers' }).click();
  await page.getByLabel('CSV file for drivers').setInputFiles({
    name: 'drivers.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'id,name,cost_minor,blade_width_mm,blade_thickness_mm\ndriver-25,screwdriver 2.5,900,2.5,0.4\n',
    ),
  });
  await expect(page.getByText('To add: 1')).toBeVisible();
  await page.getByRole('button', { name: 'Apply changes' }).click();
  await expect(page.getByRole('row', { name: /screwdriver 2.5/ })).toBeVisible();
});
