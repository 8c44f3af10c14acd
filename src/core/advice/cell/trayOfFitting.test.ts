import { book, Logbook } from '../../../testing/fixtures';
import { USUAL_SCHOOLS } from '../../craft/policy';
import { openParts, positionsToNote } from '../../logbook';
import { guidesOf } from './cellOfJob';
import { trayOfFitting } from './trayOfFitting';

/** A job on a movement whose ring lies above the cell. */
const ringed = (): Logbook => {
  const job = new Logbook();
  job.add('identify.movement', {
    calibreId: 'orrelin-44-9',
    revision: null,
    code: 'OR 44.9',
    by: 'hand',
    note: '',
  });
  return job;
};
const stepsOf = (job: Logbook) => guidesOf(job.state(), book, USUAL_SCHOOLS).get('main')?.steps ?? [];
const trayOf = (job: Logbook, ids: readonly string[]) =>
  trayOfFitting(
    stepsOf(job)
      .filter(({ id }) => ids.includes(id))
      .map((step) => ({ ...step, well: 'main' })),
    job.state().facts,
  );

it('the ring of the book goes to the tray at its step, and back from there at the step that puts it on', () => {
  const job = ringed();
  const { laid } = trayOf(job, ['out-above-movement-ring']);
  expect(laid).toMatchObject([{ part: { part: 'movement ring', serves: ['setting'] }, backToo: false }]);
  for (const { part } of laid) job.add('open.part', part);
  expect(openParts(job.state().facts)).toHaveLength(1);
  expect(positionsToNote(job.state().facts)).toHaveLength(1);
  // Ticked once more it is not laid there a second time.
  expect(trayOf(job, ['out-above-movement-ring']).laid).toEqual([]);
  const { returned } = trayOf(job, ['in-above-movement-ring']);
  expect(returned).toMatchObject([{ outcome: 'back in place' }]);
  for (const each of returned) job.add('open.part-settled', each);
  expect(openParts(job.state().facts)).toEqual([]);
  expect(trayOf(job, ['in-above-movement-ring']).returned).toEqual([]);
});

it('what was seen above the cell of this watch goes before the book', () => {
  const job = ringed();
  job.add('cell.above', { above: ['cover', 'light module'] });
  expect(stepsOf(job).flatMap(({ off }) => off.map(({ part }) => part))).toEqual(['cover', 'light module']);
  job.add('cell.above', { above: [] });
  expect(stepsOf(job).flatMap(({ off }) => off)).toEqual([]);
});

it('a movement nobody knows has what was seen above its cell on the way too', () => {
  const job = new Logbook();
  job.add('cell.above', { above: ['movement ring'] });
  const all = stepsOf(job);
  expect(all.map(({ id }) => id)).toContain('out-above-movement-ring');
  // All as shown: what came off went back.
  const { laid } = trayOfFitting(
    all.map((step) => ({ ...step, well: 'main' })),
    job.state().facts,
  );
  expect(laid.map(({ backToo }) => backToo)).toEqual([true]);
});
