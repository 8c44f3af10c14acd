import type { Book } from '../book';
import { figure, type Judged, percent, type WorkingLine } from '../judgement';
import {
  bareCode,
  byChance,
  calibreWords,
  differences,
  seenProbability,
  unknownCodeLikelihood,
  stretches,
  symbolsOf,
} from '../movements';
import { type Hypotheses, hypothesesOf, type Hypothesis, marginalDensity } from './hypotheses';
import { CALIPER_SD_MM, type Look, LOOKS, type Seen, seenWords } from './looks';

/** What this shop identified before: how many jobs had a movement, in which case. */
export interface SeenBefore {
  /** Null: jobs whose movement was not in the book. */
  readonly calibreId: string | null;
  readonly revision: string | null;
  readonly caseCode: string;
  readonly jobs: number;
}

/** What one piece of evidence says of one candidate. */
export interface Weighing {
  readonly look: Look;
  readonly seen: string;
  /** What the book says, or how the text differs. */
  readonly book: string;
  /** For it above 0, against it below: log₂ of how much likelier it is here than over everything. */
  readonly bits: number;
}

export interface Candidate extends Hypothesis {
  readonly probability: number;
  readonly why: readonly Weighing[];
}

/** Two pieces of evidence that no movement of the book explains together. */
export interface Conflicting {
  readonly pair: readonly [string, string];
  readonly looks: readonly [Look, Look];
  /** How likely both are on the movement that explains them best, against each on its own best. */
  readonly chance: number;
  readonly nearest: string;
}

export type Identification = Judged<'known' | 'likely' | 'open' | 'not in the book' | 'nothing seen'> & {
  /** The likeliest, the first ahead. */
  readonly candidates: readonly Candidate[];
  readonly notInBook: number;
  /** What is left for all others of the book. */
  readonly others: number;
  /** The likeliest calibre is certain, which of its revisions is not. */
  readonly revisionOpen: boolean;
  readonly conflicting: Conflicting | null;
};

/** Every hypothesis with its share of belief; what `nextBestLook` weighs on. */
export interface Belief {
  readonly hypotheses: Hypotheses;
  /** Of each hypothesis; with `notInBook` they make one. */
  readonly share: Float64Array;
  readonly notInBook: number;
  /** The makers an unknown calibre may be of, and last *nobody in the book*; they make one. */
  readonly unknownOf: Float64Array;
}

/** Before anything is seen here, the chance that a movement brought in is not in the book, as so many jobs' worth. */
const UNKNOWN = { share: 0.1, worth: 10 } as const;
/** Of unknown calibres, how many are of a maker the book does not know. */
const UNKNOWN_MAKER = 0.2;
/** How far an unknown calibre is built like a movement of the book: each look shows what it shows there so often. */
const BUILT_ALIKE = 0.5;
/** A text may say nothing of the movement: a case code, a serial, a scratched note. */
const SAYS_NOTHING: Readonly<Partial<Record<Look, number>>> = { engraving: 0.2, mark: 0.03, print: 0.4 };
/** A movement is seldom marked with the code its maker gave up. */
const FORMER_CODES = 0.15;
/** The shop's own count of cases weighs as so many jobs against the book's. */
const CASE_WORTH = 2;
const CASE_OF_OTHER_MAKER = 0.1;

const KNOWN = 0.95;
const LIKELY = 0.6;
/** Called an unknown calibre from here, where no one movement of the book is likelier: a wrong cell costs more than a look. */
const UNKNOWN_FROM = 0.3;
const SHOWN = 8;
/** Under this two pieces of evidence contradict each other. */
const CONTRADICTS_UNDER = 0.01;
const KEPT_PIECES = 48;

function normal(x: number, sd: number): number {
  return Math.exp(-((x / sd) ** 2) / 2) / (sd * Math.sqrt(2 * Math.PI));
}

/** The likelihood of one piece of evidence: on each hypothesis, and on an unknown calibre of each maker and of none. */
interface Piece {
  readonly on: Float64Array;
  readonly most: number;
  /** By its maker where the look says something of the maker; else the same for all. */
  readonly onUnknown: Float64Array;
  readonly byMaker: boolean;
}

interface KeptPiece extends Piece {
  /** Over everything, before anything is seen. */
  readonly overall: number;
}

export interface Identifier {
  readonly hypotheses: Hypotheses;
  identifyMovement(evidence: readonly Seen[]): Identification;
  believe(evidence: readonly Seen[]): Belief;
}

/**
 * A book made ready for identifying movements: `identifyMovement` ranks its calibres, revision by revision, by Bayes' rule. The
 * prior is what this shop saw before, smoothed over the book; the likelihoods are a measurement model (caliper ±0.05 mm
 * on metal, with slips), the character model of worn marks, and a misreading rate for each look. *Not in the book* is a
 * hypothesis with a likelihood of its own: codes by the makers' patterns, sizes near those there are, everything else as
 * often as in the book. Probabilities add up to one.
 */
export function openIdentifier(
  book: Pick<Book, 'calibres' | 'makers' | 'maker' | 'cell' | 'caseTypes' | 'calibre'>,
  before: readonly SeenBefore[],
): Identifier {
  const hypotheses = hypothesesOf(book);
  const { all, makerIds } = hypotheses;
  const count = all.length;
  const prior = priorOf(hypotheses, book.calibres.length, before);
  const unknownOf = new Float64Array(makerIds.length + 1);
  const known = Math.max(1, count) + makerIds.length;
  for (let index = 0; index < makerIds.length; index += 1)
    unknownOf[index] = ((1 - UNKNOWN_MAKER) * ((hypotheses.makerShare[index] ?? 0) + 1)) / known;
  unknownOf[makerIds.length] = makerIds.length === 0 ? 1 : UNKNOWN_MAKER;
  const templates = book.makers.map(({ patterns }) =>
    patterns.filter(({ meaning }) => meaning === 'movement').map(({ template }) => template),
  );

  const ofText = (look: Look, text: string): Piece => {
    const on = new Float64Array(count);
    const onUnknown = new Float64Array(unknownOf.length);
    const silent = SAYS_NOTHING[look] ?? 0;
    const parts = [...new Set(stretches(text).map(bareCode))].map((bare) => ({
      bare,
      symbols: symbolsOf(bare),
    }));
    const share = (1 - silent) / Math.max(1, parts.length);
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
      }
      if (look === 'print') continue;
      for (let index = 0; index < unknownOf.length; index += 1) {
        const likelihood = unknownCodeLikelihood(bare, templates[index] ?? []);
        onUnknown[index] = (onUnknown[index] as number) + factor * likelihood;
      }
    }
    return { on, onUnknown, most: mostOf(on), byMaker: true };
  };

  const ofSign = (sign: string): Piece => {
    const piece = ofPick('sign', sign);
    const { misread, values } = LOOKS.sign;
    const onUnknown = piece.onUnknown.map((unknown, index) => {
      const own = index < book.makers.length ? (book.makers[index]?.sign ?? null) : null;
      if (own === null) return index < book.makers.length ? unknown : 1 / values.length;
      return own === sign ? 1 - misread : misread / (values.length - 1);
    });
    return { ...piece, onUnknown, byMaker: true };
  };

  const ofPick = (look: Look, value: string): Piece => {
    const column = hypotheses.columns[look];
    const spec = LOOKS[look];
    const on = new Float64Array(count).fill(1);
    const onUnknown = new Float64Array(unknownOf.length).fill(1);
    if (column?.as !== 'pick' || spec.as !== 'pick') return { on, onUnknown, most: 1, byMaker: false };
    const seen = column.indexOf.get(value) ?? -1;
    const likelihood = column.values.map((_, at) => pickLikelihood(look, column.values, at, seen));
    const unknown = seen < 0 ? spec.misread / column.values.length : (column.marginal[seen] ?? 0);
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
    return { on, onUnknown: onUnknown.fill(unknown), most: mostOf(on), byMaker: false };
  };

  const ofMeasure = (look: Look, mm: number, withinMm: number): Piece => {
    const column = hypotheses.columns[look];
    const spec = LOOKS[look];
    const on = new Float64Array(count).fill(1);
    const onUnknown = new Float64Array(unknownOf.length).fill(1);
    if (column?.as !== 'mm' || spec.as !== 'mm') return { on, onUnknown, most: 1, byMaker: false };
    const sd = sdOf(withinMm);
    const slipped = spec.slip / (spec.max - spec.min);
    const unknown = marginalDensity(column, mm);
    for (let index = 0; index < count; index += 1) {
      const at = column.at[index] as number;
      on[index] = Number.isNaN(at) ? unknown : (1 - spec.slip) * normal(mm - at, sd) + slipped;
    }
    return { on, onUnknown: onUnknown.fill(unknown), most: mostOf(on), byMaker: false };
  };

  const ofCase = (code: string): Piece => {
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
    return { on, onUnknown, most: mostOf(on), byMaker: true };
  };

  /** The value is `calibre|revision`: a sign only the revisions of one calibre are looked at for. */
  const ofRevision = (value: string): Piece => {
    const [calibreId = '', revision = ''] = value.split('|');
    const { misread } = LOOKS.revision;
    const on = Float64Array.from(all, (hypothesis, index) => {
      const beside = hypotheses.siblings[index] as number;
      if (hypothesis.calibreId !== calibreId || beside < 2) return 0.5;
      return hypothesis.revision === revision ? 1 - misread : misread / (beside - 1);
    });
    return {
      on,
      onUnknown: new Float64Array(unknownOf.length).fill(0.5),
      most: mostOf(on),
      byMaker: false,
    };
  };

  const weigh = ({ look, value, withinMm }: Seen): Piece => {
    if (typeof value === 'number') return ofMeasure(look, value, withinMm);
    if (look === 'caseCode') return ofCase(value);
    if (look === 'revision') return ofRevision(value);
    if (look === 'sign') return ofSign(value);
    return LOOKS[look].as === 'text' ? ofText(look, value) : ofPick(look, value);
  };
  // While one piece is typed the others stay as they are.
  const kept = new Map<string, KeptPiece>();
  const pieceOf = (seen: Seen): KeptPiece => {
    const key = JSON.stringify(seen);
    const there = kept.get(key);
    if (there) return there;
    const weighed = weigh(seen);
    let overall = 0;
    for (let index = 0; index < count; index += 1)
      overall += (prior.share[index] as number) * (weighed.on[index] as number);
    unknownOf.forEach(
      (weight, at) => (overall += weight * prior.notInBook * (weighed.onUnknown[at] as number)),
    );
    const piece = { ...weighed, overall };
    if (kept.size >= KEPT_PIECES) kept.delete(kept.keys().next().value as string);
    kept.set(key, piece);
    return piece;
  };

  const believe = (evidence: readonly Seen[]): Belief => {
    const pieces = evidence.map(pieceOf);
    const share = prior.share.slice();
    const unknowns = unknownOf.map((weight) => weight * prior.notInBook);
    // An unknown calibre is built like some movement of the book, but for what is its own.
    const like = prior.share.slice();
    for (const { on, onUnknown, most, byMaker } of pieces) {
      const scale = 1 / Math.max(most, mostOf(onUnknown), Number.MIN_VALUE);
      const unknown = (onUnknown[0] as number) * (1 - BUILT_ALIKE) * scale;
      const alike = BUILT_ALIKE * scale;
      for (let index = 0; index < count; index += 1) {
        const likelihood = on[index] as number;
        share[index] = (share[index] as number) * likelihood * scale;
        if (!byMaker) like[index] = (like[index] as number) * (likelihood * alike + unknown);
      }
      if (!byMaker && count > 0) continue;
      for (let index = 0; index < unknowns.length; index += 1)
        unknowns[index] = (unknowns[index] as number) * (onUnknown[index] as number) * scale;
    }
    const built = count === 0 ? 1 : sumOf(like) / (1 - prior.notInBook);
    const notInBook = sumOf(unknowns) * built;
    const total = notInBook + sumOf(share);
    if (!(total > 0)) return { hypotheses, share: prior.share, notInBook: prior.notInBook, unknownOf };
    for (let index = 0; index < count; index += 1) share[index] = (share[index] as number) / total;
    const ofMakers = sumOf(unknowns);
    return {
      hypotheses,
      share,
      notInBook: notInBook / total,
      unknownOf: ofMakers > 0 ? unknowns.map((each) => each / ofMakers) : unknownOf,
    };
  };

  const bookSays = (index: number, { look, value }: Seen): string => {
    if (look === 'engraving' || look === 'mark') {
      const [first] = differences(
        bareCode(closest(String(value), all[index]?.code ?? '')),
        bareCode(all[index]?.code ?? ''),
      );
      return first === undefined ? 'every character agrees' : first;
    }
    const column = hypotheses.columns[look];
    if (column?.as === 'mm') {
      const at = column.at[index] as number;
      return Number.isNaN(at) ? 'the book does not say' : `book ${figure(at)} mm`;
    }
    if (column?.as === 'pick') {
      const at = column.at[index] as number;
      return at < 0
        ? 'the book does not say'
        : `book ${[at, ...(column.also.get(index) ?? [])].map((each) => column.values[each]).join(' or ')}`;
    }
    if (look === 'revision') return calibreWords(all[index]?.code ?? '', all[index]?.revision ?? null);
    return look === 'caseCode' ? 'as this shop and the book pair them' : 'words on it';
  };

  const candidateOf = (index: number, probability: number, evidence: readonly Seen[]): Candidate => ({
    ...(all[index] as Hypothesis),
    probability,
    why: evidence.map((seen): Weighing => {
      const { on, overall } = pieceOf(seen);
      return {
        look: seen.look,
        seen: seenWords(seen),
        book: bookSays(index, seen),
        bits: Math.log2((on[index] as number) / overall),
      };
    }),
  });

  const conflictingOf = (evidence: readonly Seen[]): Conflicting | null => {
    const pieces = evidence.map(pieceOf);
    let worst: { chance: number; first: number; second: number; nearest: number } | null = null;
    for (let first = 0; first < pieces.length; first += 1) {
      for (let second = first + 1; second < pieces.length; second += 1) {
        const [a, b] = [pieces[first] as Piece, pieces[second] as Piece];
        let [most, nearest] = [0, -1];
        for (let index = 0; index < count; index += 1) {
          const both = (a.on[index] as number) * (b.on[index] as number);
          if (both > most) [most, nearest] = [both, index];
        }
        const chance = most / (a.most * b.most);
        if (chance < (worst?.chance ?? CONTRADICTS_UNDER)) worst = { chance, first, second, nearest };
      }
    }
    const [first, second] = [evidence[worst?.first ?? -1], evidence[worst?.second ?? -1]];
    if (!worst || !first || !second) return null;
    const nearest = all[worst.nearest];
    return {
      pair: [seenWords(first), seenWords(second)],
      looks: [first.look, second.look],
      chance: worst.chance,
      nearest: nearest ? calibreWords(nearest.code, nearest.revision) : '',
    };
  };

  const identifyMovement = (evidence: readonly Seen[]): Identification => {
    const belief = believe(evidence);
    const top = topOf(belief.share, SHOWN);
    const candidates = top.map((index) => candidateOf(index, belief.share[index] as number, evidence));
    const others = Math.max(
      0,
      1 - belief.notInBook - candidates.reduce((sum, { probability }) => sum + probability, 0),
    );
    const [best] = candidates;
    let ofCalibre = 0;
    if (best)
      all.forEach(({ calibreId }, index) => {
        if (calibreId === best.calibreId) ofCalibre += belief.share[index] as number;
      });
    const conflicting = evidence.length < 2 || count === 0 ? null : conflictingOf(evidence);
    const revisionOpen =
      best !== undefined && ofCalibre >= LIKELY && best.probability < KNOWN && best.revision !== null;
    const result = { candidates, notInBook: belief.notInBook, others, revisionOpen, conflicting };
    const working: WorkingLine[] = [
      {
        what: 'before anything was seen',
        rule: '(jobs with it here + 1) ÷ (all jobs + calibres of the book); not in the book one in ten, and what this shop saw',
        figures: `${count} movements of the book; not in the book ${percent(prior.notInBook)}`,
        source: 'Bayes’ rule; the catalogue and this shop’s jobs',
      },
      ...(best?.why ?? []).map((each): WorkingLine => ({
        what: each.seen,
        rule: 'how much likelier on this movement than over everything',
        figures: `${each.book}: ${each.bits >= 0 ? '×' : '÷'} ${figure(2 ** Math.abs(each.bits), 1)}`,
      })),
    ];
    const judged = (verdict: Identification['verdict'], reasons: readonly string[]): Identification => ({
      ...result,
      verdict,
      reasons,
      working,
    });
    if (evidence.length === 0)
      return judged('nothing seen', ['Anything seen narrows it down: the engraving most of all.']);
    if (!best || (belief.notInBook >= UNKNOWN_FROM && belief.notInBook > ofCalibre))
      return judged('not in the book', [
        !best
          ? 'The book holds no calibre yet.'
          : `What was seen fits no movement of the book as well as one that is not in it; the nearest, ${calibreWords(best.code, best.revision)}, ${percent(best.probability)}.`,
      ]);
    if (revisionOpen)
      return judged(best.probability >= LIKELY ? 'likely' : 'open', [
        `It is ${best.code}, ${percent(ofCalibre)}; which of its revisions is still open.`,
      ]);
    if (conflicting !== null && best.probability >= LIKELY)
      return judged('likely', [
        `${percent(best.probability)} all the same, though what was seen contradicts itself: see which pair.`,
      ]);
    if (best.probability >= KNOWN) return judged('known', ['Everything seen together leaves nothing else.']);
    const [, second] = candidates;
    return judged(best.probability >= LIKELY ? 'likely' : 'open', [
      second && second.probability >= 0.05
        ? `${calibreWords(second.code, second.revision)} fits too, ${percent(second.probability)}.`
        : `Not in the book, ${percent(belief.notInBook)}; all others together ${percent(others)}.`,
    ]);
  };
  return { hypotheses, identifyMovement, believe };
}

/** What was measured is this exact, mm: a caliper, or half a step of lignes on either side. */
export function sdOf(withinMm: number): number {
  return Math.sqrt(CALIPER_SD_MM ** 2 + withinMm ** 2 / 3);
}

/** The chance that a look at a movement showing one value is taken for another. */
export function pickLikelihood(look: Look, values: readonly string[], at: number, seen: number): number {
  const spec = LOOKS[look];
  if (spec.as !== 'pick') return 1;
  const neighbour = 'neighbour' in spec ? spec.neighbour : 0;
  const clock = Number(values[at]);
  const beside = neighbour > 0 && clock >= 1;
  const elsewhere = spec.misread / Math.max(1, values.length - 1);
  if (at === seen) return 1 - spec.misread - (beside ? 2 * neighbour : 0);
  if (seen >= 0 && beside) {
    const apart = Math.abs(Number(values[seen]) - clock);
    if (apart === 1 || apart === 11) return neighbour + elsewhere;
  }
  return elsewhere;
}

/** The stretch of a text that reads most like a code. */
function closest(text: string, code: string): string {
  const wanted = symbolsOf(code);
  return stretches(text).reduce(
    (best, part) =>
      seenProbability(symbolsOf(part), wanted) / byChance(symbolsOf(part)) >
      seenProbability(symbolsOf(best), wanted) / byChance(symbolsOf(best))
        ? part
        : best,
    text,
  );
}

function priorOf(
  { all, siblings }: Hypotheses,
  calibres: number,
  before: readonly SeenBefore[],
): { readonly share: Float64Array; readonly notInBook: number } {
  const jobs = new Map<string, number>();
  const revisions = new Map<string, number>();
  let [known, unknowns] = [0, 0];
  const inBook = new Set(all.map(({ calibreId }) => calibreId));
  for (const each of before) {
    if (each.calibreId === null || !inBook.has(each.calibreId)) {
      unknowns += each.jobs;
      continue;
    }
    known += each.jobs;
    jobs.set(each.calibreId, (jobs.get(each.calibreId) ?? 0) + each.jobs);
    const key = `${each.calibreId}|${each.revision ?? ''}`;
    if (each.revision !== null) revisions.set(key, (revisions.get(key) ?? 0) + each.jobs);
  }
  const notInBook =
    all.length === 0 ? 1 : (unknowns + UNKNOWN.share * UNKNOWN.worth) / (known + unknowns + UNKNOWN.worth);
  const inRevisions = new Map<string, number>();
  for (const { calibreId, revision } of all)
    inRevisions.set(
      calibreId,
      (inRevisions.get(calibreId) ?? 0) + (revisions.get(`${calibreId}|${revision ?? ''}`) ?? 0),
    );
  const share = Float64Array.from(all, ({ calibreId, revision }, index) => {
    const calibre = ((jobs.get(calibreId) ?? 0) + 1) / (known + calibres);
    const beside = siblings[index] as number;
    const ofRevision =
      ((revisions.get(`${calibreId}|${revision ?? ''}`) ?? 0) + 1) /
      ((inRevisions.get(calibreId) ?? 0) + beside);
    return (1 - notInBook) * calibre * ofRevision;
  });
  return { share, notInBook };
}

function mostOf(values: Float64Array): number {
  let most = 0;
  for (const value of values) if (value > most) most = value;
  return most;
}

function sumOf(values: Float64Array): number {
  let sum = 0;
  for (const value of values) sum += value;
  return sum;
}

/** The places of the largest values, the largest first. */
function topOf(values: Float64Array, most: number): number[] {
  const top: number[] = [];
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index] as number;
    if (top.length === most && value <= (values[top[most - 1] as number] as number)) continue;
    let place = top.length;
    while (place > 0 && (values[top[place - 1] as number] as number) < value) place -= 1;
    top.splice(place, 0, index);
    if (top.length > most) top.pop();
  }
  return top;
}
