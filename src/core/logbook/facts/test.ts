import { figure } from '../../judgement';
import type { FactKinds } from '../entry';

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
  };
}

export const testFacts: FactKinds<TestPayloads> = {
  'test.made': {
    words: ({ method, pressureBar, outcome }) =>
      `${method} test${pressureBar === null ? '' : ` at ${figure(pressureBar)} bar`}: ${outcome}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.tests.push(entry),
  },
};
