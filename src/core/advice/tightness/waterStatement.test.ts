import { dryTestAt, Logbook, lot, context, readyJob, wetTest } from '../../../testing/fixtures';
import { recordOf } from '../../../testing/leakRecords';
import type { EntryKind, Payloads } from '../../logbook';
import { handback } from '../handback';
import { judgeTests } from '../leaks';
import { waterStatement } from './waterStatement';

type Test = Payloads['test.made'];
/** A dry test: tight by its record where nothing was seen, else as it was seen. */
const dry = (pressureBar: number, outcome: Test['outcome'] = null): Test => ({
  ...dryTestAt(pressureBar),
  outcome,
});
const condensation = (outcome: Test['outcome']): Test => ({
  ...wetTest,
  method: 'condensation',
  pressureBar: null,
  outcome,
});
const leaking = (pressureBar: number, leakUgPerMin = 2000): Test => ({
  ...dryTestAt(pressureBar),
  record: recordOf(pressureBar, { leakUgPerMin }),
});
/** Puts another payload in the place of the fact a ready job has. */
function corrected<K extends EntryKind>(job: Logbook, kind: K, payload: Payloads[K]): void {
  const before = job.entries.find((entry) => entry.kind === kind);
  job.add(kind, payload, { supersedes: before ? [before.id] : [] });
}
const closed = { how: 'thumbs', seamEven: true, raisedClocks: [], seenFrom: null, interim: false };
const gasket: Payloads['seal.gasket'] = {
  state: 'renewed',
  findings: [],
  ageYears: 2,
  meetsWater: false,
  greased: false,
  greasedBy: 'not noted',
  profile: 'round',
  size: '30.5 × 0.70',
  lotId: null,
  reason: 'flattened',
};
const said = (job: Logbook) => waterStatement(job.state(), 'UTC');
const of = (...tests: readonly Test[]) => {
  const job = readyJob();
  for (const each of tests) job.add('test.made', each);
  return said(job);
};
const AWAY = 'Keep the watch away from water.';
const NO_WATER = 'This watch is not water resistant. Keep it away from water.';
const UNCLEAR = `A test gave no clear result, so nothing can be said about water. ${AWAY}`;
const tested = (bar: string, how = 'dry air', seconds = 300) =>
  `Tested at ${bar}, ${how}, for ${seconds} seconds, on 17 Mar 2026: no leak was found. Nothing beyond this was tested.`;

describe('what is said about water', () => {
  it.each<readonly [string, readonly Test[], string, string]>([
    ['no test', [], 'not tested', `Water resistance was not tested. ${AWAY}`],
    ['a test that is not clear', [dry(3, 'not clear')], 'not clear', UNCLEAR],
    [
      'condensation alone',
      [condensation('no leak seen')],
      'not tested',
      `Water resistance was not tested. ${AWAY}`,
    ],
    [
      'a tester’s word, and nothing measured',
      [{ ...dry(3, 'no leak seen'), record: null }],
      'not tested',
      `Water resistance was not tested. ${AWAY}`,
    ],
    [
      'two figures without recovery',
      [{ ...dry(3), record: null, deflectionStartUm: 12, deflectionEndUm: 10.5 }],
      'not clear',
      UNCLEAR,
    ],
    [
      'two figures that did not change',
      [{ ...dry(3), record: null, deflectionStartUm: 12, deflectionEndUm: 12 }],
      'not clear',
      `A test did not show whether it is tight. ${AWAY}`,
    ],
    [
      'nothing gave',
      [{ ...dry(3), record: null, deflectionStartUm: 0, deflectionEndUm: 0 }],
      'not clear',
      UNCLEAR,
    ],
    ['two passed', [dry(5), dry(3)], 'tested', tested('5 bar')],
    ['under vacuum', [dry(-0.7)], 'tested', tested('0.7 bar below outside air')],
    ['a wet test', [wetTest], 'tested', tested('3 bar', 'wet', 60)],
    [
      'a wet test too short',
      [{ ...wetTest, seconds: 59 }],
      'not tested',
      `Water resistance was not tested. ${AWAY}`,
    ],
    ['a leak seen', [dry(3, 'leak seen')], 'not water resistant', NO_WATER],
    ['a leak measured', [leaking(3)], 'not water resistant', NO_WATER],
    [
      'a leak measured, called none',
      [{ ...leaking(3), outcome: 'no leak seen' }],
      'not water resistant',
      NO_WATER,
    ],
    ['a leak after a pass', [dry(3), leaking(5)], 'not water resistant', NO_WATER],
    ['a leak, then a pass that names no repair', [leaking(5), dry(5)], 'not water resistant', NO_WATER],
    ['fog', [dry(5), condensation('leak seen')], 'not water resistant', NO_WATER],
    ['a pass, then nothing clear', [dry(3), dry(5, 'not clear')], 'not clear', UNCLEAR],
    [
      'stiff or flooded at once',
      [{ ...dry(3), record: recordOf(3, { stiffnessUmPerBar: 0.001 }) }],
      'not clear',
      UNCLEAR,
    ],
    [
      'stiff, then a wet test',
      [{ ...dry(3), record: recordOf(3, { stiffnessUmPerBar: 0.001 }) }, wetTest],
      'tested',
      tested('3 bar', 'wet', 60),
    ],
    [
      'stiff, then a wet test at less',
      [
        { ...dry(3), record: recordOf(3, { stiffnessUmPerBar: 0.001 }) },
        { ...wetTest, pressureBar: 2 },
      ],
      'not clear',
      UNCLEAR,
    ],
  ])('%s', (_, tests, verdict, statement) => {
    const water = of(...tests);
    expect([water.verdict, water.statement.startsWith(statement)]).toEqual([verdict, true]);
    if (verdict !== 'tested') expect(water.statement).toBe(statement);
  });

  it('the sequence of a leak, a repair and a retest is told, and the failed test stays', () => {
    const job = readyJob();
    const { id } = job.add('test.made', leaking(5));
    job.add('test.made', { ...dry(5), retestOf: [id], note: 'crown seal renewed' });
    expect(said(job)).toMatchObject({
      verdict: 'tested',
      statement: `It leaked at 5 bar on 17 Mar 2026, was repaired (crown seal renewed), and tested again. ${tested('5 bar')} Seals age. Have it tested again in a year.`,
    });
    expect(judgeTests(job.state()).map(({ shows, stands }) => [shows.verdict, stands])).toEqual([
      ['leaks', false],
      ['tight', false],
    ]);
  });

  it.each<readonly [string, Test, (leak: string) => Test, string]>([
    [
      'under less vacuum',
      dry(-0.7, 'leak seen'),
      (id) => ({ ...dry(-0.5), retestOf: [id], note: 'n' }),
      'not water resistant',
    ],
    [
      'under pressure, of a leak outwards',
      dry(-0.7, 'leak seen'),
      (id) => ({ ...dry(3), retestOf: [id], note: 'n' }),
      'not water resistant',
    ],
    ['at more', dry(3, 'leak seen'), (id) => ({ ...dry(5), retestOf: [id], note: 'n' }), 'tested'],
    [
      'at less',
      dry(5, 'leak seen'),
      (id) => ({ ...dry(3), retestOf: [id], note: 'n' }),
      'not water resistant',
    ],
    ['that leaks', leaking(5), (id) => ({ ...leaking(5), retestOf: [id], note: 'n' }), 'not water resistant'],
    [
      'that is not settled',
      leaking(5),
      (id) => ({ ...dry(5), record: recordOf(5, { leakUgPerMin: 50 }, 30), retestOf: [id], note: 'n' }),
      'not water resistant',
    ],
    [
      'of what was not clear',
      dry(5, 'not clear'),
      (id) => ({ ...dry(5), retestOf: [id], note: 'n' }),
      'tested',
    ],
    [
      'of another test',
      dry(5, 'leak seen'),
      () => ({ ...dry(5), retestOf: ['another'], note: 'n' }),
      'not water resistant',
    ],
    [
      'without any repair',
      dry(5, 'leak seen'),
      (id) => ({ ...dry(5), retestOf: [id] }),
      'not water resistant',
    ],
    ['by water, of a dry one', leaking(3), (id) => ({ ...wetTest, retestOf: [id], note: 'n' }), 'tested'],
  ])('a leak, and a retest %s', (_, first, second, verdict) => {
    const job = readyJob();
    const { id } = job.add('test.made', first);
    job.add('test.made', second(id));
    expect(said(job).verdict).toBe(verdict);
  });

  it('one retest takes back all it names, after a finding that says what was done', () => {
    const job = readyJob();
    const first = job.add('test.made', leaking(3));
    const second = job.add('test.made', {
      ...wetTest,
      outcome: 'leak seen',
      places: [{ side: 'side', clock: 3 }],
    });
    const retest = { ...dry(3), retestOf: [first.id, second.id] };
    const found = { seat: 'crown', foundBy: [first.id, second.id], note: '' } as const;
    job.add('test.finding', { ...found, done: 'nothing' });
    job.add('test.made', retest);
    expect(said(job).verdict).toBe('not water resistant');
    job.add('test.finding', { ...found, done: 'seal renewed' });
    expect(said(job).verdict).toBe('not water resistant');
    job.add('test.made', retest);
    expect(said(job).verdict).toBe('tested');
  });

  it('fog that was mended is told as seen by condensation, at no pressure', () => {
    const job = readyJob();
    const { id } = job.add('test.made', condensation('leak seen'));
    job.add('test.made', { ...dry(3), retestOf: [id], note: 'crystal pressed anew' });
    expect(said(job).statement).toMatch(/^It leaked by condensation on 17 Mar 2026, was repaired/);
  });

  it('what is not settled and likelier over the limit stands until a longer test shows it tight', () => {
    const doubt: Test = { ...dry(3), record: recordOf(3, { leakUgPerMin: 55 }, 120) };
    expect(of(doubt)).toMatchObject({ verdict: 'not clear', statement: UNCLEAR });
    expect(of(dry(3), doubt).verdict).toBe('not clear');
    expect(of(doubt, dry(3)).verdict).toBe('tested');
  });

  it('a leak stands through a reopening, and a retest under whichever entry it stands now', () => {
    const job = readyJob();
    const back = readyJob().entries.find(({ kind }) => kind === 'open.back')
      ?.payload as Payloads['open.back'];
    const { id } = job.add('test.made', dry(3, 'leak seen'));
    job.add(
      'test.made',
      { ...dry(3, 'leak seen'), places: [{ side: 'front', clock: 3 }] },
      { supersedes: [id] },
    );
    job.add('open.back', back);
    expect(said(job).verdict).toBe('not water resistant');
    // Before it is closed again a retest proves nothing.
    const retest = { ...dry(3), retestOf: [id], note: 'crown seal renewed' };
    job.add('test.made', retest);
    job.add('seal.closed', closed);
    expect(said(job).verdict).toBe('not water resistant');
    job.add('test.made', retest);
    expect(said(job).verdict).toBe('tested');
  });

  it('what was tested on another closing proves nothing, and the slip says so', () => {
    const job = readyJob();
    job.add('test.made', dry(5));
    job.add(
      'open.back',
      readyJob().entries.find(({ kind }) => kind === 'open.back')?.payload as Payloads['open.back'],
    );
    job.add('seal.closed', closed);
    const why = 'it was made before the watch was closed';
    expect(said(job).reasons).toEqual([`The dry air test at 5 bar is no proof: ${why}.`]);
    const { statement } = handback(job.state(), [lot], context);
    expect(statement.tested).toContain(
      `dry air test at 5 bar: tight by its record, which is no proof: ${why}.`,
    );
    expect(statement.notDone).toContain('No water resistance test.');
    // A closing put right stands where it stood.
    const once = readyJob();
    once.add('test.made', dry(5));
    corrected(once, 'seal.closed', { ...closed, how: 'press' });
    expect(said(once).verdict).toBe('tested');
  });

  it('a missing ring proves nothing, unless one was put in', () => {
    for (const [state, verdict] of [
      ['reused', 'not tested'],
      ['left in place', 'not tested'],
      ['renewed', 'tested'],
    ] as const) {
      const job = readyJob();
      corrected(job, 'seal.gasket', { ...gasket, state, findings: ['missing'] });
      job.add('test.made', dry(3));
      expect([state, said(job).verdict]).toEqual([state, verdict]);
    }
  });

  it('a renewed gasket is no test; nothing is known of a watch nobody closed', () => {
    const job = readyJob();
    corrected(job, 'seal.gasket', gasket);
    expect(said(job).statement).toBe(
      `Water resistance was not tested, though the gasket was renewed. ${AWAY}`,
    );
    expect(said(new Logbook()).verdict).toBe('not tested');
  });

  it('closed for the time being claims nothing, and an uneven seam is not water resistant, whatever was tested', () => {
    const job = readyJob();
    corrected(job, 'seal.closed', { ...closed, interim: true });
    job.add('test.made', dry(3));
    expect(said(job)).toMatchObject({
      verdict: 'not tested',
      statement: `Closed temporarily on its old seal until the part arrives. ${AWAY}`,
    });
    const uneven = readyJob();
    corrected(uneven, 'seal.closed', { ...closed, seamEven: false });
    uneven.add('test.made', dry(3));
    expect(said(uneven)).toMatchObject({
      verdict: 'not water resistant',
      statement: NO_WATER,
      reasons: ['The seam is not even.'],
    });
  });

  it.each([
    [
      ['swimming'],
      5,
      'Tested for short bathing. This holds only as long as the seals stay sound. It is not for swimming.',
    ],
    [
      ['swimming'],
      10,
      'Tested for swimming and snorkelling. This holds only as long as the seals stay sound. Seals',
    ],
    [
      ['hand washing and rain'],
      2,
      'A test at such a low pressure says nothing about contact with water. Take it off in rain and for washing hands.',
    ],
    [['diving'], 10, 'It is not for diving. For diving you need a diver’s watch certified to ISO 6425'],
    [['kept in a drawer'], 3, 'Nothing beyond this was tested. Seals age'],
  ] as const)('holds what the owner does with it, %s, against %d bar', (uses, bar, words) => {
    const job = readyJob();
    job.add('arrive.wear', { uses: [...uses], words: '' });
    job.add('test.made', dry(bar));
    expect(said(job).statement).toContain(words);
  });
});
