import { figure, percent, type WorkingLine } from '../judgement';
import { calibreWords } from '../movements';
import { bookSays } from './bookSays';
import { type Ground, groundOf, type IdentifierBook } from './ground';
import type { Hypotheses, Hypothesis } from './hypotheses';
import type { Belief, Candidate, Conflicting, Identification, SeenBefore, Weighing } from './identification';
import { isRead, type Look, type Seen, seenWords } from './looks';
import { cellTogether, type KeptPiece, openPieces, type Piece } from './pieces';
import { mostOf, sumOf, topOf } from './sums';

/** How far an unknown calibre is built like a movement of the book: each look shows what it shows there so often. */
const BUILT_ALIKE = 0.5;
/** Of unknown calibres so many are sisters of one in the book: one character apart, and nearly everything alike. Ours. */
const SISTERS = 0.75;
const SISTER_ALIKE = 0.88;
const KNOWN = 0.95;
const LIKELY = 0.6;
/** Called an unknown calibre from here, where no one movement of the book is much likelier: a wrong cell costs more than a look. */
const UNKNOWN_FROM = 0.27;
/** One taken for a movement of the book costs so much more than one looked at once more: that share is enough. Ours. */
const UNKNOWN_WEIGHS = 1.5;
const SHOWN = 8;
/** Under this two pieces of evidence contradict each other. */
const CONTRADICTS_UNDER = 0.01;

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
export function openIdentifier(book: IdentifierBook, before: readonly SeenBefore[]): Identifier {
  const ground = groundOf(book, before);
  const pieceOf = openPieces(ground);
  const cellOf = openCell(ground);
  // What has one cause counts once: both measures of a cell are of the one cell that lies there.
  const causesOf = (evidence: readonly Seen[]): readonly Piece[] => {
    const cell = cellOf(evidence);
    return cell === null
      ? evidence.map(pieceOf)
      : [...evidence.filter(({ look }) => !OF_THE_CELL.includes(look)).map(pieceOf), cell];
  };
  return {
    hypotheses: ground.hypotheses,
    believe: (evidence) => believe(ground, causesOf(evidence.filter(isRead))),
    identifyMovement: (evidence) => {
      const read = evidence.filter(isRead);
      const found = identify(ground, read, read.map(pieceOf), causesOf(read));
      const unread = evidence.filter((each) => !isRead(each));
      return unread.length === 0
        ? found
        : {
            ...found,
            reasons: [
              ...found.reasons,
              ...unread.map((each) => `${seenWords(each)}: this is not a measurement and is ignored.`),
            ],
          };
    },
  };
}

const OF_THE_CELL: readonly Look[] = ['cellDiameterMm', 'cellHeightMm'];

/** The cell by both its measures, once both were taken; kept while other things are typed. */
function openCell(ground: Ground): (evidence: readonly Seen[]) => Piece | null {
  let kept: { readonly key: string; readonly piece: Piece } | null = null;
  return (evidence) => {
    const [across, high] = OF_THE_CELL.map((look) => evidence.find((seen) => seen.look === look));
    if (typeof across?.value !== 'number' || typeof high?.value !== 'number') return null;
    const key = [across.value, across.withinMm, high.value, high.withinMm].join(' ');
    if (kept?.key !== key)
      kept = {
        key,
        piece: cellTogether(
          ground,
          { mm: across.value, withinMm: across.withinMm },
          { mm: high.value, withinMm: high.withinMm },
        ),
      };
    return kept.piece;
  };
}

/** The share of each hypothesis once these pieces are seen. */
function believe({ hypotheses, prior, unknownOf }: Ground, pieces: readonly Piece[]): Belief {
  const count = hypotheses.all.length;
  const share = prior.share.slice();
  const unknowns = unknownOf.map((weight) => weight * prior.notInBook);
  // An unknown calibre is built like some movement of the book, but for what is its own.
  const like = prior.share.slice();
  const sister = prior.share.slice();
  for (const { on, onUnknown, onSister, most, byMaker } of pieces) {
    const scale = 1 / Math.max(most, mostOf(onUnknown), Number.MIN_VALUE);
    const unknown = (onUnknown[0] as number) * (1 - BUILT_ALIKE) * scale;
    const alike = BUILT_ALIKE * scale;
    const elsewhere = (onUnknown[0] as number) * (1 - SISTER_ALIKE) * scale;
    for (let index = 0; index < count; index += 1) {
      const likelihood = on[index] as number;
      share[index] = (share[index] as number) * likelihood * scale;
      if (!byMaker) like[index] = (like[index] as number) * (likelihood * alike + unknown);
      const onIt = onSister ? (onSister[index] as number) : likelihood;
      sister[index] =
        (sister[index] as number) * (byMaker ? onIt * scale : onIt * scale * SISTER_ALIKE + elsewhere);
    }
    if (!byMaker && count > 0) continue;
    for (let index = 0; index < unknowns.length; index += 1)
      unknowns[index] = (unknowns[index] as number) * (onUnknown[index] as number) * scale;
  }
  const built = count === 0 ? 1 : sumOf(like) / (1 - prior.notInBook);
  const ofSisters = count === 0 ? 0 : (SISTERS * prior.notInBook) / (1 - prior.notInBook);
  const sisters = sumOf(sister) * ofSisters;
  const notInBook = sumOf(unknowns) * built * (count === 0 ? 1 : 1 - SISTERS) + sisters;
  const total = notInBook + sumOf(share);
  if (!(total > 0))
    return { hypotheses, share: prior.share, notInBook: prior.notInBook, unknownOf, sisterOf: null };
  for (let index = 0; index < count; index += 1) share[index] = (share[index] as number) / total;
  const ofMakers = sumOf(unknowns);
  return {
    hypotheses,
    share,
    notInBook: notInBook / total,
    sisterOf: nearestSister(sister, ofSisters / total),
    unknownOf: ofMakers > 0 ? unknowns.map((each) => each / ofMakers) : unknownOf,
  };
}

/** The movement of the book an unknown one is likeliest a sister of, with that chance; null where none stands out. */
function nearestSister(sister: Float64Array, each: number): Belief['sisterOf'] {
  const [index] = topOf(sister, 1);
  return index === undefined ? null : { index, probability: (sister[index] as number) * each };
}

function whyOf(
  hypotheses: Hypotheses,
  index: number,
  evidence: readonly Seen[],
  pieces: readonly KeptPiece[],
): readonly Weighing[] {
  return evidence.flatMap((seen, at): Weighing[] => {
    const piece = pieces[at];
    if (!piece) return [];
    return [
      {
        look: seen.look,
        seen: seenWords(seen),
        book: bookSays(hypotheses, index, seen),
        bits: Math.log2((piece.on[index] as number) / piece.overall),
      },
    ];
  });
}

/** The two pieces that contradict each other worst, if any do. */
function conflictingOf(
  { all }: Hypotheses,
  evidence: readonly Seen[],
  pieces: readonly Piece[],
): Conflicting | null {
  let worst: { chance: number; first: number; second: number; nearest: number } | null = null;
  for (let first = 0; first < pieces.length; first += 1) {
    for (let second = first + 1; second < pieces.length; second += 1) {
      const [a, b] = [pieces[first] as Piece, pieces[second] as Piece];
      let [most, nearest] = [0, -1];
      for (let index = 0; index < all.length; index += 1) {
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
}

/** What is seen, put into the order of belief and judged. */
function identify(
  ground: Ground,
  evidence: readonly Seen[],
  pieces: readonly KeptPiece[],
  causes: readonly Piece[],
): Identification {
  const { hypotheses, prior } = ground;
  const { all } = hypotheses;
  const belief = believe(ground, causes);
  const candidates = topOf(belief.share, SHOWN).map((index): Candidate => ({
    ...(all[index] as Hypothesis),
    probability: belief.share[index] as number,
    why: whyOf(hypotheses, index, evidence, pieces),
  }));
  const [best] = candidates;
  const ofCalibre = sumOf(belief.share.filter((_, index) => all[index]?.calibreId === best?.calibreId));
  const shown = candidates.reduce((sum, { probability }) => sum + probability, 0);
  const ranked: Ranked = {
    candidates,
    notInBook: belief.notInBook,
    others: Math.max(0, 1 - belief.notInBook - shown),
    revisionOpen:
      best !== undefined && ofCalibre >= LIKELY && best.probability < KNOWN && best.revision !== null,
    sisterOf: sisterOf(belief, all),
    conflicting: evidence.length < 2 || all.length === 0 ? null : conflictingOf(hypotheses, evidence, pieces),
  };
  const working: readonly WorkingLine[] = [
    {
      what: 'before any observation',
      rule: '(jobs with it here + 1) ÷ (all jobs + calibres of the book); not in the book one in ten, and what this shop saw',
      figures: `${all.length} movements of the book; not in the book ${percent(prior.notInBook)}`,
      source: 'Bayes’ rule; the catalogue and this shop’s jobs',
    },
    ...(best?.why ?? []).map((each): WorkingLine => ({
      what: each.seen,
      rule: 'likelihood on this movement compared with all',
      figures: `${each.book}: ${each.bits >= 0 ? '×' : '÷'} ${figure(2 ** Math.abs(each.bits), 1)}`,
    })),
  ];
  return { ...ranked, ...judge(ranked, ofCalibre, evidence), working };
}

/** From this share of what is not in the book on it reads like the sister of one movement. */
const SISTER_FROM = 0.5;

function sisterOf(
  { sisterOf: sister, notInBook }: Belief,
  all: Hypotheses['all'],
): Identification['sisterOf'] {
  const of = sister && all[sister.index];
  return of && notInBook >= UNKNOWN_FROM && sister.probability >= notInBook * SISTER_FROM
    ? { calibreId: of.calibreId, code: of.code }
    : null;
}

type Ranked = Omit<Identification, 'verdict' | 'reasons' | 'working'>;
type Judgement = Pick<Identification, 'verdict' | 'reasons'>;

/** What the order of belief comes to, the first rule that speaks deciding. */
function judge(
  { candidates, notInBook, others, revisionOpen, conflicting, sisterOf: sister }: Ranked,
  ofCalibre: number,
  evidence: readonly Seen[],
): Judgement {
  const [best, second] = candidates;
  const judged = (verdict: Identification['verdict'], reason: string): Judgement => ({
    verdict,
    reasons: [reason],
  });
  if (evidence.length === 0)
    return judged('nothing seen', 'Record what you see to narrow it down. The engraving helps most.');
  if (!best) return judged('not in the book', 'The book holds no calibre yet.');
  if (notInBook >= UNKNOWN_FROM && notInBook * UNKNOWN_WEIGHS > ofCalibre)
    return judged(
      'not in the book',
      sister
        ? `It is probably not in the book. It looks like a close relative of ${sister.code}: one character differs, and it is built alike.`
        : notInBook <= ofCalibre
          ? `It may be a movement that is not in the book (${percent(notInBook)}). The closest in the book is ${calibreWords(best.code, best.revision)} (${percent(best.probability)}).`
          : `It is probably a movement that is not in the book. The closest in the book is ${calibreWords(best.code, best.revision)} (${percent(best.probability)}).`,
    );
  const likely = best.probability >= LIKELY ? 'likely' : 'open';
  if (revisionOpen)
    return judged(
      likely,
      `This is ${best.code} (${percent(ofCalibre)}). It exists in several revisions. The next check shows which one this is.`,
    );
  if (conflicting !== null && likely === 'likely')
    return judged(
      'likely',
      `Two observations contradict each other. This movement is still the likeliest (${percent(best.probability)}). Check the pair that is named.`,
    );
  if (best.probability >= KNOWN)
    return evidence.every(({ look }) => OF_THE_CELL.includes(look))
      ? judged(
          'likely',
          'Only the cell is known so far, and many movements take this cell. Look at the movement itself.',
        )
      : judged('known', 'Everything recorded points to this movement.');
  return judged(
    likely,
    second && second.probability >= 0.05
      ? `${calibreWords(second.code, second.revision)} fits too, ${percent(second.probability)}.`
      : `Not in the book, ${percent(notInBook)}; all others together ${percent(others)}.`,
  );
}
