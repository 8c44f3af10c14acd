import { writeFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoId } from '../demo/build';
import { tracedCounter } from './trace';

/** Does the page stay free while a file of a million points is read and judged? */
const POINTS = 1_000_000;
const EVERY_S = 0.0006;
const CSV = join(tmpdir(), 'wax-million.csv');

const lines = ['time (s);pressure (bar gauge);deflection (µm)'];
for (let i = 0; i < POINTS; i += 1) {
  const at = i * EVERY_S;
  const pressed = Math.min(1, Math.max(0, (at - 15) / 3)) - Math.min(1, Math.max(0, (at - 300) / 3));
  const noise = Math.sin(i * 12.9898) * 0.05;
  lines.push(`${at.toFixed(4)};${(2 * pressed).toFixed(3)};${(10 * pressed + noise).toFixed(4)}`);
}
writeFileSync(CSV, lines.join('\n'));

const { page, during, close } = await tracedCounter();
await page.goto(`/jobs/${demoId('job', 'failed-test')}/test`);
const form = page.getByRole('region', { name: 'Record a test' });
const lamp = page.getByRole('complementary', { name: 'Lamp' });
await form.getByRole('radio', { name: 'Dry air' }).check();
await page.waitForTimeout(2000);
const began = performance.now();
await during(`A CSV of ${POINTS} points read and judged`, async () => {
  await form.getByLabel('A tester’s record, CSV or JSON').setInputFiles(CSV);
  await lamp.getByText('Result of this record').waitFor({ timeout: 120_000 });
  await lamp
    .getByText(/the limit of 50/)
    .first()
    .waitFor({ timeout: 120_000 });
});
console.log(
  `  in ${((performance.now() - began) / 1000).toFixed(1)} s, from the choice of the file to the verdict.`,
);
await close();
rmSync(CSV, { force: true });
