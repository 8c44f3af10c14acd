import type { Policy } from '../../craft/policy';
import {
  heldOf,
  type LeakTestPlan,
  planLeakTest,
  type PlannedStep,
  ROOM_C,
  type ToBeTested,
} from '../../craft/tightness';
import { crownOf, type JobFacts, type JobState } from '../../logbook';
import { freeVolumeOf, type JudgedTest } from '../leaks';

/** Marks that speak against pressure. */
const NOT_PRESSED = ['cracked crystal'] as const;
/** Seals beside the back's that nobody renewed. */
const OTHER_SEALS = ['crown', 'pushers', 'crystal'] as const;

/** How the owner brings a watch into water; null where nobody asked. */
export function useOf({ wear }: Pick<JobFacts, 'wear'>): ToBeTested['use'] {
  if (wear === null) return null;
  const { uses } = wear.payload;
  if (uses.includes('diving')) return 'diving';
  if (uses.includes('swimming')) return 'swimming';
  return uses.includes('hand washing and rain') ? 'splashes' : 'no water';
}

/** The age a watch shows by its ring, years; null where nobody knows. */
const ageOf = ({ gasket }: Pick<JobFacts, 'gasket'>): number | null => gasket?.payload.ageYears ?? null;

/**
 * Whether a step of the plan was passed: by a test of its method at its pressure or more that shows the watch tight; of
 * condensation by one at which no fog was seen, which proves nothing by itself.
 */
export function stepPassed(
  { method, overBar }: Pick<PlannedStep, 'method' | 'overBar'>,
  tests: readonly JudgedTest[],
): boolean {
  return tests.some(
    ({ test: { payload }, shows }) =>
      payload.method === method &&
      (method === 'condensation'
        ? payload.outcome === 'no leak seen'
        : shows.verdict === 'tight' && pressedAsMuch(heldOf(payload).overBar ?? 0, overBar ?? 0)),
  );
}

/** Vacuum stands for no pressure, nor pressure for vacuum. */
const pressedAsMuch = (triedBar: number, wantedBar: number): boolean =>
  wantedBar < 0 ? triedBar <= wantedBar : triedBar >= wantedBar;

/** How the watch of a job is to be tested, by what is on record of it and what the shop's testers can do. */
export function testPlanOf(
  state: Pick<JobState, 'facts' | 'caseType'>,
  policy: Policy,
  usualUmPerBar: number | null,
): LeakTestPlan {
  const { facts, caseType } = state;
  const gasket = facts.gasket?.payload;
  const other = facts.otherSeals?.payload;
  return planLeakTest(
    {
      ratingBar: facts.watch?.payload.ratingBar ?? caseType?.ratingBar ?? null,
      use: useOf(facts),
      ageYears: ageOf(facts),
      damage: [
        ...new Set(
          facts.marks.flatMap(({ payload: { kind } }) => NOT_PRESSED.filter((each) => each === kind)),
        ),
        ...(facts.closed?.payload.seamEven === false ? ['the seam is not even'] : []),
      ],
      notRenewed: [
        ...(gasket === undefined || gasket.state !== 'renewed' ? ['ring of the back'] : []),
        ...OTHER_SEALS.filter((seal) => other?.[seal] !== 'renewed' && other?.[seal] !== 'none there').map(
          (seal) => `seal of the ${seal}`,
        ),
      ],
      screwedCrown: crownOf(state) === 'screwed down',
      volume: freeVolumeOf(facts),
      temperatureC: ROOM_C,
      usualUmPerBar,
    },
    {
      dryMostBar: policy.dryTesterMostBar,
      dryVacuumBar: policy.dryTesterVacuumBar,
      wetMostBar: policy.wetTesterMostBar,
      mostBar: policy.mostTestBar,
      noiseUm: policy.dryTesterNoiseUm,
    },
  );
}
