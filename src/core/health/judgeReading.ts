import { type Chemistry, chemistries } from '../cells';
import { figure, type Judged } from '../judgement';
import type { Calibre } from '../movements';
import type { Quantity } from '../units';

/** The readings taken at the bench, with the range outside which a figure is a slip and not a reading. */
export const measures = {
  restVoltageV: { words: 'rest voltage', quantity: 'voltageV', min: 0, max: 4.5 },
  loadedVoltageV: { words: 'voltage under load', quantity: 'voltageV', min: 0, max: 4.5 },
  currentUA: { words: 'current', quantity: 'currentUA', min: 0, max: 5000 },
} as const satisfies Record<string, { words: string; quantity: Quantity; min: number; max: number }>;

export type Measure = keyof typeof measures;

/** The range a source gives for a reading, and whose range it is. */
export interface Reference {
  readonly whose: 'this movement' | 'general';
  readonly min: number | null;
  readonly max: number | null;
}

export type ReadingVerdict = Judged<
  'good' | 'falling' | 'spent' | 'over the limit' | 'too little' | 'not judged'
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
