import type { JudgedTest } from '../leaks';
import { pressureExcess } from '../../craft/tightness';
import { stepPassed } from './planOf';
import type { Policy } from '../../craft/policy';
import type { JobState, Payloads } from '../../logbook';

/**
 * Why a test may not be run just now, beyond what its tester or this shop is for, or beyond the watch without a reason; empty
 * where it may. What was made all the same is recorded with its reason.
 */
export function notToBeRun(
  test: Pick<Payloads['test.made'], 'method' | 'pressureBar' | 'excessReason'>,
  state: Pick<JobState, 'facts' | 'caseType'>,
  policy: Parameters<typeof testExcess>[2],
): readonly string[] {
  const ofWatch = { ...test, excessReason: '' };
  const beyondTester = testExcess(
    ofWatch,
    { facts: { ...state.facts, watch: null }, caseType: null },
    policy,
  );
  if (beyondTester.length > 0) return beyondTester;
  return test.excessReason === '' ? testExcess(test, state, policy) : [];
}

/** Why a test is beyond what this watch, this shop or its tester is for; empty where it is not. */
export function testExcess(
  { method, pressureBar }: Pick<Payloads['test.made'], 'method' | 'pressureBar'>,
  { facts, caseType }: Pick<JobState, 'facts' | 'caseType'>,
  policy: Pick<Policy, 'mostTestBar' | 'dryTesterMostBar' | 'wetTesterMostBar' | 'dryTesterVacuumBar'>,
): readonly string[] {
  return pressureExcess(pressureBar, {
    ratingBar: facts.watch?.payload.ratingBar ?? caseType?.ratingBar ?? null,
    policyBar: policy.mostTestBar,
    testerBar: method === 'wet' ? policy.wetTesterMostBar : policy.dryTesterMostBar,
    testerVacuumBar: method === 'wet' ? 0 : policy.dryTesterVacuumBar,
  });
}

/**
 * What a wet test risks just now; null where a dry one at this pressure passed before, or the test is no wet one. A watch that
 * leaks draws water in as its pressure is let off. Source: bench practice.
 */
export function wetRisk(
  method: Payloads['test.made']['method'],
  overBar: number | null,
  tests: readonly JudgedTest[],
): string | null {
  return method !== 'wet' || stepPassed({ method: 'dry air', overBar }, tests)
    ? null
    : 'Water can enter the case: this watch has not passed a dry test at this pressure. Run a dry test first, or remove the movement from the case.';
}
