import type { Page } from '@playwright/test';
import {
  card,
  expect,
  expectAccessible,
  goTo,
  jobId,
  openJob,
  recorded,
  setDevice,
  stands,
  takenIn,
  test,
} from './counter';
import { flatUnderLamp } from '../src/testing/lit';

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp', exact: true });
const CHARGING = 'recharging';

/** How often a *ready* stands in the lamp, as it is told. */
async function readyIn(page: Page): Promise<string> {
  return (await lampOf(page).textContent())?.match(/Ready (\w{3} \d+ \w{3} \d\d:\d\d)/)?.[1] ?? 'none';
}

/** A watch charged by its rotor, at the cell. */
async function rotorCharged(page: Page): Promise<string> {
  const id = await takenIn(page, 'VC330-02');
  await recorded(page, id, 'identify.movement', {
    calibreId: 'vessarin-330r',
    revision: null,
    code: 'V-330R',
    by: 'hand',
    note: '',
  });
  await goTo(page, `/jobs/${id}/cell`);
  return id;
}

test('a watch under a light is told when it is ready, and told anew with what is seen there', async ({
  bench: page,
}) => {
  await openJob(page, CHARGING, 'cell');
  await expect(lampOf(page)).toContainText('Under charging lamp');
  await expect(lampOf(page)).toContainText('7695 lx on the watch, case temperature 32 °C');
  await expect(lampOf(page)).toContainText(/Hand back: .* between .* and /);
  const before = await readyIn(page);
  expect(before).not.toBe('none');
  // By the book it should step by now: not yet means later, and is told as hardly to be believed.
  await card(page, 'Check under the light').getByRole('button', { name: 'Not yet' }).click();
  await expect(lampOf(page)).toContainText('It does not step normally yet, although the book predicts it');
  await expect.poll(async () => await readyIn(page)).not.toBe(before);
  await expectAccessible(page, 'a watch under a light');
  // Its rack waits for the charge, not for the bench.
  await goTo(page, '/light');
  const lamp = page.getByRole('region', { name: 'charging lamp', exact: true });
  await expect(lamp).toContainText('not yet');
  await expect(lampOf(page)).toContainText('To check now');
  await expectAccessible(page, 'the light places');
  await lamp.getByRole('link').first().click();
  await expect(page).toHaveURL(/\/cell$/);
  // Judged, it lies there no longer.
  const charge = card(page, 'Charged and watched');
  await charge.getByRole('radio', { name: 'Light' }).check();
  await charge.getByLabel('Charged for').fill('40');
  await charge.getByRole('radio', { name: 'Steps normally' }).check();
  await charge.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lampOf(page)).toContainText('Fine as it is');
  await goTo(page, '/light');
  await expect(lamp).toContainText('No watch lies there.');
});

test('where it lies is worked out as it is typed; too hot, too dim and out of range are said', async ({
  bench: page,
}) => {
  await openJob(page, CHARGING, 'cell');
  await recorded(page, jobId(CHARGING), 'cell.charged', {
    by: 'light',
    hours: 3,
    outcome: 'low-supply steps',
  });
  await expect(lampOf(page)).toContainText('Light places compared, from flat');
  await expect(lampOf(page)).toContainText(/Charging lamp: ready .* at the latest/);
  const form = page.getByRole('region', { name: 'Under the light', exact: true });
  await form.getByLabel('Light place').selectOption('charging lamp, 9500 lx');
  await form.getByLabel('Room temperature').fill('22');
  await form.getByRole('textbox', { name: 'Distance to the lamp' }).fill('90');
  await form.getByRole('radio', { name: 'Flat' }).check();
  await expect(form).toContainText('The case would reach 78 °C, above the limit of 45 °C');
  await expect(form).toContainText(/At \d+ mm or more it stays cool enough/);
  await expect(form).not.toContainText('Steps normally:');
  await form.getByRole('button', { name: 'Record placement' }).click();
  // It is not recorded, and nothing typed is lost.
  await expect(stands(page, 'Under the light')).toHaveCount(0);
  await expect(form.getByRole('textbox', { name: 'Distance to the lamp' })).toHaveAttribute(
    'aria-invalid',
    'true',
  );
  await form.getByRole('textbox', { name: 'Distance to the lamp' }).fill('1500');
  await expect(form).toContainText('Too dim');
  await form.getByLabel('Charge level').fill('140');
  await form.getByRole('button', { name: 'Record placement' }).click();
  await expect(form).toContainText('0 to 100');
});

test('rotor-charged: rotor and wheel on the tray, a modern kit where the book foresees it, and what it gains', async ({
  bench: page,
}) => {
  const id = await rotorCharged(page);
  await expect(lampOf(page)).toContainText('Charge it first');
  await expect(lampOf(page)).toContainText('Or KT-V33M, a modern replacement listed in the book');
  await expect(lampOf(page)).toContainText(/Hand back after \d+ h worn/);
  // The winder as it turns now.
  await setDevice(page, 'winder', { turnsAnHour: 450, fault: 'none' });
  await page.reload();
  const slow = /Hand back: [\d.]+ h worn, or \d+ thousand turns, (\d+) h on the winder/;
  const hours = async (): Promise<number> =>
    Number(slow.exec((await lampOf(page).textContent()) ?? '')?.[1] ?? 'NaN');
  await expect(lampOf(page)).toContainText(slow);
  const usual = await hours();
  await page.getByRole('button', { name: 'Read winder' }).click();
  await expect(lampOf(page).getByRole('status')).toContainText('At the current 450 turns an hour.');
  await expect.poll(hours).toBeGreaterThan(usual * 1.9);
  const guide = page.getByRole('region', { name: 'fitting guide' });
  await expect(guide).toContainText('Turn it until it drops by itself');
  await guide.getByRole('checkbox', { name: 'Rotor off: done' }).check();
  await expect(guide.getByRole('checkbox', { name: 'Rotor off: done' })).toBeChecked();
  await page.keyboard.press('2');
  await expect(page.getByRole('region', { name: 'Parts tray' })).toContainText('rotor');
  await page.keyboard.press('5');
  const renewed = card(page, 'Accumulator renewed');
  await renewed.getByLabel('Reason for skipping the test charge').fill('it swelled');
  await renewed
    .getByLabel('Taken from')
    .selectOption({ label: 'KT-V33M, lot K-3316, Saltmarsh Wholesale, 2 left' });
  await renewed.getByRole('radio', { name: 'Kit with tabs' }).check();
  await renewed.getByRole('button', { name: 'Renewed' }).click();
  await expect(lampOf(page)).toContainText('A new accumulator is nearly empty');
  await goTo(page, `/jobs/${id}/handback`);
  await expect(page.getByRole('region', { name: 'Record for the owner' })).toContainText(
    'A modern accumulator replaces the old capacitor. Fully charged, it runs 160 days, 70 days longer than before.',
  );
});

test('who has the light and who waits for room is told, at the place and at the watch', async ({
  bench: page,
}) => {
  let last = '';
  // The lamp holds three, and one lies there.
  for (const minute of ['01', '02', '03']) {
    last = await takenIn(page, 'VC210-04', { service: 'recharge or new accumulator' });
    await recorded(page, last, 'identify.movement', {
      calibreId: 'vessarin-210s',
      revision: null,
      code: 'V-210S',
      by: 'hand',
      note: '',
    });
    await recorded(page, last, 'cell.lit', flatUnderLamp, null, {
      occurredAt: `2026-03-17T09:${minute}:00.000Z`,
    });
  }
  await goTo(page, '/light');
  const lamp = page.getByRole('region', { name: 'charging lamp', exact: true });
  await expect(lamp).toContainText('4 watches are here and 3 fit in the light: 1 waits in the shade');
  // The envelope in the rack says when to look again.
  await expect(page.getByText(/under charging lamp: check (now|at)/).first()).toBeVisible();
  await expect(page.getByText('at charging lamp: waiting for light')).toHaveCount(1);
  await expect(lamp.getByRole('row').nth(4)).toContainText(/waits: room from \w+ \d+ \w+ .*, ready /);
  await goTo(page, `/jobs/${last}/cell`);
  await expect(lampOf(page)).toContainText('It is in the shade');
});

test('the light of a place is measured again, and a lamp that aged is told', async ({ bench: page }) => {
  await goTo(page, '/light');
  await setDevice(page, 'light-meter', { lux: 6100, noisePercent: 0, fault: 'none' });
  await page.reload();
  const lamp = page.getByRole('region', { name: 'charging lamp', exact: true });
  await lamp.getByRole('button', { name: 'Measure the light of charging lamp' }).click();
  await expect(lamp.getByRole('status')).toContainText('6100 lx now, but 9500 lx are entered');
  await expectAccessible(page, 'the light places with a meter');
  await setDevice(page, 'light-meter', { lux: 9400, noisePercent: 0, fault: 'none' });
  await lamp.getByRole('button', { name: 'Measure the light of charging lamp' }).click();
  await expect(lamp.getByRole('status')).toContainText('9400 lx now, as entered');
  await setDevice(page, 'light-meter', { lux: 9400, noisePercent: 0, fault: 'cap on' });
  await lamp.getByRole('button', { name: 'Measure the light of charging lamp' }).click();
  await expect(lamp.getByRole('status')).toContainText('cap');
});

test('the kit of a sister calibre is refused with the reason', async ({ bench: page }) => {
  await rotorCharged(page);
  const renewed = card(page, 'Accumulator renewed');
  await renewed.getByLabel('Reason for skipping the test charge').fill('it swelled');
  await renewed.getByLabel('Taken from').selectOption('not from stock');
  await renewed.getByLabel('Kit', { exact: true }).fill('KT-V21');
  await renewed.getByRole('radio', { name: 'Kit with tabs' }).check();
  await renewed.getByRole('button', { name: 'Renewed' }).click();
  const refused = renewed.getByRole('alert');
  await expect(refused).toContainText('The kit for V-330R is KT-V33 or KT-V33M, not KT-V21.');
  await expect(refused).toContainText('KT-V21 is for V-210S: 2.1 mm high and not 2.7 mm.');
});
