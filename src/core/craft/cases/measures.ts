import { capital, figure } from '../judgement';
import { clockWords, turnClock, type View } from './clock';
import type { BackKind } from './kinds';

export const COATINGS = ['plain', 'polished', 'coated', 'plastic'] as const;
type Coating = (typeof COATINGS)[number];

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

/** What the teeth of a die meet on a patterned back. */
export const TOOTH_FORMS = ['flat facets', 'square teeth', 'rounded teeth'] as const;
export type ToothForm = (typeof TOOTH_FORMS)[number];

export const SCREW_HEADS = ['slotted', 'cross-head'] as const;
type ScrewHead = (typeof SCREW_HEADS)[number];

/** Cross sizes of small screws. Source: ISO 8764. */
export const CROSS_SIZES = ['PH000', 'PH00', 'PH0', 'PH1'] as const;
export type CrossSize = (typeof CROSS_SIZES)[number];

export const HATCH_OPENS = ['turned', 'pried'] as const;
type HatchOpens = (typeof HATCH_OPENS)[number];

/** A cover beneath the back that has no seal of its own. */
export const DUST_COVERS = ['pressed on', 'turned in'] as const;
type DustCover = (typeof DUST_COVERS)[number];

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
  readonly toothForm: ToothForm | null;
  readonly screwCount: number | null;
  readonly screwHead: ScrewHead | null;
  readonly crossSize: CrossSize | null;
  readonly slotLengthMm: number | null;
  readonly slotWidthMm: number | null;
  readonly hatchOpens: HatchOpens | null;
  /** What holds a panel, the first to be undone first. */
  readonly panelHeldBy: PanelHeldBy | null;
  readonly panelThenBy: PanelHeldBy | null;
  readonly panelLastBy: PanelHeldBy | null;
  /** Beneath the back; null: none known. */
  readonly dustCover: DustCover | null;
  /** Of the case across, without crown and lugs: what a holder has to take. */
  readonly caseMm: number | null;
}

/** A back as it lies on the bench. */
export interface MeasuredBack extends BackMeasures {
  readonly kind: BackKind;
  /** From one notch to the farthest, for an odd count, where the circle cannot be measured straight across. */
  readonly chordMm: number | null;
  readonly lipClock: number | null;
  /** Null: nobody looked. */
  readonly bracelet: Bracelet | null;
  readonly pusherClocks: readonly number[];
  /** The side lip and pushers are seen from. */
  readonly seenFrom: View;
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
  toothForm: null,
  screwCount: null,
  screwHead: null,
  crossSize: null,
  slotLengthMm: null,
  slotWidthMm: null,
  hatchOpens: null,
  panelHeldBy: null,
  panelThenBy: null,
  panelLastBy: null,
  dustCover: null,
  caseMm: null,
};

/** What holds a panel, in the order in which it is undone. */
export function panelLayers(
  back: Pick<BackMeasures, 'panelHeldBy' | 'panelThenBy' | 'panelLastBy'>,
): readonly PanelHeldBy[] {
  return [back.panelHeldBy, back.panelThenBy, back.panelLastBy].filter((each) => each !== null);
}

/** The fields that matter for a kind of back; what is not among them is not asked. */
export function measuresOf(kind: BackKind): readonly (keyof MeasuredBack)[] {
  const always = ['diameterMm', 'caseMm', 'coating', 'bracelet', 'dustCover'] as const;
  switch (kind) {
    case 'snap-on':
    case 'opens from the front':
      return [...always, 'lipClock', 'pusherClocks'];
    case 'screwed, notched':
    case 'screwed, round holes':
      return [...always, 'notchCount', 'pitchMm', 'chordMm', 'notchWidthMm', 'notchClocks'];
    case 'screwed, patterned':
      return [...always, 'flatCount', 'acrossMm', 'toothForm'];
    case 'plate on screws':
      return [
        ...always,
        'screwCount',
        'screwHead',
        'crossSize',
        'slotLengthMm',
        'slotWidthMm',
        'pusherClocks',
      ];
    case 'battery hatch':
      return [...always, 'hatchOpens', 'slotLengthMm', 'slotWidthMm'];
    case 'latched panel':
      return [...always, 'panelHeldBy', 'panelThenBy', 'panelLastBy'];
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
    seenFrom: back.seenFrom,
  };
}

/** The same back, its lip and pushers seen from another side. */
export function turnedBack(back: MeasuredBack, seenFrom: View): MeasuredBack {
  const turned = (clock: number): number => turnClock(clock, back.seenFrom, seenFrom);
  return {
    ...back,
    seenFrom,
    lipClock: back.lipClock === null ? null : turned(back.lipClock),
    pusherClocks: back.pusherClocks.map(turned),
  };
}

/** What is known of a back, each measure in a few words, in the order it is taken. */
export function measureWords(back: MeasuredBack): readonly string[] {
  const of = (value: number | null, words: string, unit = ' mm'): string[] =>
    value === null ? [] : [`${words} ${figure(value)}${unit}`];
  return [
    back.kind,
    ...(back.lipClock === null ? [] : [`lip at ${clockWords(back.lipClock, back.seenFrom)}`]),
    ...(back.pusherClocks.length === 0 ? [] : [`pushers at ${clockWords(back.pusherClocks, back.seenFrom)}`]),
    ...of(back.diameterMm, 'back'),
    ...of(back.caseMm, 'case'),
    ...(back.notchCount === null ? [] : [`${figure(back.notchCount, 0)} ${notchesOf(back.kind)}`]),
    ...of(back.pitchMm, 'pitch circle'),
    ...of(back.chordMm, 'farthest chord'),
    ...of(back.notchWidthMm, 'each'),
    ...(back.flatCount === null ? [] : [`${back.flatCount} flats`]),
    ...of(back.acrossMm, 'across'),
    ...(back.toothForm === null ? [] : [back.toothForm]),
    ...(back.screwCount === null ? [] : [`${back.screwCount} screws`]),
    ...(back.screwHead === null ? [] : [back.screwHead]),
    ...(back.crossSize === null ? [] : [back.crossSize]),
    ...of(back.slotLengthMm, 'slot'),
    ...(back.hatchOpens === null ? [] : [`${back.hatchOpens} open`]),
    ...(panelLayers(back).length === 0 ? [] : [`held by ${panelLayers(back).join(', then ')}`]),
    ...(back.dustCover === null ? [] : [`dust cover ${back.dustCover}`]),
    ...(back.coating === null ? [] : [back.coating]),
    ...(back.bracelet === null ? [] : [back.bracelet]),
  ];
}

/** What jaws or pins stand in on a kind of back. */
export function notchesOf(kind: BackKind | undefined): 'holes' | 'notches' {
  return kind === 'screwed, round holes' ? 'holes' : 'notches';
}

/** The chord from one of `count` even notches to the farthest, as a share of the pitch circle: sin(πk/n), k = ⌊n/2⌋. */
export function chordShare(count: number): number {
  return Math.sin((Math.PI * Math.floor(count / 2)) / count);
}

/**
 * The pitch circle in mm: as measured straight across, or from the farthest chord of an odd count of even notches,
 * D = c / sin(πk/n) with k = (n−1)/2. Null where neither was taken. Source: geometry of the regular polygon.
 *
 * @example
 * pitchCircleMm({ notchCount: 5, pitchMm: null, chordMm: 28.53, notchClocks: [] }) // 30.00
 */
export function pitchCircleMm(
  back: Pick<MeasuredBack, 'notchCount' | 'pitchMm' | 'chordMm' | 'notchClocks'>,
): number | null {
  if (back.pitchMm !== null) return back.pitchMm;
  if (back.chordMm === null || back.notchCount === null || back.notchCount < 2) return null;
  return back.notchClocks.length > 0 ? null : back.chordMm / chordShare(back.notchCount);
}

/** No back has more notches; a slip of the finger may. */
export const MOST_NOTCHES = 48;

/** Where the notches stand, in radians clockwise from 12 o'clock seen from behind; the first at 12 where even. None where nobody has so many. */
export function notchAngles(count: number, clocks: readonly number[]): readonly number[] {
  return clocks.length > 0
    ? clocks.map((clock) => ((clock % 12) / 12) * 2 * Math.PI)
    : Array.from(
        { length: count >= 1 && count <= MOST_NOTCHES ? Math.trunc(count) : 0 },
        (_, index) => (2 * Math.PI * index) / count,
      );
}

/** A caliper held on two notch edges by hand, twice: what two measures of one thing may differ by, mm. */
export const MEASURE_MM = 0.2;

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
  ['caseMm', 'case across', 'mm'],
];

/** What is a word, not a figure, in book and hand. */
const DIFFERENCE_CHOICES = [
  ['coating', 'Surface'],
  ['toothForm', 'Teeth'],
  ['screwHead', 'Heads'],
  ['crossSize', 'Cross size'],
  ['hatchOpens', 'Hatch'],
] as const;

/** What was measured otherwise than the book has it: lengths by more than 0.2 mm, counts and words at all. */
export function differsFromBook(
  measured: MeasuredBack,
  book: {
    readonly backKind: string;
    readonly lipClock: number | null;
    readonly lipSeenFrom: View;
    readonly back: BackMeasures | null;
  },
): readonly Difference[] {
  const found: Difference[] = [];
  if (book.backKind !== measured.kind)
    found.push({ field: 'kind', words: `The book says ${book.backKind}, here it is ${measured.kind}.` });
  if (
    book.lipClock !== null &&
    measured.lipClock !== null &&
    turnClock(book.lipClock, book.lipSeenFrom, measured.seenFrom) !== measured.lipClock
  )
    found.push({
      field: 'lipClock',
      words: `Lip: the book says ${clockWords(book.lipClock, book.lipSeenFrom)}; here ${clockWords(measured.lipClock, measured.seenFrom)}.`,
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
  for (const [field, words] of DIFFERENCE_CHOICES) {
    const [inBook, byHand] = [book.back[field], measured[field]];
    if (inBook !== null && byHand !== null && inBook !== byHand)
      found.push({ field, words: `${words}: the book says ${inBook}, here it is ${byHand}.` });
  }
  const [inBook, byHand] = [panelLayers(book.back), panelLayers(measured)];
  if (inBook.length > 0 && byHand.length > 0 && inBook.join() !== byHand.join())
    found.push({
      field: 'panelHeldBy',
      words: `Panel: the book says held by ${inBook.join(', then ')}, here by ${byHand.join(', then ')}.`,
    });
  return found;
}
