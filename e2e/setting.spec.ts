import type { Page } from '@playwright/test';
import {
  card,
  correct,
  expect,
  expectAccessible,
  goTo,
  jobId,
  openJob,
  recorded,
  stands,
  test,
} from './counter';

test('the way to the time of the shop is worked out from what the watch shows, by the fewest midnights', async ({
  rack: page,
}) => {
  await openJob(page, 'to-set-and-prove', 'set');
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  const shows = card(page, 'Display now');
  await shows.getByLabel('The hands').fill('9:42');
  await shows.getByLabel('Date', { exact: true }).fill('7');
  await shows.getByLabel('Day', { exact: true }).selectOption('Saturday');
  await shows.getByRole('radio', { name: 'None' }).check();
  // It may be evening, when day and date are still to change: counted from there it ends on a wrong day.
  await expect(lamp).toContainText('Look again');
  await expect(lamp).toContainText('1. Turn the hands forwards until the date jumps: that is midnight.');
  await expect(lamp).toContainText('Read day and date again and enter them here');
  await shows.getByLabel('AM or PM').selectOption('A.m.');
  // Tuesday 17 March: ten dates on and three days on, by ten midnights.
  await expect(lamp).toContainText('Setting, to Tuesday 17');
  await expect(lamp).toContainText('10 midnights');
  await shows.getByLabel('Day', { exact: true }).selectOption('Sunday');
  await expect(lamp).toContainText(/\d+ midnights. This takes long/);
  // A ring with two languages, and a day that has no quick-set.
  await shows.getByLabel('Day ring').selectOption('two, the first shows');
  await shows.getByLabel('Language wanted').selectOption('the second');
  await shows.getByRole('radio', { name: 'Date only' }).check();
  await expect(lamp).toContainText('Language out of reach');
  await shows.getByRole('radio', { name: 'Date and day' }).check();
  await expect(lamp).toContainText('Quick-set the day to Tuesday, in the second language.');
  await expect(lamp).toContainText('Quick-set the date to 17.');
  await shows.getByLabel('AM or PM').selectOption('not known');
  await expect(lamp).toContainText('Turn the hands forwards to 06:00.');
  await expectAccessible(page, 'the way of setting');
});

const lampOf = (page: Page) => page.getByRole('complementary', { name: 'Lamp', exact: true });

test('day and date without a quick-set, and the hours of the calibre’s own change-over', async ({
  rack: page,
}) => {
  await openJob(page, 'to-set-and-prove', 'set');
  // The book has this calibre’s change-over until 04:20.
  await expect(lampOf(page)).toContainText('outside 20:00–04:20');
  const shows = card(page, 'Display now');
  await shows.getByLabel('The hands').fill('9:42');
  await shows.getByLabel('AM or PM').selectOption('A.m.');
  await shows.getByLabel('Date', { exact: true }).fill('16');
  await shows.getByLabel('Day', { exact: true }).selectOption('Monday');
  await shows.getByRole('radio', { name: 'None' }).check();
  await expect(lampOf(page)).toContainText('1 midnight');
  await expect(lampOf(page)).toContainText('63 midnights without a quick-set');
});

test('the crown goes home on the full minute by a countdown, and the way is worked out for it', async ({
  rack: page,
}) => {
  await openJob(page, 'to-set-and-prove', 'set');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('k');
  const countdown = page.getByRole('group', { name: 'Countdown for the crown' });
  await expect(countdown.getByRole('timer')).toHaveText(/^\d+ s$/);
  const at = (await countdown.textContent())?.match(/Hands on (\d\d:\d\d)/)?.[1] ?? '';
  await countdown.getByRole('button', { name: 'A minute later' }).click();
  await expect(countdown).not.toContainText(`Hands on ${at}`);
  const shows = card(page, 'Display now');
  await shows.getByLabel('The hands').fill('9:30');
  await shows.getByLabel('Date', { exact: true }).fill('17');
  // A watch that has a day is not set before the day is said.
  await expect(lampOf(page)).not.toContainText('Setting, to');
  await shows.getByLabel('Day', { exact: true }).selectOption('Tuesday');
  const later = (await countdown.textContent())?.match(/Hands on (\d\d:\d\d)/)?.[1] ?? 'none';
  await expect(lampOf(page)).toContainText(`Setting, to Tuesday 17, ${later}`);
  await expectAccessible(page, 'the countdown');
  await countdown.getByRole('button', { name: 'Stop' }).click();
  await expect(countdown).toHaveCount(0);
});

test('a watch is watched by its own step, stands in the running rack, and hands that stand still have stopped', async ({
  rack: page,
}) => {
  await goTo(page, '/running');
  const rack = page.getByRole('region', { name: 'Watches running' });
  const watched = rack.getByRole('row').filter({ hasText: 'that it runs' });
  // Steps every 20 s: two minutes from its beginning at 09:39.
  await expect(watched).toContainText('Tue 09:41:00');
  await expect(watched.getByRole('cell').last()).toHaveText(/^\d:\d\d$|^now, /);
  await expect(rack.getByRole('row').filter({ hasText: 'how it keeps time' })).toContainText('09:02:10');
  await expectAccessible(page, 'the running rack');
  await watched.getByRole('link').click();
  await expect(page).toHaveURL(/\/set$/);
  await expect(lampOf(page)).toContainText('watch it 120 s before you call it stopped');
  const ends = card(page, 'Seen at the end');
  await expect(ends.getByRole('timer')).toBeVisible();
  await ends.getByRole('radio', { name: 'It stopped' }).check();
  await ends.getByRole('button', { name: 'Read now' }).click();
  await expect(stands(page, 'Seen at the end')).toContainText('stopped');
  await expect(lampOf(page)).toContainText('Does not run');
  await goTo(page, '/running');
  await expect(watched).toHaveCount(0);
});

test('a proving run counts down by the policy, and says no more of the rate than was read', async ({
  rack: page,
}) => {
  await openJob(page, 'ready-to-sign', 'set');
  const ends = card(page, 'Proving run ends');
  await expect(ends).toContainText('no set duration');
  await ends.getByRole('radio', { name: 'It still runs' }).check();
  await ends.getByRole('button', { name: 'Read now' }).click();
  await expect(ends).toContainText('The hands show: hours and minutes');
  await ends.getByLabel('The hands show').fill('09:55');
  await ends.getByRole('button', { name: 'Read now' }).click();
  await expect(lampOf(page)).toContainText('and no better');
  await expect(lampOf(page)).not.toContainText('Keeps time');
});

test('a chronograph is sent home by its own recipe, step by step', async ({ bench: page }) => {
  await openJob(page, 'draws-too-much', 'set');
  await expect(lampOf(page)).toContainText('Chronograph: counter hands to zero');
  const recipe = card(page, 'OR 62.3 by the book').getByRole('group', { name: 'Counter hands to zero' });
  await recipe.getByRole('checkbox', { name: /^1\. Chronograph stopped/ }).check();
  await expect(recipe.getByRole('checkbox')).toHaveCount(4);
  await expectAccessible(page, 'the recipe of a chronograph');
});

test('a display is set by its buttons; beside hands the two are proved to agree', async ({ bench: page }) => {
  await openJob(page, 'part-on-the-tray', 'set');
  await expect(lampOf(page)).toContainText('of the display with its buttons');
  await expect(lampOf(page)).not.toContainText('midnight');
  await expect(card(page, 'TK82D by the book')).toContainText('Every segment shows once');
  await openJob(page, 'two-cells', 'set');
  await expect(lampOf(page)).toContainText('Compare hands and display');
  await expect(
    card(page, 'Functions of this movement').getByRole('radiogroup', { name: 'hands and display agree' }),
  ).toBeVisible();
});

test('a watch that charges in the light is proved by its own signals', async ({ bench: page }) => {
  await openJob(page, 'recharging', 'set');
  const functions = card(page, 'Functions of this movement');
  await expect(functions).toContainText('With the dial covered it shows: the seconds hand steps in twos');
  await expect(functions).toContainText('It may show until the watch is charged');
  await expect(functions).toContainText('Reason: the owner: does not hold its charge');
  await expect(functions).not.toContainText('must be gone with the new cell');
});

test('a light that fails sends the watch back to stage 5, until it works or goes out so with its reason', async ({
  bench: page,
}) => {
  await openJob(page, 'part-on-the-tray', 'set');
  await correct(page, 'Functions of this movement');
  const functions = card(page, 'Functions of this movement');
  await functions
    .getByRole('radiogroup', { name: 'light', exact: true })
    .getByRole('radio', { name: 'does not work' })
    .check();
  await functions.getByRole('button', { name: 'Record the correction' }).click();
  await expect(lampOf(page)).toContainText('Light does not work: back to stage 5, cell');
  // The envelope waits for it there.
  await expect(
    page.getByRole('link', { name: new RegExp('waiting for Cell: light does not work') }),
  ).toBeVisible();
  await lampOf(page).getByRole('link', { name: 'stage 5, cell' }).click();
  await expect(page).toHaveURL(/\/cell$/);
  await expect(lampOf(page)).toContainText('Light does not work');
  await goTo(
    page,
    page
      .url()
      .replace(/^https?:\/\/[^/]+/, '')
      .replace('/cell', '/handback'),
  );
  await expect(page.getByRole('button', { name: 'Sign as EV' })).toBeDisabled();
  await page.keyboard.press('8');
  // Repaired and tried once more it is proved; the first proof stands in the logbook.
  const again = card(page, 'Functions, checked again');
  for (const name of ['digital display', 'light', 'alarm', 'date', 'day', 'reset contact joined'])
    await again
      .getByRole('radiogroup', { name, exact: true })
      .getByRole('radio', { name: 'works', exact: true })
      .check();
  await expectAccessible(page, 'a proof tried once more');
  await again.getByRole('button', { name: 'Record' }).click();
  await expect(again).toHaveCount(0);
  await expect(lampOf(page)).not.toContainText('does not work');
  // Handed back so it wants its reason, and the slip says it.
  await correct(page, 'Functions of this movement');
  await functions
    .getByRole('radiogroup', { name: 'light', exact: true })
    .getByRole('radio', { name: 'does not work' })
    .check();
  await functions.getByLabel('Reason for handing it back with a fault').fill('the owner wants no repair');
  await functions.getByRole('button', { name: 'Record the correction' }).click();
  await expect(lampOf(page)).toContainText('handed back with this fault: the owner wants no repair');
  await page.keyboard.press('9');
  await expect(page.getByRole('region', { name: 'Record for the owner' })).toContainText(
    'Does not work: light (the owner wants no repair).',
  );
});

test('what was proved before the closing is shown as such, and asked again', async ({ bench: page }) => {
  await openJob(page, 'to-close', 'seal');
  await expect(lampOf(page)).toContainText('Watch it run before you close it');
  await lampOf(page).getByRole('link', { name: 'Watch it run now' }).click();
  await expect(page).toHaveURL(/\/set$/);
  const ends = card(page, 'Seen at the end');
  await ends.getByRole('radio', { name: 'It still runs' }).check();
  await ends.getByRole('button', { name: 'Read now' }).click();
  await expect(lampOf(page)).toContainText('repeated after closing');
  await recorded(page, jobId('to-close'), 'seal.closed', {
    how: 'thumbs',
    seamEven: true,
    raisedClocks: [],
    seenFrom: null,
    interim: false,
  });
  await page.keyboard.press('8');
  await expect(lampOf(page)).toContainText('Ran before it was closed');
  await expect(card(page, 'Watched by the clock')).toContainText('Before it was closed: watched to the end');
  const runs = card(page, 'Does it run?');
  await runs.getByLabel('Watched for').fill('30');
  await runs.getByRole('radio', { name: 'It runs' }).check();
  await runs.getByRole('button', { name: 'Record' }).click();
  await expect(lampOf(page)).toContainText('Watched too briefly');
});
