import type { Page } from '@playwright/test';
import { expect, expectAccessible, goTo, openJob, setDevice, takenIn, test } from './counter';

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp' });
const seen = (page: Page) => page.getByRole('region', { name: 'Observations' });
const candidates = (page: Page) => page.getByRole('region', { name: 'Candidates' });
const counts = (page: Page) => page.getByRole('list', { name: 'Evidence', exact: true });
const movement = (page: Page) => page.getByRole('region', { name: 'Movement', exact: true });
/** Among what is seen, or in the lamp where it is the next look. */
const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });

async function toIdentify(page: Page, reference: string): Promise<string> {
  const id = await takenIn(page, reference);
  await goTo(page, `/jobs/${id}/identify`);
  await expect(seen(page)).toBeVisible();
  await expect(lampOf(page)).not.toContainText('Searching the book');
  return id;
}

async function typed(page: Page, name: string, text: string): Promise<void> {
  await field(page, name).fill(text);
  await field(page, name).press('Enter');
}

test('by its engraving: the ranking follows each key, and says why', async ({ bench: page }) => {
  await toIdentify(page, 'C2140-3');
  await page.getByLabel('Engraving', { exact: true }).pressSequentially('OR 41.?');
  await expect(candidates(page)).toContainText('worn character taken as');
  await page.getByLabel('Engraving', { exact: true }).press('Backspace');
  await page.getByLabel('Engraving', { exact: true }).pressSequentially('2');
  await page.getByLabel('Engraving', { exact: true }).press('Enter');
  await candidates(page).getByRole('button', { name: 'Why OR 41.2' }).click();
  const why = candidates(page).getByRole('list', { name: 'Evidence for and against OR 41.2' });
  await expect(why).toContainText('every character agrees');
  await expect(why).toContainText('for it, ×');
  await expect(counts(page)).toContainText('case C2140-3, from arrival');
  await page.getByRole('button', { name: 'Confirm OR 41.2' }).click();
  await expect(movement(page)).toContainText('OR 41.2');
  await movement(page).getByRole('link', { name: 'Its page in the book' }).click();
  await expect(page.getByRole('region', { name: 'At the bench' })).toContainText('SR621SW, + up, side lever');
});

test('by a worn mark; each piece is taken back, and what another stage recorded is left out', async ({
  bench: page,
}) => {
  await toIdentify(page, 'K61/08');
  await typed(page, 'Mark on the movement', 'PL 6?8O');
  await expect(lampOf(page)).toContainText('PL 6180');
  await seen(page).getByLabel('Cell held by').selectOption('screwed bridge');
  await expect(counts(page)).toContainText('cell held by screwed bridge');
  await counts(page).getByRole('button', { name: 'Remove: cell held by' }).click();
  await expect(counts(page)).not.toContainText('screwed bridge');
  await counts(page).getByRole('button', { name: 'Remove: mark on the movement' }).click();
  await expect(counts(page)).not.toContainText('PL 6?8O');
  await counts(page).getByRole('button', { name: 'Remove: case type' }).click();
  await expect(counts(page)).toContainText('case type: left out');
  await expect(lampOf(page)).toContainText('Not yet known');
  await counts(page).getByRole('button', { name: 'Use again: case type' }).click();
  await expect(counts(page)).toContainText('case K61/08, from arrival');
  await expect(lampOf(page)).toContainText('PL ');
});

test('by measures alone, with the caliper and in lignes; the lamp names the next look and what it would mean', async ({
  bench: page,
}) => {
  await toIdentify(page, 'unmarked');
  await seen(page).getByLabel('Shape').selectOption('oblong');
  await expect(lampOf(page)).toContainText('Next look');
  await expect(lampOf(page)).toContainText(/then [A-Z]{2}/);
  await setDevice(page, 'caliper', { valueMm: 14.2, unit: 'mm', fault: 'none' });
  await seen(page).getByRole('button', { name: 'Width: take it from the caliper' }).click();
  await expect(field(page, 'Width')).toHaveValue(/14\./);
  await field(page, 'Width').press('Enter');
  await expect(counts(page)).toContainText(/width 14\.\d+ mm/);
  await typed(page, 'Length', '18,38');
  await typed(page, 'Height', '2.2');
  await expect(lampOf(page)).toContainText('QB 31-2');
  await page.getByRole('button', { name: 'Confirm QB 31-2' }).click();
  await expect(movement(page)).toContainText('by evidence');
  await typed(page, 'Width', '6¼ lignes');
  await expect(counts(page)).toContainText('width 6¼‴');
  await expectAccessible(page, 'identification with evidence');
});

test('the maker’s sign is picked from drawings; two candidates stand side by side', async ({
  bench: page,
}) => {
  await toIdentify(page, 'unmarked');
  await seen(page).getByRole('button', { name: 'stair' }).click();
  await typed(page, 'Width', '19.6');
  await expect(candidates(page)).toContainText('QB 15-1');
  await candidates(page).getByText('Two side by side').click();
  await candidates(page).getByLabel('One', { exact: true }).selectOption({ label: 'QB 15-1' });
  await candidates(page).getByLabel('The other').selectOption({ label: 'QB 15-7' });
  const table = candidates(page).getByRole('table', { name: 'Differences' });
  await expect(table.getByRole('row', { name: /^date none 3 a glance/ })).toBeVisible();
  await expect(table.getByRole('row', { name: /cell height/ })).toContainText('cell lifted');
});

test('the next look is answered where it is asked, with a key; what cannot be seen is not asked again', async ({
  bench: page,
}) => {
  await openJob(page, 'worn-engraving', 'identify');
  const jewels = lampOf(page).getByRole('group', { name: 'Jewels' });
  await expect(jewels.getByRole('button', { name: '2 jewels' })).toBeVisible();
  await jewels.getByRole('button', { name: 'Cannot see it' }).click();
  await expect(counts(page)).toContainText('jewels: cannot be seen');
  await expect(jewels).toHaveCount(0);
  await expect(lampOf(page).getByRole('group', { name: 'Date' })).toBeVisible();
  await page.getByRole('button', { name: 'Use again: jewels' }).click();
  await expect(jewels).toBeVisible();
  await page.getByRole('heading', { level: 1 }).click();
  // The likelier answer has the first key, and which that is turns on what the shop saw before.
  const one = jewels.getByRole('button', { name: '1 jewel' });
  await page.keyboard.press((await one.textContent())?.includes('q') === true ? 'q' : 'w');
  await expect(counts(page)).toContainText('jewels 1');
  await expect(lampOf(page)).toContainText('PL 6180, over 99 %');
  await page.keyboard.press('z');
  await expect(movement(page)).toContainText('PL 6180');
});

test('revisions are told apart by what differs, and the cell follows', async ({ bench: page }) => {
  await toIdentify(page, 'unmarked');
  await typed(page, 'Mark on the movement', 'OR 41.6');
  await expect(lampOf(page)).toContainText('The revision of OR 41.6');
  await seen(page)
    .getByLabel('Revision of OR 41.6')
    .selectOption({ label: 'B: contact under the cell with two fingers, well a hair shallower' });
  await page.getByRole('button', { name: 'Confirm OR 41.6, revision B' }).click();
  await expect(movement(page)).toContainText('OR 41.6, revision B');
  await page.keyboard.press('5');
  await expect(page).toHaveURL(/\/cell$/);
  await expect(lampOf(page)).toContainText('SR621SW');
  await expect(lampOf(page)).not.toContainText('take different cells');
  // Named without one, the lamp at the cell warns before either is fitted.
  await page.keyboard.press('3');
  // The search has answered, and the page stands still. What it comes to turns on what the shop saw before.
  await expect(lampOf(page)).toContainText(
    /OR 41\.6 \(over 99 %\)|Everything recorded points to this movement/,
  );
  const hand = page.getByRole('region', { name: 'Picked by hand' });
  await hand.getByRole('combobox', { name: 'Calibre' }).fill('OR 41.6');
  await page.getByRole('option', { name: 'OR 41.6, Orrelin' }).click();
  await hand.getByRole('button', { name: 'Confirm this movement' }).click();
  await expect(movement(page)).toContainText('OR 41.6 by hand');
  await page.keyboard.press('5');
  await expect(lampOf(page)).toContainText('A SR626SW, contact under the cell with one finger');
});

test('one that reads like a sister of a known movement is said to, and entered from that one', async ({
  bench: page,
}) => {
  await toIdentify(page, 'unmarked');
  await typed(page, 'Mark on the movement', 'OR 48.2');
  await typed(page, 'Width', '23.3');
  await seen(page).getByLabel('Cell held by').selectOption('under a hatch');
  // This shop hardly ever saw a movement that is not in its book: one clean figure and one look are not enough here.
  await seen(page).getByLabel('Seconds hand').selectOption({ index: 1 });
  await seen(page).getByLabel('Day', { exact: true }).selectOption('6');
  await seen(page).getByLabel('Shape').selectOption('oblong');
  await expect(lampOf(page)).toContainText('It looks like a close relative of OR 41');
  const unknown = page.getByRole('region', { name: 'An unknown calibre' });
  await expect(unknown).toContainText('Add it based on that one');
  await expectAccessible(page, 'a sister of a known movement');
  await unknown.getByRole('button', { name: /^Add, based on OR 41/ }).click();
  const dialog = page.getByRole('dialog', { name: 'Add this movement to the book' });
  await expect(dialog).toContainText('Fields that were not seen are copied from OR 41');
  await expect(dialog.getByLabel('Code, as marked')).toHaveValue('OR 48.2');
  await expect(dialog.getByLabel('Maker')).toHaveValue('orrelin');
  // What she takes is told; what this one takes nobody has seen.
  await expect(dialog).toContainText(/except its cell, a SR\d+\w+, and its measured values/);
  await expect(dialog.getByLabel('Cell, blank if not known')).toHaveValue('');
  await dialog.getByRole('button', { name: 'Save to book' }).click();
  await expect(movement(page)).toContainText('OR 48.2 shop’s own, to be completed');
  await expect(lampOf(page)).toContainText('Its cell is not entered yet');
  await page.keyboard.press('5');
  await expect(lampOf(page)).toContainText('The book does not list the cell for OR 48.2 yet');
  await expect(page.getByRole('region', { name: 'fitting guide', exact: true })).toBeVisible();
  await expect(lampOf(page)).toContainText('Added at the bench from the related OR 41');
});

test('an unknown calibre is called one, and goes into the book as the shop’s own until it is completed', async ({
  bench: page,
}) => {
  const id = await toIdentify(page, 'unmarked');
  await typed(page, 'Mark on the movement', 'PL 9942');
  await typed(page, 'Width', '17.45');
  await seen(page).getByLabel('Cell held by').selectOption('screwed bridge');
  await expect(lampOf(page)).toContainText('Not in the book');
  await page.getByRole('button', { name: 'Add to the book' }).click();
  const dialog = page.getByRole('dialog', { name: 'Add this movement to the book' });
  await expect(dialog.getByLabel('Code, as marked')).toHaveValue('PL 9942');
  await expect(dialog.getByLabel('Maker')).toHaveValue('pellorane');
  await dialog.getByLabel('Cell, blank if not known').fill('NO99');
  await dialog.getByRole('button', { name: 'Save to book' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Cell “NO99” is not in the table.');
  await dialog.getByLabel('Cell, blank if not known').fill('SR626SW');
  await dialog.getByRole('button', { name: 'Save to book' }).click();
  await expect(movement(page)).toContainText('PL 9942 shop’s own, to be completed');
  await goTo(page, `/jobs/${id}/check`);
  await page.getByRole('textbox', { name: 'Current' }).fill('0.9');
  await page.getByRole('textbox', { name: 'Current' }).press('Enter');
  await expect(lampOf(page)).toContainText('against general figures');
  await goTo(page, '/book/calibres/pellorane-pl9942');
  await expect(lampOf(page)).toContainText('Entered at the bench of this shop');
  await expect(page.getByRole('region', { name: 'At the bench' })).toContainText('(general)');
  // Completed, it stands like any other; half completed it does not.
  await page.getByRole('button', { name: 'Edit' }).click();
  const form = page.getByRole('form', { name: 'Edit calibre' });
  await form.getByLabel('Shop’s own, to be completed').uncheck();
  await form.getByRole('button', { name: 'Save to book' }).click();
  await expect(form).toContainText('leave it marked as the shop’s own until it is known');
  for (const [name, value] of [
    ['Height', '2.8'],
    ['Typical current', '0.9'],
    ['Current limit', '1.4'],
    ['Runs down to', '1.2'],
  ] as const)
    await form.getByRole('textbox', { name, exact: true }).first().fill(value);
  await form.getByRole('button', { name: 'Save to book' }).click();
  await expect(page.getByRole('region', { name: 'At the bench' })).toContainText('at most 1.4 µA');
  await expect(lampOf(page)).not.toContainText('Entered at the bench of this shop');
});

test('what contradicts itself is named with how improbable it is; what cannot be is refused', async ({
  bench: page,
}) => {
  await toIdentify(page, 'unmarked');
  await typed(page, 'Mark on the movement', 'OR 41.2');
  await typed(page, 'Width', '90');
  await expect(seen(page)).toContainText('plausible is 5 to 60 mm; 90 is probably');
  await expect(counts(page)).not.toContainText('90');
  await typed(page, 'Width', 'wide');
  await expect(seen(page)).toContainText('“wide” is not a size');
  await typed(page, 'Width', '30.2');
  await expect(lampOf(page)).toContainText(
    /Mark on the movement “OR 41\.2” and width 30\.2 mm contradict each other/,
  );
  await expect(lampOf(page)).toContainText(/once in|less than once/);
  await expect(counts(page)).toContainText('width 30.2 mm');
  await expectAccessible(page, 'contradicting evidence');
});

test('what is typed before the search answers stays where it is typed', async ({ bench: page }) => {
  let answers: () => void = () => undefined;
  const held = new Promise<void>((resolve) => (answers = resolve));
  await page.context().route('**/identify.worker*', async (route) => {
    await held;
    await route.continue();
  });
  const id = await takenIn(page, 'unmarked');
  await goTo(page, `/jobs/${id}/identify`);
  await field(page, 'Mark on the movement').fill('OR 41.2');
  answers();
  // The mark is what the search would ask for next.
  await expect(candidates(page)).toContainText('OR 41.2');
  await expect(field(page, 'Mark on the movement')).toHaveValue('OR 41.2');
  await field(page, 'Mark on the movement').press('Enter');
  await expect(counts(page)).toContainText('OR 41.2');
});

test('under a hatch only what can be seen is asked for', async ({ bench: page }) => {
  await openJob(page, 'two-cells', 'identify');
  await page.getByRole('button', { name: 'Remove: engraving in the back' }).click();
  await expect(lampOf(page)).toContainText('QB 22-4');
  await expect(lampOf(page)).not.toContainText('Cell held by');
});

test('where the search cannot start the lamp says so, and the movement is picked by hand', async ({
  bench: page,
}) => {
  await page.context().route('**/identify.worker*', (route) => route.abort());
  const id = await takenIn(page, 'C2140-3');
  await goTo(page, `/jobs/${id}/identify`);
  await expect(lampOf(page)).toContainText('The search through the book could not start');
  const hand = page.getByRole('region', { name: 'Picked by hand' });
  // A code typed in full is the book's, picked from the list or not.
  await hand.getByRole('combobox', { name: 'Calibre' }).fill('or 41.2');
  await hand.getByRole('button', { name: 'Confirm this movement' }).click();
  await expect(movement(page)).toContainText('OR 41.2 by hand');
});
