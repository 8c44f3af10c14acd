import { clockWords, type View } from '../../craft/cases';
import { figure } from '../../craft/judgement';
import { deflectionKept, type TightnessTest } from '../../craft/tightness';
import type { Closing, Envelope, FactKinds } from '../envelope';

export interface TestPayloads {
  'test.made': TightnessTest & {
    /** Where it leaked; null where it did not, or nobody saw where. */
    readonly leakClock: number | null;
    /** The side that is seen from; null without a place. */
    readonly leakSeenFrom: View | null;
    readonly temperatureC: number | null;
    /** What was done about it; of a retest what was repaired before it. */
    readonly note: string;
    /** The test that leaked, or was not clear, which this one tries anew after a repair. */
    readonly retestOf: string | null;
    /** Why it was tested beyond what watch, shop or tester are for; empty where it was not. */
    readonly excessReason: string;
  };
}

type Fact<K extends keyof TestPayloads> = Envelope<K, TestPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface TestFacts {
  /** Every test of the visit: a leak stands through a reopening. */
  tests: Fact<'test.made'>[];
  /** Those made before the watch was closed as it is now. */
  testsBeforeClosing: Set<string>;
}

export const noTestFacts = (): TestFacts => ({
  tests: [],
  testsBeforeClosing: new Set(),
});

/** Whatever was tested until now was tested on another closing, or on none. */
export function testsAreBefore(facts: TestFacts): void {
  for (const { id } of facts.tests) facts.testsBeforeClosing.add(id);
}

export const testKinds: FactKinds<TestPayloads, TestFacts & Closing> = {
  'test.made': {
    words: (test) => {
      const kept = deflectionKept(test);
      return `${test.retestOf === null ? '' : 'retest, '}${test.method} test${test.pressureBar === null ? '' : ` at ${figure(test.pressureBar)} bar`}: ${test.outcome}${test.leakClock === null ? '' : `, at ${clockWords(test.leakClock, test.leakSeenFrom)}`}${kept === null ? '' : `, ${figure(kept * 100, 1)} % of the deflection left`}${test.excessReason && `; beyond its limit: ${test.excessReason}`}`;
    },
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.tests.push(entry);
      if (facts.closed === null) facts.testsBeforeClosing.add(entry.id);
    },
  },
};
