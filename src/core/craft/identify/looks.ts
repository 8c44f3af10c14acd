import { figure } from '../judgement';
import { clockWords, type View } from '../cases';
import { HOLD_KINDS, SIGNS } from '../movements';
import { formatLignes } from '../units';

/** What a look costs the hand: a glance is 1. Ours, from bench practice. */
export const EFFORT = {
  glance: 1,
  'watch it step': 2,
  caliper: 3,
  'cell lifted': 5,
  'ring out': 8,
} as const;
export type Effort = keyof typeof EFFORT;

const CLOCKS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '10', '11', '12'] as const;
/** A window or hand may sit between two hours. */
const FINE_CLOCKS = CLOCKS.flatMap((clock) => [clock, `${clock}.5`]).map((each) =>
  each === '12.5' ? '0.5' : each,
);

interface TextLook {
  readonly as: 'text';
  readonly words: string;
  readonly effort: Effort;
}
interface PickLook {
  readonly as: 'pick';
  readonly words: string;
  readonly effort: Effort;
  /** Every value that can be seen; empty where the book gives them (case types, revisions). */
  readonly values: readonly string[];
  /** How often a look like this is misread. */
  readonly misread: number;
  /** Of a clock position: how often it is taken for each neighbour. */
  readonly neighbour?: number;
}
interface MeasureLook {
  readonly as: 'mm';
  readonly words: string;
  readonly effort: Effort;
  readonly min: number;
  readonly max: number;
  /** How often what was measured is something else: the ring with the movement, a wrong cell. */
  readonly slip: number;
}
export type LookSpec = TextLook | PickLook | MeasureLook;

/** A caliper on metal is good to this, mm (one standard deviation). Source: figures of the trade. */
export const CALIPER_SD_MM = 0.05;

/**
 * Every look that can say something about which movement it is, in the order the bench offers them. The misreading rates
 * are ours, from bench practice, and named in the docs.
 */
export const LOOKS = {
  engraving: { as: 'text', words: 'engraving in the back', effort: 'glance' },
  mark: { as: 'text', words: 'mark on the movement', effort: 'glance' },
  sign: { as: 'pick', words: 'maker’s sign', effort: 'glance', values: SIGNS, misread: 0.04 },
  caseCode: { as: 'pick', words: 'case type', effort: 'glance', values: [], misread: 0.05 },
  shape: {
    as: 'pick',
    words: 'shape',
    effort: 'glance',
    values: ['round', 'oblong'],
    misread: 0.01,
  },
  widthMm: { as: 'mm', words: 'width', effort: 'caliper', min: 5, max: 60, slip: 0.02 },
  lengthMm: { as: 'mm', words: 'length', effort: 'caliper', min: 5, max: 60, slip: 0.02 },
  heightMm: { as: 'mm', words: 'height', effort: 'ring out', min: 0.5, max: 15, slip: 0.03 },
  seconds: {
    as: 'pick',
    words: 'seconds hand',
    effort: 'glance',
    values: ['none', 'centre', ...CLOCKS],
    misread: 0.02,
  },
  date: {
    as: 'pick',
    words: 'date',
    effort: 'glance',
    values: ['none', 'centre', ...FINE_CLOCKS],
    misread: 0.06,
  },
  day: {
    as: 'pick',
    words: 'day',
    effort: 'glance',
    values: ['none', 'centre', ...FINE_CLOCKS],
    misread: 0.04,
  },
  counters: {
    as: 'pick',
    words: 'counters',
    effort: 'glance',
    values: ['0', '1', '2', '3', '4'],
    misread: 0.03,
  },
  display: { as: 'pick', words: 'digital display', effort: 'glance', values: ['no', 'yes'], misread: 0.01 },
  coils: { as: 'pick', words: 'coils', effort: 'glance', values: ['0', '1', '2', '3', '4'], misread: 0.05 },
  cellAt: {
    as: 'pick',
    words: 'cell lies towards',
    effort: 'glance',
    values: ['centre', ...CLOCKS],
    misread: 0.02,
    neighbour: 0.09,
  },
  heldBy: { as: 'pick', words: 'cell held by', effort: 'glance', values: HOLD_KINDS, misread: 0.06 },
  cellDiameterMm: { as: 'mm', words: 'cell diameter', effort: 'cell lifted', min: 4, max: 31, slip: 0.06 },
  cellHeightMm: { as: 'mm', words: 'cell height', effort: 'cell lifted', min: 0.8, max: 8, slip: 0.06 },
  jewels: {
    as: 'pick',
    words: 'jewels',
    effort: 'glance',
    values: Array.from({ length: 32 }, (_, count) => String(count)),
    misread: 0.06,
  },
  step: {
    as: 'pick',
    words: 'steps every',
    effort: 'watch it step',
    values: ['sweeps', '1 s', '2 s', '5 s', '10 s', '15 s', '20 s', '30 s', '60 s', 'no hands'],
    misread: 0.05,
  },
  print: { as: 'text', words: 'printed inside', effort: 'glance' },
  revision: { as: 'pick', words: 'revision', effort: 'glance', values: [], misread: 0.05 },
} as const satisfies Record<string, LookSpec>;

/** Eyes are better or worse than these rates by up to two; over all of them that is more than the rate itself. Ours. */
const EYES = 1.4;

/** How often a look is misread, over all eyes; 0 where nothing is picked. */
export function misreadOf(look: Look): number {
  const spec: LookSpec = LOOKS[look];
  return spec.as === 'pick' ? spec.misread * EYES : 0;
}

export type Look = keyof typeof LOOKS;
export const LOOK_NAMES = Object.keys(LOOKS) as Look[];
export function lookSpec(look: Look): LookSpec {
  return LOOKS[look];
}

/** One thing seen: a text, one of the look's values, or a measure. */
export interface Seen {
  readonly look: Look;
  readonly value: string | number;
  /** Half the step of a size said in quarter lignes, mm; 0 where a caliper gave it. */
  readonly withinMm: number;
}

/** What was seen as a technician says it: `width 23.31 mm`, `PL 6?80`. */
export function seenWords({ look, value, withinMm }: Seen): string {
  const { as, words } = LOOKS[look];
  if (as === 'mm' && typeof value === 'number')
    return withinMm > 0 ? `${words} ${formatLignes(value)}` : `${words} ${figure(value)} mm`;
  if (look === 'caseCode') return `case ${value}`;
  // Told of one calibre, as `calibre|revision`.
  if (look === 'revision') return `revision ${String(value).split('|')[1] ?? value}`;
  return as === 'text' ? `${words} “${value}”` : `${words} ${saidValue(look, value)}`;
}

/** The side each place is seen from: the dial from the front, the movement as it lies open. */
const PLACES: Readonly<Partial<Record<Look, View>>> = {
  cellAt: 'behind',
  date: 'the dial',
  day: 'the dial',
  seconds: 'the dial',
};

function saidValue(look: Look, value: string | number): string {
  const from = PLACES[look];
  return from !== undefined && /^[\d.]+$/.test(String(value))
    ? clockWords(Number(value), from)
    : String(value);
}

/** Looks that count something, by what one of it is called. */
const COUNTED: Readonly<Partial<Record<Look, string>>> = {
  jewels: 'jewel',
  coils: 'coil',
  counters: 'counter',
};

/** What one looks answers that sees it: `2 jewels`, `no date`, `date 3 o’clock, seen from the dial`. */
export function answerWords(look: Look, value: string): string {
  const one = COUNTED[look];
  if (one !== undefined) return `${value === '0' ? 'no' : value} ${one}${value === '1' ? '' : 's'}`;
  const { words } = LOOKS[look];
  if (value === 'none' || value === 'no') return `no ${words}`;
  if (look === 'display') return words;
  if (look === 'shape' || look === 'heldBy' || look === 'sign') return value;
  if (look === 'step') return value === 'sweeps' || value === 'no hands' ? value : `every ${value}`;
  return seenWords({ look, value, withinMm: 0 });
}

/** No movement or cell is larger, mm. */
const MOST_MM = 150;

/** Whether a measure is one; what is no number says nothing of any movement. */
export function isRead({ value, withinMm }: Seen): boolean {
  return typeof value !== 'number' || (value > 0 && value <= MOST_MM && withinMm >= 0 && withinMm <= MOST_MM);
}
