import { figure, type Judged } from '../../craft/judgement';
import type { JobState, Payloads } from '../../logbook';

type Test = Payloads['test.made'];

/** Whether a test shows a watch tight: under pressure, and no leak seen. */
const showedNone = (test: Test): test is Test & { readonly pressureBar: number } =>
  test.outcome === 'no leak seen' && test.pressureBar !== null;

export type WaterStatement = Judged<'tested' | 'not tested' | 'not water resistant'> & {
  readonly statement: string;
};

/**
 * What may be said about water: never more than was tested. A leak seen that no later pressure test took back, or a
 * seam that is not even, makes it *not water resistant*; without a pressure test that showed no leak nothing is claimed.
 */
export function waterStatement(state: JobState): WaterStatement {
  const { tests, closed, gasket } = state.facts;
  const working = tests.map((test) => ({
    what: `${test.payload.method} test`,
    rule: 'as recorded at the bench',
    figures: `${test.payload.pressureBar === null ? '' : `${figure(test.payload.pressureBar)} bar, `}${figure(test.payload.seconds)} s: ${test.payload.outcome}`,
  }));
  if (closed?.payload.interim) {
    return {
      verdict: 'not tested',
      statement:
        'Closed for the time being on its old seal, until the part is here. Keep the watch away from water.',
      reasons: ['Closed interim: nothing is claimed about water.'],
      working,
    };
  }
  // A test that is not clear, or one without pressure, takes no leak back.
  const told = tests.filter(({ payload }) => payload.outcome === 'leak seen' || showedNone(payload));
  const last = told.at(-1)?.payload;
  const leaked = last?.outcome === 'leak seen';
  if (leaked || closed?.payload.seamEven === false) {
    const reason = leaked
      ? 'A test showed a leak, and none under pressure since has shown it tight.'
      : 'The seam is not even.';
    return {
      verdict: 'not water resistant',
      statement: 'This watch is not water resistant. Keep it away from water.',
      reasons: [reason],
      working,
    };
  }
  if (last && showedNone(last)) {
    return {
      verdict: 'tested',
      statement: `Tested at ${figure(last.pressureBar)} bar, ${last.method}, for ${figure(last.seconds)} seconds: no leak was seen. More than that was not tested.`,
      reasons: ['A pressure test was recorded after closing.'],
      working,
    };
  }
  return {
    verdict: 'not tested',
    statement: `Water resistance was not tested${gasket?.payload.state === 'renewed' ? ', though the gasket was renewed' : ''}. Keep the watch away from water.`,
    reasons: ['No pressure test was made in this visit.'],
    working,
  };
}
