import { book, Logbook, movementOf } from '../../../testing/fixtures';
import { type NextTest, OUTCOMES, TESTS } from '../../craft/health';
import { DEFAULT_POLICY } from '../../craft/policy';
import { faultQuestionOf } from './diagnoseJob';
import { isLoupeTest, loupeRecord, measureOfTest, testAnswers } from './testAnswer';

type Observable = NextTest['observable'];

/** A test as the diagnosis asks it, with every outcome telling. */
const testOf = (observable: Observable): NextTest => ({
  observable,
  words: TESTS[observable]?.words ?? '',
  effort: 1,
  between: ['one', 'the other'],
  outcomes: OUTCOMES[observable].map((outcome: string) => ({
    observable,
    outcome,
    shows: outcome,
    speaksFor: 'one',
  })),
  watchS: 24,
});

const stopped = (): Logbook => {
  const job = new Logbook();
  job.add('arrive.complaint', { picked: [], words: 'not right' });
  job.add('identify.movement', movementOf('orrelin-41-2', 'OR 41.2'));
  return job;
};

const observedIn = (job: Logbook) => faultQuestionOf(job.state(), book, DEFAULT_POLICY).observed;

describe('the answers to a next test', () => {
  const asked = (Object.keys(TESTS) as Observable[]).map(testOf);

  it.each(asked.map((test) => [test.observable, test] as const))(
    'of %s are seen so once one of them is recorded',
    (observable, test) => {
      for (const [index, { record }] of testAnswers(stopped().state(), test).entries()) {
        const job = stopped();
        job.add(record.kind, record.payload, { supersedes: record.supersedes });
        expect(observedIn(job).get(observable)).toBe(OUTCOMES[observable][index]);
      }
    },
  );

  it('are given for each look, are a figure for each reading, and the loupe shows every sign', () => {
    const state = stopped().state();
    for (const test of asked) {
      const ways = [testAnswers(state, test).length > 0, measureOfTest(test) !== null, isLoupeTest(test)];
      // A charge takes its time, and is recorded with the cell.
      expect([test.observable, ways.filter(Boolean).length]).toEqual([
        test.observable,
        test.observable === 'after a charge' ? 0 : 1,
      ]);
    }
  });

  it('say how long it was watched where nothing moves, so that nothing is called dead too soon', () => {
    const dead = testAnswers(stopped().state(), testOf('shows')).find(({ shows }) =>
      shows.startsWith('dead'),
    );
    expect(dead?.shows).toBe('dead in 24 s');
    expect(dead?.record.payload).toMatchObject({ shows: 'stands still', watchedSeconds: 24 });
  });

  it('leave what was looked at before, and take its place', () => {
    const job = stopped();
    const before = job.add('check.looked', {
      crown: 'home',
      shows: null,
      watchedSeconds: null,
      atFitting: null,
      freshCell: true,
      resetUsed: null,
      signs: ['loose screw'],
    });
    const seen = loupeRecord(job.state(), []);
    expect(seen.supersedes).toEqual([before.id]);
    expect(seen.payload).toMatchObject({ crown: 'home', freshCell: true, signs: [] });
  });
});
