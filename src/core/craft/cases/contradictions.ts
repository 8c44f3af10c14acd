import { figure, invalidLengths } from '../judgement';
import {
  chordShare,
  MEASURE_MM,
  type MeasuredBack,
  MOST_NOTCHES,
  notchesOf,
  panelLayers,
  pitchCircleMm,
} from './measures';

type Wrong = (path: keyof MeasuredBack, reason: string) => void;
const mm = (value: number): string => `${figure(value, 2)} mm`;

/** How many notches or holes, and where. */
function countedWrongly(back: Partial<MeasuredBack>, wrong: Wrong): void {
  const { notchCount: count = null, notchClocks: clocks = [] } = back;
  const many = notchesOf(back.kind);
  const one = many === 'holes' ? 'hole' : 'notch';
  if (count !== null && !(count >= 2))
    wrong('notchCount', `One ${one} is not enough for a wrench. Count again: 2 or more.`);
  else if (count !== null && (count > MOST_NOTCHES || !Number.isInteger(count)))
    wrong(
      'notchCount',
      `${figure(count)} ${many} is not a valid count. Enter a whole number up to ${MOST_NOTCHES}.`,
    );
  if (clocks.length > 0 && count !== null && clocks.length !== count)
    wrong('notchClocks', `${count} ${many} were counted, but ${clocks.length} clock positions are given.`);
}

function runIntoEachOther(
  clocks: readonly number[],
  width: number,
  pitch: number,
  many: string,
  wrong: Wrong,
): void {
  const sorted = [...clocks].map((clock) => clock % 12).sort((a, b) => a - b);
  sorted.forEach((clock, index) => {
    const next = sorted[(index + 1) % sorted.length] ?? clock;
    const apartMm = (((next - clock + 12) % 12) / 12) * Math.PI * pitch;
    if (apartMm < width)
      wrong(
        'notchClocks',
        `The ${many} at ${figure(clock || 12, 1)} and ${figure(next || 12, 1)} o’clock are ${mm(apartMm)} apart and ${mm(width)} wide, so they would overlap.`,
      );
  });
}

function circleOf(back: Partial<MeasuredBack>): number | null {
  return pitchCircleMm({
    notchCount: back.notchCount ?? null,
    pitchMm: back.pitchMm ?? null,
    chordMm: back.chordMm ?? null,
    notchClocks: back.notchClocks ?? [],
  });
}

/** The circle notches or holes stand on, against all else of them. */
function circleWrongly(back: Partial<MeasuredBack>, wrong: Wrong): void {
  const {
    notchCount: count = null,
    notchWidthMm: width = null,
    diameterMm: diameter = null,
    chordMm: chord = null,
    notchClocks: clocks = [],
  } = back;
  const many = notchesOf(back.kind);
  const one = many === 'holes' ? 'hole' : 'notch';
  const pitch = circleOf(back);
  if (pitch === null) return;
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
    wrong('pitchMm', `A pitch circle of ${mm(pitch)} is too large for a back of ${mm(diameter)}.`);
  if (width !== null && width >= pitch)
    wrong('notchWidthMm', `A ${one} ${mm(width)} wide is wider than its pitch circle of ${mm(pitch)}.`);
  else if (width !== null && count !== null && count * width >= Math.PI * pitch)
    wrong(
      'notchWidthMm',
      `${count} ${many} ${mm(width)} wide need ${mm(count * width)}, but the circumference of a ${mm(pitch)} pitch circle is only ${mm(Math.PI * pitch)}.`,
    );
  else if (width !== null && clocks.length > 1) {
    runIntoEachOther(clocks, width, pitch, many, wrong);
  }
}

/** Places that are on no clock face. */
function offTheFace(back: Partial<MeasuredBack>, wrong: Wrong): void {
  const { lipClock = null } = back;
  for (const [path, at] of [
    ['lipClock', lipClock],
    ...(back.notchClocks ?? []).map((clock) => ['notchClocks', clock] as const),
    ...(back.pusherClocks ?? []).map((clock) => ['pusherClocks', clock] as const),
  ] as readonly (readonly [keyof MeasuredBack, number | null])[]) {
    if (at !== null && !(at > 0 && at <= 12))
      wrong(path, `${figure(at, 1)} o’clock does not exist. Enter a value above 0 and up to 12.`);
  }
}

/** Flats, slots and heads. */
function headsWrongly(back: Partial<MeasuredBack>, wrong: Wrong): void {
  const { diameterMm: diameter = null, acrossMm = null, slotLengthMm = null, slotWidthMm = null } = back;
  if (acrossMm !== null && diameter !== null && acrossMm > diameter)
    wrong('acrossMm', `${mm(acrossMm)} across the flats is too large for a back of ${mm(diameter)}.`);
  if (slotLengthMm !== null && slotWidthMm !== null && slotWidthMm >= slotLengthMm)
    wrong('slotWidthMm', `A slot ${mm(slotWidthMm)} wide is wider than it is long, ${mm(slotLengthMm)}.`);
  const { screwHead = null, crossSize = null, hatchOpens = null } = back;
  if (screwHead === 'cross-head' && (slotLengthMm !== null || slotWidthMm !== null))
    wrong('screwHead', 'A cross-head screw has no slot. Correct the kind of head, or clear the slot.');
  if (screwHead === 'slotted' && crossSize !== null)
    wrong('crossSize', `A slotted screw has no cross size. Correct the kind of head, or clear ${crossSize}.`);
  if (hatchOpens === 'pried' && (slotLengthMm !== null || slotWidthMm !== null))
    wrong('hatchOpens', 'A hatch with a slot is turned. Check whether it has a slot or a nick at its edge.');
}

/** What lies on the case, and what holds a panel. */
function wronglyOnTheCase(back: Partial<MeasuredBack>, wrong: Wrong): void {
  const {
    notchWidthMm: width = null,
    diameterMm: diameter = null,
    acrossMm = null,
    slotLengthMm = null,
    caseMm = null,
  } = back;
  const one = notchesOf(back.kind) === 'holes' ? 'hole' : 'notch';
  if (caseMm !== null && diameter !== null && diameter > caseMm)
    wrong('caseMm', `A back of ${mm(diameter)} is too large for a case of ${mm(caseMm)}.`);
  else if (caseMm !== null)
    for (const [path, what, value] of [
      ['notchWidthMm', `A ${one}`, width],
      ['pitchMm', 'A pitch circle', circleOf(back)],
      ['acrossMm', 'Flats', acrossMm],
      ['slotLengthMm', 'A slot', slotLengthMm],
    ] as const)
      if (value !== null && diameter === null && value >= caseMm)
        wrong(path, `${what} of ${mm(value)} is too large for a case of ${mm(caseMm)}.`);
  const layers = panelLayers({
    panelHeldBy: back.panelHeldBy ?? null,
    panelThenBy: back.panelThenBy ?? null,
    panelLastBy: back.panelLastBy ?? null,
  });
  if (new Set(layers).size < layers.length)
    wrong('panelThenBy', `The panel is held by ${layers.join(', then ')}. Name each only once.`);
}

/**
 * Measures of one back that cannot all be true: each problem names the field and says which measure contradicts
 * which. Empty where nothing contradicts. Never throws.
 */
export function contradictions(
  back: Partial<MeasuredBack>,
): readonly { readonly path: keyof MeasuredBack; readonly reason: string }[] {
  const many = notchesOf(back.kind);
  const lengths = invalidLengths<keyof MeasuredBack>([
    ['diameterMm', 'The back across', back.diameterMm],
    ['caseMm', 'The case across', back.caseMm],
    ['pitchMm', 'The pitch circle', back.pitchMm],
    ['chordMm', 'The farthest chord', back.chordMm],
    ['notchWidthMm', many === 'holes' ? 'A hole' : 'A notch', back.notchWidthMm],
    ['acrossMm', 'The flats across', back.acrossMm],
    ['slotLengthMm', 'The slot, its length', back.slotLengthMm],
    ['slotWidthMm', 'The slot, its width', back.slotWidthMm],
  ]);
  // With what cannot be nothing else is worked out, or one slip would be told several times over.
  if (lengths.length > 0) return lengths;
  if (typeof back.notchCount === 'number' && !Number.isFinite(back.notchCount))
    return [{ path: 'notchCount', reason: `The number of ${many} is not valid. Count them again.` }];
  const problems: { path: keyof MeasuredBack; reason: string }[] = [];
  const wrong: Wrong = (path, reason) => void problems.push({ path, reason });
  for (const look of [countedWrongly, circleWrongly, offTheFace, headsWrongly, wronglyOnTheCase])
    look(back, wrong);
  return problems;
}
