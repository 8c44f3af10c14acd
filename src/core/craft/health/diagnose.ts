import { capital, figure, invalidFigures, percent, type WorkingLine } from '../judgement';
import type { Diagnosis, FaultChance, FaultEvidence, FaultQuestion, PricedRemedy } from './diagnosis';
import { type Fault, FAULTS, isPastLimit, type Observable, OUTCOMES } from './faults';
import {
  CELL_FAULTS,
  cellRead,
  hypothesesOf,
  likelihood,
  longEnough,
  seenOfCell,
  SOMETHING_ELSE,
} from './hypotheses';
import { separating, type Weighed, words } from './nextTest';
import { REMEDIES } from './remedies';

/** A cause is named from here on. */
const NAMED_FROM = 0.68;

/** And a watch is called sound from here on: to send one back that is not costs more than another look. */
const SOUND_FROM = 0.88;

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
      what: 'Step interval',
      value: stepIntervalS,
      unit: 's',
      over: 0,
      to: LONGEST_WATCHED_S,
    },
    {
      path: 'watchedSeconds',
      what: 'Observation time',
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

/** Whether a hand was watched for less than its step: it was not due to move yet. */
function isTooShort(question: FaultQuestion): boolean {
  const { stepIntervalS, watchedSeconds, observed, hasHands } = question;
  return (
    observed.get('shows') === 'dead' &&
    hasHands &&
    (stepIntervalS === null || stepIntervalS > 1) &&
    watchedSeconds !== null &&
    watchedSeconds < longEnough(question)
  );
}

type Observed = readonly (readonly [Observable, string])[];

/** What speaks for a fault and against it, the weightiest first. */
function evidenceFor(fault: Fault, observed: Observed, question: FaultQuestion): readonly FaultEvidence[] {
  return observed
    .map(([observable, outcome]) => ({
      words: words(observable, outcome),
      bits: Math.log2(
        likelihood([fault], observable, outcome, question) / likelihood([], observable, outcome, question),
      ),
    }))
    .filter(({ bits }) => Math.abs(bits) >= 0.3)
    .sort((a, b) => Math.abs(b.bits) - Math.abs(a.bits));
}

/** Every cause and every pair of causes with its weight, and the chance of what one asks of them. */
function weightsOf(
  observed: Observed,
  question: FaultQuestion,
): {
  readonly all: readonly Weighed[];
  readonly chanceOf: (has: (faults: readonly Fault[]) => boolean) => number;
} {
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
  return {
    all,
    chanceOf: (has) => all.reduce((sum, { faults, weight }) => (has(faults) ? sum + weight : sum), 0) / total,
  };
}

function weighed(question: FaultQuestion): Diagnosis {
  const { stepIntervalS, watchedSeconds } = question;
  const tooShort = isTooShort(question);
  // A hand that was not due to move yet says nothing.
  const observed = [...question.observed].filter(([observable]) => !(tooShort && observable === 'shows'));
  const { all, chanceOf } = weightsOf(observed, question);
  const ranked = FAULTS.map((fault): FaultChance => ({
    fault,
    probability: chanceOf((faults) => faults.includes(fault)),
    evidence: evidenceFor(fault, observed, question),
  }))
    .filter(({ probability }) => probability >= 0.01)
    .sort((a, b) => b.probability - a.probability);
  const causes = ranked
    .filter(
      ({ fault, probability }) =>
        probability >= NAMED_FROM && (seenOfCell(question) || !CELL_FAULTS.includes(fault)),
    )
    .map(({ fault }) => fault);
  const base = {
    ranked,
    soundProbability: chanceOf((faults) => faults.length === 0),
    nextTest: separating(all, question, causes),
    working: ranked.slice(0, 4).map(({ fault, probability, evidence }): WorkingLine => ({
      what: fault,
      rule: 'odds before × how likely each thing seen is with it, over every cause and every pair',
      figures: `${percent(probability)}${evidence.length > 0 ? `: ${evidence.map((each) => `${each.words} ${each.bits > 0 ? '×' : '÷'} ${figure(2 ** Math.abs(each.bits), 1)}`).join('; ')}` : ''}`,
      source: 'Bayes’ rule; shares from bench practice',
    })),
  };
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
          ? `How often it steps is not known, and it was watched for only ${figure(watchedSeconds ?? 0)} s: watch it for a full minute before you call it faulty.`
          : `By the book it steps every ${figure(stepIntervalS)} s, but it was watched for only ${figure(watchedSeconds ?? 0)} s: wait ${figure(Math.ceil(longEnough(question)))} s before you call it faulty.`,
      ],
    };
  if (causes.length === 0)
    return {
      ...base,
      ...withoutCause(observed, ranked, base.soundProbability, question),
      causes: [],
      remedies: [],
    };
  return {
    ...base,
    verdict: 'found',
    causes,
    remedies: remediesOf(causes, question),
    reasons: reasonsOf(causes, ranked, question),
  };
}

/** Where no cause stands out: whether that means nothing is wrong, and what is not known yet. */
function withoutCause(
  observed: Observed,
  [first, second]: readonly FaultChance[],
  sound: number,
  question: FaultQuestion,
): Pick<Diagnosis, 'verdict' | 'reasons'> {
  const unclear = (reason: string): Pick<Diagnosis, 'verdict' | 'reasons'> => ({
    verdict: 'cannot tell yet',
    reasons: [reason],
  });
  if (observed.length === 0) return unclear('Nothing was examined or measured yet.');
  if (!SHOWS_IT_WELL.some((observable) => question.observed.has(observable)))
    return unclear('The movement is not examined yet. Record what it shows, its current and its pulses.');
  const past = observed.filter(([observable, outcome]) => isPastLimit(observable, outcome));
  if (sound >= SOUND_FROM && cellRead(question) && past.length === 0)
    return {
      verdict: 'nothing wrong',
      reasons: ['No observation or measurement points to a fault.'],
    };
  if (sound >= NAMED_FROM && !cellRead(question)) return unclear('The cell is not measured yet.');
  if (sound >= NAMED_FROM && past.length > 0)
    return unclear(
      `${capital(past.map(([observable, outcome]) => words(observable, outcome)).join(', '))}. This is not normal, but no cause stands out.`,
    );
  return unclear(
    first
      ? `${capital(first.fault)} ${percent(first.probability)}${second ? `, ${second.fault} ${percent(second.probability)}` : ''}. Neither stands out.`
      : 'The observations match no cause in the table.',
  );
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
            ? 'Many movements show low supply by stepping in twos or fours. This is not a fault.'
            : `This is its low-supply sign, not a fault: ${question.lowSupplySignal}.`,
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
      return `${capital(cause)}: ${speaks && speaks.length > 0 ? speaks.join(', ') : 'no other cause explains it as well'}.`;
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
              ? `The owner wants it original. Ask before you replace any part. ${remedy.risk}`
              : remedy.risk,
        },
      ];
    }),
  );
  return [...all.filter(({ replaces }) => !replaces), ...all.filter(({ replaces }) => replaces)];
}
