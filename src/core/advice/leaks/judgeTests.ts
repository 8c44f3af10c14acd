import { median } from 'simple-statistics';
import {
  type Flow,
  flowFigure,
  heldOf,
  judgeTest,
  type LeakJudgement,
  LIMIT_UG_PER_MIN,
  pressureWords,
  type TestVerdict,
} from '../../craft/tightness';
import type { EntryOf, JobFacts, JobState } from '../../logbook';
import { leakOfTest } from './leakOfTest';

type Made = EntryOf<'test.made'>;

/** A test of a visit, and what it shows. */
export interface JudgedTest {
  readonly test: Made;
  readonly shows: TestVerdict;
  /** What its record or figures show; null where nothing was measured. */
  readonly leak: LeakJudgement | null;
  /** A leak or a doubt that no later test has taken back. */
  readonly stands: boolean;
  /** What takes it back: a repair and a retest linked to it, or any test at its pressure or more that shows it tight. */
  readonly takenBackBy: 'repair and retest' | 'a tight test' | null;
  /** The test that has taken it back. */
  readonly takenBack: Made | null;
}

/** The ring of the back was found missing, and none was put in. */
function ringMissing({ gasket }: JobState['facts']): boolean {
  return gasket !== null && gasket.payload.state !== 'renewed' && gasket.payload.findings.includes('missing');
}

/** A leak or an unclear result wants a repair; what was only not settled wants a test that settles it. */
function wants({ verdict }: TestVerdict, leak: LeakJudgement | null): JudgedTest['takenBackBy'] {
  if (verdict === 'leaks' || verdict === 'not clear') return 'repair and retest';
  // Stiff and flooded at once look the same.
  if (verdict === 'no verdict') return 'a tight test';
  return verdict === 'not yet known' && (leak?.flow?.likeliest ?? Infinity) > LIMIT_UG_PER_MIN
    ? 'a tight test'
    : null;
}

/** Whether a test was pressed as much as an earlier one: a weaker vacuum is no more, and pressure tries no leak outwards. */
function triesAsMuch(later: Made, earlier: Made): boolean {
  const [tried, leaked] = [later, earlier].map(({ payload }) => heldOf(payload).overBar ?? 0) as [
    number,
    number,
  ];
  return leaked < 0 ? tried <= leaked : tried >= leaked;
}

const NO_REPAIR = ['nothing', 'sent away'] as const;

/** Whether something was done about a test before another: told with the retest, or found and mended in between. */
export function repairedBetween(
  earlier: Made,
  retest: Pick<Made, 'payload' | 'sequence'>,
  { leakFindings }: Pick<JobFacts, 'leakFindings'>,
): boolean {
  return (
    retest.payload.note !== '' ||
    leakFindings.some(
      ({ payload, sequence }) =>
        NO_REPAIR.every((each) => each !== payload.done) &&
        (sequence ?? Infinity) > (earlier.sequence ?? Infinity) &&
        (retest.sequence === null || (sequence ?? Infinity) < retest.sequence),
    )
  );
}

/** The tests a retest names, as they stand now. */
export function retestsOf(
  { payload: { retestOf } }: Pick<Made, 'payload'>,
  standsFor: JobState['standsFor'],
): readonly string[] {
  return retestOf.map(standsFor);
}

/**
 * Every test of a job with what it shows. A leak, or a result that is not clear, stands, through a reopening too, until a
 * retest linked to it passes at that pressure or more after a repair. What gave no verdict, or is likelier over the limit
 * than under it, stands until any test at that pressure or more shows it tight. Source: bench practice.
 */
export function judgeTests({
  facts,
  standsFor,
}: Pick<JobState, 'facts' | 'standsFor'>): readonly JudgedTest[] {
  const stiffnesses: number[] = [];
  const judged = facts.tests.map((test) => {
    // What this case gave before counts, whoever forgot to say so.
    const usualUmPerBar =
      test.payload.usualUmPerBar ?? (stiffnesses.length === 0 ? null : median(stiffnesses));
    const leak = leakOfTest({ ...test.payload, usualUmPerBar }, facts);
    if (leak?.flow && leak.stiffnessUmPerBar !== null) stiffnesses.push(Math.abs(leak.stiffnessUmPerBar));
    const shows = judgeTest(test.payload, {
      sinceClosing: !facts.testsBeforeClosing.has(test.id),
      ringMissing: ringMissing(facts),
      leak,
    });
    return { test, shows, leak, takenBackBy: wants(shows, leak) };
  });
  return judged.map((each, at) => {
    const takenBack =
      each.takenBackBy === null
        ? null
        : (judged
            .slice(at + 1)
            .find(
              ({ test, shows }) =>
                shows.verdict === 'tight' &&
                triesAsMuch(test, each.test) &&
                (each.takenBackBy === 'a tight test' ||
                  (retestsOf(test, standsFor).includes(each.test.id) &&
                    repairedBetween(each.test, test, facts))),
            )?.test ?? null);
    return { ...each, stands: each.takenBackBy !== null && takenBack === null, takenBack };
  });
}

/** A test in a few words: `dry air test at 3 bar`. */
export function testInWords({ payload }: Pick<Made, 'payload'>): string {
  const { overBar } = heldOf(payload);
  return overBar === null ? `${payload.method} test` : `${payload.method} test at ${pressureWords(overBar)}`;
}

/** The pressure of a test, for comparing: a vacuum counts by its depth. */
export const barOf = ({ payload }: Pick<Made, 'payload'>): number => Math.abs(heldOf(payload).overBar ?? 0);

/** What was told of a flow, in a few words: `12 to 31 µg of air a minute`; null where nothing was fitted. */
export function flowInWords(flow: Flow | null): string | null {
  if (flow === null) return null;
  return Number.isFinite(flow.to)
    ? `${flowFigure(flow.from)} to ${flowFigure(flow.to)} µg of air a minute`
    : `over ${flowFigure(flow.from)} µg of air a minute`;
}
