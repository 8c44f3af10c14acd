import { chemistries, type Chemistry } from '../cells';
import { figure } from '../judgement';
import { isOver, isUnder, METER_V, type ReadingVerdict, type Reference, unread } from './reading';

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
      reasons: ['The meaning of the voltage depends on the chemistry. Read the marking first.'],
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
        `No ${words} cell reaches ${figure(valueV, 2)} V, even when fresh. It may be another cell, two in series, or a wrong reading. Read the marking and measure again.`,
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
      reasons: [`Between spent and fresh. The cell is partly used.`],
    };
  }
  return {
    ...base,
    verdict: 'good',
    reference,
    working,
    reasons: [
      chemistry === 'silver-oxide'
        ? 'Like a fresh cell, but silver oxide keeps its voltage almost to the end. Test it under load.'
        : 'Like a fresh cell.',
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
          ? 'Measure the rest voltage as well.'
          : sag && load && otherLoad
            ? `Measured at ${loadWords(load)}, but the limit is only known for ${loadWords(sag)}. Measure it that way.`
            : 'No load limit is known for this chemistry.',
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
        `Under load it reads ${figure(loadedV, 3)} V, and at rest ${figure(restV, 3)} V. A load cannot raise the voltage. Measure both again.`,
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
        ? `Sags by ${figure(sagV, 3)} V at ${at}, over ${figure(sag.limitV)} V: spent or cold.`
        : `Sags by ${figure(sagV, 3)} V at ${at}: holds its voltage.`,
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
