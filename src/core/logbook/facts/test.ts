import { figure } from '../../craft/judgement';
import type { Envelope, FactKinds } from '../envelope';

export const TEST_METHODS = ['dry air', 'wet', 'condensation'] as const;
export type TestMethod = (typeof TEST_METHODS)[number];

export interface TestPayloads {
  'test.made': {
    readonly method: TestMethod;
    /** Null for condensation. */
    readonly pressureBar: number | null;
    readonly seconds: number;
    /** What the tester's own instrument or eye said. */
    readonly outcome: 'no leak seen' | 'leak seen' | 'not clear';
    /** The case's deflection after settling and at the end, µm; null where the tester shows none. */
    readonly deflectionStartUm: number | null;
    readonly deflectionEndUm: number | null;
    /** Where it leaked, seen from the dial; null where it did not, or nobody saw where. */
    readonly leakClock: number | null;
    readonly temperatureC: number | null;
    /** What was done about it. */
    readonly note: string;
  };
}

/** The share of the deflection that was left at the end of a test, 0 to 1, or null where it was not read. */
export function deflectionKept(
  test: Pick<TestPayloads['test.made'], 'deflectionStartUm' | 'deflectionEndUm'>,
): number | null {
  const { deflectionStartUm: start, deflectionEndUm: end } = test;
  return start === null || end === null || start === 0 ? null : end / start;
}

type Fact<K extends keyof TestPayloads> = Envelope<K, TestPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface TestFacts {
  tests: Fact<'test.made'>[];
}

export const noTestFacts = (): TestFacts => ({
  tests: [],
});

export const testKinds: FactKinds<TestPayloads, TestFacts> = {
  'test.made': {
    words: (test) => {
      const kept = deflectionKept(test);
      return `${test.method} test${test.pressureBar === null ? '' : ` at ${figure(test.pressureBar)} bar`}: ${test.outcome}${test.leakClock === null ? '' : `, at ${figure(test.leakClock, 1)} o’clock`}${kept === null ? '' : `, ${figure(kept * 100, 1)} % of the deflection left`}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.tests.push(entry),
  },
};
