import { demoId } from '../demo/build';
import { inventedCalibres, inventedMakers } from '../src/testing/observations';
import { tracedCounter } from './trace';

/** Does the page stay free while evidence is typed, over a book of thousands? */
const CALIBRES = 5000;
const TYPED = 'OR 41.? C2140-3';
const MARK = 'XA 3?81';

const { store, page, during, close } = await tracedCounter();
const makers = inventedMakers(24);
store.catalogue.write('maker', makers);
store.catalogue.write('calibre', inventedCalibres(CALIBRES, makers, 9));
await page.goto(`/jobs/${demoId('job', 'just-arrived')}/identify`);
const engraving = page.getByLabel('Engraving', { exact: true });
await engraving.fill('OR');
await page.getByRole('region', { name: 'Candidates' }).waitFor();
await engraving.fill('');
await page.waitForTimeout(1500);
const keys = TYPED.length + MARK.length + 5;
await during(
  `Typing ${keys} keys of evidence over ${store.catalogue.book().calibres.length} calibres`,
  async () => {
    await engraving.pressSequentially(TYPED, { delay: 90 });
    await page.getByRole('textbox', { name: 'Mark on the movement' }).pressSequentially(MARK, { delay: 90 });
    await page.getByRole('textbox', { name: 'Width', exact: true }).pressSequentially('23.31', { delay: 90 });
    await page.waitForTimeout(500);
  },
);
await close();
