import type { Page } from '@playwright/test';
import { simulateTrace } from '../src/core/craft/devices';
import type { Payloads } from '../src/core/logbook';
import { tightCase } from '../src/testing/leakRecords';
import {
  alsoRecord,
  card,
  correct,
  expect,
  expectAccessible,
  FAST_TESTER,
  openJob,
  goTo,
  recorded,
  setDevice,
  stands,
  takenIn,
  test,
} from './counter';

const CLOSED: Payloads['seal.closed'] = {
  how: 'thumbs',
  seamEven: true,
  raisedClocks: [],
  seenFrom: null,
  interim: false,
};

const BY_SIZE: Payloads['test.case'] = {
  freeVolumeCm3: null,
  withinPercent: null,
  diameterMm: 36,
  thicknessMm: 7,
};

/** A watch closed and with its crown known, at the stage that tests; its size too, where that is not what is tried. */
async function toTest(page: Page, reference: string, size: typeof BY_SIZE | null = BY_SIZE): Promise<void> {
  const id = await takenIn(page, reference, { service: 'reseal and test' });
  await recorded(page, id, 'arrive.crown', { crown: 'pushed home' });
  await recorded(page, id, 'arrive.wear', { uses: ['swimming'], words: '' });
  await recorded(page, id, 'seal.closed', CLOSED);
  if (size) await recorded(page, id, 'test.case', size);
  await goTo(page, `/jobs/${id}/test`);
}

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp' });
const madeOf = (page: Page) => page.getByRole('region', { name: 'Tests made' });

async function measuredVolume(page: Page, cm3: string, within: string): Promise<void> {
  await alsoRecord(page, 'Free volume of the case');
  const volume = card(page, 'Free volume of the case');
  await volume.getByLabel('Free volume').fill(cm3);
  await volume.getByLabel('Known within').fill(within);
  await volume.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(volume).toContainText('within');
}

async function onTester(page: Page, bar: string, seconds: string): Promise<void> {
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill(bar);
  await form.getByLabel('Watched for').fill(seconds);
  await form.getByRole('button', { name: 'Run it on the tester' }).click();
  await expect(form).toContainText('points from the tester.');
}

const recordIt = (page: Page) =>
  card(page, 'Record a test').getByRole('button', { name: 'Record', exact: true }).click();

test('tight: a step of the plan taken, run on the tester, judged with its interval, and said on the slip', async ({
  rack: page,
}) => {
  await setDevice(page, 'leak-tester', FAST_TESTER);
  await toTest(page, 'TIGHT-1', null);
  const lamp = lampOf(page);
  await expect(lamp).toContainText('Test plan');
  await measuredVolume(page, '1,3', '10');
  await lamp.getByRole('button', { name: 'Take into the form: dry air, 1 bar' }).click();
  const form = card(page, 'Record a test');
  await expect(form.getByLabel('Pressure')).toHaveValue('1');
  await expect(form).toContainText('100 kPa');
  await form.getByRole('button', { name: 'Run it on the tester' }).click();
  await expect(form).toContainText('points from the tester.');
  await expect(lamp).toContainText('Result of this record');
  await expect(lamp).toContainText('under the limit of 50');
  await expectAccessible(page, 'the stage that tests');
  await recordIt(page);
  await expect(madeOf(page)).toContainText('Tight.');
  await expect(lamp).toContainText('Nothing beyond this was tested.');
  await expect(lamp).toContainText('It is not for swimming.');
  // The residuals are there for who asks.
  await madeOf(page).getByText('Record, fit and residuals').click();
  await expect(madeOf(page).getByRole('img', { name: /Residual/ })).toBeVisible();
});

test('a running test is stopped by its key, and nothing of it is kept', async ({ rack: page }) => {
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, speed: 20 });
  await toTest(page, 'STOP-1');
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('1');
  await form.getByLabel('Watched for').fill('60');
  await form.getByRole('button', { name: 'Run it on the tester' }).click();
  await expect(form.getByRole('group', { name: 'The tester runs' })).toContainText(/of \d+ s/);
  await page.keyboard.press('x');
  await expect(form).toContainText('The test was stopped by hand. Nothing was recorded.');
  await expect(form.getByRole('button', { name: 'Run it on the tester' })).toBeEnabled();
});

test('while it runs the tester says whether its time will do, is given more by one key, and ends once it is settled', async ({
  rack: page,
}) => {
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, noiseUm: 0.12, speed: 14 });
  await toTest(page, 'LONGER-1', null);
  await measuredVolume(page, '1.3', '5');
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('2');
  await form.getByLabel('Watched for').fill('60');
  await form.getByRole('button', { name: 'Run it on the tester' }).click();
  const running = form.getByRole('group', { name: 'The tester runs' });
  await expect(running).toContainText('Settling under pressure, 2 bar');
  const outlook = running.getByRole('status', { name: 'Test duration' });
  await expect(outlook).toContainText(
    /60 s are probably too short\. They give a result in \d+ of 100 such tests, \d+ s in/,
  );
  await page.keyboard.press('e');
  await expect(running).not.toContainText('of 147 s');
  await expect(running).toContainText('after venting, no pressure in the chamber');
  await expect(form).toContainText('points from the tester.', { timeout: 60_000 });
  await expect(form).toContainText(/The test ended early, at \d+ s, because its result was certain\./);
  await expect(lampOf(page)).toContainText('under the limit of 50');
});

test('a leak at the crown: measured dry, found in water, repaired, tested again, and told in order', async ({
  rack: page,
}) => {
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, leakUgPerMin: 900, leaksAt: 3, leakSide: 'side' });
  await toTest(page, 'CROWN-1');
  const lamp = lampOf(page);
  const form = card(page, 'Record a test');
  await onTester(page, '2', '120');
  await expect(lamp).toContainText('over the limit of 50');
  await recordIt(page);
  await expect(lamp).toContainText('Not water resistant');
  await form.getByRole('radio', { name: 'Wet' }).check();
  await form.getByLabel('Pressure').fill('2');
  await form.getByLabel('Watched for').fill('60');
  await expect(form).toContainText('Water can enter the case');
  await form.getByRole('button', { name: 'Look into the tank' }).click();
  await expect(form.getByRole('status')).toContainText('The side at 3 o’clock');
  await form.getByRole('radio', { name: 'Leak seen', exact: true }).check();
  await form.getByLabel('Seen on the').selectOption('side');
  await form.getByRole('button', { name: 'Add the place' }).click();
  await recordIt(page);
  await expect(lamp).toContainText('This is the crown. Check its seal first.');
  const finding = card(page, 'Place of the leak');
  await finding.getByRole('radio', { name: 'Crown', exact: true }).check();
  await finding.getByRole('radio', { name: 'Seal renewed' }).check();
  await finding.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(madeOf(page)).toContainText('It leaks at the crown: seal renewed');
  await setDevice(page, 'leak-tester', FAST_TESTER);
  await onTester(page, '2', '300');
  await form.getByRole('checkbox', { name: /Dry air test at 2 bar, leaks/ }).check();
  await form.getByRole('checkbox', { name: /Wet test at 2 bar, leaks/ }).check();
  await recordIt(page);
  await expect(lamp).toContainText('It leaked at 2 bar');
  await expect(lamp).toContainText('Tested at 2 bar');
  // What failed stays on record.
  await expect(madeOf(page)).toContainText('Leaks. Dry air test at 2 bar');
  await expect(madeOf(page)).toContainText('Settled by the dry air test at 2 bar');
});

test('beyond its tester nothing is run, whatever the reason, and the form says why', async ({
  rack: page,
}) => {
  await setDevice(page, 'leak-tester', FAST_TESTER);
  await toTest(page, 'BEYOND-1');
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('25');
  await form.getByLabel('Watched for').fill('60');
  await form.getByLabel('Reason for exceeding the limit').fill('the owner asks for it');
  await expect(form.getByRole('button', { name: 'Run it on the tester' })).toBeDisabled();
  await expect(form).toContainText('Not run: 25 bar is more than this shop tests at: 10 bar.');
});

test('a stiff case is no pass, and a wet test settles it', async ({ rack: page }) => {
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, stiffnessUmPerBar: 0.005 });
  await toTest(page, 'STIFF-1');
  await onTester(page, '2', '60');
  await expect(lampOf(page)).toContainText('very stiff, or it flooded at once');
  await recordIt(page);
  await expect(lampOf(page)).toContainText('nothing can be said about water');
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Wet' }).check();
  await form.getByLabel('Pressure').fill('2');
  await form.getByLabel('Watched for').fill('60');
  await form.getByRole('radio', { name: 'No leak seen', exact: true }).check();
  await recordIt(page);
  await expect(lampOf(page)).toContainText('Tested at 2 bar, wet, for 60 seconds');
});

test('of a case nobody measured each size says what it would mean; where its size leaves it open, the volume settles it', async ({
  rack: page,
}) => {
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, leakUgPerMin: 62, noiseUm: 0.005 });
  await toTest(page, 'VOLUME-1', null);
  await onTester(page, '2', '900');
  const lamp = lampOf(page);
  await expect(lamp).toContainText('No verdict');
  await expect(lamp).toContainText(/In a small case of about 0\.5 cm³, .* at 2 bar: tight\./);
  await expect(lamp).toContainText('Measure the diameter and thickness of the case');
  await alsoRecord(page, 'Free volume of the case');
  const size = card(page, 'Free volume of the case');
  await size.getByRole('textbox', { name: 'Case diameter' }).fill('36');
  await size.getByRole('textbox', { name: 'Thickness' }).fill('7');
  await size.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lamp).toContainText('Not yet known');
  await expect(lamp).toContainText(/Measure the free volume\..* in \d+ of 100 such tests/);
  await correct(page, 'Free volume of the case');
  await size.getByRole('textbox', { name: 'Free volume' }).fill('1.3');
  await size.getByRole('textbox', { name: 'Known within' }).fill('3');
  await size.getByRole('button', { name: 'Record the correction' }).click();
  await expect(lampOf(page)).toContainText('over the limit of 50');
});

test('a file with faults: units and decimal commas understood, what is left out told; nonsense refused with its lines', async ({
  rack: page,
}) => {
  await toTest(page, 'FILE-1');
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  const samples = simulateTrace(tightCase, 2, 300, 5);
  const comma = (value: number): string => value.toFixed(4).replace('.', ',');
  const lines = samples.map(
    ({ atS, overBar, deflectionUm }) =>
      `${atS};${comma(100 * (1.01 + overBar))};${comma(deflectionUm / 1000)}`,
  );
  lines[40] = '40;?;?';
  lines.splice(81, 0, lines[80] ?? '');
  lines[120] = `${lines[120]?.split(';').slice(0, 2).join(';')};0,9`;
  const give = (name: string, text: string) =>
    form
      .getByLabel('A tester’s record, CSV or JSON')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await give(
    'swapped.csv',
    `time;pressure;deflection\n${lines.map((line) => line.split(';').reverse().join(';')).join('\n')}`,
  );
  await expect(form.getByRole('alert')).toContainText(/Times do not rise: lines \d+/);
  await give('one.csv', 'time;pressure;deflection\n0;0;0');
  await expect(form.getByRole('alert')).toContainText('1 point: at least 12 are needed.');
  await give('test.csv', `Made at the bench\ntime (s);pressure (kPa);deflection (mm)\n${lines.join('\n')}`);
  await expect(form).toContainText('points from test.csv.');
  await expect(form).toContainText('Left out, no figure in them: line 43.');
  await expect(form).toContainText('Left out, the same time again');
  await expect(form).toContainText('Left out, a spike');
  await expect(form).toContainText('absolute pressure, because it starts at outside air pressure');
  await expect(form.getByLabel('Pressure')).toHaveValue('2');
  await recordIt(page);
  await expect(madeOf(page)).toContainText('Tight.');
  await expect(madeOf(page)).toContainText('Left out, no figure in them: line 43.');
});

/** A dry test by the two figures of a tester, on the form and not recorded. */
async function enterTwoFigures(page: Page): Promise<void> {
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('2');
  await form.getByLabel('Watched for').fill('600');
  await form.getByLabel('Or enter the deflection at the start').fill('10');
  await form.getByLabel('Deflection at the end').fill('9.99');
}

test('two figures by hand are judged the same way: without a blank run they settle nothing', async ({
  rack: page,
}) => {
  await toTest(page, 'TYPED-1');
  await enterTwoFigures(page);
  await expect(lampOf(page)).toContainText('There are two figures and no blank run');
  await alsoRecord(page, 'Blank run of the tester');
  const blank = card(page, 'Blank run of the tester');
  await blank.getByLabel('Or enter the deflection at the start').fill('0');
  await blank.getByLabel('Deflection at the end').fill('0.01');
  await blank.getByLabel('Duration').fill('600');
  await blank.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lampOf(page)).toContainText('of the deflection was left');
  await recordIt(page);
  await expect(madeOf(page)).toContainText('two figures');
});

test('a judgement that breaks off is told, and worked out again on demand', async ({ rack: page }) => {
  await page.route(/leak\.worker/, (route) => route.abort());
  await toTest(page, 'BROKE-1');
  await enterTwoFigures(page);
  await expect(lampOf(page)).toContainText('The leak rate could not be calculated');
  await page.unrouteAll();
  await lampOf(page).getByRole('button', { name: 'Calculate again' }).click();
  await expect(lampOf(page)).toContainText('There are two figures and no blank run');
});

test('a blank run of the tester tells its drift, and stands with the job', async ({ rack: page }) => {
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, driftUmPerMin: 0.2 });
  await openJob(page, 'failed-test', 'test');
  await alsoRecord(page, 'Blank run of the tester');
  const blank = card(page, 'Blank run of the tester');
  await blank.getByRole('button', { name: 'Run the tester without pressure' }).click();
  await expect(blank).toContainText('it drifts 0.2');
  await blank.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(stands(page, 'Blank run of the tester')).toContainText('121 points from the tester');
});

test('a test that failed stays, and what leaks at this counter is told with its intervals', async ({
  rack: page,
}) => {
  await openJob(page, 'failed-test', 'test');
  await expect(lampOf(page)).toContainText('Not water resistant');
  await expect(lampOf(page)).toContainText('Test plan');
  await expectAccessible(page, 'a test that failed');
  await page.getByRole('link', { name: 'Leaks' }).click();
  await expect(page.getByRole('heading', { name: 'Leak report' })).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'Lamp' })).toContainText(/\d+ of \d+ leaked/);
  const table = page.getByRole('region', { name: 'Leaks by case type and year' });
  await expect(table.getByRole('row').nth(1)).toContainText(/\d+ % to \d+ %/);
  await page.getByRole('searchbox', { name: 'Search the case types' }).fill('K77/15');
  await expect(table).toContainText('K77/15, all years');
  await expect(table.getByRole('rowheader', { name: /K77/ }).first()).toBeVisible();
  await expectAccessible(page, 'what leaks');
});
