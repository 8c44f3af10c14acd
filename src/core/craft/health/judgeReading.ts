import { type Chemistry, chemistries } from '../cells';
import { figure, type Judged, invalidFigures } from '../judgement';
import { quantities, type Quantity } from '../units';
import type { MovementFigures, Whose } from './figures';

/** The readings taken at the bench, with the range outside which a figure is a slip and not a reading. */
export const measures = {
  restVoltageV: { words: 'rest voltage', quantity: 'voltageV', min: 0, max: 4.5 },
  loadedVoltageV: { words: 'voltage under load', quantity: 'voltageV', min: 0, max: 4.5 },
  currentUA: { words: 'current', quantity: 'currentUA', min: 0, max: 5000 },
  stoppedCurrentUA: { words: 'current, motor stopped', quantity: 'currentUA', min: 0, max: 5000 },
  coilKOhm: { words: 'coil resistance', quantity: 'resistanceKOhm', min: 0, max: 10_000 },
  lowestRunningV: { words: 'lowest running voltage', quantity: 'voltageV', min: 0, max: 4.5 },
  rateSPerDay: { words: 'rate', quantity: 'rateSPerDay', min: -600, max: 600 },
} as const satisfies Record<string, { words: string; quantity: Quantity; min: number; max: number }>;

export type Measure = keyof typeof measures;

/** The range a source gives for a reading, and whose range it is. */
export interface Reference {
  readonly whose: Whose;
  readonly min: number | null;
  readonly max: number | null;
}

export type ReadingVerdict = Judged<
  | 'good'
  | 'falling'
  | 'spent'
  | 'over the limit'
  | 'too little'
  | 'suspect'
  | 'open'
  | 'shorted turns'
  | 'runs too late'
  | 'off'
  | 'not this cell'
  | 'not judged'
> & {
  readonly measure: Measure;
  readonly value: number;
  readonly reference: Reference;
};

/** Rest voltage by chemistry: spent under, fresh from (general figures of the trade), and what none of it reaches (ours). */
const REST_V: Partial<Record<Chemistry, { spentUnder: number; freshFrom: number; noneOver: number }>> = {
  'silver-oxide': { spentUnder: 1.45, freshFrom: 1.55, noneOver: 1.7 },
  lithium: { spentUnder: 2.7, freshFrom: 3.0, noneOver: 3.6 },
  alkaline: { spentUnder: 1.3, freshFrom: 1.5, noneOver: 1.7 },
};

/** Sag under the meter's stated load that says spent or cold: 2 kΩ for silver, 1 kΩ for lithium, one second. */
const SAG_V: Partial<Record<Chemistry, Load & { limitV: number }>> = {
  'silver-oxide': { limitV: 0.15, loadKOhm: 2, seconds: 1 },
  lithium: { limitV: 0.3, loadKOhm: 1, seconds: 1 },
};

/** The finest step an instrument shows of a measure: nothing is past a limit that cannot be read to be. */
function stepOf(measure: Measure): number {
  return 10 ** -quantities[measures[measure].quantity].digits;
}

/** Whether a reading is over a limit as far as it can be read: 1.55 falling to 1.40 V is a sag of exactly 0.15. */
function isOver(measure: Measure, value: number, limit: number): boolean {
  return value - limit > stepOf(measure) / 2;
}

function isUnder(measure: Measure, value: number, limit: number): boolean {
  return isOver(measure, limit, value);
}

/** What two readings of a bench meter may differ by. */
const METER_V = 0.01;

/** The load a voltage was read under, and for how long. */
export interface Load {
  readonly loadKOhm: number;
  readonly seconds: number;
}

/** The load a cell of a chemistry is read under; of others that of silver oxide. */
export function usualLoad(chemistry: Chemistry | null): Load {
  const { loadKOhm, seconds } = SAG_V[chemistry ?? 'silver-oxide'] ?? { loadKOhm: 2, seconds: 1 };
  return { loadKOhm, seconds };
}

function loadWords({ loadKOhm, seconds }: Load): string {
  return `${figure(loadKOhm)} kΩ, ${figure(seconds)} s`;
}

/** A figure that is none, or that no meter shows of this measure, is not judged; null where it can be. */
function unread(measure: Measure, value: number, reference: readonly number[] = []): ReadingVerdict | null {
  const { min, max, quantity, words } = measures[measure];
  const { unit } = quantities[quantity];
  const reasons = [
    ...invalidFigures([{ path: measure, what: `The ${words}`, value, unit, from: min, to: max }]),
    ...invalidFigures(
      reference.map((each) => ({
        path: measure,
        what: 'The figure it is held against',
        value: each,
        unit,
        over: 0,
        to: max,
      })),
    ),
  ].map(({ reason }) => reason);
  return reasons.length === 0
    ? null
    : {
        measure,
        value,
        verdict: 'not judged',
        reference: { whose: 'general', min: null, max: null },
        reasons,
        working: [],
      };
}

/** What the rest voltage of the old cell says. Volts. A good voltage of a silver cell proves little, and it says so. */
export function judgeRestVoltage(valueV: number, chemistry: Chemistry | null): ReadingVerdict {
  const none = unread('restVoltageV', valueV);
  if (none) return none;
  const limits = chemistry === null ? undefined : REST_V[chemistry];
  const base = { measure: 'restVoltageV', value: valueV } as const;
  if (!limits || chemistry === null) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: ['Which chemistry the cell has decides what its voltage means: read its marking first.'],
      working: [],
    };
  }
  const reference: Reference = { whose: 'general', min: limits.spentUnder, max: limits.noneOver };
  const words = chemistries[chemistry].words;
  const working = [
    {
      what: 'rest voltage',
      rule: `${words}: fresh from ${figure(limits.freshFrom)} V, spent under ${figure(limits.spentUnder)} V, none over ${figure(limits.noneOver)} V`,
      figures: `${figure(valueV, 3)} V`,
      source: 'general figures of the trade',
    },
  ];
  if (isOver('restVoltageV', valueV, limits.noneOver)) {
    return {
      ...base,
      verdict: 'not this cell',
      reference,
      working,
      reasons: [
        `No ${words} cell reaches ${figure(valueV, 2)} V, fresh or not: another cell, two of them in series, or the meter. Read the marking and measure again.`,
      ],
    };
  }
  if (isUnder('restVoltageV', valueV, limits.spentUnder)) {
    return {
      ...base,
      verdict: 'spent',
      reference,
      working,
      reasons: [`Under ${figure(limits.spentUnder)} V a ${words} cell is spent.`],
    };
  }
  if (isUnder('restVoltageV', valueV, limits.freshFrom)) {
    return {
      ...base,
      verdict: 'falling',
      reference,
      working,
      reasons: [`Between spent and fresh: the cell is on its way down.`],
    };
  }
  return {
    ...base,
    verdict: 'good',
    reference,
    working,
    reasons: [
      chemistry === 'silver-oxide'
        ? 'As fresh, which proves little: silver oxide keeps its voltage until nearly the end. Try it under load.'
        : 'As a fresh cell.',
    ],
  };
}

/**
 * What the sag between rest and loaded voltage says. Volts. Only at the load whose threshold is known; a load that was
 * not stated is taken for that.
 */
export function judgeLoadedVoltage(
  loadedV: number,
  restV: number | null,
  chemistry: Chemistry | null,
  load: Load | null = null,
): ReadingVerdict {
  const none = unread('loadedVoltageV', loadedV) ?? (restV === null ? null : unread('restVoltageV', restV));
  if (none) return { ...none, measure: 'loadedVoltageV', value: loadedV };
  const base = { measure: 'loadedVoltageV', value: loadedV } as const;
  const sag = chemistry === null ? undefined : SAG_V[chemistry];
  const otherLoad =
    sag !== undefined && load !== null && (load.loadKOhm !== sag.loadKOhm || load.seconds !== sag.seconds);
  if (restV === null || !sag || otherLoad) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: [
        restV === null
          ? 'The rest voltage is wanted beside it.'
          : sag && load && otherLoad
            ? `Read at ${loadWords(load)}; a threshold is known for ${loadWords(sag)} alone: read it so.`
            : 'No load threshold is known for this chemistry.',
      ],
      working: [],
    };
  }
  if (isOver('loadedVoltageV', loadedV, restV + METER_V)) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: restV },
      reasons: [
        `Under load it reads ${figure(loadedV, 3)} V, and at rest ${figure(restV, 3)} V: no load lifts a cell. Measure both again.`,
      ],
      working: [],
    };
  }
  const at = loadWords(sag);
  const sagV = restV - loadedV;
  const spent = isOver('loadedVoltageV', sagV, sag.limitV);
  return {
    ...base,
    verdict: spent ? 'spent' : 'good',
    reference: { whose: 'general', min: restV - sag.limitV, max: null },
    reasons: [
      spent
        ? `Sags by ${figure(sagV, 3)} V at ${at}, over ${figure(sag.limitV)} V: spent, or cold.`
        : `Sags by ${figure(sagV, 3)} V at ${at}: holds up.`,
    ],
    working: [
      {
        what: 'sag',
        rule: `rest − loaded at ${at}; over ${figure(sag.limitV)} V spent or cold`,
        figures: `${figure(restV, 3)} − ${figure(loadedV, 3)} = ${figure(sagV, 3)} V`,
        source: 'general figures of the trade',
      },
    ],
  };
}

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
        `${figure(valueUA / limitUA, 1)} times the limit: damp or electrolyte on the circuit, or old oil and dirt. A new cell will not last.`,
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
        'Far under what is typical: is the crown home? A pulled crown stops the motor. Otherwise look at the contacts.',
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
        ? 'Within the book of this movement.'
        : `Within ${whose === 'its family' ? 'what its family draws' : 'what movements generally draw'}.`,
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
      reasons: ['By the book this movement has no motor coil.'],
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
    open: 'No way through the coil: it is severed.',
    'shorted turns': 'Under half of what it should be: turns are shorted.',
    suspect:
      'Off its range by more than a tenth: measure again at another temperature and with clean probes.',
    good:
      whose === 'this movement'
        ? 'Within the book of this movement.'
        : 'Within the range it is held against.',
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
        ? 'It wants more voltage than it should: old oil and dirt, or a tired circuit. It will stop before its cell is spent.'
        : 'Runs down as far as it should.',
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
        ? 'The circuit alone draws too much: electrolyte or damp on it, not the train.'
        : 'The circuit alone draws what it should: what is too much is the train’s.',
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
    reasons: [`${figure(perMonth, 1)} s a month${off ? ': more than a quartz watch usually strays.' : '.'}`],
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
