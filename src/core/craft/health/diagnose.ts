import type { PricedItem } from '../policy';
import { capital, figure, type Judged, percent, invalidFigures, type WorkingLine } from '../judgement';
import {
  BROUGHT_ABOUT,
  EFFECTS,
  type Fault,
  FAULTS,
  isPastLimit,
  LOAD_WHERE_FALLING,
  type Observable,
  OBSERVABLES,
  OUTCOMES,
  REMEDIES,
  type Remedy,
  shareOf,
  type SignOfFault,
  SIGNS_OF_FAULT,
  SOUND,
  TESTS,
  TOLD,
} from './faults';

/** What is known of a watch that does not run as it should. */
export interface FaultQuestion {
  /** Each thing looked at or measured, by how it came out. */
  readonly observed: ReadonlyMap<Observable, string>;
  /** A fresh cell is in, so the cell is not what ails it. */
  readonly freshCell: boolean;
  /** The cell was changed lately, by whomever: what goes wrong at a change is likelier. */
  readonly changedLately: boolean;
  readonly charges: boolean;
  /** What shows low supply, by the book; null where it shows nothing of the kind. */
  readonly lowSupplySignal: string | null;
  /** Whether it asks for a reset after a change; null where nobody knows. */
  readonly hasReset: boolean | null;
  readonly hasHands: boolean;
  /** Seconds between two steps by the book; null where it has none, or nobody knows. */
  readonly stepIntervalS: number | null;
  /** How long somebody watched for a step. */
  readonly watchedSeconds: number | null;
  readonly originalMatters: boolean;
  readonly priceOf: (item: PricedItem) => number | null;
}

export interface FaultEvidence {
  readonly words: string;
  /** For it above 0, against it below: log₂ of how much likelier with this fault than without. */
  readonly bits: number;
}

export interface FaultChance {
  readonly fault: Fault;
  /** Its own chance; two faults can hold together, so these need not make one. */
  readonly probability: number;
  readonly evidence: readonly FaultEvidence[];
}

export interface NextTest {
  readonly observable: Observable;
  readonly words: string;
  readonly effort: number;
  readonly between: readonly [string, string];
  /** What each outcome would speak for. */
  readonly outcomes: readonly TestOutcome[];
  /** How long it must be watched before it can be said to stand still, s. */
  readonly watchS: number;
}

export interface TestOutcome {
  readonly observable: Observable;
  readonly outcome: string;
  readonly shows: string;
  readonly speaksFor: string;
}

export interface PricedRemedy extends Remedy {
  readonly for: Fault;
  /** Null where the price list has no line for it; 0 where the service covers it. */
  readonly priceMinor: number | null;
}

export type Diagnosis = Judged<'found' | 'nothing wrong' | 'wait longer' | 'cannot tell yet'> & {
  readonly causes: readonly Fault[];
  readonly ranked: readonly FaultChance[];
  readonly soundProbability: number;
  readonly nextTest: NextTest | null;
  readonly remedies: readonly PricedRemedy[];
};

/** A cause is named from here on. */
const NAMED_FROM = 0.68;
/** And a watch is called sound from here on: to send one back that is not costs more than another look. */
const SOUND_FROM = 0.88;
/** Something the table does not know: it does anything to everything, and is this rare. */
const SOMETHING_ELSE = 0.005;
/** What goes wrong at a change of cell is so much likelier just after one. */
const AFTER_A_CHANGE: Readonly<Partial<Record<Fault, number>>> = {
  'reset contact not used': 4,
  'short circuit': 3,
  'contact does not touch': 2,
  'spent cell': 0.4,
};
const FRESH_CELL = 0.02;
const NO_SIGNAL_IN_BOOK = 0.35;
/** A test separates two causes where it comes out otherwise this often. */
const SEPARATES = 0.6;
const BARELY = 0.1;
/** A watch must be watched a little longer than one step. */
const LONGER_THAN_A_STEP = 1.2;
/** Where no step is known a minute hand must have been given a full minute, s. */
const UNKNOWN_STEP_S = 60;

function longEnough({ stepIntervalS }: FaultQuestion): number {
  return stepIntervalS === null ? UNKNOWN_STEP_S : stepIntervalS * LONGER_THAN_A_STEP;
}

interface Hypothesis {
  readonly faults: readonly Fault[];
  readonly prior: number;
}

/** A watch that is brought is seldom sound: the odds of each fault are for so many sound ones. Ours, from bench practice. */
const SOUND_ODDS = 0.35;

const EFFECT_OF = new Map(EFFECTS.map((each) => [each.fault, each]));

function oddsOf(fault: Fault, question: FaultQuestion): number {
  if (fault === 'spent cell' && question.charges) return 0;
  if ((fault === 'tired accumulator' || fault === 'merely discharged') && !question.charges) return 0;
  if (fault === 'reset contact not used' && question.hasReset === false) return 0;
  const motor: readonly Fault[] = [
    'coil severed',
    'turns of the coil shorted',
    'mechanical',
    'stop lever on',
    // A display has no train to oil.
    'old oil and dirt',
  ];
  if (!question.hasHands && motor.includes(fault)) return 0;
  const cell = fault === 'spent cell' || fault === 'tired accumulator' || fault === 'merely discharged';
  return (
    (EFFECT_OF.get(fault)?.odds ?? 0) *
    (question.changedLately ? (AFTER_A_CHANGE[fault] ?? 1) : 1) *
    (cell && question.freshCell ? FRESH_CELL : 1)
  );
}

/**
 * What comes out, with these faults, of one thing looked at. What any of them is enough to bring about comes of none of
 * them only if each fails to; else the first of them that touches it decides.
 */
function likelihood(
  faults: readonly Fault[],
  observable: Observable,
  outcome: string,
  question: FaultQuestion,
): number {
  if (observable === 'after a charge') return afterACharge(faults, outcome, question);
  const touching = EFFECTS.flatMap(({ fault, does }) => {
    const effect = does[observable];
    return effect && faults.includes(fault) ? [effect] : [];
  });
  const sound =
    observable === 'load' && question.observed.get('rest') === 'falling'
      ? LOAD_WHERE_FALLING
      : SOUND[observable];
  const [first = sound, second] = touching;
  const share = (effect: typeof first, of: string): number => {
    const plain = shareOf(observable, effect, of);
    return of === 'in twos or fours' && question.lowSupplySignal === null && effect !== SOUND[observable]
      ? plain * NO_SIGNAL_IN_BOOK
      : plain;
  };
  const brought = BROUGHT_ABOUT[observable];
  if (second === undefined || brought === undefined) return share(first, outcome);
  const [one, other] = [share(first, brought), share(second, brought)];
  const either = 1 - (1 - one) * (1 - other);
  if (outcome === brought) return either;
  // Otherwise as the first would have it, or the second.
  const left = (share(first, outcome) / (1 - one) + share(second, outcome) / (1 - other)) / 2;
  return (1 - either) * left;
}

/** A charge brings back what stood still for want of one, and nothing that stands still for another reason. */
function afterACharge(faults: readonly Fault[], outcome: string, { observed }: FaultQuestion): number {
  const standsBy = (those: readonly Fault[]): number =>
    1 - those.reduce((moves, fault) => moves * (1 - (EFFECT_OF.get(fault)?.does.shows?.dead ?? 0)), 1);
  const others = standsBy(faults.filter((fault) => !CHARGE_FAULTS.includes(fault)));
  const byAny = 1 - (1 - others) * (1 - standsBy(faults.filter((fault) => CHARGE_FAULTS.includes(fault))));
  const shows = observed.get('shows');
  const other =
    shows === undefined
      ? others
      : shows === 'dead'
        ? others / Math.max(byAny, SOUND.shows.dead ?? 0)
        : others * STANDS_NOW_AND_THEN;
  const own = faults.flatMap((fault) => EFFECT_OF.get(fault)?.does['after a charge'] ?? [])[0];
  const charged = shareOf('after a charge', own ?? SOUND['after a charge'], outcome);
  const stands = Math.min(other, SURELY);
  return (1 - stands) * charged + (outcome === 'does not run' ? stands : 0);
}

/** What was seen, as a plain sentence without its stop. */
function words(observable: Observable, outcome: string): string {
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
  if (TOLD.some((told) => told === observable))
    return outcome === 'there' ? `the owner says: ${observable}` : `the owner does not say: ${observable}`;
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

function hypothesesOf(question: FaultQuestion): Hypothesis[] {
  const odds = FAULTS.map((fault) => ({ fault, odds: oddsOf(fault, question) })).filter(
    (each) => each.odds > 0,
  );
  return [
    { faults: [], prior: SOUND_ODDS },
    ...odds.map((each): Hypothesis => ({ faults: [each.fault], prior: each.odds })),
    ...odds.flatMap((first, index) =>
      odds.slice(index + 1).map((second): Hypothesis => ({
        faults: [first.fault, second.fault],
        prior: first.odds * second.odds,
      })),
    ),
  ];
}

const NOTHING_WRONG = 'nothing wrong';
/** One of these must have been seen before a watch is called sound: a good cell alone says nothing of the movement. */
const SHOWS_IT_WELL: readonly Observable[] = ['shows', 'current', 'pulses'];

/** Nobody watches a hand for longer, s. */
const LONGEST_WATCHED_S = 86_400;

/** What was asked, without what cannot be, which is named: a step nobody knows then, a hand nobody watched. */
function soundly(question: FaultQuestion): readonly [FaultQuestion, readonly string[]] {
  const { stepIntervalS, watchedSeconds } = question;
  const wrong = invalidFigures([
    {
      path: 'stepIntervalS',
      what: 'Its step',
      value: stepIntervalS,
      unit: 's',
      over: 0,
      to: LONGEST_WATCHED_S,
    },
    {
      path: 'watchedSeconds',
      what: 'How long it was watched',
      value: watchedSeconds,
      unit: 's',
      from: 0,
      to: LONGEST_WATCHED_S,
    },
  ]);
  const isWrong = (path: string): boolean => wrong.some((each) => each.path === path);
  return [
    {
      ...question,
      stepIntervalS: isWrong('stepIntervalS') ? null : stepIntervalS,
      watchedSeconds: isWrong('watchedSeconds') ? 0 : watchedSeconds,
    },
    wrong.map(({ reason }) => reason),
  ];
}

/** And one of these: what is likeliest to ail a watch is its cell. */
const CELL_READ: readonly Observable[] = ['rest', 'load', 'atFitting'];

/** Nobody names a cell spent whose watch only stands still: the cell is read, it signals, or a charge was watched. */
const seenOfCell = (question: FaultQuestion): boolean =>
  cellRead(question) ||
  question.observed.get('shows') === 'in twos or fours' ||
  question.observed.has('after a charge');

const cellRead = ({ freshCell, observed }: FaultQuestion): boolean =>
  freshCell || CELL_READ.some((observable) => observed.has(observable));

/**
 * What ails a watch, from everything looked at and measured together: each cause and each pair of causes by Bayes' rule,
 * with the chance of each cause, what speaks for and against it, the cheapest next test that separates the first two, and
 * what to do, gentlest first, with price and risk. *Cannot tell yet* where no cause stands out. A watch watched for less
 * than its step interval is waited for, not judged. Source: the table of what is seen together, from bench practice.
 */
export function diagnose(given: FaultQuestion): Diagnosis {
  const [question, wrong] = soundly(given);
  const diagnosis = weighed(question);
  return wrong.length === 0 ? diagnosis : { ...diagnosis, reasons: [...diagnosis.reasons, ...wrong] };
}

function weighed(question: FaultQuestion): Diagnosis {
  const { stepIntervalS, watchedSeconds } = question;
  const longEnoughS = longEnough(question);
  const tooShort =
    question.observed.get('shows') === 'dead' &&
    question.hasHands &&
    (stepIntervalS === null || stepIntervalS > 1) &&
    watchedSeconds !== null &&
    watchedSeconds < longEnoughS;
  // A hand that was not due to move yet says nothing.
  const observed = [...question.observed].filter(([observable]) => !(tooShort && observable === 'shows'));
  const all = hypothesesOf(question).map((each) => ({
    ...each,
    weight: observed.reduce(
      (weight, [observable, outcome]) => weight * likelihood(each.faults, observable, outcome, question),
      each.prior,
    ),
  }));
  const elsewhere = observed.reduce(
    (weight, [observable]) => weight / OUTCOMES[observable].length,
    SOMETHING_ELSE,
  );
  const total = all.reduce((sum, { weight }) => sum + weight, elsewhere);
  const chanceOf = (has: (faults: readonly Fault[]) => boolean): number =>
    all.reduce((sum, { faults, weight }) => (has(faults) ? sum + weight : sum), 0) / total;
  const sound = chanceOf((faults) => faults.length === 0);
  const evidenceFor = (fault: Fault): FaultEvidence[] =>
    observed
      .map(([observable, outcome]) => ({
        words: words(observable, outcome),
        bits: Math.log2(
          likelihood([fault], observable, outcome, question) / likelihood([], observable, outcome, question),
        ),
      }))
      .filter(({ bits }) => Math.abs(bits) >= 0.3)
      .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
  const ranked = FAULTS.map((fault): FaultChance => ({
    fault,
    probability: chanceOf((faults) => faults.includes(fault)),
    evidence: evidenceFor(fault),
  }))
    .filter(({ probability }) => probability >= 0.01)
    .sort((a, b) => b.probability - a.probability);
  const causes = ranked
    .filter(
      ({ fault, probability }) =>
        probability >= NAMED_FROM && (seenOfCell(question) || !CELL_FAULTS.includes(fault)),
    )
    .map(({ fault }) => fault);
  const nextTest = separating(all, question, causes);
  const working: WorkingLine[] = ranked.slice(0, 4).map(({ fault, probability, evidence }) => ({
    what: fault,
    rule: 'odds before × how likely each thing seen is with it, over every cause and every pair',
    figures: `${percent(probability)}${evidence.length > 0 ? `: ${evidence.map((each) => `${each.words} ${each.bits > 0 ? '×' : '÷'} ${figure(2 ** Math.abs(each.bits), 1)}`).join('; ')}` : ''}`,
    source: 'Bayes’ rule; shares from bench practice',
  }));
  const base = { ranked, soundProbability: sound, nextTest, working };
  const [first, second] = ranked;
  if (tooShort && causes.length === 0)
    return {
      ...base,
      // Nothing is ranked before it had its time.
      ranked: [],
      nextTest: null,
      verdict: 'wait longer',
      causes: [],
      remedies: [],
      reasons: [
        stepIntervalS === null
          ? `How often it steps is not known, and it was watched for ${figure(watchedSeconds)} s: wait a full minute before anything is called wrong.`
          : `By the book it steps every ${figure(stepIntervalS)} s, and it was watched for ${figure(watchedSeconds)} s: wait ${figure(Math.ceil(longEnoughS))} s before anything is called wrong.`,
      ],
    };
  if (observed.length === 0)
    return {
      ...base,
      verdict: 'cannot tell yet',
      causes: [],
      remedies: [],
      reasons: ['Nothing was looked at or measured yet.'],
    };
  if (causes.length === 0) {
    const seenAtWork = SHOWS_IT_WELL.some((observable) => question.observed.has(observable));
    const past = observed.filter(([observable, outcome]) => isPastLimit(observable, outcome));
    if (sound >= SOUND_FROM && seenAtWork && cellRead(question) && past.length === 0)
      return {
        ...base,
        verdict: 'nothing wrong',
        causes: [],
        remedies: [],
        reasons: ['Nothing that was looked at or measured speaks of a fault.'],
      };
    return {
      ...base,
      verdict: 'cannot tell yet',
      causes: [],
      remedies: [],
      reasons: [
        !seenAtWork
          ? 'The movement itself was not looked at yet: what it shows, its current, its pulses.'
          : !cellRead(question) && sound >= NAMED_FROM
            ? 'Its cell was not measured yet.'
            : past.length > 0 && sound >= NAMED_FROM
              ? `${capital(past.map(([observable, outcome]) => words(observable, outcome)).join(', '))}: no cause stands out, and that is not as it should be.`
              : first
                ? `${capital(first.fault)} ${percent(first.probability)}${second ? `, ${second.fault} ${percent(second.probability)}` : ''}: neither stands out.`
                : 'What was seen fits nothing the table knows.',
      ],
    };
  }
  return {
    ...base,
    verdict: 'found',
    causes,
    remedies: remediesOf(causes, question),
    reasons: reasonsOf(causes, ranked, question),
  };
}

function reasonsOf(
  causes: readonly Fault[],
  ranked: readonly FaultChance[],
  question: FaultQuestion,
): string[] {
  const signal =
    question.observed.get('shows') === 'in twos or fours' &&
    causes.some((cause) => cause === 'spent cell' || cause === 'tired accumulator')
      ? [
          question.lowSupplySignal === null
            ? 'Steps in twos or fours are how many movements show low supply, not a fault.'
            : `Its low-supply signal, not a fault: ${question.lowSupplySignal}.`,
        ]
      : [];
  return [
    ...signal,
    ...causes.map((cause) => {
      const speaks = ranked
        .find(({ fault }) => fault === cause)
        ?.evidence.filter(({ bits }) => bits > 0)
        .slice(0, 3)
        .map((each) => each.words);
      return `${capital(cause)}: ${speaks && speaks.length > 0 ? speaks.join(', ') : 'nothing else explains it as well'}.`;
    }),
  ];
}

/** Clean before replace, and where the owner wants the watch original, what replaces a part last of all. */
function remediesOf(causes: readonly Fault[], question: FaultQuestion): PricedRemedy[] {
  const seen = new Set<string>();
  const all = causes.flatMap((cause) =>
    REMEDIES[cause].flatMap((remedy): PricedRemedy[] => {
      if (seen.has(remedy.what)) return [];
      seen.add(remedy.what);
      return [
        {
          ...remedy,
          for: cause,
          priceMinor: remedy.priced === null ? 0 : question.priceOf(remedy.priced),
          risk:
            remedy.replaces && question.originalMatters
              ? `The owner wants it original: ask before any part leaves. ${remedy.risk}`
              : remedy.risk,
        },
      ];
    }),
  );
  return [...all.filter(({ replaces }) => !replaces), ...all.filter(({ replaces }) => replaces)];
}

interface Weighed extends Hypothesis {
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
function separating(
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
const CELL_FAULTS: readonly Fault[] = ['spent cell', 'tired accumulator'];
const CHARGE_FAULTS: readonly Fault[] = ['tired accumulator', 'merely discharged'];
/** What stops a watch now and then may stop it after a charge, though it moved before. */
const STANDS_NOW_AND_THEN = 0.1;
/** No cause stops a watch surely. */
const SURELY = 0.97;

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
