import { figure, type Judged, type WorkingLine } from '../judgement';
import { calibreWords } from '../movements';
import type { Column, Hypotheses, MeasureColumn } from './hypotheses';
import type { Belief } from './identification';
import { answerWords, type Effort, EFFORT, type Look, LOOK_NAMES, LOOKS, misreadOf } from './looks';

/** What one outcome of a look would mean. */
export interface Outcome {
  readonly shows: string;
  /** What is recorded of the look when it comes out so; null where a figure or a text is read. */
  readonly value: string | null;
  readonly probability: number;
  /** The likeliest movement then, or *not in the book*. */
  readonly then: string;
  readonly thenProbability: number;
}

export interface LookWorth {
  readonly look: Look;
  readonly words: string;
  readonly effort: Effort;
  /** How much of the doubt it takes away on average, bits. */
  readonly bits: number;
  readonly bitsPerEffort: number;
  readonly outcomes: readonly Outcome[];
  /** For a look at the revisions of one calibre: what tells each. */
  readonly of?: string;
}

export type NextLook = Judged<'look' | 'no check helps more'> & {
  readonly best: LookWorth | null;
  readonly then: readonly LookWorth[];
  /** The doubt there is now, bits. */
  readonly doubtBits: number;
};

/** How often a code can be read at all, where it was not read yet. */
const LEGIBLE: Readonly<Partial<Record<Look, number>>> = { engraving: 0.4, mark: 0.55 };
/** What is seen of a movement that stays under its hatch or in its module. */
const FROM_OUTSIDE: readonly Look[] = [
  'engraving',
  'seconds',
  'date',
  'day',
  'counters',
  'display',
  'step',
  'cellDiameterMm',
  'cellHeightMm',
];
/** Under this a look is not worth naming, bits. */
const WORTH_BITS = 0.02;
const OUTCOMES_SHOWN = 4;
const OUTCOME_FROM = 0.03;
const NOT_IN_BOOK = 'not in the book';
const EFFORT_WORDS: Readonly<Record<Effort, string>> = {
  glance: 'a glance',
  'watch it step': 'watching it step',
  caliper: 'a caliper’s effort',
  'cell lifted': 'lifting the cell',
  'ring out': 'removing the ring',
};

/** Hypotheses that would show the same, on a line where neighbours are taken for each other. */
interface Grouped {
  readonly size: number;
  readonly mass: Float64Array;
  readonly pLogP: Float64Array;
  readonly top: Int32Array;
  /** Of those of which the book does not say, and of the unknown calibre: what each outcome's share is. */
  readonly free: number;
  readonly freePLogP: number;
  readonly freeShare: (outcome: number) => number;
  readonly freeTop: number;
  /** How likely an outcome is at so many places off, and anywhere else. */
  readonly near: readonly number[];
  readonly elsewhere: number;
  readonly ring: boolean;
  readonly shows: (outcome: number) => string;
  readonly value: (outcome: number) => string | null;
}

const log2 = (x: number): number => (x > 0 ? Math.log2(x) : 0);

/** The doubt in a belief, bits: Shannon's entropy of what it may be. */
export function doubtOf(belief: Belief): number {
  let bits = -belief.notInBook * log2(belief.notInBook);
  for (const share of belief.share) if (share > 0) bits -= share * Math.log2(share);
  return Math.max(0, bits);
}

function gather(belief: Belief, size: number, groupOf: (index: number) => number) {
  const mass = new Float64Array(size);
  const pLogP = new Float64Array(size);
  const top = new Int32Array(size).fill(-1);
  let free = belief.notInBook;
  let freePLogP = free * log2(free);
  let freeTop = -1;
  const { share } = belief;
  for (let index = 0; index < share.length; index += 1) {
    const p = share[index] as number;
    if (p === 0) continue;
    const group = groupOf(index);
    const own = p * Math.log2(p);
    if (group < 0) {
      free += p;
      freePLogP += own;
      if (freeTop < 0 || p > (share[freeTop] as number)) freeTop = index;
      continue;
    }
    mass[group] = (mass[group] as number) + p;
    pLogP[group] = (pLogP[group] as number) + own;
    if ((top[group] as number) < 0 || p > (share[top[group] as number] as number)) top[group] = index;
  }
  return { mass, pLogP, top, free, freePLogP, freeTop };
}

const BIN_MM = 0.1;
/** A caliper good to ±0.05 mm puts a size into its own tenth, or a neighbouring one, so often. */
const NEAR_TENTHS = [0.683, 0.157, 0.0015] as const;

function groupMeasure(belief: Belief, column: MeasureColumn, look: Look): Grouped {
  const spec = LOOKS[look];
  const size = column.marginal.length;
  const slip = spec.as === 'mm' ? spec.slip : 0;
  return {
    ...gather(belief, size, (index) => {
      const mm = column.at[index] as number;
      return Number.isNaN(mm) ? -1 : Math.min(size - 1, Math.round(mm / BIN_MM));
    }),
    size,
    freeShare: (bin) => (column.marginal[bin] as number) * BIN_MM,
    near: NEAR_TENTHS.map((share) => share * (1 - slip)),
    elsewhere: slip / size,
    ring: false,
    shows: (bin) => `${spec.words} about ${figure(bin * BIN_MM, 1)} mm`,
    value: () => null,
  };
}

function groupPick(belief: Belief, column: Exclude<Column, MeasureColumn>, look: Look): Grouped {
  const spec = LOOKS[look];
  const size = column.values.length;
  const misread = misreadOf(look);
  const neighbour = spec.as === 'pick' && 'neighbour' in spec ? spec.neighbour : 0;
  const elsewhere = misread / Math.max(1, size - 1);
  return {
    ...gather(belief, size, (index) => column.at[index] as number),
    size,
    freeShare: (value) => column.marginal[value] as number,
    near: [1 - misread - 2 * neighbour - elsewhere, ...(neighbour > 0 ? [neighbour] : [])],
    elsewhere,
    ring: neighbour > 0,
    shows: (value) => answerWords(look, column.values[value] ?? ''),
    value: (value) => column.values[value] ?? null,
  };
}

/** A code that can be read settles everything but revisions; one that cannot, nothing. */
function groupCodes(belief: Belief, { calibre, calibreCodes }: Hypotheses): Grouped {
  const size = calibreCodes.length + 1;
  const stray = 0.02 / Math.max(1, size - 1);
  return {
    ...gather(belief, size, (index) => calibre[index] as number),
    size,
    // An unknown calibre shows a code of its own.
    freeShare: (outcome) => (outcome === size - 1 ? 0.98 : stray),
    near: [0.97],
    elsewhere: 0.03 / size,
    ring: false,
    shows: (outcome) => calibreCodes[outcome] ?? 'another code',
    value: () => null,
  };
}

interface Expected {
  readonly doubt: number;
  readonly outcomes: readonly Outcome[];
}

function expect(belief: Belief, grouped: Grouped): Expected {
  const { size, mass, pLogP, near, elsewhere, ring } = grouped;
  const reach = near.length - 1;
  let [allMass, allPLogP] = [0, 0];
  for (let group = 0; group < size; group += 1) {
    allMass += mass[group] as number;
    allPLogP += pLogP[group] as number;
  }
  /** Round the clock the centre has no neighbours to be taken for. */
  const atOffset = near.map((share) => share + elsewhere);
  const atCentre = ring ? (atOffset[0] as number) + 2 * (near[1] ?? 0) : (atOffset[0] as number);
  const logElsewhere = log2(elsewhere);
  const logAt = atOffset.map(log2);
  const logCentre = log2(atCentre);
  let doubt = 0;
  const likeliest: { outcome: number; weight: number }[] = [];
  for (let outcome = 0; outcome < size; outcome += 1) {
    const centre = ring && outcome === 0;
    let [nearMass, nearPLogP, weight, sum] = [0, 0, 0, 0];
    for (let step = centre ? 0 : -reach; step <= (centre ? 0 : reach); step += 1) {
      const group = centre ? outcome : placeAt(outcome + step, size, ring);
      if (group < 0) continue;
      const [m, e] = [mass[group] as number, pLogP[group] as number];
      const offset = Math.abs(step);
      const likelihood = centre ? atCentre : (atOffset[offset] as number);
      nearMass += m;
      nearPLogP += e;
      weight += likelihood * m;
      sum += likelihood * (e + m * (centre ? logCentre : (logAt[offset] as number)));
    }
    weight += elsewhere * (allMass - nearMass);
    sum += elsewhere * (allPLogP - nearPLogP + (allMass - nearMass) * logElsewhere);
    const freeShare = grouped.freeShare(outcome);
    weight += freeShare * grouped.free;
    sum += freeShare * (grouped.freePLogP + grouped.free * log2(freeShare));
    if (weight <= 0) continue;
    doubt += weight * Math.log2(weight) - sum;
    if (weight < OUTCOME_FROM) continue;
    likeliest.push({ outcome, weight });
  }
  likeliest.sort((a, b) => b.weight - a.weight);
  return {
    doubt,
    outcomes: likeliest
      .slice(0, OUTCOMES_SHOWN)
      .map(({ outcome, weight }) => outcomeOf(belief, grouped, outcome, weight)),
  };
}

/** What one outcome would mean: the likeliest movement then. */
function outcomeOf(belief: Belief, grouped: Grouped, outcome: number, weight: number): Outcome {
  const { size, near, elsewhere, ring, top, freeTop } = grouped;
  const likelihoodOf = (group: number): number => {
    const reach = near.length - 1;
    if (ring && outcome === 0)
      return elsewhere + (group === 0 ? (near[0] as number) + 2 * (near[1] ?? 0) : 0);
    for (let step = -reach; step <= reach; step += 1)
      if (placeAt(outcome + step, size, ring) === group) return (near[Math.abs(step)] as number) + elsewhere;
    return elsewhere;
  };
  const freeShare = grouped.freeShare(outcome);
  let [then, most] = freeTop < 0 ? [-1, 0] : [freeTop, (belief.share[freeTop] as number) * freeShare];
  for (let group = 0; group < size; group += 1) {
    const index = top[group] as number;
    if (index < 0 || (belief.share[index] as number) <= most) continue;
    const share = (belief.share[index] as number) * likelihoodOf(group);
    if (share > most) [then, most] = [index, share];
  }
  const strange = belief.notInBook * freeShare;
  const hypothesis = belief.hypotheses.all[then];
  return {
    shows: grouped.shows(outcome),
    value: grouped.value(outcome),
    probability: weight,
    then: strange > most || !hypothesis ? NOT_IN_BOOK : calibreWords(hypothesis.code, hypothesis.revision),
    thenProbability: Math.max(strange, most) / weight,
  };
}

/** A place on a line, or round the clock whose first value is the centre; −1 where there is none. */
function placeAt(place: number, size: number, ring: boolean): number {
  if (!ring) return place < size ? place : -1;
  const hours = size - 1;
  return ((((place - 1) % hours) + hours) % hours) + 1;
}

/**
 * Which further look settles most for its effort: the doubt it takes away on average (Shannon's entropy, expected over
 * its outcomes under the models `identifyMovement` uses), for its effort. With what each likely outcome would mean. Looks
 * already taken are left out, and with `hidden` those at a movement that cannot be seen. One pass over the hypotheses a
 * look.
 */
export function nextBestLook(
  belief: Belief,
  taken: readonly Look[],
  options: { readonly hidden?: boolean } = {},
): NextLook {
  const doubtBits = doubtOf(belief);
  const { hypotheses } = belief;
  const worths = LOOK_NAMES.flatMap((look): LookWorth[] => {
    if (taken.includes(look) || (options.hidden && !FROM_OUTSIDE.includes(look))) return [];
    const { words, effort } = LOOKS[look];
    const legible = LEGIBLE[look];
    const column = hypotheses.columns[look];
    const worth = (expected: Expected, share = 1, of?: string): LookWorth => {
      const bits = Math.max(0, doubtBits - expected.doubt) * share;
      return {
        look,
        words,
        effort,
        bits,
        bitsPerEffort: bits / EFFORT[effort],
        outcomes: expected.outcomes,
        ...(of === undefined ? {} : { of }),
      };
    };
    if (legible !== undefined) return [worth(expect(belief, groupCodes(belief, hypotheses)), legible)];
    if (look === 'revision') {
      const of = likeliestWithRevisions(belief);
      return of === null ? [] : [worth(expect(belief, groupRevisions(belief, of.indices)), 1, of.code)];
    }
    if (column === undefined) return [];
    return [
      worth(
        expect(
          belief,
          column.as === 'mm' ? groupMeasure(belief, column, look) : groupPick(belief, column, look),
        ),
      ),
    ];
  })
    .filter(({ bits }) => bits >= WORTH_BITS)
    .sort((a, b) => b.bitsPerEffort - a.bitsPerEffort);
  const [best = null, ...rest] = worths;
  const working: WorkingLine[] = worths.slice(0, 5).map(({ words, effort, bits, bitsPerEffort }) => ({
    what: words,
    rule: `doubt removed ÷ effort (${effort}: ${EFFORT[effort]})`,
    figures: `${figure(bits)} bits ÷ ${EFFORT[effort]} = ${figure(bitsPerEffort)}`,
    source: 'expected entropy under the models of the identification',
  }));
  if (best === null)
    return {
      verdict: 'no check helps more',
      reasons: [
        doubtBits < 0.1
          ? 'The result is practically certain.'
          : 'No further check in the book would separate them.',
      ],
      working,
      best,
      then: [],
      doubtBits,
    };
  return {
    verdict: 'look',
    reasons: [
      `Removes ${figure((100 * best.bits) / doubtBits, 0)} % of the doubt, effort: ${EFFORT_WORDS[best.effort]}.`,
    ],
    working,
    best,
    then: rest.slice(0, 4),
    doubtBits,
  };
}

/** The likeliest calibre of which several revisions are still in question. */
function likeliestWithRevisions(
  belief: Belief,
): { readonly code: string; readonly indices: readonly number[] } | null {
  const { all, siblings } = belief.hypotheses;
  let best = -1;
  for (let index = 0; index < all.length; index += 1) {
    if ((siblings[index] as number) < 2) continue;
    if (best < 0 || (belief.share[index] as number) > (belief.share[best] as number)) best = index;
  }
  const chosen = all[best];
  if (chosen === undefined || (belief.share[best] as number) < 0.02) return null;
  return {
    code: chosen.code,
    indices: all.flatMap(({ calibreId }, index) => (calibreId === chosen.calibreId ? [index] : [])),
  };
}

function groupRevisions(belief: Belief, indices: readonly number[]): Grouped {
  const group = new Map(indices.map((index, at) => [index, at]));
  const size = indices.length;
  const misread = misreadOf('revision');
  const elsewhere = misread / Math.max(1, size - 1);
  return {
    ...gather(belief, size, (index) => group.get(index) ?? -1),
    size,
    freeShare: () => 1 / size,
    near: [1 - misread - elsewhere],
    elsewhere,
    ring: false,
    shows: (outcome) => `revision ${belief.hypotheses.all[indices[outcome] as number]?.revision ?? ''}`,
    value: (outcome) => {
      const shown = belief.hypotheses.all[indices[outcome] as number];
      return shown === undefined || shown.revision === null ? null : `${shown.calibreId}|${shown.revision}`;
    },
  };
}
