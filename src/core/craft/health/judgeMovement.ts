import { figure } from '../judgement';
import type { MovementFigures, Whose } from './figures';
import { type ReadingVerdict, type Reference, isOver, isUnder, unread } from './reading';

/** Under this share of what is typical next to nothing flows. */
const TINY = 0.2;

/** What the current through the movement says, in µA, against the figures of `figuresFor`. */
export function judgeCurrent(valueUA: number, figures: MovementFigures['current']): ReadingVerdict {
  const { whose, of, typicalUA, limitUA } = figures;
  const none = unread('currentUA', valueUA, [typicalUA, limitUA]);
  if (none) return none;
  const base = { measure: 'currentUA', value: valueUA } as const;
  const reference: Reference = { whose, min: null, max: limitUA };
  const working = [
    {
      what: 'current',
      rule: `${of}: typically ${figure(typicalUA)} µA, at most ${figure(limitUA)} µA`,
      figures: `${figure(valueUA)} µA`,
      source: sourceOf(whose),
    },
  ];
  if (isOver('currentUA', valueUA, limitUA)) {
    return {
      ...base,
      verdict: 'over the limit',
      reference,
      working,
      reasons: [
        `${figure(valueUA / limitUA, 1)} times the limit. Damp or electrolyte on the circuit, or old oil and dirt. A new cell will not last.`,
      ],
    };
  }
  if (isUnder('currentUA', valueUA, typicalUA * TINY)) {
    return {
      ...base,
      verdict: 'too little',
      reference,
      working,
      reasons: [
        'Far below typical. Check that the crown is pushed home: a pulled crown stops the motor. Otherwise check the contacts.',
      ],
    };
  }
  return {
    ...base,
    verdict: 'good',
    reference,
    working,
    reasons: [
      whose === 'this movement'
        ? 'Within the range of this movement in the book.'
        : `Within ${whose === 'its family' ? 'the range of its family' : 'the general range'}.`,
    ],
  };
}

function sourceOf(whose: Whose): string {
  return whose === 'this movement'
    ? 'the book of this calibre'
    : whose === 'its family'
      ? 'the book of its family'
      : 'general figures of the trade';
}

/** A coil off its range by more than this share is suspect; one above this share of its maximum tenfold is open. */
const COIL_TOLERANCE = 0.1;
const OPEN_FROM_TIMES = 10;

/** What the coil's resistance says, kΩ, against the figures of `figuresFor`. Source: figures of the trade. */
export function judgeCoil(valueKOhm: number, figures: MovementFigures['coil']): ReadingVerdict {
  const base = { measure: 'coilKOhm', value: valueKOhm } as const;
  if (figures === null) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: ['According to the book this movement has no motor coil.'],
      working: [],
    };
  }
  const { whose, of, minKOhm, maxKOhm } = figures;
  const none = unread('coilKOhm', valueKOhm, [minKOhm, maxKOhm]);
  if (none) return none;
  const verdict = isOver('coilKOhm', valueKOhm, maxKOhm * OPEN_FROM_TIMES)
    ? 'open'
    : isUnder('coilKOhm', valueKOhm, minKOhm / 2)
      ? 'shorted turns'
      : isOver('coilKOhm', valueKOhm, maxKOhm * (1 + COIL_TOLERANCE)) ||
          isUnder('coilKOhm', valueKOhm, minKOhm * (1 - COIL_TOLERANCE))
        ? 'suspect'
        : 'good';
  const reason = {
    open: 'The coil is open: its wire is broken.',
    'shorted turns': 'Less than half of the normal value: turns are shorted.',
    suspect:
      'More than a tenth outside its range. Measure again at another temperature and with clean probes.',
    good:
      whose === 'this movement'
        ? 'Within the range of this movement in the book.'
        : 'Within the range used for comparison.',
  }[verdict];
  return {
    ...base,
    verdict,
    reference: { whose, min: minKOhm, max: maxKOhm },
    reasons: [reason],
    working: [
      {
        what: 'coil',
        rule: `${of}: ${figure(minKOhm)} to ${figure(maxKOhm)} kΩ; over a tenth outside suspect, under half shorted, over ${OPEN_FROM_TIMES} times open`,
        figures: `${figure(valueKOhm)} kΩ`,
        source: sourceOf(whose),
      },
    ],
  };
}

/** What the lowest voltage at which it still runs says, V, against the figures of `figuresFor`. */
export function judgeLowestRunning(valueV: number, figures: MovementFigures['lowest']): ReadingVerdict {
  const { whose, of, volts } = figures;
  const none = unread('lowestRunningV', valueV, [volts]);
  if (none) return none;
  const late = isOver('lowestRunningV', valueV, volts);
  return {
    measure: 'lowestRunningV',
    value: valueV,
    verdict: late ? 'runs too late' : 'good',
    reference: { whose, min: null, max: volts },
    reasons: [
      late
        ? 'It needs more voltage than normal: old oil and dirt, or a worn circuit. It will stop before its cell is spent.'
        : 'Runs down to the normal voltage.',
    ],
    working: [
      {
        what: 'lowest running voltage',
        rule: `${of}: runs down to ${figure(volts)} V`,
        figures: `${figure(valueV, 3)} V`,
        source: sourceOf(whose),
      },
    ],
  };
}

/** Of a movement's current so much flows without its motor, at most. Ours, from bench practice. */
const CIRCUIT_SHARE = 0.6;

/** What the current with the motor stopped says: the circuit alone draws a part of what the whole does. µA. */
export function judgeStoppedCurrent(valueUA: number, figures: MovementFigures['current']): ReadingVerdict {
  const none = unread('stoppedCurrentUA', valueUA, [figures.typicalUA]);
  if (none) return none;
  const most = figures.typicalUA * CIRCUIT_SHARE;
  const high = isOver('stoppedCurrentUA', valueUA, most);
  return {
    measure: 'stoppedCurrentUA',
    value: valueUA,
    verdict: high ? 'over the limit' : 'good',
    reference: { whose: figures.whose, min: null, max: most },
    reasons: [
      high
        ? 'The circuit alone draws too much. The cause is electrolyte or damp on the circuit, not the train.'
        : 'The circuit alone draws a normal current. The extra current comes from the train.',
    ],
    working: [
      {
        what: 'current, motor stopped',
        rule: `at most ${CIRCUIT_SHARE * 100} % of what is typical (${figures.of}: ${figure(figures.typicalUA)} µA)`,
        figures: `${figure(valueUA)} µA, at most ${figure(most)} µA`,
        source: 'bench practice',
      },
    ],
  };
}
const DAYS_PER_MONTH = 30.4;
const RATE_LIMIT_S_PER_MONTH = 20;

/** What a quartz watch usually strays by at most, s/day. */
export const USUAL_RATE_S_PER_DAY = RATE_LIMIT_S_PER_MONTH / DAYS_PER_MONTH;

/** What the rate says, s/day, against what quartz watches usually keep. */
export function judgeRate(valueSPerDay: number): ReadingVerdict {
  const none = unread('rateSPerDay', valueSPerDay);
  if (none) return none;
  const perMonth = valueSPerDay * DAYS_PER_MONTH;
  const off = isOver('rateSPerDay', Math.abs(valueSPerDay), USUAL_RATE_S_PER_DAY);
  return {
    measure: 'rateSPerDay',
    value: valueSPerDay,
    verdict: off ? 'off' : 'good',
    reference: {
      whose: 'general',
      min: -RATE_LIMIT_S_PER_MONTH / DAYS_PER_MONTH,
      max: RATE_LIMIT_S_PER_MONTH / DAYS_PER_MONTH,
    },
    reasons: [`${figure(perMonth, 1)} s a month${off ? ': more than usual for a quartz watch.' : '.'}`],
    working: [
      {
        what: 'rate',
        rule: `× ${DAYS_PER_MONTH} days; usual for quartz up to ±${RATE_LIMIT_S_PER_MONTH} s a month`,
        figures: `${figure(valueSPerDay, 2)} × ${DAYS_PER_MONTH} = ${figure(perMonth, 1)} s`,
        source: 'general figures of the trade',
      },
    ],
  };
}
