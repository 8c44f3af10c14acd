import { pressureExcess } from '../../craft/tightness';
import type { Policy } from '../../craft/policy';
import type { JobState, Payloads } from '../../logbook';

/** Why a test is beyond what this watch, this shop or its tester is for; empty where it is not. */
export function testExcess(
  { method, pressureBar }: Pick<Payloads['test.made'], 'method' | 'pressureBar'>,
  { facts, caseType }: Pick<JobState, 'facts' | 'caseType'>,
  policy: Pick<Policy, 'mostTestBar' | 'dryTesterMostBar' | 'wetTesterMostBar'>,
): readonly string[] {
  return pressureExcess(pressureBar, {
    ratingBar: facts.watch?.payload.ratingBar ?? caseType?.ratingBar ?? null,
    policyBar: policy.mostTestBar,
    testerBar: method === 'wet' ? policy.wetTesterMostBar : policy.dryTesterMostBar,
  });
}
