import { figure } from '../judgement';
import { quantities } from '../units';

/** What a meter can be asked for over a line. */
export type MeteredQuantity = 'voltageV' | 'currentUA' | 'resistanceKOhm' | 'illuminanceLux';

export type MeterLine =
  | { readonly verdict: 'read'; readonly value: number; readonly text: string }
  /** The line holds no reading of what was asked for: why, and what to do at the meter. */
  | { readonly verdict: 'not read'; readonly reason: string; readonly whatToDo: string };

/** What each quantity is called on a meter, and how many of the unit we keep are in one of the meter’s base unit. */
const METERED: Readonly<
  Record<MeteredQuantity, { readonly base: string; readonly of: number; readonly words: string }>
> = {
  voltageV: { base: 'V', of: 1, words: 'direct voltage (V DC)' },
  currentUA: { base: 'A', of: 1e6, words: 'direct current (µA DC)' },
  resistanceKOhm: { base: 'Ω', of: 1e-3, words: 'resistance (Ω)' },
  illuminanceLux: { base: 'lx', of: 1, words: 'light (lx)' },
};

/** Capital M is mega and small m is milli: a meter means the difference. */
const PREFIXES: Readonly<Record<string, number>> = {
  '': 1,
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
};

const BASES: Readonly<Record<string, string>> = {
  v: 'V',
  volt: 'V',
  volts: 'V',
  a: 'A',
  amp: 'A',
  amps: 'A',
  ω: 'Ω',
  ohm: 'Ω',
  ohms: 'Ω',
  lx: 'lx',
  lux: 'lx',
};

/** How meters write a reading that is beyond their range; the figures are those of the common command language for instruments. */
const OVER_RANGE = /(^|[^a-z])(o\.?l\.?|0\.?l|ovld|over|overflow|overload)([^a-z]|$)/i;
const OVER_RANGE_FROM = 9.9e36;

const NUMBER = /[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?/i;

interface Unit {
  readonly base: string;
  readonly factor: number;
}

/** The units a piece of a line names, and whether it speaks of alternating current. */
function unitsIn(piece: string): { readonly units: readonly Unit[]; readonly alternating: boolean } {
  let alternating = false;
  const units: Unit[] = [];
  for (const word of piece.split(/[\s,;:()[\]]+/)) {
    // Many meters join unit and kind of current, `VDC`, `mVAC`.
    const [, plain = '', kind = ''] = /^(.*?)[-_~]?(ac\+dc|dc|ac)?$/i.exec(word.replace(/μ/g, 'µ')) ?? [];
    if (/ac/i.test(kind) || word === '~') alternating = true;
    const [prefix, base] = splitUnit(plain);
    if (base !== null) units.push({ base, factor: PREFIXES[prefix] ?? Number.NaN });
  }
  return { units, alternating };
}

/** A unit as prefix and base unit, `mV` → `m`, `V`; null where it is no unit. */
function splitUnit(word: string): readonly [prefix: string, base: string | null] {
  const whole = BASES[word.toLowerCase()];
  if (whole !== undefined) return ['', whole];
  const [prefix = '', ...more] = word;
  const base = BASES[more.join('').toLowerCase()];
  return prefix in PREFIXES && base !== undefined ? [prefix, base] : ['', null];
}

/**
 * What one line of text from a meter says of `quantity`, in the unit we keep: V, µA, kΩ or lx. The figure may carry an
 * exponent, a decimal comma, a prefix (`1.042 uA`, `+1.0423E-06 A DC`); the unit must be there and be the one asked for,
 * and a direct one. A reading beyond the range is read as open where resistance is asked for, and not read elsewhere.
 * Never throws. Source: prefixes and units of the SI; 9.9E+37 as overrange from the common command language of instruments.
 */
export function readMeterLine(line: string, quantity: MeteredQuantity): MeterLine {
  const { base, of, words } = METERED[quantity];
  const shown = line.trim().slice(0, 40);
  const setIt = `Set the meter to ${words}, then take the reading again.`;
  const no = (reason: string, whatToDo = setIt): MeterLine => ({ verdict: 'not read', reason, whatToDo });
  const number = OVER_RANGE.test(line) ? null : NUMBER.exec(line);
  const value = number === null ? Number.NaN : Number(number[0].replace(',', '.'));
  const over = OVER_RANGE.test(line) || Math.abs(value) >= OVER_RANGE_FROM;
  // The unit of a figure stands behind it; what stands before it names what the meter is set to.
  const [before, after] =
    number === null
      ? [line.replace(OVER_RANGE, ' '), '']
      : [line.slice(0, number.index), line.slice(number.index + number[0].length)];
  if (number === null && !over) return no(`The meter sent “${shown}”, which contains no figure.`);
  if (!over && (NUMBER.test(before) || NUMBER.test(after)))
    return no(`The meter sent “${shown}”, which contains more than one figure.`);
  const [mode, behind] = [unitsIn(before), unitsIn(after)];
  const named = [...behind.units, ...mode.units];
  const unit = named[0];
  if (unit === undefined)
    return no(
      `The meter sent “${shown}” without a unit, so it is not known what it measured.`,
      'Set the meter to send its unit, or enter the figure by hand.',
    );
  const other = named.find((each) => each.base !== base);
  if (other !== undefined) return no(`The meter shows ${other.base}, “${shown}”.`);
  if (mode.alternating || behind.alternating)
    return no(`The meter measures alternating current, “${shown}”.`);
  if (over) {
    const kept = quantities[quantity];
    if ('open' in kept) return { verdict: 'read', value: kept.open, text: 'OL' };
    return no(
      `The reading is beyond the range of the meter, “${shown}”.`,
      'Choose a higher range, then take the reading again.',
    );
  }
  const kept = Number((value * unit.factor * of).toPrecision(12));
  return { verdict: 'read', value: kept, text: `${figure(kept, 4)} ${quantities[quantity].unit}` };
}
