import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import react from '@vitejs/plugin-react';
import { build } from 'vite';
import { demoId } from '../demo/build';
import { STAGES } from '../src/core/craft/policy';
import { createApp } from '../src/server/app';
import { tracedCounter } from './trace';

/**
 * How long each stage takes until its first form can be used, opened by its address with everything in the browser's
 * cache, against a bare page of the same libraries with one form, loaded in turn with it in the same browser.
 */
const AIM = 2;
const ROUNDS = 5;

const folder = mkdtempSync(join(tmpdir(), 'wax-bare-'));
await build({
  root: join(process.cwd(), 'benchmarks', 'barePage'),
  configFile: false,
  logLevel: 'error',
  plugins: [react()],
  build: { outDir: folder, emptyOutDir: true, target: 'es2022' },
});

const { store, page, close } = await tracedCounter();
const bare = createServer(createApp({ store, host: '127.0.0.1', key: null, webDir: folder }));
await new Promise<void>((resolve) => bare.listen(0, '127.0.0.1', resolve));
const bareUrl = `http://127.0.0.1:${(bare.address() as AddressInfo).port}/form`;

/** From the first byte asked for to the first form that can be used, ms, by the page's own clock. */
async function readyAfterMs(url: string, form: string): Promise<number> {
  await page.goto(url, { waitUntil: 'commit' });
  // As text: what compiles this file would put its own helpers into a function sent to the page.
  return page.evaluate<number>(`new Promise((resolve) => {
    (function look() {
      if (document.querySelector(${JSON.stringify(form)}) !== null) resolve(performance.now());
      else requestAnimationFrame(look);
    })();
  })`);
}

const median = (of: readonly number[]): number =>
  [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)] ?? NaN;

const stages = STAGES.map((stage) => ({ stage, took: [] as number[] }));
const yardstick: number[] = [];
for (let round = 0; round <= ROUNDS; round += 1) {
  for (const { stage, took } of stages) {
    const own = await readyAfterMs(
      `/jobs/${demoId('job', 'just-arrived')}/${stage}`,
      'main section, main button, main input',
    );
    await page.waitForTimeout(1000);
    const other = await readyAfterMs(bareUrl, 'main button[type="submit"]');
    // The first round fills the cache.
    if (round === 0) continue;
    took.push(own);
    yardstick.push(other);
  }
}
const one = median(yardstick);
for (const { stage, took } of stages) {
  const ratio = median(took) / one;
  console.log(
    `${stage}: ready after ${median(took).toFixed(0)} ms, ${ratio.toFixed(2)} × a bare page of the same libraries, ${one.toFixed(0)} ms (aim ${AIM}).`,
  );
  if (!(ratio <= AIM)) process.exitCode = 1;
}
await close();
bare.closeAllConnections();
bare.close();
rmSync(folder, { recursive: true, force: true });
