import { card, expect, expectAccessible, recorded, seeUsual, takenIn, test } from './counter';

test('an unknown rechargeable that does not hold its charge gets no primary cell until somebody says why', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'unmarked', { complaint: ['does not hold its charge'] });
  await page.goto(`/jobs/${id}/cell`);
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  const part = (name: string) => card(page, name);
  await expect(lamp).toContainText('The owner says it does not hold its charge.');
  await expect(part('Accumulator renewed')).toBeVisible();
  await expect(part('Cell to fit')).toHaveCount(0);
  await page.getByLabel('Marking of the old cell').fill('MT 621');
  await seeUsual(part('Cell found'), 'Cell found');
  await part('Cell found').getByRole('button', { name: 'Record' }).click();
  await expect(lamp).toContainText('The cell found is “MT 621”.');
  await expectAccessible(page, 'the cell stage of an unknown rechargeable');

  // A print that names a primary cell contradicts it: then neither goes in.
  await recorded(page, id, 'open.print', { text: 'USE SR621SW' });
  await expect(lamp).toContainText('The evidence conflicts');
  await expect(part('Cell to fit')).toContainText('leaks or bursts');
  await expect(page.getByRole('button', { name: /^Fitted/ })).toHaveCount(0);

  await part('Power source').getByRole('radio', { name: 'a primary cell' }).check();
  await part('Power source').getByRole('button', { name: 'Record' }).click();
  await expect(part('Power source')).toContainText('Evidence');
  await part('Power source').getByLabel('Evidence').fill('no solar cell, no rotor');
  await part('Power source').getByRole('button', { name: 'Record' }).click();
  await expect(part('Power source')).toContainText('Runs from a primary cell: no solar cell, no rotor');
  await part('Cell to fit')
    .getByRole('button', { name: /^Fitted SR621SW from lot/ })
    .click();
  await expect(part('Cell to fit')).toContainText('Fitted: SR621SW, lot');
});
