import { capital, figure } from '../judgement';
import type { BackKind } from './kinds';

export const COATINGS = ['plain', 'polished', 'coated', 'plastic'] as const;
export type Coating = (typeof COATINGS)[number];

export const BRACELETS = [
  'strap on spring bars',
  'closed bracelet, spring bar at the clasp',
  'closed bracelet, link pins',
  'bracelet that opens flat',
  'nothing on it',
] as const;
export type Bracelet = (typeof BRACELETS)[number];

export const PANEL_HELD_BY = ['catches', 'sliding lock', 'adhesive'] as const;
export type PanelHeldBy = (typeof PANEL_HELD_BY)[number];

/** The measures of a back that decide how it opens, as the book or the caliper has them. Null: not known. */
export interface BackMeasures {
  readonly diameterMm: number | null;
  readonly coating: Coating | null;
  /** Notches or round holes. */
  readonly notchCount: number | null;
  /** Of the circle through the middles of the notches. */
  readonly pitchMm: number | null;
  /** Of one notch along the circle, or a hole's diameter. */
  readonly notchWidthMm: number | null;
  /** Where the notches stand, seen from behind; empty where they are evenly spaced. */
  readonly notchClocks: readonly number[];
  readonly flatCount: number | null;
  readonly acrossMm: number | null;
  readonly screwCount: number | null;
  readonly slotLengthMm: number | null;
  readonly slotWidthMm: number | null;
  readonly panelHeldBy: PanelHeldBy | null;
}

/** A back as it lies on the bench. */
export interface MeasuredBack extends BackMeasures {
  readonly kind: BackKind;
  /** From one notch to the farthest, for an odd count, where the circle cannot be measured straight across. */
  readonly chordMm: number | null;
  readonly lipClock: number | null;
  readonly bracelet: Bracelet;
  /** Seen from the dial. */
  readonly pusherClocks: readonly number[];
}

export const NOTHING_MEASURED: BackMeasures = {
  diameterMm: null,
  coating: null,
  notchCount: null,
  pitchMm: null,
  notchWidthMm: null,
  notchClocks: [],
  flatCount: null,
  acrossMm: null,
  screwCount: null,
  slotLengthMm: null,
  slotWidthMm: null,
  panelHeldBy: null,
};

/** The fields that matter for a kind of back; what is not among them is not asked. */
export function measuresOf(kind: BackKind): readonly (keyof MeasuredBack)[] {
  const always = ['diameterMm', 'coating', 'bracelet'] as const;
  switch (kind) {
    case 'snap-on':
    case 'opens from the front':
      return [...always, 'lipClock', 'pusherClocks'];
    case 'screwed, notched':
    case 'screwed, round holes':
      return [...always, 'notchCount', 'pitchMm', 'chordMm', 'notchWidthMm', 'notchClocks'];
    case 'screwed, patterned':
      return [...always, 'flatCount', 'acrossMm'];
    case 'plate on screws':
      return [...always, 'screwCount', 'slotLengthMm', 'slotWidthMm', 'pusherClocks'];
    case 'battery hatch':
      return [...always, 'slotLengthMm', 'slotWidthMm'];
    case 'latched panel':
      return [...always, 'panelHeldBy'];
  }
}

/** A back without the measures that another kind would have: a notch count says nothing of a snap-on. */
export function onlyOfKind(back: MeasuredBack): MeasuredBack {
  const asked = measuresOf(back.kind);
  const own = Object.fromEntries(
    Object.entries(back).filter(([field]) => asked.includes(field as keyof MeasuredBack)),
  );
  return {
    ...NOTHING_MEASURED,
    chordMm: null,
    lipClock: null,
    pusherClocks: [],
    ...own,
    kind: back.kind,
    bracelet: back.bracelet,
  };
}

/** What is known of a back, each measure in a few words, in the order it is taken. */
export function measureWords(back: MeasuredBack): readonly string[] {
  const of = (value: number | null, words: string, unit = ' mm'): string[] =>
    value === null ? [] : [`${words} ${figure(value)}${unit}`];
  return [
    back.kind,
    ...of(back.lipClock, 'lip at', ' o’clock'),
    ...of(back.diameterMm, 'back'),
    ...(back.notchCount === null ? [] : [`${back.notchCount} ${notchesOf(back.kind)}`]),
    ...of(back.pitchMm, 'pitch circle'),
    ...of(back.chordMm, 'farthest chord'),
    ...of(back.notchWidthMm, 'each'),
    ...(back.flatCount === null ? [] : [`${back.flatCount} flats`]),
    ...of(back.acrossMm, 'across'),
    ...(back.screwCount === null ? [] : [`${back.screwCount} screws`]),
    ...of(back.slotLengthMm, 'slot'),
    ...(back.panelHeldBy === null ? [] : [`held by ${back.panelHeldBy}`]),
    ...(back.coating === null ? [] : [back.coating]),
    back.bracelet,
  ];
}

/** What jaws or pins stand in on a kind of back. */
function notchesOf(kind: BackKind | undefined): 'holes' | 'notches' {
  return kind === 'screwed, round holes' ? 'holes' : 'notches';
}

/** The chord from one of `count` even notches to the farthest, as a share of the pitch circle: sin(πk/n), k = ⌊n/2⌋. */
function chordShare(count: number): number {
  return Math.sin((Math.PI * Math.floor(count / 2)) / count);
}

/**
 * The pitch circle in mm: as measured straight across, or from the farthest chord of an odd count of even notches,
 * D = c / sin(πk/n) with k = (n−1)/2. Null where neither was taken. Source: geometry of the regular polygon.
 */
export function pitchCircleMm(
  back: Pick<MeasuredBack, 'notchCount' | 'pitchMm' | 'chordMm' | 'notchClocks'>,
): number | null {
  if (back.pitchMm !== null) return back.pitchMm;
  if (back.chordMm === null || back.notchCount === null || back.notchCount < 2) return null;
  return back.notchClocks.length > 0 ? null : back.chordMm / chordShare(back.notchCount);
}

/** Where the notches stand, in radians clockwise from 12 o'clock seen from behind; the first at 12 where even. */
export function notchAngles(count: number, clocks: readonly number[]): readonly number[] {
  return clocks.length > 0
    ? clocks.map((clock) => ((clock % 12) / 12) * 2 * Math.PI)
    : Array.from({ length: count }, (_, index) => (2 * Math.PI * index) / count);
}

/** No back has more notches; a slip of the finger may. */
export const MOST_NOTCHES = 48;

/** A caliper held on two notch edges by hand, twice: what two measures of one thing may differ by, mm. */
const MEASURE_MM = 0.2;

/**
 * Measures of one back that cannot all be true: each problem names the field and says which measure contradicts
 * which. Empty where nothing contradicts. Never throws.
 */
export function contradictions(
  back: Partial<MeasuredBack>,
): readonly { readonly path: keyof MeasuredBack; readonly reason: string }[] {
  const problems: { path: keyof MeasuredBack; reason: string }[] = [];
  const wrong = (path: keyof MeasuredBack, reason: string): void => void problems.push({ path, reason });
  const mm = (value: number): string => `${figure(value, 2)} mm`;
  const {
    notchCount: count = null,
    notchWidthMm: width = null,
    diameterMm: diameter = null,
    chordMm: chord = null,
    notchClocks: clocks = [],
    lipClock = null,
    acrossMm = null,
    slotLengthMm = null,
    slotWidthMm = null,
  } = back;
  const many = notchesOf(back.kind);
  const one = many === 'holes' ? 'hole' : 'notch';
  if (count !== null && count < 2)
    wrong('notchCount', `One ${one} gives a wrench nothing to turn against: count them again, 2 or more.`);
  else if (count !== null && (count > MOST_NOTCHES || !Number.isInteger(count)))
    wrong('notchCount', `${figure(count)} ${many} are no count: a whole number, ${MOST_NOTCHES} at most.`);
  if (clocks.length > 0 && count !== null && clocks.length !== count)
    wrong('notchClocks', `${count} ${many} were counted and ${clocks.length} clock positions are given.`);
  const pitch = pitchCircleMm({
    notchCount: count,
    pitchMm: back.pitchMm ?? null,
    chordMm: chord,
    notchClocks: clocks,
  });
  if (pitch !== null) {
    if (
      typeof back.pitchMm === 'number' &&
      chord !== null &&
      count !== null &&
      count >= 2 &&
      clocks.length === 0
    ) {
      const expected = pitch * chordShare(count);
      if (Math.abs(expected - chord) > MEASURE_MM)
        wrong(
          'chordMm',
          `Pitch circle ${mm(pitch)} and farthest chord ${mm(chord)} contradict each other: ${count} even ${many} on it give ${mm(expected)}.`,
        );
    }
    if (diameter !== null && pitch >= diameter)
      wrong('pitchMm', `A pitch circle of ${mm(pitch)} does not lie on a back of ${mm(diameter)}.`);
    if (width !== null && width >= pitch)
      wrong('notchWidthMm', `A ${one} ${mm(width)} wide is wider than its pitch circle of ${mm(pitch)}.`);
    else if (width !== null && count !== null && count * width >= Math.PI * pitch)
      wrong(
        'notchWidthMm',
        `${count} ${many} ${mm(width)} wide take ${mm(count * width)}, and a pitch circle of ${mm(pitch)} is only ${mm(Math.PI * pitch)} round.`,
      );
    else if (width !== null && clocks.length > 1) {
      const sorted = [...clocks].map((clock) => clock % 12).sort((a, b) => a - b);
      sorted.forEach((clock, index) => {
        const next = sorted[(index + 1) % sorted.length] ?? clock;
        const apartMm = (((next - clock + 12) % 12) / 12) * Math.PI * pitch;
        if (apartMm < width)
          wrong(
            'notchClocks',
            `The ${many} at ${figure(clock || 12, 1)} and ${figure(next || 12, 1)} o’clock stand ${mm(apartMm)} apart and are ${mm(width)} wide: they would run into each other.`,
          );
      });
    }
  }
  for (const [path, at] of [
    ['lipClock', lipClock],
    ...clocks.map((clock) => ['notchClocks', clock] as const),
    ...(back.pusherClocks ?? []).map((clock) => ['pusherClocks', clock] as const),
  ] as readonly (readonly [keyof MeasuredBack, number | null])[]) {
    if (at !== null && !(at > 0 && at <= 12))
      wrong(path, `${figure(at, 1)} o’clock is on no clock face: from just after 0 to 12.`);
  }
  if (acrossMm !== null && diameter !== null && acrossMm > diameter)
    wrong('acrossMm', `${mm(acrossMm)} across the flats does not lie on a back of ${mm(diameter)}.`);
  if (slotLengthMm !== null && slotWidthMm !== null && slotWidthMm >= slotLengthMm)
    wrong('slotWidthMm', `A slot ${mm(slotWidthMm)} wide is wider than it is long, ${mm(slotLengthMm)}.`);
  return problems;
}

export interface Difference {
  readonly field: keyof BackMeasures | 'kind' | 'lipClock';
  readonly words: string;
}

const DIFFERENCE_WORDS: readonly (readonly [keyof BackMeasures, string, 'mm' | ''])[] = [
  ['diameterMm', 'back', 'mm'],
  ['notchCount', 'notches', ''],
  ['pitchMm', 'pitch circle', 'mm'],
  ['notchWidthMm', 'notch', 'mm'],
  ['flatCount', 'flats', ''],
  ['acrossMm', 'across the flats', 'mm'],
  ['screwCount', 'screws', ''],
  ['slotLengthMm', 'slot length', 'mm'],
  ['slotWidthMm', 'slot width', 'mm'],
];

/** What was measured otherwise than the book has it: lengths by more than 0.2 mm, counts and words at all. */
export function differsFromBook(
  measured: MeasuredBack,
  book: { readonly backKind: string; readonly lipClock: number | null; readonly back: BackMeasures | null },
): readonly Difference[] {
  const found: Difference[] = [];
  if (book.backKind !== measured.kind)
    found.push({ field: 'kind', words: `The book says ${book.backKind}, here it is ${measured.kind}.` });
  if (book.lipClock !== null && measured.lipClock !== null && book.lipClock !== measured.lipClock)
    found.push({
      field: 'lipClock',
      words: `Lip: the book says ${figure(book.lipClock, 1)} o’clock, measured ${figure(measured.lipClock, 1)}.`,
    });
  if (book.back === null) return found;
  const here = { ...measured, pitchMm: pitchCircleMm(measured) };
  for (const [field, words, unit] of DIFFERENCE_WORDS) {
    const [inBook, byHand] = [book.back[field], here[field]];
    if (typeof inBook !== 'number' || typeof byHand !== 'number') continue;
    if (Math.abs(inBook - byHand) <= (unit === 'mm' ? MEASURE_MM : 0)) continue;
    const shown = (value: number): string => `${figure(value, 2)}${unit && ` ${unit}`}`;
    found.push({
      field,
      words: `${capital(words)}: the book says ${shown(inBook)}, measured ${shown(byHand)}.`,
    });
  }
  if (book.back.coating !== null && measured.coating !== null && book.back.coating !== measured.coating)
    found.push({
      field: 'coating',
      words: `Surface: the book says ${book.back.coating}, here it is ${measured.coating}.`,
    });
  return found;
}
