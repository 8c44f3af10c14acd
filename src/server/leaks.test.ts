import type { JobResource } from '../contract';
import type { LeakGroup, UsualOfCase } from '../core/advice/leaks';
import { Counter } from '../testing/counter';
import { dryTestAt, measuredCase, idOf } from '../testing/fixtures';
import { recordOf } from '../testing/leakRecords';

let counter: Counter;
beforeEach(async () => {
  counter = await Counter.open();
});
afterEach(() => counter.close());

const CLOSED = { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: false };
const leaking = { ...dryTestAt(3), record: recordOf(3, { leakUgPerMin: 900 }) };
const report = async () => (await counter.get<LeakGroup[]>('/api/leaks')).body;

async function closedJob(name: string): Promise<string> {
  const job = await counter.takeIn(name);
  await counter.record(job, `${name} crown`, 'arrive.crown', { crown: 'pushed home' });
  await counter.record(job, `${name} closed`, 'seal.closed', CLOSED);
  await counter.record(job, `${name} case`, 'test.case', measuredCase);
  return job;
}

describe('what leaks at this counter', () => {
  it('follows the tests of each job as they stand', async () => {
    expect(await report()).toEqual([]);
    const [a, b] = [await closedJob('a'), await closedJob('b')];
    await counter.record(a, 'a leaks', 'test.made', leaking);
    await counter.record(b, 'b tight', 'test.made', dryTestAt(3));
    const [all, year] = await report();
    expect(all).toMatchObject({
      caseCode: 'C2140-3',
      year: 'all',
      leaked: { of: 1, among: 2 },
      mended: { of: 0, among: 1 },
    });
    expect(year?.year).toMatch(/^20\d\d$/);
    await counter.record(a, 'a found', 'test.finding', {
      seat: 'crown',
      foundBy: [idOf('entry a leaks')],
      done: 'seal renewed',
      note: '',
    });
    await counter.record(a, 'a again', 'test.made', { ...dryTestAt(3), retestOf: [idOf('entry a leaks')] });
    expect((await report())[0]).toMatchObject({
      seats: [{ seat: 'crown', jobs: 1 }],
      mended: { of: 1, among: 1 },
    });
    await counter.record(
      b,
      'b not so',
      'logbook.withdrawn',
      { reason: 'another watch' },
      { withdraws: idOf('entry b tight') },
    );
    expect((await report())[0]).toMatchObject({ leaked: { of: 1, among: 1 } });
    const { body } = await counter.get<string>('/api/lists/leaks.csv');
    expect(body.split('\r\n')[1]).toContain('C2140-3,all,1,1');
  });

  it('tells what a case type usually gives, and nothing of one nobody measured', async () => {
    const usual = async (code: string) =>
      (
        await counter.get<UsualOfCase | null>(
          `/api/leaks/usual?${new URLSearchParams({ case: code }).toString()}`,
        )
      ).body;
    expect(await usual('C2140-3')).toBeNull();
    const job = await closedJob('a');
    await counter.record(job, 'a tight', 'test.made', dryTestAt(3));
    expect(await usual('C2140-3')).toMatchObject({ watches: 1 });
    expect((await usual('C2140-3'))?.stiffnessUmPerBar ?? 0).toBeCloseTo(5, 1);
    expect((await counter.get('/api/leaks/usual')).status).toBe(400);
  });
});

describe('a test at the door', () => {
  it('is refused where its retest follows no repair, and taken with what was done', async () => {
    const job = await closedJob('a');
    await counter.record(job, 'a leaks', 'test.made', leaking);
    const retest = { ...dryTestAt(3), retestOf: [idOf('entry a leaks')] };
    const bare = await counter.record(job, 'a bare', 'test.made', retest);
    expect(bare).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('A retest follows a repair') as string },
    });
    await counter.record(job, 'a mended', 'test.made', { ...retest, note: 'ring renewed' });
    const { body } = await counter.get<JobResource>(`/api/jobs/${job}`);
    expect(body.entries.filter(({ kind }) => kind === 'test.made')).toHaveLength(2);
  });

  it.each<readonly [string, object, string]>([
    [
      'times that do not rise',
      { atS: [0, 2, 1], overBar: [0, 3, 3], deflectionUm: [0, 1, 1] },
      'times do not rise',
    ],
    ['unequal lists', { atS: [0, 1], overBar: [3], deflectionUm: [0, 1] }, 'not equally many'],
    [
      'more points than are kept',
      {
        atS: Array.from({ length: 1001 }, (_, i) => i),
        overBar: Array.from({ length: 1001 }, () => 3),
        deflectionUm: Array.from({ length: 1001 }, () => 1),
      },
      'at most 1000 points',
    ],
    [
      'a pressure no tester has',
      { atS: [0, 1], overBar: [0, 500], deflectionUm: [0, 1] },
      'between -0.99 and 130',
    ],
  ])('is refused with %s in its record, and says so', async (_, record, words) => {
    const job = await closedJob('a');
    const payload = { ...dryTestAt(3), record: { ...record, from: 'a file', repairs: [] } };
    const { status, body } = await counter.record(job, 'a bad', 'test.made', payload as never);
    expect(status).toBe(400);
    expect(JSON.stringify(body)).toContain(words);
  });
});
