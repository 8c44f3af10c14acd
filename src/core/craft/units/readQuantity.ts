import { figure } from '../judgement';
import { LIGNE_MM } from './lignes';

/**
 * The quantities read at the bench. `units` maps every accepted spelling of a unit to the factor that
 * brings it to the unit the program keeps; the first spelling is the one shown back.
 */
export const quantities = {
  lengthMm: {
    unit: 'mm',
    digits: 2,
    example: '14.20',
    units: {
      mm: 1,
      cm: 10,
      in: 25.4,
      inch: 25.4,
      '"': 25.4,
      lignes: LIGNE_MM,
      ligne: LIGNE_MM,
      "'''": LIGNE_MM,
      '‴': LIGNE_MM,
    },
  },
  voltageV: { unit: 'V', digits: 3, example: '1.55', units: { v: 1, mv: 0.001 } },
  currentUA: {
    unit: 'µA',
    digits: 2,
    example: '1.10',
    units: { µa: 1, μa: 1, ua: 1, na: 0.001, ma: 1000 },
  },
  resistanceKOhm: {
    unit: 'kΩ',
    digits: 2,
    example: '1.80',
    units: { kω: 1, kohm: 1, k: 1, ω: 0.001, ohm: 0.001 },
    /** What stands for no way through at all, and the figure it is kept as. */
    open: 10_000,
  },
  /** Between contacts that should lie on each other. */
  resistanceOhm: {
    unit: 'Ω',
    digits: 2,
    example: '0.20',
    units: { ω: 1, ohm: 1, mω: 0.001, mohm: 0.001, kω: 1000, kohm: 1000 },
    open: 10_000,
  },
  illuminanceLux: {
    unit: 'lx',
    digits: 0,
    example: '5000',
    units: { lx: 1, lux: 1, klx: 1000, klux: 1000 },
  },
  durationS: { unit: 's', digits: 1, example: '60', units: { s: 1, sec: 1, min: 60, h: 3600 } },
  /** As gauges show it; metres are those of fresh water at rest, and no rating. */
  pressureBar: {
    unit: 'bar',
    digits: 2,
    example: '3',
    units: {
      bar: 1,
      kpa: 0.01,
      mbar: 0.001,
      atm: 1.01325,
      inhg: 0.0338639,
      psi: 0.0689476,
      m: 0.0980665,
    },
  },
  volumeCm3: {
    unit: 'cm³',
    digits: 2,
    example: '1.4',
    units: { 'cm³': 1, cm3: 1, ml: 1, 'mm³': 0.001, mm3: 0.001 },
  },
  /** A water rating as it is engraved: ten metres are a bar, an atmosphere counts as one, feet stand for whole tens of metres. */
  ratingBar: {
    unit: 'bar',
    digits: 1,
    example: '3, 30 m, 100 ft or 3 atm',
    units: {
      bar: 1,
      bars: 1,
      m: 0.1,
      meter: 0.1,
      meters: 0.1,
      metre: 0.1,
      metres: 0.1,
      ft: 0.03048,
      feet: 0.03048,
      atm: 1,
      kpa: 0.01,
    },
    whole: ['ft', 'feet'],
  },
  micrometres: { unit: 'µm', digits: 1, example: '12.4', units: { µm: 1, um: 1, mm: 1000 } },
  temperatureC: { unit: '°C', digits: 1, example: '22', units: { '°c': 1, c: 1 } },
  rateSPerDay: { unit: 's/day', digits: 2, example: '0.4', units: { 's/day': 1, 's/d': 1 } },
  hours: { unit: 'h', digits: 1, example: '8', units: { h: 1, min: 1 / 60, days: 24 } },
  years: { unit: 'years', digits: 1, example: '3', units: { y: 1, years: 1, year: 1 } },
  figureOnly: { unit: '', digits: 2, example: '3', units: {} },
} as const satisfies Record<
  string,
  {
    unit: string;
    digits: number;
    example: string;
    units: Readonly<Record<string, number>>;
    open?: number;
    /** Units whose figures stand for whole ones of what is kept. */
    whole?: readonly string[];
  }
>;

export type Quantity = keyof typeof quantities;

export type QuantityReading =
  | { readonly verdict: 'read'; readonly value: number; readonly understood: string }
  | { readonly verdict: 'not read'; readonly reason: string; readonly example: string };

/** How a meter or a hand writes a resistance with no end. */
const OPEN = /^(∞|ol|o\.l\.?|open|infinite)( ?k?ω)?$/i;

const FRACTIONS: Readonly<Record<string, number>> = { '¼': 0.25, '½': 0.5, '¾': 0.75 };

/**
 * A size as it was said, with how exactly: lignes are spoken in quarters, so half a quarter either side, mm; a caliper's
 * figure carries 0. Null where no size can be read.
 */
export function readSize(text: string): { readonly mm: number; readonly withinMm: number } | null {
  const reading = readQuantity(text, 'lengthMm');
  if (reading.verdict !== 'read') return null;
  return { mm: reading.value, withinMm: /‴|'''|ligne/i.test(text) ? LIGNE_MM / 8 : 0 };
}

/**
 * What figure a technician or a typing caliper meant. Takes a comma or a point, a leading plus and zeros
 * (`+0014.20`), a unit behind the figure, and the quarters lignes are spoken in (`10½‴`, `10 1/2 lignes`).
 * A figure without a unit is in the quantity's own unit. The answer says what was understood, or why not.
 */
export function readQuantity(text: string, quantity: Quantity): QuantityReading {
  const { unit, digits, example, units, ...more } = quantities[quantity];
  const no = (reason: string): QuantityReading => ({ verdict: 'not read', reason, example });
  const trimmed = text.trim().replace(/[−–]/g, '-');
  if (trimmed === '') return no('Nothing was entered.');
  if ('open' in more && OPEN.test(trimmed))
    return { verdict: 'read', value: more.open, understood: `open, kept as ${figure(more.open)} ${unit}` };
  const match =
    /^([+-]?)(\d+(?:[.,]\d+)?(?!\s*[\d/.,])|[.,]\d+|\d+(?=\s\d+\s*\/))?\s*(?:([¼½¾])|(\d{1,2})\s*\/\s*(\d{1,2}))?\s*([^\d\s/].*)?$/u.exec(
      trimmed,
    );
  if (!match || (match[2] === undefined && match[3] === undefined && match[4] === undefined)) {
    return no(`“${text.trim()}” is not one figure with a unit.`);
  }
  const [, sign, decimal, glyph, over, under, spelledUnit] = match;
  let value = decimal === undefined ? 0 : Number(decimal.replace(',', '.'));
  if (glyph) value += FRACTIONS[glyph] ?? 0;
  if (over !== undefined && under !== undefined) {
    if (Number(under) === 0) return no('A fraction cannot have 0 as its denominator.');
    value += Number(over) / Number(under);
  }
  if (sign === '-') value = -value;
  const spelled = spelledUnit?.trim().toLowerCase() ?? '';
  const factor = spelled === '' ? 1 : (units as Readonly<Record<string, number>>)[spelled];
  if (factor === undefined) {
    const known = Object.keys(units).join(', ');
    return no(
      known === ''
        ? `“${spelledUnit}” is not used here. Enter the figure alone.`
        : `“${spelledUnit}” is not a unit known here. Known: ${known}.`,
    );
  }
  const exact = Number((value * factor).toPrecision(12));
  const result =
    'whole' in more && (more.whole as readonly string[]).includes(spelled) ? Math.round(exact) : exact;
  return { verdict: 'read', value: result, understood: `${figure(result, digits)} ${unit}`.trim() };
}
