import {
  bareCode,
  byChance,
  legible,
  seenProbability,
  sisterProbability,
  stretches,
  takenApart,
  symbolsOf,
  unknownCodeLikelihood,
} from '../movements';
import { WRONG_CELL_FOUND } from '../cells';
import type { Ground } from './ground';
import { marginalDensity } from './hypotheses';
import { CALIPER_SD_MM, type Look, LOOKS, misreadOf, type Seen } from './looks';
import { mostOf } from './sums';

/** A text may say nothing of the movement: a case code, a serial, a scratched note. */
const SAYS_NOTHING: Readonly<Partial<Record<Look, number>>> = { engraving: 0.2, mark: 0.03, print: 0.4 };
/** A movement is seldom marked with the code its maker gave up. */
const FORMER_CODES = 0.15;
/** The shop's own count of cases weighs as so many jobs against the book's. */
const CASE_WORTH = 2;
const CASE_OF_OTHER_MAKER = 0.1;
const KEPT_PIECES = 48;

/** The likelihood of one piece of evidence: on each hypothesis, and on an unknown calibre of each maker and of none. */
export interface Piece {
  readonly on: Float64Array;
  readonly most: number;
  /** On a sister of each hypothesis that is not in the book; null where it is as on the hypothesis itself, or as anywhere. */
  readonly onSister: Float64Array | null;
  /** By its maker where the look says something of the maker; else the same for all. */
  readonly onUnknown: Float64Array;
  readonly byMaker: boolean;
}

export interface KeptPiece extends Piece {
  /** Over everything, before anything is seen. */
  readonly overall: number;
}

/** What was measured is this exact, mm: a caliper, or half a step of lignes on either side. */
function sdOf(withinMm: number): number {
  return Math.sqrt(CALIPER_SD_MM ** 2 + withinMm ** 2 / 3);
}

/** The chance that a look at a movement showing one value is taken for another. */
export function pickLikelihood(look: Look, values: readonly string[], at: number, seen: number): number {
  const spec = LOOKS[look];
  if (spec.as !== 'pick') return 1;
  const neighbour = 'neighbour' in spec ? spec.neighbour : 0;
  const misread = misreadOf(look);
  const clock = Number(values[at]);
  const beside = neighbour > 0 && clock >= 1;
  const elsewhere = misread / Math.max(1, values.length - 1);
  if (at === seen) return 1 - misread - (beside ? 2 * neighbour : 0);
  if (seen >= 0 && beside) {
    const apart = Math.abs(Number(values[seen]) - clock);
    if (apart === 1 || apart === 11) return neighbour + elsewhere;
  }
  return elsewhere;
}

function normal(x: number, sd: number): number {
  return Math.exp(-((x / sd) ** 2) / 2) / (sd * Math.sqrt(2 * Math.PI));
}

function ofText({ book, hypotheses, unknownOf, templates }: Ground, look: Look, typed: string): Piece {
  const text = look === 'print' ? typed : takenApart(typed, book);
  const count = hypotheses.all.length;
  const on = new Float64Array(count);
  const onUnknown = new Float64Array(unknownOf.length);
  const silent = SAYS_NOTHING[look] ?? 0;
  const parts = [...new Set(stretches(text).map(bareCode))].map((bare) => ({
    bare,
    symbols: symbolsOf(bare),
  }));
  const share = (1 - silent) / Math.max(1, parts.length);
  // What is worn away wholly says nothing.
  if (!parts.some(({ symbols }) => legible(symbols) > 0))
    return { on: on.fill(1), onUnknown: onUnknown.fill(1), onSister: null, most: 1, byMaker: false };
  const onSister = look === 'print' ? null : new Float64Array(count).fill(silent);
  on.fill(silent);
  onUnknown.fill(look === 'print' ? 1 : silent);
  for (const { bare, symbols } of parts) {
    const chance = byChance(symbols);
    const factor = share / chance;
    for (let index = 0; index < count; index += 1) {
      const names = look === 'print' ? hypotheses.prints[index] : hypotheses.codes[index];
      if (names === undefined) continue;
      let likelihood = 0;
      for (let name = 0; name < names.length; name += 1) {
        const weight =
          names.length === 1
            ? 1
            : look === 'print'
              ? 1 / names.length
              : name === 0
                ? 1 - FORMER_CODES
                : FORMER_CODES / (names.length - 1);
        likelihood += weight * seenProbability(symbols, names[name] as Uint8Array);
      }
      on[index] = (on[index] as number) + factor * likelihood;
      if (onSister && names[0])
        onSister[index] = (onSister[index] as number) + factor * sisterProbability(symbols, names[0]);
    }
    if (look === 'print') continue;
    for (let index = 0; index < unknownOf.length; index += 1) {
      const likelihood = unknownCodeLikelihood(bare, templates[index] ?? []);
      onUnknown[index] = (onUnknown[index] as number) + factor * likelihood;
    }
  }
  return { on, onUnknown, onSister, most: mostOf(on), byMaker: true };
}

function ofPick({ hypotheses, unknownOf }: Ground, look: Look, value: string): Piece {
  const count = hypotheses.all.length;
  const column = hypotheses.columns[look];
  const spec = LOOKS[look];
  const on = new Float64Array(count).fill(1);
  const onUnknown = new Float64Array(unknownOf.length).fill(1);
  if (column?.as !== 'pick' || spec.as !== 'pick')
    return { on, onUnknown, onSister: null, most: 1, byMaker: false };
  const seen = column.indexOf.get(value) ?? -1;
  const likelihood = column.values.map((_, at) => pickLikelihood(look, column.values, at, seen));
  const unknown = seen < 0 ? misreadOf(look) / column.values.length : (column.marginal[seen] ?? 0);
  for (let index = 0; index < count; index += 1) {
    const at = column.at[index] as number;
    const more = column.also.get(index);
    on[index] =
      at < 0
        ? unknown
        : more === undefined
          ? (likelihood[at] as number)
          : [at, ...more].reduce((sum, each) => sum + (likelihood[each] ?? 0), 0) / (more.length + 1);
  }
  return { on, onUnknown: onUnknown.fill(unknown), onSister: null, most: mostOf(on), byMaker: false };
}

function ofSign(ground: Ground, sign: string): Piece {
  const { book } = ground;
  const piece = ofPick(ground, 'sign', sign);
  const { values } = LOOKS.sign;
  const misread = misreadOf('sign');
  const onUnknown = piece.onUnknown.map((unknown, index) => {
    const own = index < book.makers.length ? (book.makers[index]?.sign ?? null) : null;
    if (own === null) return index < book.makers.length ? unknown : 1 / values.length;
    return own === sign ? 1 - misread : misread / (values.length - 1);
  });
  return { ...piece, onUnknown, byMaker: true };
}

function ofMeasure({ hypotheses, unknownOf }: Ground, look: Look, mm: number, withinMm: number): Piece {
  const count = hypotheses.all.length;
  const column = hypotheses.columns[look];
  const spec = LOOKS[look];
  const on = new Float64Array(count).fill(1);
  const onUnknown = new Float64Array(unknownOf.length).fill(1);
  if (column?.as !== 'mm' || spec.as !== 'mm')
    return { on, onUnknown, onSister: null, most: 1, byMaker: false };
  const sd = sdOf(withinMm);
  const slipped = spec.slip / (spec.max - spec.min);
  const unknown = marginalDensity(column, mm);
  for (let index = 0; index < count; index += 1) {
    const at = column.at[index] as number;
    on[index] = Number.isNaN(at) ? unknown : (1 - spec.slip) * normal(mm - at, sd) + slipped;
  }
  return { on, onUnknown: onUnknown.fill(unknown), onSister: null, most: mostOf(on), byMaker: false };
}

/**
 * The cell that lies in it, by both its measures: they err together where a hand before put another in. Then what was measured is
 * some cell, of this movement or not; else each errs by itself, as the caliper does.
 */
export function cellTogether(
  ground: Ground,
  diameter: { readonly mm: number; readonly withinMm: number },
  height: { readonly mm: number; readonly withinMm: number },
): Piece {
  const { hypotheses, unknownOf } = ground;
  const count = hypotheses.all.length;
  const [across, high] = [hypotheses.columns.cellDiameterMm, hypotheses.columns.cellHeightMm];
  const on = new Float64Array(count).fill(1);
  const onUnknown = new Float64Array(unknownOf.length).fill(1);
  if (across?.as !== 'mm' || high?.as !== 'mm')
    return { on, onUnknown, onSister: null, most: 1, byMaker: false };
  const [sdAcross, sdHigh] = [sdOf(diameter.withinMm), sdOf(height.withinMm)];
  const anyCell = marginalDensity(across, diameter.mm) * marginalDensity(high, height.mm);
  for (let index = 0; index < count; index += 1) {
    const [d, h] = [across.at[index] as number, high.at[index] as number];
    const own =
      (Number.isNaN(d) ? marginalDensity(across, diameter.mm) : normal(diameter.mm - d, sdAcross)) *
      (Number.isNaN(h) ? marginalDensity(high, height.mm) : normal(height.mm - h, sdHigh));
    const one =
      Number.isNaN(d) || Number.isNaN(h)
        ? anyCell
        : normal(diameter.mm - d, sdAcross) * misreadShare('cellHeightMm') +
          normal(height.mm - h, sdHigh) * misreadShare('cellDiameterMm');
    on[index] =
      (1 - WRONG_CELL_FOUND) * ((1 - CALIPER_SLIP) * own + CALIPER_SLIP * one) + WRONG_CELL_FOUND * anyCell;
  }
  return { on, onUnknown: onUnknown.fill(anyCell), onSister: null, most: mostOf(on), byMaker: false };
}

/** One of the two figures was read wrongly. */
const CALIPER_SLIP = 0.03;

function misreadShare(look: 'cellDiameterMm' | 'cellHeightMm'): number {
  const { min, max } = LOOKS[look];
  return 1 / (max - min);
}

function ofCase({ book, before, hypotheses, unknownOf }: Ground, code: string): Piece {
  const { all, makerIds } = hypotheses;
  const bare = bareCode(code);
  const type = book.caseTypes.find((each) => bareCode(each.code) === bare) ?? null;
  const [own, inAll] = [new Map<string, number>(), new Map<string, number>()];
  for (const { calibreId, caseCode, jobs } of before) {
    if (calibreId === null || caseCode === '') continue;
    inAll.set(calibreId, (inAll.get(calibreId) ?? 0) + jobs);
    if (bareCode(caseCode) === bare) own.set(calibreId, (own.get(calibreId) ?? 0) + jobs);
  }
  const typesOf = new Map<string, number>();
  for (const { makerId } of book.caseTypes) typesOf.set(makerId, (typesOf.get(makerId) ?? 0) + 1);
  const types = Math.max(1, book.caseTypes.length);
  const byBook = (makerId: string | null): number => {
    if (type === null || makerId === null) return 1 / types;
    const theirs = typesOf.get(type.makerId) ?? 0;
    return type.makerId === makerId
      ? (1 - CASE_OF_OTHER_MAKER) / Math.max(1, theirs)
      : CASE_OF_OTHER_MAKER / Math.max(1, types - theirs);
  };
  const on = Float64Array.from(all, ({ calibreId, makerId }) => {
    const jobs = inAll.get(calibreId) ?? 0;
    return ((own.get(calibreId) ?? 0) + CASE_WORTH * byBook(makerId)) / (jobs + CASE_WORTH);
  });
  const onUnknown = Float64Array.from(unknownOf, (_, index) => byBook(makerIds[index] ?? null));
  return { on, onUnknown, onSister: null, most: mostOf(on), byMaker: true };
}

/** The value is `calibre|revision`: a sign only the revisions of one calibre are looked at for. */
function ofRevision({ hypotheses, unknownOf }: Ground, value: string): Piece {
  const [calibreId = '', revision = ''] = value.split('|');
  const misread = misreadOf('revision');
  const on = Float64Array.from(hypotheses.all, (hypothesis, index) => {
    const beside = hypotheses.siblings[index] as number;
    if (hypothesis.calibreId !== calibreId || beside < 2) return 0.5;
    return hypothesis.revision === revision ? 1 - misread : misread / (beside - 1);
  });
  return {
    on,
    onUnknown: new Float64Array(unknownOf.length).fill(0.5),
    onSister: null,
    most: mostOf(on),
    byMaker: false,
  };
}

function weigh(ground: Ground, { look, value, withinMm }: Seen): Piece {
  if (typeof value === 'number') return ofMeasure(ground, look, value, withinMm);
  if (look === 'caseCode') return ofCase(ground, value);
  if (look === 'revision') return ofRevision(ground, value);
  if (look === 'sign') return ofSign(ground, value);
  return LOOKS[look].as === 'text' ? ofText(ground, look, value) : ofPick(ground, look, value);
}

/** Weighs pieces of evidence, and keeps them: while one is typed the others stay as they are. */
export function openPieces(ground: Ground): (seen: Seen) => KeptPiece {
  const { prior, unknownOf } = ground;
  const kept = new Map<string, KeptPiece>();
  return (seen) => {
    const key = JSON.stringify(seen);
    const there = kept.get(key);
    if (there) return there;
    const weighed = weigh(ground, seen);
    let overall = 0;
    for (let index = 0; index < prior.share.length; index += 1)
      overall += (prior.share[index] as number) * (weighed.on[index] as number);
    unknownOf.forEach(
      (weight, at) => (overall += weight * prior.notInBook * (weighed.onUnknown[at] as number)),
    );
    const piece = { ...weighed, overall };
    if (kept.size >= KEPT_PIECES) kept.delete(kept.keys().next().value as string);
    kept.set(key, piece);
    return piece;
  };
}
