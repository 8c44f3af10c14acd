import type { Locator, Page } from '@playwright/test';
import { samples } from '../src/testing/samples';
import type { Payloads } from '../src/core/logbook';
import { alsoRecord, card, expect, expectAccessible, goTo, recorded, stands, takenIn, test } from './counter';

const lamp = (page: Page): Locator => page.getByRole('complementary', { name: 'Lamp', exact: true });
const plan = (page: Page): Locator => page.getByRole('region', { name: 'Order of closing' });
const done = (page: Page, step: string | RegExp): Locator => plan(page).getByRole('checkbox', { name: step });

/** A watch that lies open at stage 6. */
async function lyingOpen(
  page: Page,
  reference: string,
  kind: Payloads['open.back']['kind'],
  change: Partial<Payloads['open.measured']> = {},
): Promise<string> {
  const id = await takenIn(page, reference, { service: 'cell and reseal' });
  await recorded(page, id, 'open.measured', { ...samples['open.measured'], ...change, kind, lipClock: null });
  await recorded(page, id, 'open.back', {
    ...samples['open.back'],
    kind,
    toolIds: [],
    lipClock: null,
    spotClock: null,
  });
  return id;
}

async function typeInto(of: Locator, values: Readonly<Record<string, string>>): Promise<void> {
  for (const [label, value] of Object.entries(values))
    await of.getByLabel(label, { exact: true }).fill(value);
}

const off = (part: Payloads['open.part']['part'], position: string, count = 1): Payloads['open.part'] => ({
  part,
  position,
  count,
  serves: [],
  step: '',
});

test('a flattened ring is worked back to what it was, and the new one is chosen for its groove', async ({
  bench: page,
}) => {
  const id = await lyingOpen(page, 'C2140-3', 'snap-on');
  await goTo(page, `/jobs/${id}/seal`);
  await alsoRecord(page, 'Groove');
  const groove = card(page, 'Groove');
  await groove.getByRole('radio', { name: 'Inner wall' }).check();
  await typeInto(groove, {
    'Inner diameter of the groove': '31',
    'Outer diameter of the groove': '30.9',
    'Groove depth': '0.55',
    'Step of the back': '0',
  });
  await groove.getByRole('button', { name: 'Record' }).click();
  await expect(groove).toContainText('so they were probably swapped. Measure both again.');
  await groove.getByLabel('Outer diameter of the groove', { exact: true }).fill('32.9');
  // The lamp thinks along before anything is recorded.
  await expect(lamp(page)).toContainText('30.5 × 0.70 fits');
  await groove.getByRole('button', { name: 'Record' }).click();
  await expect(stands(page, 'Groove')).toContainText('groove 31 to 32.9 mm', { ignoreCase: true });
  await alsoRecord(page, 'Old ring, measured');
  const old = card(page, 'Old ring, measured');
  await typeInto(old, { 'Ring height': '0.77', 'Ring width': '0.60' });
  await old.getByRole('button', { name: 'Record' }).click();
  await expect(old).toContainText('Did you swap the two?');
  await typeInto(old, { 'Ring height': '0.60', 'Ring width': '0.77' });
  await old.getByLabel('Profile').selectOption('round');
  await old.getByRole('button', { name: 'Record' }).click();
  await expect(lamp(page)).toContainText('67 % of its squeeze is permanent, from 53 % to 81 %');
  await expect(lamp(page)).toContainText('likeliest first: 0.70');
  await expect(lamp(page).getByRole('img', { name: /30\.5 × 0\.70 in section/ })).toBeVisible();
  await expectAccessible(page, 'a ring chosen');
  const gasket = card(page, 'Gasket');
  await gasket.getByRole('radio', { name: 'Renewed' }).check();
  await gasket.getByRole('radio', { name: 'A trace, surplus off' }).check();
  // A ring nobody can have taken out of this groove is refused in words that name both measures.
  await gasket.getByLabel('Size').fill('30.5 × 0.50');
  await gasket.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByText('the back would never touch it', { exact: false }).first()).toBeVisible();
});

test('of a watch nobody opened nothing is said of closing', async ({ bench: page }) => {
  const id = await takenIn(page, 'ZZ 4711', { service: 'cell and reseal' });
  await goTo(page, `/jobs/${id}/seal`);
  await expect(lamp(page)).toContainText('The kind of back is not recorded yet.');
  await expect(lamp(page)).not.toContainText('Thumbs first');
  await expect(plan(page)).toHaveCount(0);
});

test('a ring is reused against the advice only with its reason, and that stands in the record', async ({
  bench: page,
}) => {
  const id = await lyingOpen(page, 'C2140-3', 'snap-on');
  await goTo(page, `/jobs/${id}/seal`);
  // Of unknown age it is looked at; a nick is a reason to renew it.
  await expect(lamp(page)).toContainText('Look at it');
  await expect(lamp(page)).toContainText('The age of the ring is not known.');
  const gasket = card(page, 'Gasket');
  await gasket.getByRole('checkbox', { name: 'Nicked' }).check();
  await gasket.getByRole('radio', { name: 'Reused' }).check();
  await gasket.getByRole('radio', { name: 'A trace, surplus off' }).check();
  await gasket.getByRole('button', { name: 'Record' }).click();
  await expect(gasket).toContainText('This differs from the advice. Enter the reason.');
  await gasket.getByLabel('Reason for not following the advice').fill('part ordered, owner agrees');
  await gasket.getByRole('button', { name: 'Record' }).click();
  await expect(stands(page, 'Gasket')).toContainText('Gasket reused');
  await expect(lamp(page)).toContainText('Decided differently: part ordered, owner agrees');
});

test('a plate comes down on its four screws crosswise in rounds, each part back where it was', async ({
  bench: page,
}) => {
  const id = await lyingOpen(page, '418D-20', 'plate on screws', {
    screwCount: 4,
    screwHead: 'cross-head',
    crossSize: 'PH00',
  });
  await recorded(page, id, 'open.part', off('screw', '1 to 4, clockwise from 12, seen from behind', 4));
  await recorded(page, id, 'open.part', off('plate', 'print facing out'));
  await recorded(page, id, 'open.part', off('insulator', 'which way up, to be noted'));
  await goTo(page, `/jobs/${id}/seal`);
  await expect(plan(page)).toContainText('Check the parts that are easily left out');
  await expect(plan(page)).toContainText('Crosswise, seen from behind: 1 – 3 – 2 – 4.');
  // Where it sat is not noted: a placeholder is no place, and its step waits.
  await expect(plan(page)).toContainText('First note where it was: insulator, which way up.');
  await expect(done(page, 'Insulator back: done')).toBeDisabled();
  await page.getByRole('form', { name: 'Position not recorded yet' }).getByRole('textbox').fill('print up');
  await page.getByRole('form', { name: 'Position not recorded yet' }).getByRole('button').click();
  await done(page, /^Insulator back: which way up: print up: done/).check();
  await done(page, 'Set the plate on level: done').check();
  await done(page, 'Put all 4 screws in without tightening: done').check();
  await done(page, /^Round 1/).check();
  await done(page, /^Round 2/).check();
  await done(page, /^Round 3/).check();
  // The last round has the screws off the tray, and so the tray is empty.
  await expect(lamp(page)).not.toContainText('on the tray');
});

test('a hatch goes back to the reference that was noted, and its seal is accounted for', async ({
  bench: page,
}) => {
  const id = await lyingOpen(page, 'Q224B', 'battery hatch', { hatchOpens: 'turned' });
  await recorded(page, id, 'open.seals', { rim: 1, innerCover: 0, hatch: 1 });
  await recorded(page, id, 'open.part', off('hatch', 'reference angle: slot to the line at 2'));
  await goTo(page, `/jobs/${id}/seal`);
  await expect(plan(page)).toContainText('Reference angle: slot to the line at 2');
  const inside = card(page, 'Seals of inner cover and hatch');
  await inside
    .getByRole('radiogroup', { name: 'Seal of the inner cover' })
    .getByRole('radio', { name: 'None there' })
    .check();
  await inside
    .getByRole('radiogroup', { name: 'Seal of the hatch' })
    .getByRole('radio', { name: 'Renewed' })
    .check();
  await inside.getByRole('button', { name: 'Record' }).click();
  await expect(stands(page, 'Seals of inner cover and hatch')).toContainText('hatch renewed');
  await done(page, 'Turn the hatch in to its mark: done').check();
  await expect(lamp(page)).not.toContainText('on the tray');
});

test('where no die fits the lamp says by how much, and draws none; where two do it draws the stack', async ({
  bench: page,
}) => {
  const id = await lyingOpen(page, 'C2140-3', 'snap-on');
  await goTo(page, `/jobs/${id}/seal`);
  await alsoRecord(page, 'Measures for the press');
  const press = card(page, 'Measures for the press');
  await typeInto(press, {
    'Crystal diameter': '33',
    'Bezel diameter': '31',
    'Crystal height above the bezel': '0.4',
    'Case diameter': '36',
    'Back diameter': '32.8',
    'Bulge of the back': '0',
  });
  await press.getByRole('button', { name: 'Record' }).click();
  await expect(press).toContainText('The crystal is 33 mm across and the bezel that frames it 31 mm');
  await press.getByLabel('Crystal diameter', { exact: true }).fill('30');
  await press.getByRole('button', { name: 'Record' }).click();
  await expect(lamp(page)).toContainText('No die');
  await expect(lamp(page)).toContainText('only 1 mm wider than its crystal');
  await expect(lamp(page).getByRole('img', { name: /In the press/ })).toHaveCount(0);
  await stands(page, 'Measures for the press').getByRole('button').first().click();
  await page.getByRole('button', { name: 'Correct: Measures for the press' }).click();
  await press.getByLabel('Crystal diameter', { exact: true }).fill('27.5');
  await press.getByRole('button', { name: 'Record' }).click();
  await lamp(page).getByRole('button', { name: 'Open all' }).click();
  await expect(
    lamp(page).getByRole('img', { name: /ring die 28, film, crystal, case, back, flat die 30/ }),
  ).toBeVisible();
  await page.emulateMedia({ colorScheme: 'dark' });
  await expectAccessible(page, 'dies chosen, by night');
});

test('the assortment stands by size with where each is used, and what runs low is ordered from there', async ({
  bench: page,
}) => {
  await goTo(page, '/stock');
  const rings = page.getByRole('table', { name: 'Rings by size' });
  await expect(rings.getByRole('row', { name: /28\.2 × 0\.80/ })).toContainText('K61/08');
  await rings.getByRole('link', { name: 'Order 29.0 × 0.80' }).click();
  await expect(page.getByLabel('Cell or ring 1')).toHaveValue('29.0 × 0.80');
  await expect(page.getByText('A ring 29 mm inside, 0.8 mm thick: seals', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Send order' }).click();
  await expect(page.getByText('The supplier accepted the order.')).toBeVisible();
});
