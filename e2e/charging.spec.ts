import type { Page } from '@playwright/test';
import { card, expect, expectAccessible, goTo, jobId, openJob, recorded, stands, test } from './counter';

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp', exact: true });
const CHARGING = 'recharging';

/** How often a *ready* stands in the lamp, as it is told. */
async function readyIn(page: Page): Promise<string> {
  return (await lampOf(page).textContent())?.match(/Ready (\w{3} \d+ \w{3} \d\d:\d\d)/)?.[1] ?? 'none';
}

test('a watch under a light is told when it is ready, and told anew with what is seen there', async ({
  bench: page,
}) => {
  await openJob(page, CHARGING, 'cell');
  await expect(lampOf(page)).toContainText('Under charging lamp');
  await expect(lampOf(page)).toContainText('7695 lx on the watch, its case comes to 32 °C');
  await expect(lampOf(page)).toContainText(/Hand back: .* between .* and /);
  const before = await readyIn(page);
  expect(before).not.toBe('none');
  // By the book it should step by now: not yet means later, and is told as hardly to be believed.
  await card(page, 'Looked at under the light').getByRole('button', { name: 'Not yet' }).click();
  await expect(lampOf(page)).toContainText('It does not step normally yet, and by the book it should');
  await expect.poll(async () => await readyIn(page)).not.toBe(before);
  await expectAccessible(page, 'a watch under a light');
  // Its rack waits for the charge, not for the bench.
  await goTo(page, '/light');
  const lamp = page.getByRole('region', { name: 'charging lamp', exact: true });
  await expect(lamp).toContainText('not yet');
  await expect(lampOf(page)).toContainText('To look at');
  await expectAccessible(page, 'the light places');
  await lamp.getByRole('link').first().click();
  await expect(page).toHaveURL(/\/cell$/);
  // Judged, it lies there no longer.
  const charge = card(page, 'Charged and watched');
  await charge.getByRole('radio', { name: 'Light' }).check();
  await charge.getByLabel('For', { exact: true }).fill('40');
  await charge.getByRole('radio', { name: 'Steps normally' }).check();
  await charge.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(lampOf(page)).toContainText('Fine as it is');
  await goTo(page, '/light');
  await expect(lamp).toContainText('Nothing lies there.');
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
  const form = page.getByRole('region', { name: 'Under the light', exact: true });
  await form.getByLabel('Light place').selectOption('charging lamp, 9500 lx');
  await form.getByLabel('The room').fill('22');
  await form.getByRole('textbox', { name: 'From the lamp' }).fill('90');
  await form.getByRole('radio', { name: 'Flat' }).check();
  await expect(form).toContainText('The case would come to 78 °C, and 45 °C is the most');
  await expect(form).toContainText(/From \d+ mm on it stays cool enough/);
  await form.getByRole('button', { name: 'It lies there now' }).click();
  // It is not recorded, and nothing typed is lost.
  await expect(stands(page, 'Under the light')).toHaveCount(0);
  await expect(form.getByRole('textbox', { name: 'From the lamp' })).toHaveAttribute('aria-invalid', 'true');
  await form.getByRole('textbox', { name: 'From the lamp' }).fill('1500');
  await expect(form).toContainText('Too dim');
  await form.getByLabel('Charge, where it was read').fill('140');
  await form.getByRole('button', { name: 'It lies there now' }).click();
  await expect(form).toContainText('0 to 100');
});
