import { figure, type Judged } from '../judgement';

export const TEST_METHODS = ['dry air', 'wet', 'condensation'] as const;
export type TestMethod = (typeof TEST_METHODS)[number];
export const TEST_OUTCOMES = ['no leak seen', 'leak seen', 'not clear'] as const;

/** One test as it was made: what was set, and what instrument or eye said. */
export interface TightnessTest {
  readonly method: TestMethod;
  /** Over the air outside; null for condensation. */
  readonly pressureBar: number | null;
  readonly seconds: number;
  readonly outcome: (typeof TEST_OUTCOMES)[number];
  readonly deflectionStartUm: number | null;
  readonly deflectionEndUm: number | null;
}

/** How each method must be watched at least, s. Source: bench practice; ISO 22810 for the drop on the warm crystal. */
const LEAST_SECONDS: Readonly<Record<TestMethod, number>> = { 'dry air': 60, wet: 60, condensation: 60 };
/** Below this, bar, nothing presses. */
const NO_PRESSURE_BAR = 0.1;
/** A case of usual volume at the limit of ISO 22810 loses under this share of its deflection in a minute. */
const MOST_LOST_A_MINUTE = 0.035;
/** A deflection read to this share is the same. */
const READ_TO = 0.02;

/** The share of the deflection that was left at the end of a test, 0 to 1, or null where it was not read. */
export function deflectionKept({
  deflectionStartUm: start,
  deflectionEndUm: end,
}: Pick<TightnessTest, 'deflectionStartUm' | 'deflectionEndUm'>): number | null {
  return start === null || end === null || start === 0 ? null : end / start;
}

export type TestVerdict = Judged<'tight' | 'leaks' | 'not clear' | 'proves nothing'>;

/** What stood around a test. */
interface TestedHow {
  /** The watch was closed before it, and not opened since. */
  readonly sinceClosing: boolean;
  /** The ring of its back was missing when it was closed. */
  readonly ringMissing: boolean;
}

/** What its own deflection says against a test that showed no leak; null where it says nothing. */
function contradiction({ deflectionStartUm, deflectionEndUm, seconds }: TightnessTest): string | null {
  if (deflectionStartUm === null || deflectionEndUm === null) return null;
  if (deflectionStartUm <= 0)
    return 'its case did not give under the pressure: flooded at once, or the sensor stuck';
  const kept = deflectionEndUm / deflectionStartUm;
  const least = (1 - MOST_LOST_A_MINUTE) ** (seconds / 60) - READ_TO;
  if (kept < least)
    return `its deflection fell to ${figure(kept * 100, 1)} %, a case at the limit keeps ${figure(least * 100, 1)} %`;
  return kept > 1 + READ_TO
    ? `its deflection rose to ${figure(kept * 100, 1)} %, which no tight case does`
    : null;
}

/**
 * What a tightness test shows. A leak seen is one, whenever and however it was seen. *Not clear* and a *no leak seen* that
 * its own deflection contradicts are not clear. Tight is only what was tested under pressure, long enough for its
 * method, on a watch closed for good with its ring; every other *no leak seen* proves nothing. Source: bench practice;
 * the loss at the limit from ISO 22810.
 */
export function judgeTest(test: TightnessTest, { sinceClosing, ringMissing }: TestedHow): TestVerdict {
  const { method, pressureBar, seconds, outcome } = test;
  const told = (verdict: TestVerdict['verdict'], ...reasons: string[]): TestVerdict => ({
    verdict,
    reasons,
    working: [
      {
        what: `${method} test`,
        rule: `watched for ${LEAST_SECONDS[method]} s at least; a case at the limit loses ${figure(MOST_LOST_A_MINUTE * 100, 1)} % of its deflection in a minute`,
        figures: `${pressureBar === null ? '' : `${figure(pressureBar)} bar, `}${figure(seconds)} s: ${outcome}`,
        source: 'ISO 22810; bench practice',
      },
    ],
  });
  if (outcome === 'leak seen') return told('leaks', 'a leak was seen');
  if (outcome === 'not clear') return told('not clear', 'the tester gave no clear result');
  const against = contradiction(test);
  if (against !== null) return told('not clear', against);
  const lacks = [
    ...(sinceClosing ? [] : ['it was made before the watch was closed']),
    ...(pressureBar === null || Math.abs(pressureBar) < NO_PRESSURE_BAR
      ? [method === 'condensation' ? 'it was made without pressure' : 'nothing pressed on the case']
      : []),
    ...(seconds < LEAST_SECONDS[method]
      ? [`it was watched for ${figure(seconds)} s, and its method needs ${LEAST_SECONDS[method]} s`]
      : []),
    ...(ringMissing ? ['the ring of the back was missing'] : []),
  ];
  return lacks.length > 0 ? told('proves nothing', ...lacks) : told('tight');
}

/** The most a watch may be tested at, bar; null where nothing limits it. */
export interface PressureLimits {
  readonly ratingBar: number | null;
  readonly policyBar: number;
  readonly testerBar: number;
}

/** Why a pressure is more than this watch, this shop or its tester is for; empty where it is not. */
export function pressureExcess(pressureBar: number | null, limits: PressureLimits): readonly string[] {
  if (pressureBar === null) return [];
  const { ratingBar, policyBar, testerBar } = limits;
  const over = (limit: number | null, words: string): string[] =>
    limit !== null && pressureBar > limit
      ? [`${figure(pressureBar)} bar is more than ${words}: ${figure(limit)} bar.`]
      : [];
  return [
    ...over(ratingBar, 'this watch is rated for'),
    ...over(policyBar, 'this shop tests at'),
    ...over(testerBar, 'its tester is made for'),
  ];
}
