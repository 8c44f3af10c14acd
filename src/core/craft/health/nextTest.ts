import type { FaultQuestion, NextTest } from './diagnosis';
import {
  type Fault,
  type Observable,
  OBSERVABLES,
  OUTCOMES,
  type SignOfFault,
  SIGNS_OF_FAULT,
  TESTS,
  TOLD,
} from './faults';
import { CELL_FAULTS, cellRead, type Hypothesis, likelihood, longEnough, seenOfCell } from './hypotheses';

/** A test separates two causes where it comes out otherwise this often. */
const SEPARATES = 0.6;
const BARELY = 0.1;

/** What was seen, as a plain sentence without its stop. */
export function words(observable: Observable, outcome: string): string {
  const named: Readonly<Partial<Record<Observable, string>>> = {
    crown: `the crown is ${outcome}`,
    shows: SHOWS_IT[outcome] ?? outcome,
    pulses: outcome === 'there' ? 'there are motor pulses' : 'there are no motor pulses',
    atFitting: `the ${outcome} as a cell goes in`,
    rest: `the rest voltage is ${outcome}`,
    load: `the cell ${outcome} under load`,
    current: outcome === 'nothing' ? 'no current flows at all' : `the current is ${flows(outcome)}`,
    stopped: `the current with the motor stopped is ${outcome === 'over' ? 'over its limit' : flows(outcome)}`,
    coil: outcome === 'shorted' ? 'turns of the coil are shorted' : `the coil is ${outcome}`,
    lowest: outcome === 'late' ? 'it stops at too high a voltage' : 'it runs down as far as it should',
    rate: `its rate is ${outcome}`,
    reset: `the reset contact was ${outcome}`,
    'after a charge': `after a charge it ${AFTER_A_CHARGE[outcome] ?? outcome}`,
  };
  if (TOLD.some((asked) => asked === observable))
    return outcome === 'there'
      ? `the owner reports: ${observable}`
      : `the owner does not report: ${observable}`;
  const [there, absent] = SIGN_WORDS[observable as SignOfFault] ?? [observable, `no ${observable}`];
  return named[observable] ?? (outcome === 'there' ? there : absent);
}

/** Each sign as it is seen, and as it is not. */
const SIGN_WORDS: Readonly<Record<SignOfFault, readonly [there: string, absent: string]>> = {
  'crust or bloom': ['there is crust or bloom', 'there is no crust or bloom'],
  'damp or rust': ['there is damp or rust', 'there is no damp or rust'],
  'fluff at the rotor': ['there is fluff at the rotor', 'there is no fluff at the rotor'],
  'loose screw': ['a screw is loose', 'no screw is loose'],
  'insulator missing': ['the insulator is missing', 'the insulator is in its place'],
  'contact bent': ['a contact is bent', 'no contact is bent'],
  'contact oxidised': ['a contact is oxidised', 'no contact is oxidised'],
  'cell inverted': ['the cell lies inverted', 'the cell lies the right way up'],
  'arm touching the rotor': ['an arm touches the rotor', 'no arm touches the rotor'],
};
const SHOWS_IT: Readonly<Record<string, string>> = {
  dead: 'nothing moves',
  runs: 'it runs',
  'in twos or fours': 'it steps in twos or fours',
  scrambled: 'the display is scrambled',
};
const AFTER_A_CHARGE: Readonly<Record<string, string>> = { 'low-supply steps': 'steps as on low supply' };
const flows = (outcome: string): string => (outcome === 'as it should' ? 'as it should be' : outcome);
const NOTHING_WRONG = 'nothing wrong';

export interface Weighed extends Hypothesis {
  readonly weight: number;
}

/** So many explanations beside the first are asked after, and none that is so much less likely than it. */
const MOST_RIVALS = 10;
const NO_RIVAL_UNDER = 1 / 40;

/** Of a sound watch more is asked: it is sent back on that. */
const NO_RIVAL_TO_SOUND_UNDER = 1 / 500;

/**
 * The cheapest test that tells the first explanation from another, or the one that does it best for its effort: from the likeliest
 * other that any test tells it from. Null where nothing does, or a named cause stands alone.
 */
export function separating(
  all: readonly Weighed[],
  question: FaultQuestion,
  causes: readonly Fault[],
): NextTest | null {
  const [first, ...others] = [...all].sort((a, b) => b.weight - a.weight);
  if (!first || (causes.length > 0 && (others[0]?.weight ?? 0) < first.weight / 20)) return null;
  const isCell = ({ faults }: Hypothesis): boolean => faults.some((fault) => CELL_FAULTS.includes(fault));
  const other = others.find((each) => isCell(each) !== isCell(first));
  const restTest = (): NextTest | null =>
    other && !cellRead(question)
      ? testOf({ observable: 'rest', shown: ['rest'], ...REST_TEST }, first, other, question)
      : null;
  // What is likeliest of the cell is settled at the cell, once what costs a glance was looked at.
  if (isCell(first) && !seenOfCell(question) && question.observed.size >= GLANCES) return restTest();
  const least = first.faults.length === 0 ? NO_RIVAL_TO_SOUND_UNDER : NO_RIVAL_UNDER;
  for (const rival of others.slice(0, MOST_RIVALS)) {
    if (rival.weight < first.weight * least) break;
    const test = testBetween(first, rival, question);
    if (test) return test;
  }
  // No watch is called sound on a cell that nobody measured.
  return first.faults.length === 0 || isCell(first) ? restTest() : null;
}

/** So many things are looked at before a meter is set on. */
const GLANCES = 2;
const REST_TEST = TESTS.rest ?? { effort: 3, words: '' };

/** Two explanations as a test tells them apart: of one that holds the other it is asked what it holds beside. */
function namesOf(first: Hypothesis, second: Hypothesis): readonly [string, string] {
  const name = ({ faults }: Hypothesis): string =>
    faults.length === 0 ? NOTHING_WRONG : faults.join(' and ');
  const [less, more] =
    first.faults.length <= second.faults.length
      ? [first.faults, second.faults]
      : [second.faults, first.faults];
  const beside = more.filter((fault) => !less.includes(fault));
  if (less.length === 0 || !less.every((fault) => more.includes(fault))) {
    // What both hold is not in question.
    const own = (of: Hypothesis, other: Hypothesis): Hypothesis => ({
      ...of,
      faults: of.faults.filter((fault) => !other.faults.includes(fault)),
    });
    return [name(own(first, second)), name(own(second, first))];
  }
  const [alone, too] = [`${less.join(' and ')} alone`, `${beside.join(' and ')} as well`];
  return first.faults === less ? [alone, too] : [too, alone];
}

function testBetween(first: Weighed, second: Weighed, question: FaultQuestion): NextTest | null {
  const looked = SIGNS_OF_FAULT.some((sign) => question.observed.has(sign));
  const candidates = OBSERVABLES.flatMap((observable) => {
    const test = TESTS[observable];
    const isLook = observable === 'crust or bloom';
    if (!test || question.observed.has(observable) || (isLook && looked)) return [];
    if (!question.hasHands && (observable === 'coil' || observable === 'pulses' || observable === 'crown'))
      return [];
    if (observable === 'reset' && question.hasReset === false) return [];
    // What stands still has no rate, and no voltage at which it stops.
    if (question.observed.get('shows') === 'dead' && (observable === 'rate' || observable === 'lowest'))
      return [];
    if (observable === 'after a charge' && !question.charges) return [];
    // One look with the loupe shows every sign at once.
    const shown: readonly Observable[] = isLook ? SIGNS_OF_FAULT : [observable];
    const apart = Math.max(...shown.map((each) => distance(first, second, each, question)));
    return apart < BARELY ? [] : [{ observable, apart, shown, ...test }];
  });
  const cheapest = candidates
    .filter(({ apart }) => apart >= SEPARATES)
    .sort((a, b) => a.effort - b.effort || b.apart - a.apart)[0];
  const best = cheapest ?? candidates.sort((a, b) => b.apart / b.effort - a.apart / a.effort)[0];
  return best ? testOf(best, first, second, question) : null;
}

/** A test as it is told: what it would speak for, each way it may come out. */
function testOf(
  best: {
    readonly observable: Observable;
    readonly shown: readonly Observable[];
    readonly effort: number;
    readonly words: string;
  },
  first: Hypothesis,
  second: Hypothesis,
  question: FaultQuestion,
): NextTest {
  const [a, b] = namesOf(first, second);
  const outcomes = best.shown.flatMap((each) =>
    OUTCOMES[each].flatMap((outcome: string) => {
      const [p, q] = [
        likelihood(first.faults, each, outcome, question),
        likelihood(second.faults, each, outcome, question),
      ];
      const tells = Math.max(p, q) >= 0.15 && (p > 2 * q || q > 2 * p);
      return tells
        ? [{ observable: each, outcome, shows: words(each, outcome), speaksFor: p > q ? a : b }]
        : [];
    }),
  );
  return {
    observable: best.observable,
    words: best.words,
    effort: best.effort,
    between: [a, b],
    outcomes,
    watchS: Math.ceil(longEnough(question)),
  };
}

/** How differently one thing comes out of two explanations: total variation, 0 to 1. */
function distance(
  first: Hypothesis,
  second: Hypothesis,
  observable: Observable,
  question: FaultQuestion,
): number {
  return (
    OUTCOMES[observable].reduce(
      (sum, outcome) =>
        sum +
        Math.abs(
          likelihood(first.faults, observable, outcome, question) -
            likelihood(second.faults, observable, outcome, question),
        ),
      0,
    ) / 2
  );
}
