import { figure, type Judged } from '../../craft/judgement';
import { judgeTest, type TestVerdict } from '../../craft/tightness';
import type { EntryOf, JobState } from '../../logbook';

type Made = EntryOf<'test.made'>;

/** A test of a visit, and what it shows. */
export interface JudgedTest {
  readonly test: Made;
  readonly shows: TestVerdict;
  /** A leak, or a result that was not clear, that no later retest has taken back. */
  readonly stands: boolean;
}

export type WaterStatement = Judged<'tested' | 'not tested' | 'not clear' | 'not water resistant'> & {
  readonly statement: string;
  readonly tests: readonly JudgedTest[];
};

/** The ring of the back was found missing, and none was put in. */
function ringMissing({ gasket }: JobState['facts']): boolean {
  return gasket !== null && gasket.payload.state !== 'renewed' && gasket.payload.findings.includes('missing');
}

/** Whether a retest, made after a repair and linked to an earlier test, passed at its pressure or more. */
function takesBack(retest: JudgedTest, earlier: Made, standsFor: JobState['standsFor']): boolean {
  const { test, shows } = retest;
  const { retestOf, pressureBar } = test.payload;
  if (retestOf === null || standsFor(retestOf) !== earlier.id || shows.verdict !== 'tight') return false;
  // A weaker vacuum is no more than a stronger one, and pressure from outside does not try what leaked outwards.
  const [tried, leaked] = [pressureBar ?? 0, earlier.payload.pressureBar ?? 0];
  return leaked < 0 ? tried <= leaked : tried >= leaked;
}

/**
 * Every test of a job with what it shows. A leak, or a result that is not clear, stands, through a reopening too, until a
 * retest linked to it passes at that pressure or more after a repair. Source: bench practice.
 */
export function judgeTests({
  facts,
  standsFor,
}: Pick<JobState, 'facts' | 'standsFor'>): readonly JudgedTest[] {
  const { tests, testsBeforeClosing } = facts;
  const judged = tests.map((test): JudgedTest => {
    const shows = judgeTest(test.payload, {
      sinceClosing: !testsBeforeClosing.has(test.id),
      ringMissing: ringMissing(facts),
    });
    return { test, shows, stands: shows.verdict === 'leaks' || shows.verdict === 'not clear' };
  });
  return judged.map((each, at) =>
    each.stands && judged.slice(at + 1).some((later) => takesBack(later, each.test, standsFor))
      ? { ...each, stands: false }
      : each,
  );
}

/** A test in a few words: `dry air test at 3 bar`. */
export function testInWords({ payload: { method, pressureBar } }: Made): string {
  if (pressureBar === null) return `${method} test`;
  return pressureBar < 0
    ? `${method} test at ${figure(-pressureBar)} bar below the air outside`
    : `${method} test at ${figure(pressureBar)} bar`;
}

/**
 * What may be said about water: never more than was tested since the watch was closed, and nothing while any test of the
 * visit stands that leaked or was not clear, or the seam is not even. Among the tests that show it tight the highest
 * pressure is named. A ring renewed earns no pressure.
 */
export function waterStatement(state: Pick<JobState, 'facts' | 'standsFor'>): WaterStatement {
  const { closed, gasket } = state.facts;
  const tests = judgeTests(state);
  const working = tests.flatMap(({ shows }) => shows.working);
  const told = (
    verdict: WaterStatement['verdict'],
    statement: string,
    reasons: readonly string[],
  ): WaterStatement => ({ verdict, statement, reasons, working, tests });
  const standing = tests.filter(({ stands }) => stands);
  const because = standing.map(({ test, shows }) => `${testInWords(test)}: ${shows.reasons.join(', ')}.`);
  const leaks = standing.some(({ shows }) => shows.verdict === 'leaks');
  if (leaks || closed?.payload.seamEven === false) {
    return told('not water resistant', 'This watch is not water resistant. Keep it away from water.', [
      ...because,
      ...(leaks
        ? ['It stands until a retest, linked to it and made after a repair, passes at that pressure.']
        : []),
      ...(closed?.payload.seamEven === false ? ['The seam is not even.'] : []),
    ]);
  }
  if (closed?.payload.interim) {
    return told(
      'not tested',
      'Closed for the time being on its old seal, until the part is here. Keep the watch away from water.',
      ['Closed interim: nothing is claimed about water.'],
    );
  }
  if (standing.length > 0) {
    return told(
      'not clear',
      'A test gave no clear result, so nothing can be said about water. Keep the watch away from water.',
      [
        ...because,
        'It stands until a retest, linked to it and made after a repair, passes at that pressure.',
      ],
    );
  }
  const tight = tests.filter(({ shows }) => shows.verdict === 'tight');
  const best = tight.reduce<JudgedTest | null>(
    (most, each) =>
      most === null || (each.test.payload.pressureBar ?? 0) >= (most.test.payload.pressureBar ?? 0)
        ? each
        : most,
    null,
  );
  if (best) {
    const { pressureBar, method, seconds } = best.test.payload;
    const at =
      (pressureBar ?? 0) < 0
        ? `${figure(-(pressureBar ?? 0))} bar below the air outside`
        : `${figure(pressureBar ?? 0)} bar`;
    return told(
      'tested',
      `Tested at ${at}, ${method}, for ${figure(seconds)} seconds: no leak was seen. More than that was not tested.`,
      ['A pressure test was recorded after closing.'],
    );
  }
  const nothing = tests.map(
    ({ test, shows }) => `The ${testInWords(test)} proves nothing: ${shows.reasons.join(', ')}.`,
  );
  return told(
    'not tested',
    `Water resistance was not tested${gasket?.payload.state === 'renewed' ? ', though the gasket was renewed' : ''}. Keep the watch away from water.`,
    nothing.length > 0 ? nothing : ['No pressure test was made in this visit.'],
  );
}
