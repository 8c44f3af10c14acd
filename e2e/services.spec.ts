import type { Page } from '@playwright/test';
import {
  alsoRecord,
  bySomebody,
  card,
  correct,
  expect,
  FAST_TESTER,
  recorded,
  seeUsual,
  setDevice,
  stands,
  test,
} from './counter';
import { flatUnderLamp } from '../src/testing/lit';

/** Takes a watch in for a service, and leaves the page at stage 1 of its job. */
async function takeIn(
  page: Page,
  given: {
    owner: string;
    reference: string;
    service: string;
    complaint?: string;
    consent?: boolean;
    since?: string;
  },
): Promise<void> {
  await page.keyboard.press('n');
  await page.getByRole('combobox', { name: 'Owner' }).fill(given.owner);
  await page.getByLabel('Phone').fill('0555 0900');
  await page.getByLabel('Reference').fill(given.reference);
  const complaint = page.getByRole('checkbox', { name: given.complaint ?? 'Stopped' });
  // What few owners come with stands behind what most do.
  if ((await complaint.count()) === 0) await page.getByRole('button', { name: /: \d+ more$/ }).click();
  await complaint.check();
  if (given.since !== undefined) await page.getByLabel('Stopped since').fill(given.since);
  await page.getByRole('radio', { name: given.service, exact: true }).check();
  if (given.consent !== false) await page.getByRole('checkbox', { name: 'The owner agrees to them' }).check();
  await page.getByRole('button', { name: 'Take in' }).click();
  await expect(page.getByRole('region', { name: 'Ticket and label' })).toBeVisible();
}

async function toStage(page: Page, name: string): Promise<void> {
  await page.getByRole('link', { name: new RegExp(`^\\d ${name}, `) }).click();
  await expect(page.getByRole('link', { name: new RegExp(`^\\d ${name}, `) })).toHaveAttribute(
    'aria-current',
    'step',
  );
}

/** Records a card as it stands. */
async function record(page: Page, name: string, action = 'Record'): Promise<void> {
  await seeUsual(card(page, name), name);
  await card(page, name).getByRole('button', { name: action }).first().click();
  await expect(stands(page, name)).toBeVisible();
}

async function openBack(page: Page): Promise<void> {
  await toStage(page, 'Open');
  await record(page, 'Case back');
}

async function identify(page: Page, engraving: string, code: string): Promise<void> {
  await toStage(page, 'Identify');
  await page.getByLabel('Engraving', { exact: true }).fill(engraving);
  await page.getByLabel('Engraving', { exact: true }).press('Enter');
  await page.getByRole('button', { name: `Confirm ${code}` }).click();
  await expect(card(page, 'Movement')).toContainText(code);
}

async function close(page: Page): Promise<void> {
  await toStage(page, 'Seal and close');
  await record(page, 'Gasket');
  await record(page, 'Closed');
}

async function prove(page: Page): Promise<void> {
  await toStage(page, 'Set and prove');
  await record(page, 'Does it run?');
  await record(page, 'Time', 'Set to the signal');
  await card(page, 'Functions of this movement')
    .getByRole('button', { name: /All work/ })
    .click();
  await expect(stands(page, 'Functions of this movement')).toBeVisible();
  await record(page, 'Crown, bezel and bracelet');
}

async function sign(page: Page): Promise<void> {
  await toStage(page, 'Hand back');
  await page.getByRole('button', { name: 'Sign as EV' }).click();
  await expect(page.getByRole('img', { name: 'Signed EV' })).toBeVisible();
}

const slip = (page: Page) => page.getByRole('region', { name: 'Record for the owner' });

test('cell and reseal: the current is asked for, and the ring comes from the stock', async ({
  rack: page,
}) => {
  await takeIn(page, { owner: 'Siv Kettlemoor', reference: 'C2140-3', service: 'Cell and reseal' });
  await openBack(page);
  await identify(page, 'OR 41.2', 'OR 41.2');
  await toStage(page, 'Check');
  for (const [name, value] of [
    ['Rest voltage', '1.22'],
    ['Current', '0,95'],
  ] as const) {
    await page.getByRole('textbox', { name }).fill(value);
    await record(page, name);
  }
  await toStage(page, 'Cell');
  await page.getByLabel('Marking of the old cell').fill('364');
  await record(page, 'Cell found');
  await page.getByRole('button', { name: /^Fitted SR621SW from lot/ }).click();
  await record(page, 'The old cell', 'Taped, into the spent bin');
  await toStage(page, 'Seal and close');
  await card(page, 'Gasket').getByRole('radio', { name: 'Renewed' }).check();
  await card(page, 'Gasket').getByLabel('Ring taken from').selectOption({ index: 1 });
  await record(page, 'Gasket');
  await record(page, 'Closed');
  await prove(page);
  await sign(page);
  await expect(slip(page)).toContainText('The movement draws 0.95 µA.');
  await expect(slip(page)).toContainText('29.00 EUR');
});

test('reseal and test: the same cell goes back, the tester runs, and the slip claims what was tested', async ({
  rack: page,
}) => {
  await takeIn(page, {
    owner: 'Orm Tidewright',
    reference: 'K61/08',
    service: 'Reseal and test',
    complaint: 'Fog under the crystal',
  });
  await card(page, 'Use and exposure to water').getByRole('checkbox', { name: 'Swimming' }).check();
  await record(page, 'Use and exposure to water');
  await openBack(page);
  await toStage(page, 'Cell');
  await page.getByLabel('Marking of the old cell').fill('377');
  await record(page, 'Cell found');
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Not yet known');
  await card(page, 'The same cell put back').getByLabel('Reason').fill('reseal only, measured 1.56 V');
  await record(page, 'The same cell put back', 'Put back');
  await toStage(page, 'Seal and close');
  await expect(
    card(page, 'Gasket')
      .getByRole('radiogroup', { name: 'Will it get wet?' })
      .getByRole('radio', { name: 'Yes', exact: true }),
  ).toBeChecked();
  await record(page, 'Gasket');
  const seals = card(page, 'Crown, pusher and crystal seals');
  for (const [seal, found] of [
    ['Crown seal', 'Inspected'],
    ['Pusher seals', 'None there'],
    ['Crystal seal', 'Not touched'],
  ] as const)
    await seals.getByRole('radiogroup', { name: seal }).getByRole('radio', { name: found }).check();
  await record(page, 'Crown, pusher and crystal seals');
  await card(page, 'Closed').getByRole('radio', { name: 'Not even' }).check();
  await card(page, 'Closed').getByRole('radio', { name: 'Behind', exact: true }).check();
  await card(page, 'Closed').getByRole('checkbox', { name: '4', exact: true }).check();
  await record(page, 'Closed');
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('The seam is not even');
  await correct(page, 'Closed');
  await card(page, 'Closed').getByRole('checkbox', { name: '4', exact: true }).uncheck();
  await card(page, 'Closed').getByRole('radio', { name: 'Even all round' }).check();
  await card(page, 'Closed').getByRole('button', { name: 'Record the correction' }).click();
  await expect(card(page, 'Closed')).toContainText('seam even all round');
  await toStage(page, 'Test');
  const test_ = card(page, 'Record a test');
  // What crown it has comes before any pressure.
  await expect(test_).toContainText('Record the kind of crown, then test.');
  await record(page, 'The crown');
  // What its size is decides what a loss of pressure means.
  await alsoRecord(page, 'Free volume of the case');
  const size = card(page, 'Free volume of the case');
  await size.getByRole('textbox', { name: 'Case diameter' }).fill('36');
  await size.getByRole('textbox', { name: 'Thickness' }).fill('9');
  await size.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(size).toContainText('36 mm across');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  const made = page.getByRole('region', { name: 'Tests made' });
  // Nothing is filled in that nobody saw.
  await test_.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(test_.getByText(/^Method: one of/)).toBeVisible();
  await test_.getByRole('radio', { name: 'Wet' }).check();
  await test_.getByLabel('Pressure').fill('5');
  await test_.getByLabel('Watched for').fill('60');
  // Nothing dry was passed: the caution says so before the watch is lowered.
  await expect(test_).toContainText('this watch has not passed a dry test at this pressure');
  await test_.getByRole('radio', { name: 'Leak seen', exact: true }).check();
  await test_.getByLabel('Seen on the').selectOption('back');
  await test_.getByLabel('At', { exact: true }).selectOption('8');
  await test_.getByRole('button', { name: 'Add the place' }).click();
  await test_.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lamp).toContainText('This is the crown');
  await expect(made).toContainText('leak seen, at 8 o’clock, seen from behind');
  // A pass that names no repair takes nothing back.
  const pass = async (retest: boolean) => {
    await test_.getByRole('radio', { name: 'Dry air' }).check();
    await test_.getByLabel('Pressure').fill('5');
    await test_.getByLabel('Watched for').fill('300');
    await test_.getByRole('button', { name: 'Run it on the tester' }).click();
    await expect(test_).toContainText('points from the tester.');
    if (retest) {
      await test_.getByRole('checkbox', { name: /Wet test at 5 bar, leaks/ }).check();
      await test_.getByLabel('Work before the test').fill('crown seal renewed');
    }
    await test_.getByRole('button', { name: 'Record', exact: true }).click();
  };
  await setDevice(page, 'leak-tester', FAST_TESTER);
  await pass(false);
  await expect(made).toContainText('Tight. Dry air test at 5 bar');
  await expect(lamp).toContainText('Not water resistant');
  await pass(true);
  await expect(made).toContainText('Retest, dry air test at 5 bar');
  await expect(lamp).toContainText('Tested at 5 bar');
  // Beyond its rating a reason is asked.
  await test_.getByRole('radio', { name: 'Dry air' }).check();
  await test_.getByLabel('Pressure').fill('25');
  await expect(test_.getByLabel('Reason for exceeding the limit')).toBeVisible();
  await prove(page);
  await sign(page);
  await expect(slip(page)).toContainText('It leaked at 5 bar');
  await expect(slip(page)).toContainText('The same cell put back');
  await expect(slip(page)).toContainText('Seal of the crystal not touched.');
});

test('recharge or new accumulator: charged and watched, then the kit of this calibre from its lot', async ({
  rack: page,
}) => {
  await takeIn(page, {
    owner: 'Yrsa Lindquay',
    reference: 'VC330-02',
    service: 'Recharge or new accumulator',
    complaint: 'Does not hold its charge',
  });
  await identify(page, 'V-330R', 'V-330R');
  await toStage(page, 'Cell');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText('Kit KT-V33: 1 in stock');
  const charge = card(page, 'Charged and watched');
  await charge.getByRole('radio', { name: 'Rotor' }).check();
  await charge.getByLabel('Charged for').fill('12');
  await charge.getByRole('radio', { name: 'Low-supply steps' }).check();
  await charge.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lamp).toContainText('If this was enough, it is tired');
  await expect(card(page, 'Accumulator renewed')).toContainText('Never fit a primary cell here');
  await record(page, 'Accumulator renewed', 'Renewed');
  await expect(lamp).toContainText('none in stock');
  // A new accumulator is nearly empty: it is charged and watched, too.
  await expect(lamp).toContainText('A new accumulator is nearly empty');
  await charge.getByRole('radio', { name: 'Rotor' }).check();
  await charge.getByLabel('Charged for').fill('8');
  await charge.getByRole('radio', { name: 'Steps normally' }).check();
  await charge.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lamp).toContainText('Fine as it is');
  await record(page, 'The old cell', 'Taped, into the spent bin');
  await openBack(page);
  await close(page);
  await prove(page);
  await sign(page);
  await expect(slip(page)).toContainText('KT-V33, kit with tabs, Nettle & Quay Supplies, lot NK-330.');
  await expect(slip(page)).toContainText('This watch charges itself by being worn');
});

test('light-charged, from complaint to hand-back: charged before it is condemned, the forecast put right, a kit', async ({
  rack: page,
}) => {
  await takeIn(page, {
    owner: 'Tove Sundermill',
    reference: 'VC210-04',
    service: 'Recharge or new accumulator',
    since: '2025-03',
  });
  await expect(stands(page, 'When it stopped')).toContainText('Stopped since Mar 2025');
  const id = /jobs\/([^/]+)/.exec(page.url())?.[1] ?? '';
  await identify(page, 'V-210S', 'V-210S');
  await toStage(page, 'Cell');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText('Charge it first');
  await expect(lamp).toContainText('any accumulator would be flat now');
  // A primary cell is not to be had here, nor by any other door.
  await expect(page.getByRole('button', { name: /^Fitted / })).toHaveCount(0);
  const primary = await page.request.post(`/api/jobs/${id}/entries`, {
    data: bySomebody('cell.fitted', {
      cellCode: 'SR920SW',
      lotId: null,
      supplier: '',
      lotCode: '',
      alkalineAgreed: false,
      ownersOwn: true,
    }),
  });
  expect(primary.status()).toBe(422);
  expect(await primary.text()).toContain('leak or burst');
  // Nor is the accumulator condemned before a charge was watched.
  const renewed = card(page, 'Accumulator renewed');
  await renewed.getByRole('radio', { name: 'Kit with tabs' }).check();
  await renewed.getByRole('button', { name: 'Renewed' }).click();
  await expect(renewed).toContainText('No test charge is recorded');
  await expect(stands(page, 'Accumulator renewed')).toHaveCount(0);
  // Twenty minutes under the lamp, laid there at another bench.
  const light = card(page, 'Under the light');
  await expect(light).toContainText('On record: flat, by the complaint');
  await recorded(page, id, 'cell.lit', flatUnderLamp, null, { occurredAt: '2026-03-17T09:21:00.000Z' });
  await expect(lamp).toContainText(/Steps normally: .* between .* and /);
  const readyAt = async (): Promise<string> =>
    /Hand back: (.*?), between/.exec((await lamp.textContent()) ?? '')?.[1] ?? 'none';
  const before = await readyAt();
  expect(before).not.toBe('none');
  await card(page, 'Check under the light').getByRole('button', { name: 'Steps normally' }).click();
  await expect.poll(readyAt).not.toBe(before);
  const minutes = (answer: string): number => Date.parse(`${answer.replace(/^\w+ /, '2026 ')} UTC`);
  expect(minutes(await readyAt())).toBeLessThan(minutes(before));
  // It signals low again after enough light: tired, and renewed by its kit.
  const charge = card(page, 'Charged and watched');
  await charge.getByRole('radio', { name: 'Light' }).check();
  await charge.getByLabel('Charged for').fill('70');
  await charge.getByRole('radio', { name: 'Low-supply steps' }).check();
  await charge.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lamp).toContainText('New accumulator');
  await renewed.getByRole('radio', { name: 'Old tab transferred' }).check();
  await renewed.getByRole('textbox', { name: 'Contact resistance of the tab' }).fill('1.6');
  await renewed.getByRole('button', { name: 'Renewed' }).click();
  await expect(renewed).toContainText('1.6 Ω between tab and accumulator, and 1 Ω is the limit');
  await renewed.getByRole('textbox', { name: 'Contact resistance of the tab' }).fill('0.2');
  await renewed.getByRole('button', { name: 'Renewed' }).click();
  await expect(stands(page, 'Accumulator renewed')).toContainText('contact 0.2 Ω');
  await charge.getByRole('radio', { name: 'Light' }).check();
  await charge.getByLabel('Charged for').fill('20');
  await charge.getByRole('radio', { name: 'Steps normally' }).check();
  await charge.getByRole('button', { name: 'Record', exact: true }).click();
  await record(page, 'The old cell', 'Taped, into the spent bin');
  await openBack(page);
  await close(page);
  await prove(page);
  await sign(page);
  await expect(slip(page)).toContainText('This watch charges itself by light');
  await expect(slip(page)).toContainText('A new accumulator is due about 2038.');
  await expect(slip(page)).toContainText('measure its contact again');
});

test('diagnose: a finding, a leak on the layout with a photograph, an agreement, and the watch closed again', async ({
  rack: page,
}) => {
  await takeIn(page, { owner: 'Gro Halyard', reference: 'Q150A', service: 'Diagnose' });
  await openBack(page);
  await identify(page, 'QB 15-1', 'QB 15-1');
  await toStage(page, 'Check');
  await page.getByRole('button', { name: 'Current: take it from the bench meter' }).click();
  await expect(page.getByRole('textbox', { name: 'Current', exact: true })).toHaveValue(/µA$/);
  await record(page, 'Current');
  await alsoRecord(page, 'Leakage');
  const leak = card(page, 'Leakage');
  await leak.getByRole('radio', { name: 'Contact', exact: true }).check();
  await leak.getByRole('radio', { name: 'Crust' }).check();
  await leak.getByRole('img', { name: /Layout of QB 15-1/ }).click({ position: { x: 70, y: 80 } });
  await expect(leak.getByRole('textbox', { name: 'To 3 o’clock' })).not.toHaveValue('');
  await leak.getByRole('button', { name: 'Take a photo' }).click();
  await expect(leak.getByRole('img', { name: 'movement.png' })).toBeVisible();
  await leak.getByRole('button', { name: 'Record', exact: true }).click();
  const noted = card(page, 'Leakage 1');
  await expect(noted).toContainText('Leaked: crust at the contact');
  await noted.getByRole('button').first().click();
  await expect(noted.getByRole('img', { name: 'movement.png' })).toBeVisible();
  await card(page, 'Finding')
    .getByLabel('Cause', { exact: true })
    .selectOption('electrolyte or damp on the circuit');
  await card(page, 'Finding').getByRole('radio', { name: 'New circuit' }).check();
  await record(page, 'Finding');
  await toStage(page, 'Seal and close');
  await record(page, 'Closed');
  await toStage(page, 'Set and prove');
  await record(page, 'Crown, bezel and bracelet');
  await toStage(page, 'Hand back');
  await alsoRecord(page, 'Change price');
  await card(page, 'Change price').getByLabel('Price').fill('45');
  await card(page, 'Change price').getByLabel('Reason').fill('contacts cleaned');
  await record(page, 'Change price');
  await expect(card(page, 'Signature')).toContainText('45.00 EUR is charged, but 18.00 EUR was agreed');
  await expect(page.getByRole('button', { name: 'Sign as EV' })).toBeDisabled();
  await toStage(page, 'Arrive');
  await alsoRecord(page, 'Later agreement');
  const agreed = card(page, 'Later agreement');
  await agreed.getByLabel('What was agreed').fill('contacts cleaned');
  await agreed.getByLabel('Maximum price').fill('50');
  await agreed.getByLabel('Agreed with').fill('the owner');
  await agreed.getByRole('radio', { name: 'By phone' }).check();
  await agreed.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(card(page, 'Later agreement 1')).toContainText('up to 50.00');
  await sign(page);
  await expect(slip(page)).toContainText('Finding: electrolyte or damp on the circuit. Next: new circuit.');
  await expect(slip(page)).toContainText('45.00 EUR');
});

test('refer: asks where it went and why, and ends there', async ({ rack: page }) => {
  await takeIn(page, {
    owner: 'Finn Saltgate',
    reference: 'C3312-4',
    service: 'Refer',
    consent: false,
  });
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Rated 20 bar');
  const decision = card(page, 'Refer or decline');
  await decision.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(decision).toContainText('Decision: one of referred, declined.');
  await decision.getByRole('radio', { name: 'Referred' }).check();
  await decision.getByLabel('Reason').selectOption('certified diving watch');
  await decision.getByLabel('Referred to').fill('the diving bench at Brennhavn');
  await record(page, 'Refer or decline');
  await sign(page);
  await expect(slip(page)).toContainText(
    'Referred to the diving bench at Brennhavn: certified diving watch.',
  );
  await expect(slip(page)).toContainText('0.00 EUR');
});

test('a watch closed for the time being opens the job that waits for its part, and two watches share a visit', async ({
  rack: page,
}) => {
  await takeIn(page, { owner: 'Asta Quaywood', reference: 'C2210-1', service: 'Cell only' });
  const first = (await page.getByRole('heading', { level: 1 }).innerText()).split(' ')[0] ?? '';
  await alsoRecord(page, 'Marks on the watch');
  const mark = card(page, 'Mark on arrival');
  await mark.getByRole('radio', { name: 'Back' }).check();
  await mark.getByLabel('Kind of mark').selectOption('original film');
  await mark.getByRole('radio', { name: 'Keep' }).check();
  await mark.getByRole('button', { name: 'Record mark' }).click();
  await expect(card(page, 'Mark on arrival 1')).toContainText('original film, keep it');
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('Original film: it stays on');
  // Its ring is not in stock: what lacks stands on the request already.
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText('1 to order');
  await expect(card(page, 'Parts requested').getByLabel('Part 1')).toHaveValue('gasket 29.0 × 0.80');
  await card(page, 'Parts requested').getByLabel('Expected on').fill('2026-03-20');
  await record(page, 'Parts requested', 'Record request');
  await expect(
    page.getByRole('navigation', { name: 'Rack' }).getByRole('link', { name: new RegExp(first) }),
  ).toContainText('waiting for gasket 29.0 × 0.80, expected 20 Mar 2026');
  // Nobody is told an hour at which nothing can be done.
  await page.getByRole('button', { name: /^Change promise to Sat 21 Mar/ }).click();
  await expect(card(page, 'Promise')).toContainText('Promised for Sat 21 Mar');
  await page.getByRole('link', { name: 'Add another watch of this visit' }).click();
  await expect(page.getByText(`Another watch of the visit of ${first}.`)).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Owner' })).toHaveValue('Asta Quaywood');
  await page.getByRole('checkbox', { name: 'Stopped' }).check();
  await page.getByRole('checkbox', { name: 'The owner agrees to them' }).check();
  await page.getByRole('button', { name: 'Take in' }).click();
  await page.getByRole('region', { name: 'Visit' }).getByRole('link', { name: first }).click();
  await openBack(page);
  await toStage(page, 'Seal and close');
  await record(page, 'Gasket');
  await card(page, 'Closed')
    .getByRole('checkbox', { name: /Temporary closing/ })
    .check();
  await record(page, 'Closed');
  const follow = page.getByText(/waits for the\s+part/).getByRole('link');
  await expect(follow).toBeVisible();
  await follow.click();
  await expect(page.getByRole('region', { name: 'Visit' })).toContainText('because of interim closing');
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText(first);
  await expect(card(page, 'Parts requested')).toHaveCount(1);
});
