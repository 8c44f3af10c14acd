import type { JobResource } from '../src/contract';
import { expect, expectAccessible, jobId, goTo, test } from './counter';

test('an owner’s details are put right by two hands at once, and a third says which hold', async ({
  bench: page,
  context,
}) => {
  const { customer } = (await (
    await page.request.get(`/api/jobs/${jobId('worn-engraving')}`)
  ).json()) as JobResource;
  const path = `/customers/${customer?.id}`;
  await page.goto(path);
  const form = page.getByRole('region', { name: 'Contact' });
  await form.getByRole('button', { name: 'Correct' }).click();
  const other = await context.newPage();
  await other.goto(path);
  const there = other.getByRole('region', { name: 'Contact' });
  await there.getByRole('button', { name: 'Correct' }).click();
  await there.getByLabel('Phone').fill('0555 0300');
  await there.getByLabel('Phone').press('Enter');
  await expect(there).toContainText('0555 0300');
  // This window saw the details of before: both stand.
  await form.getByLabel('Phone').fill('0555 0200');
  await form.getByLabel('E-mail').fill('no address');
  await form.getByRole('button', { name: 'Record' }).click();
  await expect(form).toContainText('E-mail: an address');
  await form.getByLabel('E-mail').fill('');
  await form.getByRole('button', { name: 'Record' }).click();
  const disagreement = page.getByRole('region', { name: 'Conflicting details' });
  await expect(disagreement).toContainText('2 people changed this owner at the same time');
  await expectAccessible(page, 'an owner in dispute');
  await disagreement.getByRole('button', { name: /0555 0300/ }).click();
  await expect(disagreement).toHaveCount(0);
  await expect(form).toContainText('0555 0300');
  await form.getByText('Earlier details (4)').click();
  await expect(form).toContainText('0555 0200');
});

test('what is typed over an owner found again is told to put them right, or begins another person', async ({
  bench: page,
}) => {
  await goTo(page, '/new');
  const owner = page.getByRole('combobox', { name: 'Owner' });
  await owner.fill('Corin');
  await page.getByRole('option').first().click();
  const answer = page.getByText(/right, on every job/);
  await expect(answer).toHaveCount(0);
  await owner.fill('Somebody Else');
  await expect(answer).toBeVisible();
  await page.getByRole('button', { name: 'This is another person' }).click();
  await expect(answer).toHaveCount(0);
  await expect(page.getByRole('radiogroup', { name: 'Which watch?' })).toHaveCount(0);
});
