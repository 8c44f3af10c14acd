import { demoId } from '../demo/build';
import type { CaseType } from '../src/core/craft/cases';
import type { Calibre } from '../src/core/craft/movements';
import { tracedCounter } from './trace';

/** What a book of thousands costs a browser: read for the first time, on a reload, and as one record of it changes. */
const [CALIBRES, CASE_TYPES] = [20_000, 5000];
/** The first view of a reload is there within this time, ms. */
const FIRST_VIEW_MS = 1000;

const { store, page, during, close } = await tracedCounter();
const { calibres, caseTypes } = store.catalogue.book();
const nth = <T>(items: readonly T[], at: number): T => {
  const item = items[at % items.length];
  if (item === undefined) throw new Error('The demo’s book is empty.');
  return item;
};
const calibre = (at: number): Calibre => ({
  ...nth(calibres, at),
  id: `large-${at}`,
  code: `LG ${at}.${at % 7}`,
});
const address = `/jobs/${demoId('job', 'just-arrived')}/check`;
const shown = (): Promise<void> => page.getByRole('complementary', { name: 'Lamp' }).waitFor();
/** A reload, until its lamp is there, ms. */
async function reload(): Promise<number> {
  const began = performance.now();
  await page.goto(address);
  await shown();
  return performance.now() - began;
}
await reload();
let smallMs = 0;
await during(`A reload with a book of ${calibres.length}`, async () => {
  smallMs = await reload();
  await page.waitForTimeout(1500);
});
store.inOne(() => {
  store.catalogue.write(
    'calibre',
    Array.from({ length: CALIBRES }, (_, at) => calibre(at)),
  );
  store.catalogue.write(
    'caseType',
    Array.from({ length: CASE_TYPES }, (_, at): CaseType => ({
      ...nth(caseTypes, at),
      id: `large-${at}`,
      code: `L${at}-${at % 9}`,
    })),
  );
});

let bytes = 0;
page.on('response', (response) => {
  if (!response.url().includes('/api/catalogue/changes')) return;
  void response.body().then(
    (body) => (bytes += body.length),
    () => undefined,
  );
});
await during('The book read for the first time', async () => {
  await reload();
});
// It is kept once the page is there.
await page.waitForFunction(
  (revision) => (localStorage.getItem('wax.book') ?? '').includes(`"revision":${revision}`),
  store.catalogue.book().revision,
  { timeout: 60_000 },
);

bytes = 0;
let tookMs = 0;
await during('A reload with the book kept', async () => {
  tookMs = await reload();
  await page.waitForTimeout(1500);
});
console.log(
  `A reload of a stage: ${tookMs.toFixed(0)} ms to its first view, ${(tookMs / smallMs).toFixed(2)} × one with the small book, ${(tookMs / FIRST_VIEW_MS).toFixed(2)} × ${FIRST_VIEW_MS} ms; ${bytes} bytes of the book came.`,
);
if (tookMs > FIRST_VIEW_MS || bytes > 5000) process.exitCode = 1;

bytes = 0;
await during('A record that changes elsewhere', async () => {
  store.catalogue.write('calibre', [{ ...calibre(7), code: 'LG 7.changed' }]);
  store.publish({ jobId: null, what: 'shop' });
  await page.waitForTimeout(2500);
});
console.log(`One changed record came in ${bytes} bytes.`);
if (bytes === 0 || bytes > 20_000) process.exitCode = 1;
await close();
