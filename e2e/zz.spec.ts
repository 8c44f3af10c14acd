import { card, expect, FAST_TESTER, goTo, openJob, recorded, setDevice, takenIn, test } from './counter';
test('pictures', async ({ rack: page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 1280, height: 800 });
  await goTo(page, '/leaks');
  await page.waitForTimeout(800);
  await page.screenshot({ path: '/tmp/q1.png' });
  await setDevice(page, 'leak-tester', { ...FAST_TESTER, speed: 60, leakUgPerMin: 300 });
  const id = await takenIn(page, 'PIC-1', { service: 'reseal and test' });
  await recorded(page, id, 'arrive.crown', { crown: 'screwed down' });
  await recorded(page, id, 'arrive.wear', { uses: ['swimming'], words: '' });
  await recorded(page, id, 'seal.closed', {
    how: 'thumbs',
    seamEven: true,
    raisedClocks: [],
    seenFrom: null,
    interim: false,
  });
  await goTo(page, `/jobs/${id}/test`);
  await page.waitForTimeout(800);
  await page.screenshot({ path: '/tmp/q2.png' });
  const form = card(page, 'Record a test');
  await form.getByRole('radio', { name: 'Dry air' }).check();
  await form.getByLabel('Pressure').fill('1');
  await form.getByLabel('Watched for').fill('120');
  await form.getByRole('button', { name: 'Run it on the tester' }).click();
  await page.waitForTimeout(2500);
  await page.screenshot({ path: '/tmp/q3.png' });
  await expect(form).toContainText('points from the tester.', { timeout: 20000 });
  await page.waitForTimeout(1000);
  await page.screenshot({ path: '/tmp/q4.png' });
  await form.getByRole('button', { name: 'Record', exact: true }).click();
  await page.waitForTimeout(500);
  await form.getByRole('radio', { name: 'Wet' }).check();
  await form.getByRole('radio', { name: 'Leak seen', exact: true }).check();
  await page.waitForTimeout(300);
  await page.screenshot({ path: '/tmp/q5.png', fullPage: true });
});
