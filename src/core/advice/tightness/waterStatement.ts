import { figure, type Judged } from '../../craft/judgement';
import { heldOf, heldPhases, pressureWords } from '../../craft/tightness';
import { dayInWords, localDay } from '../../craft/time';
import type { EntryOf, JobFacts, JobState } from '../../logbook';
import { barOf, type JudgedTest, judgeTests, testInWords } from '../leaks';
import { useOf } from './planOf';

type Made = EntryOf<'test.made'>;

export type WaterStatement = Judged<'tested' | 'not tested' | 'not clear' | 'not water resistant'> & {
  readonly statement: string;
  readonly tests: readonly JudgedTest[];
};

const AWAY = 'Keep the watch away from water.';

/** From these test pressures on, bar, a watch is said to bear so much. Source: trade reading of ratings. */
const BEARS = [
  [10, 'swimming and snorkelling'],
  [5, 'short bathing'],
  [3, 'splashes and rain'],
] as const;
const NEEDS_BAR = { splashes: 3, swimming: 10 } as const;

/** How the owner uses it, held against what was tested; nothing where nobody asked, or it stays dry. */
function useWords(facts: Pick<JobFacts, 'wear'>, testedBar: number): readonly string[] {
  const use = useOf(facts);
  if (use === null || use === 'no water') return [];
  const bears = BEARS.find(([bar]) => testedBar >= bar)?.[1] ?? null;
  const upTo =
    bears === null
      ? 'A test at such a low pressure says nothing about contact with water.'
      : `Tested for ${bears}. This holds only as long as the seals stay sound.`;
  if (use === 'diving')
    return [
      upTo,
      'It is not for diving. For diving you need a diver’s watch certified to ISO 6425. We cannot issue that certificate.',
    ];
  return [
    upTo,
    ...(testedBar >= NEEDS_BAR[use]
      ? []
      : [use === 'swimming' ? 'It is not for swimming.' : 'Take it off in rain and for washing hands.']),
  ];
}

/** How a test failed that was taken back later; condensation is made without pressure. */
function failedWords({ payload: { outcome, pressureBar } }: Made): string {
  const at = pressureBar === null ? 'by condensation' : `at ${pressureWords(pressureBar)}`;
  return `It ${outcome === 'not clear' ? 'gave no clear result' : 'leaked'} ${at}`;
}

const YEARLY = 'Seals age. Have it tested again in a year.';

/** What is said of the test at the highest pressure that shows the watch tight, and of those that failed before it. */
function testedWords(
  best: JudgedTest,
  tests: readonly JudgedTest[],
  facts: JobState['facts'],
  on: (made: Made) => string,
): { readonly statement: readonly string[]; readonly reasons: readonly string[] } {
  const { method, record } = best.test.payload;
  const { overBar, seconds } = heldOf(best.test.payload);
  const held = record === null ? [] : heldPhases(record);
  const before = tests.filter(({ takenBack }) => takenBack !== null);
  return {
    statement: [
      ...before
        .filter(({ shows }) => shows.verdict === 'leaks' || shows.verdict === 'not clear')
        .map(
          ({ test, takenBack }) =>
            `${failedWords(test)} ${on(test)}, was repaired${takenBack?.payload.note ? ` (${takenBack.payload.note})` : ''}, and tested again.`,
        ),
      `Tested at ${pressureWords(overBar ?? 0)}, ${method}, for ${figure(seconds)} seconds, ${on(best.test)}: no leak was found. Nothing beyond this was tested.`,
      ...useWords(facts, overBar ?? 0),
      YEARLY,
    ],
    reasons: [
      'A pressure test was recorded after closing.',
      ...(held.length > 1
        ? [
            `Its record holds ${held.map((each) => `${pressureWords(each.overBar)} for ${figure(each.seconds)} s`).join(' and ')}. The result is based on ${pressureWords(overBar ?? 0)}.`,
          ]
        : []),
      ...best.shows.reasons,
    ],
  };
}

/**
 * What may be said about water: from what was actually done, with method, pressure and day (in `zone`), never more than was
 * tested since the watch was closed, and nothing while any test of the visit stands that leaked or left a doubt, or the seam
 * is not even. Among the tests that show it tight the highest pressure is named. A ring renewed earns no pressure.
 */
export function waterStatement(state: Pick<JobState, 'facts' | 'standsFor'>, zone: string): WaterStatement {
  const { closed, gasket } = state.facts;
  const tests = judgeTests(state);
  const working = tests.flatMap(({ shows }) => shows.working);
  const on = ({ occurredAt }: Made): string => `on ${dayInWords(localDay(occurredAt, zone))}`;
  const stated = (
    verdict: WaterStatement['verdict'],
    statement: readonly string[],
    reasons: readonly string[],
  ): WaterStatement => ({ verdict, statement: statement.join(' '), reasons, working, tests });
  const active = tests.filter(({ stands }) => stands);
  const because = active.map(
    ({ test, shows }) => `${testInWords(test)}: ${shows.reasons.join(', ').replace(/\.$/, '')}.`,
  );
  const leaks = active.filter(({ shows }) => shows.verdict === 'leaks');
  if (leaks.length > 0 || closed?.payload.seamEven === false) {
    return stated(
      'not water resistant',
      ['This watch is not water resistant. Keep it away from water.'],
      [
        ...because,
        ...(leaks.length > 0
          ? [
              'The watch counts as leaking until it is repaired and passes a retest at this pressure. Record that test as a retest of this one.',
            ]
          : []),
        ...(closed?.payload.seamEven === false ? ['The seam is not even.'] : []),
      ],
    );
  }
  if (closed?.payload.interim) {
    return stated(
      'not tested',
      [`Closed temporarily on its old seal until the part arrives. ${AWAY}`],
      ['Temporarily closed, so nothing is stated about water.'],
    );
  }
  if (active.length > 0) {
    return stated(
      'not clear',
      [`A test gave no clear result, so nothing can be said about water. ${AWAY}`],
      [
        ...because,
        active.some(({ takenBackBy }) => takenBackBy === 'repair and retest')
          ? 'The watch counts as leaking until it is repaired and passes a retest at this pressure. Record that test as a retest of this one.'
          : 'The watch counts as leaking until a test at this pressure or a higher one shows it tight.',
      ],
    );
  }
  const tight = tests.filter(({ shows }) => shows.verdict === 'tight');
  const unsettled = tests.filter(({ shows }) => shows.verdict === 'not yet known');
  const open = unsettled.map(
    ({ test, shows }) => `${testInWords(test)}: no result, ${shows.reasons.join(', ').replace(/\.$/, '')}.`,
  );
  const best = tight.reduce<JudgedTest | null>(
    (most, each) => (most === null || barOf(each.test) >= barOf(most.test) ? each : most),
    null,
  );
  if (best) {
    const { statement, reasons } = testedWords(best, tests, state.facts, on);
    return stated('tested', statement, [...reasons, ...open]);
  }
  if (unsettled.length > 0) {
    return stated('not clear', [`A test did not show whether it is tight. ${AWAY}`], open);
  }
  const nothing = tests.map(
    ({ test, shows }) => `The ${testInWords(test)} is no proof: ${shows.reasons.join(', ')}.`,
  );
  return stated(
    'not tested',
    [
      `Water resistance was not tested${gasket?.payload.state === 'renewed' ? ', though the gasket was renewed' : ''}. ${AWAY}`,
    ],
    nothing.length > 0 ? nothing : ['No pressure test was made in this visit.'],
  );
}
