import { type Chemistry, chemistries } from '../cells';
import { figure, type Judged } from '../judgement';
import type { Calibre } from '../movements';
import type { Quantity } from '../units';

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
  readonly whose: 'this movement' | 'general';
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
  | 'not judged'
> & {
  readonly measure: Measure;
  readonly value: number;
  readonly reference: Reference;
};

/** Rest voltage by chemistry: spent under, fresh from (general figures of the trade). */
const REST_V: Partial<Record<Chemistry, { spentUnder: number; freshFrom: number }>> = {
  'silver-oxide': { spentUnder: 1.45, freshFrom: 1.55 },
  lithium: { spentUnder: 2.7, freshFrom: 3.0 },
  alkaline: { spentUnder: 1.3, freshFrom: 1.5 },
};

/** Sag under the meter's stated load that says spent or cold: 2 kΩ for silver, 1 kΩ for lithium, one second. */
const SAG_V: Partial<Record<Chemistry, { limitV: number; load: string }>> = {
  'silver-oxide': { limitV: 0.15, load: '2 kΩ, 1 s' },
  lithium: { limitV: 0.3, load: '1 kΩ, 1 s' },
};

/** What the rest voltage of the old cell says. Volts. A good voltage of a silver cell proves little, and it says so. */
export function judgeRestVoltage(valueV: number, chemistry: Chemistry | null): ReadingVerdict {
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
  const reference: Reference = { whose: 'general', min: limits.spentUnder, max: null };
  const words = chemistries[chemistry].words;
  const working = [
    {
      what: 'rest voltage',
      rule: `${words}: fresh from ${figure(limits.freshFrom)} V, spent under ${figure(limits.spentUnder)} V`,
      figures: `${figure(valueV, 3)} V`,
      source: 'general figures of the trade',
    },
  ];
  if (valueV < limits.spentUnder) {
    return {
      ...base,
      verdict: 'spent',
      reference,
      working,
      reasons: [`Under ${figure(limits.spentUnder)} V a ${words} cell is spent.`],
    };
  }
  if (valueV < limits.freshFrom) {
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

/** What the sag between rest and loaded voltage says, at the default load for the chemistry. Volts. */
export function judgeLoadedVoltage(
  loadedV: number,
  restV: number | null,
  chemistry: Chemistry | null,
): ReadingVerdict {
  const base = { measure: 'loadedVoltageV', value: loadedV } as const;
  const sag = chemistry === null ? undefined : SAG_V[chemistry];
  if (restV === null || !sag) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: [
        restV === null
          ? 'The rest voltage is wanted beside it.'
          : 'No load threshold is known for this chemistry.',
      ],
      working: [],
    };
  }
  const sagV = restV - loadedV;
  const spent = sagV > sag.limitV;
  return {
    ...base,
    verdict: spent ? 'spent' : 'good',
    reference: { whose: 'general', min: restV - sag.limitV, max: null },
    reasons: [
      spent
        ? `Sags by ${figure(sagV, 3)} V at ${sag.load}, over ${figure(sag.limitV)} V: spent, or cold.`
        : `Sags by ${figure(sagV, 3)} V at ${sag.load}: holds up.`,
    ],
    working: [
      {
        what: 'sag',
        rule: `rest − loaded at ${sag.load}; over ${figure(sag.limitV)} V spent or cold`,
        figures: `${figure(restV, 3)} − ${figure(loadedV, 3)} = ${figure(sagV, 3)} V`,
        source: 'general figures of the trade',
      },
    ],
  };
}

/** What the current through the movement says, in µA, against this movement's own figures. */
export function judgeCurrent(
  valueUA: number,
  calibre: Pick<Calibre, 'code' | 'typicalUA' | 'limitUA'> | null,
): ReadingVerdict {
  const base = { measure: 'currentUA', value: valueUA } as const;
  if (!calibre) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: ['Which movement it is decides what current is right: identify it first.'],
      working: [],
    };
  }
  const reference: Reference = { whose: 'this movement', min: null, max: calibre.limitUA };
  const working = [
    {
      what: 'current',
      rule: `${calibre.code}: typically ${figure(calibre.typicalUA)} µA, at most ${figure(calibre.limitUA)} µA`,
      figures: `${figure(valueUA)} µA`,
      source: 'the book of this calibre',
    },
  ];
  if (valueUA > calibre.limitUA) {
    return {
      ...base,
      verdict: 'over the limit',
      reference,
      working,
      reasons: [
        `${figure(valueUA / calibre.limitUA, 1)} times the limit: damp or electrolyte on the circuit, or old oil and dirt. A new cell will not last.`,
      ],
    };
  }
  if (valueUA < calibre.typicalUA * 0.2) {
    return {
      ...base,
      verdict: 'too little',
      reference,
      working,
      reasons: [
        'Far under the book: is the crown home? A pulled crown stops the motor. Otherwise look at the contacts.',
      ],
    };
  }
  return { ...base, verdict: 'good', reference, working, reasons: ['Within the book of this movement.'] };
}

/** A coil off its range by more than this share is suspect; one above this share of its maximum tenfold is open. */
const COIL_TOLERANCE = 0.1;
const OPEN_FROM_TIMES = 10;

/** What the coil's resistance says, kΩ, against this movement's own range. Source: figures of the trade. */
export function judgeCoil(
  valueKOhm: number,
  calibre: Pick<Calibre, 'code' | 'coilMinKOhm' | 'coilMaxKOhm'> | null,
): ReadingVerdict {
  const base = { measure: 'coilKOhm', value: valueKOhm } as const;
  const [min, max] = [calibre?.coilMinKOhm ?? null, calibre?.coilMaxKOhm ?? null];
  if (!calibre || min === null || max === null) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: [
        calibre ? `The book gives no coil range for ${calibre.code}.` : 'Identify the movement first.',
      ],
      working: [],
    };
  }
  const verdict =
    valueKOhm > max * OPEN_FROM_TIMES
      ? 'open'
      : valueKOhm < min / 2
        ? 'shorted turns'
        : valueKOhm > max * (1 + COIL_TOLERANCE) || valueKOhm < min * (1 - COIL_TOLERANCE)
          ? 'suspect'
          : 'good';
  const reason = {
    open: 'No way through the coil: it is severed.',
    'shorted turns': 'Under half of what it should be: turns are shorted.',
    suspect:
      'Off its range by more than a tenth: measure again at another temperature and with clean probes.',
    good: 'Within the book of this movement.',
  }[verdict];
  return {
    ...base,
    verdict,
    reference: { whose: 'this movement', min, max },
    reasons: [reason],
    working: [
      {
        what: 'coil',
        rule: `${calibre.code}: ${figure(min)} to ${figure(max)} kΩ; over a tenth outside suspect, under half shorted, over ${OPEN_FROM_TIMES} times open`,
        figures: `${figure(valueKOhm)} kΩ`,
        source: 'the book of this calibre',
      },
    ],
  };
}

/** What the lowest voltage at which it still runs says, V, against this movement's own figure. */
export function judgeLowestRunning(
  valueV: number,
  calibre: Pick<Calibre, 'code' | 'lowestV'> | null,
): ReadingVerdict {
  const base = { measure: 'lowestRunningV', value: valueV } as const;
  if (!calibre) {
    return {
      ...base,
      verdict: 'not judged',
      reference: { whose: 'general', min: null, max: null },
      reasons: ['Identify the movement first.'],
      working: [],
    };
  }
  const late = valueV > calibre.lowestV;
  return {
    ...base,
    verdict: late ? 'runs too late' : 'good',
    reference: { whose: 'this movement', min: null, max: calibre.lowestV },
    reasons: [
      late
        ? 'It wants more voltage than the book: old oil and dirt, or a tired circuit. It will stop before its cell is spent.'
        : 'Runs down to what the book asks.',
    ],
    working: [
      {
        what: 'lowest running voltage',
        rule: `${calibre.code} runs down to ${figure(calibre.lowestV)} V`,
        figures: `${figure(valueV, 3)} V`,
        source: 'the book of this calibre',
      },
    ],
  };
}

const DAYS_PER_MONTH = 30.4;
const RATE_LIMIT_S_PER_MONTH = 20;

/** What the rate says, s/day, against what quartz watches usually keep. */
export function judgeRate(valueSPerDay: number): ReadingVerdict {
  const perMonth = valueSPerDay * DAYS_PER_MONTH;
  const off = Math.abs(perMonth) > RATE_LIMIT_S_PER_MONTH;
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
