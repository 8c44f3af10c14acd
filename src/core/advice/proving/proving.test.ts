import type { Logbook } from '../../../testing/fixtures';
import { book, context, movementOf, readyJob, takenIn } from '../../../testing/fixtures';
import { movementToSet, orderOfProofs, proofSteps, quickSetInBook } from './proving';
import { runningOf } from './running';
import { dueOf, orderRuns, type RunningWatch } from './runs';

const closed = { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: false };
const at = (minutes: number) => ({
  occurredAt: new Date(Date.parse('2026-03-17T10:00:00.000Z') + minutes * 60_000).toISOString(),
});

describe('what is proved and how it is set', () => {
  it('goes by what was seen where the book does not know the movement, and waits for its name', () => {
    const job = takenIn('cell only', null);
    // Nobody named it, and its hands pass each other all the same.
    expect(proofSteps(job.state(), book).map(({ what }) => what)).toContain('hands');
    expect(movementToSet(job.state(), book)).toBeNull();
    job.add('identify.movement', movementOf(null, 'ZZ 9'));
    job.add('identify.evidence', { look: 'seconds', value: 'centre', withinMm: 0 });
    expect(proofSteps(job.state(), book).map(({ what }) => what)).toContain('hands');
    expect(movementToSet(job.state(), book)).toMatchObject({ dateQuickSet: null, changeOver: null });
  });

  it.each([
    [null, null],
    [{ dateQuickSet: false, dayQuickSet: true }, 'none'],
    [{ dateQuickSet: true, dayQuickSet: false }, 'date only'],
    [{ dateQuickSet: true, dayQuickSet: true }, 'date and day'],
  ])('of %j takes the quick-set for %s', (calibre, quickSet) => {
    expect(quickSetInBook(calibre)).toBe(quickSet);
  });
});

describe('the order of proofs', () => {
  const said = (job: Logbook): string => orderOfProofs(job.state()).join(' ');
  it('says what comes before the closing, and what was left out', () => {
    const job = takenIn('cell only');
    expect(said(job)).toBe('');
    const opening = readyJob().entries.find(({ kind }) => kind === 'open.back');
    job.add('open.back', opening?.payload as never);
    expect(said(job)).toContain('Watch it run before you close it');
    job.add('seal.closed', closed);
    expect(said(job)).toBe('It was closed before anyone saw it run.');
    job.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(said(job)).toBe('');
    job.add('set.time', { set: true });
    job.add('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
    expect(said(job)).toContain('Compare the watch with the time signal again');
    job.add('set.time', { set: true });
    expect(said(job)).toBe('');
  });

  it('says of what is proved on an open watch that it is asked again', () => {
    const job = takenIn('cell only');
    const opening = readyJob().entries.find(({ kind }) => kind === 'open.back');
    job.add('open.back', opening?.payload as never);
    job.add('set.runs', { runs: true, watchedSeconds: 60 });
    expect(said(job)).toContain('repeated after closing');
  });
});

describe('what runs', () => {
  const run = (over: Partial<RunningWatch> = {}): RunningWatch => ({
    entryId: 'e',
    toSee: 'that it runs',
    sinceUtc: '2026-03-17T10:00:00.000Z',
    shows: '',
    watchForS: 120,
    ...over,
  });

  it('stands from its beginning to its end, with what its own step needs', () => {
    const job = takenIn('cell only', 'orrelin-47-1');
    expect(runningOf(job.state(), book)).toEqual([]);
    job.add('set.run-began', { toSee: 'that it runs', shows: '10:01' }, at(1));
    job.add('set.run-began', { toSee: 'how it keeps time', shows: '10:02' }, at(2));
    expect(runningOf(job.state(), book)).toMatchObject([
      { toSee: 'that it runs', shows: '10:01', watchForS: 120 },
      { toSee: 'how it keeps time', shows: '10:02' },
    ]);
    job.add('set.run-ended', { toSee: 'that it runs', shows: '10:04', stillRuns: true }, at(4));
    expect(runningOf(job.state(), book)).toHaveLength(1);
    job.add('seal.closed', closed);
    expect(runningOf(job.state(), book)).toEqual([]);
  });

  it('is due after its own steps, or as long as the policy asks', () => {
    const policy = { ...context.policy, provingRunHours: 8 };
    expect(dueOf(run(), policy, '2026-03-17T10:00:30.000Z')).toEqual({
      dueUtc: '2026-03-17T10:02:00.000Z',
      leftS: 90,
      ranS: 30,
    });
    expect(dueOf(run(), policy, '2026-03-17T10:03:00.000Z')).toMatchObject({ leftS: -60, ranS: 180 });
    const long = run({ toSee: 'how it keeps time' });
    expect(dueOf(long, policy, '2026-03-17T17:00:00.000Z')).toMatchObject({ leftS: 3600 });
    expect(dueOf(long, { provingRunHours: 0 }, '2026-03-17T17:00:00.000Z')).toEqual({
      dueUtc: null,
      leftS: null,
      ranS: 25_200,
    });
  });

  it('is ordered by what is due first, without a length last', () => {
    const due = (leftS: number | null, ranS = 0) => ({ due: { dueUtc: null, leftS, ranS } });
    expect(orderRuns([due(null, 5), due(60), due(-10), due(null, 50)])).toEqual([
      due(-10),
      due(60),
      due(null, 50),
      due(null, 5),
    ]);
  });
});
