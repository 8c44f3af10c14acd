import { demoId } from '../demo/build';
import { tracedCounter } from './trace';

/** Does the page stay free while a life is forecast, and while the finder follows each key? */
const NAME = 'sr 621 sw';
const SIZE = ['9.52', '2.05'] as const;

const { page, during, close } = await tracedCounter();
// The worker is slow to come the first time, so that the forecast can be stopped, and drawn anew while it is traced.
await page.route(/life\.worker/, async (route) => {
  await page.waitForTimeout(1500);
  await route.continue();
});
await page.goto(`/jobs/${demoId('job', 'draws-too-much')}/cell`);
const life = page.getByRole('region', { name: 'How long it lasts' });
await life.getByRole('button', { name: 'Stop' }).click();
await life.getByText('The forecast was stopped.').waitFor();
await page.waitForTimeout(1500);
await during('Drawing the forecasts of all candidates', async () => {
  await life.getByRole('button', { name: 'Calculate again' }).click();
  await life.getByText(/\d+ to \d+ months/).waitFor();
  await page.waitForTimeout(1000);
});

await page.goto('/cells');
const name = page.getByLabel('Name, or calibre');
await name.fill('sr');
await page.getByRole('region', { name: 'Found' }).waitFor();
await name.fill('');
await page.waitForTimeout(1500);
await during(`The finder, ${NAME.length + SIZE.join('').length} keys`, async () => {
  await name.pressSequentially(NAME, { delay: 90 });
  await name.fill('');
  await page.getByRole('textbox', { name: 'Across' }).pressSequentially(SIZE[0], { delay: 90 });
  await page.getByRole('textbox', { name: 'Height' }).pressSequentially(SIZE[1], { delay: 90 });
  await page.waitForTimeout(500);
});
await close();
