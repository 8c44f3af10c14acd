import type { JobSummary } from '../contract';
import { Counter } from '../testing/counter';
import { idOf, movementOf } from '../testing/fixtures';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const running = async () =>
  (await counter.get<JobSummary[]>('/api/rack')).body.map(({ running: each }) => each);

describe('what runs', () => {
  it('stands on the envelope from its beginning to its end, and comes back where the end is taken back', async () => {
    const job = await counter.takeIn();
    await counter.record(job, 'movement', 'identify.movement', movementOf('orrelin-47-1', 'OR 47.1'));
    expect(await running()).toEqual([[]]);
    await counter.record(job, 'began', 'set.run-began', { toSee: 'that it runs', shows: '' });
    // Steps every 20 s.
    expect(await running()).toMatchObject([
      [{ entryId: idOf('entry began'), toSee: 'that it runs', watchForS: 120 }],
    ]);
    await counter.record(job, 'ended', 'set.run-ended', {
      toSee: 'that it runs',
      shows: '',
      stillRuns: true,
    });
    expect(await running()).toEqual([[]]);
    await counter.record(
      job,
      'not so',
      'logbook.withdrawn',
      { reason: 'misread' },
      { withdraws: idOf('entry ended') },
    );
    expect(await running()).toMatchObject([[{ toSee: 'that it runs' }]]);
  });

  it('is refused an end without a beginning, and a proving run without what the hands show', async () => {
    const job = await counter.takeIn();
    const ended = await counter.record(job, 'ended', 'set.run-ended', {
      toSee: 'that it runs',
      shows: '',
      stillRuns: true,
    });
    expect(ended.status).toBe(422);
    const unread = await counter.record(job, 'unread', 'set.run-began', {
      toSee: 'how it keeps time',
      shows: '',
    });
    expect(unread.status).toBe(400);
    expect(unread.body.detail + JSON.stringify(unread.body)).toContain('e.g. 09:42');
  });

  it('takes no reason for handing back what works', async () => {
    const job = await counter.takeIn();
    const answer = await counter.record(job, 'functions', 'set.functions', {
      proved: { hands: 'works' },
      handedBackSo: 'the owner knows',
    });
    expect(answer.status).toBe(400);
    expect(JSON.stringify(answer.body)).toContain('Nothing is said not to work');
  });
});
