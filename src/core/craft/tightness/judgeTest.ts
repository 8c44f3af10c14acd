import { figure, invalidFigures, type GivenFigure, type Judged } from '../judgement';
import type { LeakJudgement } from './leakJudgement';
import { NO_PRESSURE_BAR } from './record';

export const TEST_METHODS = ['dry air', 'wet', 'condensation'] as const;
export type TestMethod = (typeof TEST_METHODS)[number];
export const TEST_OUTCOMES = ['no leak seen', 'leak seen', 'not clear'] as const;
export type TestOutcome = (typeof TEST_OUTCOMES)[number];

/** One test as it was made: what was set, and what the eye saw. What a tester showed is judged apart. */
export interface TightnessTest {
  readonly method: TestMethod;
  /** Over the air outside; null for condensation. */
  readonly pressureBar: number | null;
  readonly seconds: number;
  /** What was seen; null where a dry test is judged by its record alone. */
  readonly outcome: TestOutcome | null;
}

/** How long a wet test and the drop on the warm crystal must be watched at least, s. Source: bench practice; ISO 22810. */
export const LEAST_SECONDS = 60;

/** No watch is tested at more, bar, nor watched for longer, s. */
const [MOST_TEST_BAR, LONGEST_TEST_S] = [1000, 7 * 86_400];

const asPressure = (value: number | null): GivenFigure => ({
  path: 'pressureBar',
  what: 'The pressure',
  value,
  unit: 'bar',
  from: -1,
  to: MOST_TEST_BAR,
});

/** The share of the deflection that was left at the end of a test, 0 to 1, or null where it was not read. */
export function deflectionKept({
  deflectionStartUm: start,
  deflectionEndUm: end,
}: {
  readonly deflectionStartUm: number | null;
  readonly deflectionEndUm: number | null;
}): number | null {
  return start === null || end === null || start === 0 ? null : end / start;
}

export type TestVerdict = Judged<
  'tight' | 'leaks' | 'not clear' | 'not yet known' | 'no verdict' | 'proves nothing'
>;

/** What stood around a test. */
interface TestedHow {
  /** The watch was closed before it, and not opened since. */
  readonly sinceClosing: boolean;
  /** The ring of its back was missing when it was closed. */
  readonly ringMissing: boolean;
  /** What its record or its figures show; null where nothing was measured. */
  readonly leak: LeakJudgement | null;
}

/**
 * What a tightness test shows. A leak seen is one, whenever and however it was seen, and so is one its record shows. A dry
 * test is judged by its record; without one it proves nothing. A wet test and one of condensation are judged by eye, and
 * tight only if watched long enough. Tight is only what was closed for good, with its ring. Source: bench practice; ISO 22810.
 */
export function judgeTest(test: TightnessTest, { sinceClosing, ringMissing, leak }: TestedHow): TestVerdict {
  const { method, pressureBar, seconds, outcome } = test;
  const measured = method === 'dry air' ? leak : null;
  const judged = (verdict: TestVerdict['verdict'], ...reasons: string[]): TestVerdict => ({
    verdict,
    reasons,
    working: [
      {
        what: `${method} test`,
        rule:
          method === 'dry air'
            ? 'judged by the deflection of the case and its recovery'
            : `watched for ${LEAST_SECONDS} s at least`,
        figures: `${pressureBar === null ? '' : `${figure(pressureBar)} bar, `}${figure(seconds)} s: ${outcome ?? 'by its record'}`,
        source: 'ISO 22810; bench practice',
      },
      ...(measured?.working ?? []),
    ],
  });
  if (outcome === 'leak seen') return judged('leaks', 'a leak was seen');
  if (measured?.verdict === 'leaks') return judged('leaks', ...measured.reasons);
  if (outcome === 'not clear') return judged('not clear', 'the test gave no clear result');
  const wrong = invalidFigures([
    asPressure(pressureBar),
    {
      path: 'seconds',
      what: 'How long it was watched',
      value: seconds,
      unit: 's',
      from: 0,
      to: LONGEST_TEST_S,
    },
  ]).map(({ reason }) => reason);
  if (wrong.length > 0) return judged('proves nothing', ...wrong);
  if (measured !== null && measured.verdict !== 'tight') return judged(measured.verdict, ...measured.reasons);
  const lacks = [
    ...(method === 'dry air' && measured === null
      ? ['nothing was measured, and a dry test needs the deflection of the case']
      : []),
    ...(sinceClosing ? [] : ['it was made before the watch was closed']),
    ...(pressureBar === null || Math.abs(pressureBar) < NO_PRESSURE_BAR
      ? [method === 'condensation' ? 'it was made without pressure' : 'there was no pressure on the case']
      : []),
    ...(method !== 'dry air' && seconds < LEAST_SECONDS
      ? [`it was watched for ${figure(seconds)} s, and its method needs ${LEAST_SECONDS} s`]
      : []),
    ...(ringMissing ? ['the ring of the back was missing'] : []),
  ];
  return lacks.length > 0
    ? judged('proves nothing', ...lacks)
    : judged('tight', ...(measured?.reasons ?? []));
}

/** The most a watch may be tested at, bar; null where nothing limits it. */
export interface PressureLimits {
  readonly ratingBar: number | null;
  readonly policyBar: number;
  readonly testerBar: number;
  /** How far its tester goes below the air outside; 0 for one that only presses. */
  readonly testerVacuumBar: number;
}

/** Why a pressure is more than this watch, this shop or its tester is for; empty where it is not. */
export function pressureExcess(pressureBar: number | null, limits: PressureLimits): readonly string[] {
  if (pressureBar === null) return [];
  const wrong = invalidFigures([asPressure(pressureBar)]);
  if (wrong.length > 0) return wrong.map(({ reason }) => reason);
  const { ratingBar, policyBar, testerBar, testerVacuumBar } = limits;
  if (pressureBar < 0 && !(-pressureBar <= testerVacuumBar))
    return [
      `${figure(-pressureBar)} bar below outside air is beyond the range of the tester: ${figure(testerVacuumBar)} bar.`,
    ];
  const over = (limit: number | null, words: string): string[] =>
    limit !== null && !(pressureBar <= limit)
      ? [`${figure(pressureBar)} bar is more than ${words}: ${figure(limit)} bar.`]
      : [];
  return [
    ...over(ratingBar, 'this watch is rated for'),
    ...over(policyBar, 'this shop tests at'),
    ...over(testerBar, 'its tester is made for'),
  ];
}
