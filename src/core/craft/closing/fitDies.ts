import { capital, figure, type Judged, invalidFigures, invalidLengths, type WorkingLine } from '../judgement';
import type { Holder, PressDie, ShopTools } from '../tools';

/** What is pressed home: a back onto its case, or a bezel with its crystal where the case opens from the front. */
export const PRESSED = ['back', 'bezel'] as const;
export type Pressed = (typeof PRESSED)[number];

/** The measures a press goes by, in millimetres; null: not taken yet. */
export interface PressMeasures {
  readonly crystalMm: number | null;
  /** Of the bezel that frames the crystal, outside. */
  readonly bezelMm: number | null;
  /** How far the crystal stands over its bezel; negative where it lies lower. */
  readonly crystalAboveMm: number | null;
  /** The case across, without crown and lugs. */
  readonly caseMm: number | null;
  readonly backMm: number | null;
  /** How far the back bulges over its rim. */
  readonly backBulgeMm: number | null;
  /** A window in the back, across; null where the back is solid. */
  readonly glassMm: number | null;
  /** How far that glass stands over its rim. */
  readonly glassAboveMm: number | null;
}

export const NO_PRESS_MEASURES: PressMeasures = {
  crystalMm: null,
  bezelMm: null,
  crystalAboveMm: null,
  caseMm: null,
  backMm: null,
  backBulgeMm: null,
  glassMm: null,
  glassAboveMm: null,
};

export interface PressQuestion {
  readonly pressed: Pressed;
  readonly measures: PressMeasures;
  readonly tools: Pick<ShopTools, 'pressDies' | 'holders'>;
}

/** What a die has to keep, what it has, and how much is left: negative where it fails. */
export interface DieMargin {
  readonly what: string;
  readonly wantedMm: number;
  readonly isMm: number;
  readonly marginMm: number;
}

export interface DieOnSide {
  readonly die: PressDie;
  readonly margins: readonly DieMargin[];
}

export interface FitOfDies extends Judged<'press' | 'no die' | 'not yet known' | 'measures disagree'> {
  /** Chosen, or where none is: the one that comes nearest on each side, with what it fails by. */
  readonly crystalSide: DieOnSide | null;
  readonly backSide: DieOnSide | null;
  readonly holder: Holder | null;
  /** What lies on what, from below. Empty unless it can be pressed. */
  readonly stack: readonly string[];
}

/** Over this a back is curved, mm. */
const CURVED_OVER_MM = 0.1;
/** Source of all of them: bench practice. */
const RULES = {
  crystal: { clearMm: 0.3, insideBezelMm: 1, overCrystalMm: 0.3, overCaseMm: 2 },
  back: { insideRimMm: 0.4, leastShare: 0.8, hollowShare: 0.6, overBulgeMm: 0.2 },
  glass: { clearMm: 0.3, overGlassMm: 0.2 },
} as const;

type Known = { readonly [K in keyof PressMeasures]: number };

const atLeast = (what: string, wantedMm: number, isMm: number): DieMargin => ({
  what,
  wantedMm,
  isMm,
  marginMm: isMm - wantedMm,
});
const atMost = (what: string, wantedMm: number, isMm: number): DieMargin => ({
  what,
  wantedMm,
  isMm,
  marginMm: wantedMm - isMm,
});

/** What a hollow die over the crystal has to keep; null for a flat one, which never goes there. */
function onCrystal({ innerMm, outerMm, recessMm }: PressDie, measures: Known): readonly DieMargin[] | null {
  const { clearMm, insideBezelMm, overCrystalMm, overCaseMm } = RULES.crystal;
  return innerMm === null
    ? null
    : [
        atLeast('inside, clear of the crystal', measures.crystalMm + clearMm, innerMm),
        atMost('inside, on the bezel', measures.bezelMm - insideBezelMm, innerMm),
        atLeast('recess over the crystal', Math.max(0, measures.crystalAboveMm) + overCrystalMm, recessMm),
        atMost('outside, clear of crown and lugs', measures.caseMm + overCaseMm, outerMm),
      ];
}

/** What a die on the back has to keep; null where its form never goes there. */
function onBack(
  { innerMm, outerMm, recessMm }: PressDie,
  { backMm, backBulgeMm, glassMm, glassAboveMm }: Known,
  hasGlass: boolean,
): readonly DieMargin[] | null {
  const { insideRimMm, leastShare, hollowShare, overBulgeMm } = RULES.back;
  const outside = atMost('outside, inside the rim of the back', backMm - insideRimMm, outerMm);
  if (hasGlass)
    return innerMm === null
      ? null
      : [
          atLeast('inside, clear of the glass', glassMm + RULES.glass.clearMm, innerMm),
          outside,
          atLeast('recess over the glass', Math.max(0, glassAboveMm) + RULES.glass.overGlassMm, recessMm),
        ];
  if (backBulgeMm > CURVED_OVER_MM)
    return innerMm === null
      ? null
      : [
          atLeast('inside, round the bulge', backMm * hollowShare, innerMm),
          outside,
          atLeast('recess over the bulge', backBulgeMm + overBulgeMm, recessMm),
        ];
  return innerMm === null
    ? [outside, atLeast('outside, wide enough for the back', backMm * leastShare, outerMm)]
    : null;
}

const EPSILON = 1e-9;
const fits = ({ margins }: DieOnSide): boolean => margins.every(({ marginMm }) => marginMm >= -EPSILON);
const shortBy = ({ margins }: DieOnSide): number =>
  margins.reduce((sum, { marginMm }) => sum + Math.max(0, -marginMm), 0);

function sides(
  dies: readonly PressDie[],
  on: (die: PressDie) => readonly DieMargin[] | null,
): readonly DieOnSide[] {
  return dies.flatMap((die) => {
    const margins = on(die);
    return margins === null ? [] : [{ die, margins }];
  });
}

const nearest = (of: readonly DieOnSide[]): DieOnSide | null =>
  of.reduce<DieOnSide | null>(
    (best, each) => (best === null || shortBy(each) < shortBy(best) ? each : best),
    null,
  );

const plasticFirst = ({ die }: DieOnSide): number => (die.material === 'plastic' ? 0 : 1);

/** What each measure is called, in its form, in what is missing and in what contradicts it. */
export const PRESS_NAMES: Readonly<Record<keyof PressMeasures, string>> = {
  crystalMm: 'crystal diameter',
  bezelMm: 'bezel diameter',
  crystalAboveMm: 'crystal height above the bezel',
  caseMm: 'case diameter',
  backMm: 'back diameter',
  backBulgeMm: 'bulge of the back',
  glassMm: 'diameter of the glass in the back',
  glassAboveMm: 'height of that glass above its rim',
};

/** What a press has to know before any die is named, in words. */
function missingOf({ measures }: PressQuestion): readonly string[] {
  const asked = (Object.keys(PRESS_NAMES) as (keyof PressMeasures)[]).filter((name) =>
    // A back of glass is pressed at its rim; any other at its bulge.
    measures.glassMm === null ? !name.startsWith('glass') : !['glassMm', 'backBulgeMm'].includes(name),
  );
  return asked.filter((name) => measures[name] === null).map((name) => `the ${PRESS_NAMES[name]}`);
}

/** Measures of which none that matters is missing: what does not matter counts as nothing. */
function allKnown(measures: PressMeasures): Known {
  const of = (name: keyof PressMeasures): number => measures[name] ?? 0;
  return {
    crystalMm: of('crystalMm'),
    bezelMm: of('bezelMm'),
    crystalAboveMm: of('crystalAboveMm'),
    caseMm: of('caseMm'),
    backMm: of('backMm'),
    backBulgeMm: of('backBulgeMm'),
    glassMm: of('glassMm'),
    glassAboveMm: of('glassAboveMm'),
  };
}

const mm = (value: number): string => `${figure(value)} mm`;

/** No crystal or back stands farther over its rim, mm. */
const MOST_ABOVE_MM = 20;

/** Which measures contradict each other; empty where all can be. Each names both. */
export function pressContradictions(
  measures: PressMeasures,
): readonly { readonly path: keyof PressMeasures; readonly reason: string }[] {
  const { crystalMm, bezelMm, caseMm, backMm, glassMm } = measures;
  const named = (path: keyof PressMeasures): string => `The ${PRESS_NAMES[path]}`;
  const lengths = [
    ...invalidLengths(
      (['crystalMm', 'bezelMm', 'caseMm', 'backMm', 'glassMm'] as const).map(
        (path) => [path, named(path), measures[path]] as const,
      ),
    ),
    ...invalidFigures(
      (['crystalAboveMm', 'backBulgeMm', 'glassAboveMm'] as const).map((path) => ({
        path,
        what: named(path),
        value: measures[path],
        unit: 'mm',
        from: -MOST_ABOVE_MM,
        to: MOST_ABOVE_MM,
      })),
    ),
  ];
  if (lengths.length > 0) return lengths;
  return [
    ...(bezelMm !== null && caseMm !== null && bezelMm > caseMm + RULES.crystal.overCaseMm
      ? [
          {
            path: 'bezelMm' as const,
            reason: `The bezel is ${mm(bezelMm)} across and its case ${mm(caseMm)}: measure both again.`,
          },
        ]
      : []),
    ...(crystalMm !== null && bezelMm !== null && crystalMm >= bezelMm
      ? [
          {
            path: 'crystalMm' as const,
            reason: `The crystal is ${mm(crystalMm)} across and the bezel that frames it ${mm(bezelMm)}: measure both again.`,
          },
        ]
      : []),
    ...(backMm !== null && caseMm !== null && backMm > caseMm
      ? [
          {
            path: 'backMm' as const,
            reason: `The back is ${mm(backMm)} across and its case ${mm(caseMm)}: measure both again.`,
          },
        ]
      : []),
    ...(glassMm !== null && backMm !== null && glassMm >= backMm
      ? [
          {
            path: 'glassMm' as const,
            reason: `The glass is ${mm(glassMm)} across and the back that frames it ${mm(backMm)}: measure both again.`,
          },
        ]
      : []),
  ];
}

/** What a die fails by, e.g. `ring die 24: inside, clear of the crystal: 24 mm, at least 28.3 mm`. */
function failures({ die, margins }: DieOnSide): string {
  const failed = margins
    .filter(({ marginMm }) => marginMm < -EPSILON)
    .map(
      ({ what, isMm, wantedMm, marginMm }) =>
        `${what} ${mm(isMm)}, ${mm(wantedMm)} wanted, ${mm(-marginMm)} out`,
    );
  return `${die.name} comes nearest: ${failed.join('; ')}.`;
}

function workingOf(side: string, on: DieOnSide): WorkingLine {
  return {
    what: `${on.die.name} on the ${side}`,
    rule: 'every margin 0 or more',
    figures: on.margins
      .map(
        ({ what, isMm, wantedMm, marginMm }) =>
          `${what}: ${mm(isMm)} for ${mm(wantedMm)}, margin ${figure(marginMm)}`,
      )
      .join('; '),
    source: 'bench practice',
  };
}

interface Triple {
  readonly crystal: DieOnSide;
  readonly back: DieOnSide;
  readonly holder: Holder;
}

/** Every pair of two dies that fit, with a press that carries both. */
function triples(
  crystals: readonly DieOnSide[],
  backs: readonly DieOnSide[],
  holders: readonly Holder[],
): readonly Triple[] {
  return crystals.flatMap((crystal) =>
    backs
      .filter(({ die }) => die.id !== crystal.die.id && die.shank === crystal.die.shank)
      .flatMap((back) =>
        holders
          .filter(({ holds, shank }) => holds === 'dies' && shank === crystal.die.shank)
          .map((holder) => ({ crystal, back, holder })),
      ),
  );
}

/** Smallest inside over the crystal, then the largest on the back, then plastic before metal. */
const byChoice = (a: Triple, b: Triple): number =>
  (a.crystal.die.innerMm ?? 0) - (b.crystal.die.innerMm ?? 0) ||
  b.back.die.outerMm - a.back.die.outerMm ||
  plasticFirst(a.crystal) - plasticFirst(b.crystal) ||
  plasticFirst(a.back) - plasticFirst(b.back);

/** Where no pair of dies presses it: on which side none fits, and what the nearest fails by. */
function noDie(
  crystals: readonly DieOnSide[],
  backs: readonly DieOnSide[],
  known: ReturnType<typeof allKnown>,
  hasGlass: boolean,
): FitOfDies {
  const { clearMm, insideBezelMm } = RULES.crystal;
  const narrow = known.bezelMm - known.crystalMm < clearMm + insideBezelMm - EPSILON;
  const [crystalSide, backSide] = [nearest(crystals), nearest(backs)];
  const otherwise = hasGlass
    ? 'Press with your thumbs at the rim, or refer it.'
    : 'Press with your thumbs, or refer it. Do not improvise a die.';
  const curved = known.backBulgeMm > CURVED_OVER_MM;
  const bothFit = crystals.some(fits) && backs.some(fits);
  const side = (
    all: readonly DieOnSide[],
    near: DieOnSide | null,
    words: string,
    form: string,
  ): readonly string[] =>
    all.some(fits)
      ? []
      : [near === null ? `For ${words} this shop has no ${form} die.` : `For ${words}: ${failures(near)}`];
  return {
    verdict: 'no die',
    reasons: [
      ...(narrow
        ? [
            `The bezel is only ${mm(known.bezelMm - known.crystalMm)} wider than its crystal, but a hollow die needs ${mm(clearMm + insideBezelMm)}. No such die exists.`,
          ]
        : side(crystals, crystalSide, 'the crystal', 'hollow')),
      ...side(
        backs,
        backSide,
        hasGlass ? 'the glass of the back' : curved ? 'the curved back' : 'the flat back',
        hasGlass || curved ? 'hollow' : 'flat',
      ),
      ...(bothFit
        ? ['A die fits on each side, but no such pair has a shank that fits a press of this shop.']
        : []),
      otherwise,
    ],
    working: [
      ...(crystalSide ? [workingOf('crystal', crystalSide)] : []),
      ...(backSide ? [workingOf('back', backSide)] : []),
    ],
    crystalSide,
    backSide,
    holder: null,
    stack: [],
  };
}

/**
 * Which dies press this watch shut? One for each side, each for itself: a hollow one over the crystal, on the bezel; on the
 * back a flat one, or a hollow one where it bulges over 0.1 mm or carries a glass, which no flat die may touch. Both and
 * their press share a shank. Where none fits the nearest is told with what it fails by, and never advised. Lengths in
 * millimetres. Source: bench practice.
 */
export function fitDies(question: PressQuestion): FitOfDies {
  const { pressed, measures, tools } = question;
  const nothing = { crystalSide: null, backSide: null, holder: null, stack: [], working: [] };
  const wrong = pressContradictions(measures);
  if (wrong.length > 0)
    return { verdict: 'measures disagree', reasons: wrong.map(({ reason }) => reason), ...nothing };
  const missing = missingOf(question);
  if (missing.length > 0)
    return { verdict: 'not yet known', reasons: [`Measure first: ${missing.join(', ')}.`], ...nothing };
  const hasGlass = measures.glassMm !== null;
  const known = allKnown(measures);
  const crystals = sides(tools.pressDies, (die) => onCrystal(die, known));
  const backs = sides(tools.pressDies, (die) => onBack(die, known, hasGlass));
  const [best] = [...triples(crystals.filter(fits), backs.filter(fits), tools.holders)].sort(byChoice);
  if (best === undefined) return noDie(crystals, backs, known, hasGlass);
  const { crystal, back, holder } = best;
  const faceDown = [
    crystal.die.name,
    'film',
    'crystal',
    'case',
    'back',
    ...(hasGlass ? ['film'] : []),
    back.die.name,
  ];
  return {
    verdict: 'press',
    reasons: [
      `${capital(crystal.die.name)} over the crystal, ${back.die.name} on the back, both in ${holder.name}.`,
      pressed === 'back'
        ? 'Dial side down. Set the back on by hand with lip and notch in place, then press in one stroke.'
        : 'Dial side up. The solid back rests in the die and the bezel is pressed.',
    ],
    working: [workingOf('crystal', crystal), workingOf('back', back)],
    crystalSide: crystal,
    backSide: back,
    holder,
    stack: pressed === 'back' ? faceDown : [...faceDown].reverse(),
  };
}
