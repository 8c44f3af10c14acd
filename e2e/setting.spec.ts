import { card, expect, expectAccessible, openJob, test } from './counter';

test('the way to the time of the shop is worked out from what the watch shows, by the fewest midnights', async ({
  rack: page,
}) => {
  await openJob(page, 'to-set-and-prove', 'set');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  const shows = card(page, 'What it shows now');
  await shows.getByLabel('The hands').fill('9:42');
  await shows.getByLabel('Date', { exact: true }).fill('7');
  await shows.getByLabel('Day', { exact: true }).selectOption('Saturday');
  await shows.getByRole('radio', { name: 'None' }).check();
  // Tuesday 17 March: ten dates on and three days on, by ten midnights.
  await expect(lamp).toContainText('Set it so, to Tuesday 17');
  await expect(lamp).toContainText('10 midnights');
  await expect(lamp).toContainText('1. Turn on until the date jumps: that is midnight.');
  await shows.getByLabel('Day', { exact: true }).selectOption('Sunday');
  await expect(lamp).toContainText(/\d+ midnights: that is long, and the only way without a quick-set/);
  // A ring with two languages, and a day that has no quick-set.
  await shows.getByLabel('Its day ring').selectOption('two, the first shows');
  await shows.getByLabel('Language wanted').selectOption('the second');
  await shows.getByRole('radio', { name: 'Date only' }).check();
  await expect(lamp).toContainText('Language out of reach');
  await shows.getByRole('radio', { name: 'Date and day' }).check();
  await expect(lamp).toContainText(/Quick-set the day \d+ times/);
  await expect(lamp).toContainText('Turn on to 06:00.');
  await expectAccessible(page, 'the way of setting');
});
