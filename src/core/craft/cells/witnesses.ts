import { figure, type Judged, percent, invalidLengths } from '../judgement';
import { invalidSizes } from './crossReference';
import { looksLike } from './lookAlikes';
import type { CellTable } from './table';
import type { CellType, CellWanted } from './types';

export const WITNESSES = ['book', 'print', 'cell found', 'well measured'] as const;
export type WitnessKind = (typeof WITNESSES)[number];

/** A well as the caliper has it: across, and from the lower contact to where the holder lies on the cell. */
export interface MeasuredWell {
  readonly diameterMm: number;
  readonly depthMm: number;
}

/** What each witness says; null where it is not heard. */
export interface WitnessQuestion {
  /** What the book says this movement takes. */
  readonly book: CellWanted | null;
  /** A cell named by the print or engraving inside the watch. */
  readonly print: CellType | null;
  readonly found: CellType | null;
  readonly well: MeasuredWell | null;
}

/** How often each says the right cell. Ours, from bench practice: the last hand errs more than any other. */
const RELIABLE: Readonly<Record<WitnessKind, number>> = {
  book: 0.97,
  print: 0.95,
  'cell found': 0.85,
  'well measured': 0.95,
};
/** How often the cell that lies in a watch is not the one that belongs there. */
export const WRONG_CELL_FOUND = 1 - RELIABLE['cell found'];
/** A wrong cell found is so much likelier one easily taken for the right one. */
const LIKENESS_WEIGHT = 6;
/** From here one cell is what they say together. */
const SETTLED_FROM = 0.9;
/** A well is wider and deeper than its cell by at most this, and narrower by at most a caliper’s error, mm. */
const ROOM_MM = { wider: 0.6, deeper: 0.45, tighter: 0.1 } as const;

interface Size {
  readonly diameterMm: number;
  readonly heightMm: number;
  readonly nominalV: number;
}

export interface WitnessSaid {
  readonly kind: WitnessKind;
  readonly says: string;
  readonly agrees: boolean;
}

export type WitnessVerdict = Judged<
  'no witness' | 'one witness' | 'they agree' | 'one differs' | 'cannot tell'
> & {
  /** The cell they say together, by its name in the table; null where they do not settle it. */
  readonly code: string | null;
  readonly probability: number;
  readonly said: readonly WitnessSaid[];
  /** How to tell who erred; empty where nobody did. */
  readonly howToTell: readonly string[];
  /** Whether a measure of the well would tell, which nobody took yet. */
  readonly asksForWell: boolean;
};

/**
 * The cell several witnesses say together; null where they settle none. One alone settles nothing: that the cell found
 * ran proves contact and voltage, not that it is the right one.
 */
export function saidTogether({ verdict, code }: WitnessVerdict): string | null {
  return verdict === 'one witness' ? null : code;
}

const sameSize = (a: Size, b: Size): boolean =>
  Math.abs(a.diameterMm - b.diameterMm) <= 0.1 + 1e-9 &&
  Math.abs(a.heightMm - b.heightMm) <= 0.1 + 1e-9 &&
  Math.abs(a.nominalV - b.nominalV) <= 0.1;

/** Whether a cell of this size lies in a well so measured. */
export function liesInWell({ diameterMm, heightMm }: Omit<Size, 'nominalV'>, well: MeasuredWell): boolean {
  const [across, deep] = [well.diameterMm - diameterMm, well.depthMm - heightMm];
  return (
    across >= -ROOM_MM.tighter &&
    across <= ROOM_MM.wider &&
    deep >= -ROOM_MM.tighter &&
    deep <= ROOM_MM.deeper
  );
}

const sized = (cell: CellType): Size | null =>
  cell.diameterMm === null || cell.heightMm === null
    ? null
    : { diameterMm: cell.diameterMm, heightMm: cell.heightMm, nominalV: cell.nominalV };

/** What one witness says belongs there. */
interface Claim {
  readonly kind: WitnessKind;
  /** Null where it names none, as a measured well does. */
  readonly size: Size | null;
  readonly says: string;
}

function claimsOf({ book, print, found, well }: WitnessQuestion): readonly Claim[] {
  return [
    ...(book ? [{ kind: 'book' as const, size: book, says: book.code }] : []),
    ...(print ? [{ kind: 'print' as const, size: sized(print), says: print.code }] : []),
    ...(found ? [{ kind: 'cell found' as const, size: sized(found), says: found.code }] : []),
    ...(well
      ? [
          {
            kind: 'well measured' as const,
            size: null,
            says: `${figure(well.diameterMm)} × ${figure(well.depthMm)} mm`,
          },
        ]
      : []),
  ];
}

/** Where too few speak, or one says what cannot be. */
function nothing(
  claims: readonly Claim[],
  verdict: 'no witness' | 'one witness' | 'cannot tell',
  ...reasons: readonly string[]
): WitnessVerdict {
  return {
    verdict,
    code: verdict === 'one witness' && claims[0]?.size ? claims[0].says : null,
    probability: 0,
    said: claims.map(({ kind, says }) => ({ kind, says, agrees: true })),
    howToTell: [],
    asksForWell: false,
    reasons,
    working: [],
  };
}

/** The cell found alone, and it does not lie in the well that was measured. */
function doesNotFit(
  claims: readonly Claim[],
  found: CellType,
  foundSize: Size,
  well: MeasuredWell,
  table: CellTable,
): WitnessVerdict {
  const fitting = table.types
    .filter((type) => type.chemistry === found.chemistry && type.drain !== 'unstated')
    .filter((type) => liesInWell(sized(type) ?? { diameterMm: Infinity, heightMm: Infinity }, well));
  return {
    verdict: 'one differs',
    code: null,
    probability: 0,
    said: claims.map(({ kind, says }) => ({ kind, says, agrees: kind !== 'cell found' })),
    howToTell: [
      'Measure the well again without its insulator, with the holder in the position it has on a cell.',
    ],
    asksForWell: false,
    reasons: [
      doesNotLie(found.code, foundSize, well),
      fitting.length > 0
        ? `These cells fit the well: ${fitting.map(({ code }) => code).join(', ')}.`
        : 'No cell of this chemistry in the table fits the well.',
    ],
    working: [],
  };
}

interface Place {
  readonly cell: CellType;
  readonly size: Size;
}

/** The sizes that may belong there, and how likely each witness says what it says, were one of them right. */
function sizesOf(
  { book, print, found, well }: WitnessQuestion,
  claims: readonly Claim[],
  table: CellTable,
): {
  readonly places: readonly Place[];
  readonly supports: (kind: WitnessKind, place: Size) => boolean;
  readonly likely: (kind: WitnessKind, place: Place) => number;
} {
  // Sizes that differ in nothing but name, drain or twin chemistry are one.
  const places: Place[] = [];
  const claimed = [print, found].filter((cell): cell is CellType => cell !== null);
  const named = book ? (table.byName.get(book.code) ?? null) : null;
  for (const cell of [...(named ? [named] : []), ...claimed, ...table.types]) {
    const size = sized(cell);
    if (size && !places.some((each) => sameSize(each.size, size))) places.push({ cell, size });
  }
  const supports = (kind: WitnessKind, place: Size): boolean => {
    if (kind === 'well measured') return well !== null && liesInWell(place, well);
    const size = claims.find((claim) => claim.kind === kind)?.size;
    if (!size) return false;
    const heights = kind === 'book' && book ? [size.heightMm, ...book.otherHeightsMm] : [size.heightMm];
    return heights.some((heightMm) => sameSize({ ...size, heightMm }, place));
  };
  const likely = (kind: WitnessKind, place: Place): number => {
    const right = RELIABLE[kind];
    if (supports(kind, place.size)) {
      // A well measured names several sizes, and tells them apart no further.
      return kind === 'well measured'
        ? right / Math.max(1, places.filter(({ size }) => supports(kind, size)).length)
        : right;
    }
    const alike = kind === 'cell found' && found !== null && looksLike(place.cell, found) !== null;
    return ((1 - right) / places.length) * (alike ? LIKENESS_WEIGHT : 1);
  };
  return { places, supports, likely };
}

/**
 * What book, print, cell found and measured well say together, by size and voltage: each is right as often as it is
 * (Bayes’ rule over every size of the table, all alike likely before), a wrong cell found being most often one easily
 * taken for the right one. Where they disagree: who probably erred, and how to tell. Drain, chemistry and names are
 * judged by `crossReference`. Source: Bayes’ rule; the reliabilities are ours, from bench practice.
 */
export function weighWitnesses(question: WitnessQuestion, table: CellTable): WitnessVerdict {
  const { book, found, well } = question;
  const foundSize = found && sized(found);
  const claims = claimsOf(question);
  // What cannot lie in the measured well is told as wrong, not weighed; unless book or print name its size as well: then
  // the caliper is doubted.
  const shutOut =
    well !== null &&
    foundSize !== null &&
    isLargerThan(foundSize, well) &&
    !claims.some(({ kind, size }) => kind !== 'cell found' && size !== null && sameSize(size, foundSize));
  const weighed = shutOut ? claims.filter(({ kind }) => kind !== 'cell found') : claims;
  const wrong = invalidClaims(question);
  if (wrong.length > 0) return nothing(claims, 'cannot tell', ...wrong);
  const [only] = claims;
  if (!only) return nothing(claims, 'no witness', 'Neither book, print, cell nor well names the right cell.');
  if (shutOut && weighed.length === 1 && well && found && foundSize)
    return doesNotFit(claims, found, foundSize, well, table);
  if (claims.length === 1)
    return nothing(
      claims,
      'one witness',
      `Only the ${only.kind} gives evidence: ${only.says}. A second source would confirm it.`,
    );

  const { places, supports, likely } = sizesOf(question, claims, table);
  const weights = places.map((place) =>
    weighed.reduce((product, { kind }) => product * likely(kind, place), 1),
  );
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const best = weights.indexOf(Math.max(...weights));
  const top = places[best] as Place;
  const probability = (weights[best] ?? 0) / total;
  const said = claims.map(({ kind, says }) => ({ kind, says, agrees: supports(kind, top.size) }));
  const against = said.filter(({ agrees }) => !agrees);
  const code = (book && supports('book', top.size) ? book.code : null) ?? nameOf(top.cell, claims);
  const working = [
    {
      what: 'evidence combined',
      rule: 'each source with its own reliability; all sizes in the table equally likely at first',
      figures: `${weighed.map(({ kind, says }) => `${kind} ${says} (${figure(RELIABLE[kind] * 100, 0)} %)`).join(', ')} → ${code} ${percent(probability)}`,
      source: 'Bayes’ rule; reliabilities of bench practice',
    },
  ];
  const heard = { probability, said, working };
  if (against.length === 0)
    return {
      ...heard,
      verdict: 'they agree',
      code,
      howToTell: [],
      asksForWell: false,
      reasons: [`${listed(said.map(({ kind }) => kind))} agree on ${code}.`],
    };
  const doubt = {
    ...heard,
    howToTell: waysToTell(top, against, question),
    asksForWell: rivalOf(against, question) !== null && !well,
  };
  return probability < SETTLED_FROM
    ? {
        ...doubt,
        verdict: 'cannot tell',
        code: null,
        reasons: [
          `${said.map(({ kind, says }) => `the ${kind} says ${says}`).join(', ')}: no clear favourite (${percent(probability)}).`,
        ],
      }
    : {
        ...doubt,
        verdict: 'one differs',
        code,
        reasons: against.map(({ kind, says }) =>
          shutOut && kind === 'cell found' && foundSize
            ? doesNotLie(says, foundSize, well)
            : erredBecause(kind, says, code, top.cell, question),
        ),
      };
}

/** Whether a cell is wider or thicker than a well by more than a caliper errs. */
function isLargerThan({ diameterMm, heightMm }: Omit<Size, 'nominalV'>, well: MeasuredWell): boolean {
  return (
    diameterMm - well.diameterMm > ROOM_MM.tighter + 1e-9 || heightMm - well.depthMm > ROOM_MM.tighter + 1e-9
  );
}

function doesNotLie(says: string, { diameterMm, heightMm }: Size, well: MeasuredWell): string {
  return `The cell found is the wrong one, or the well was measured wrongly: ${says} is ${figure(diameterMm)} × ${figure(heightMm)} mm, but the well is ${figure(well.diameterMm)} mm across and ${figure(well.depthMm)} mm deep.`;
}

/** What a witness says that cannot be, by its name; empty where all can. */
function invalidClaims({ book, print, found, well }: WitnessQuestion): readonly string[] {
  const named = [
    ['book', book],
    ['print', print],
    ['cell found', found],
  ] as const;
  return [
    ...invalidSizes(
      named.flatMap(([kind, cell]) => (cell ? [[`The ${kind}’s ${cell.code}`, cell] as const] : [])),
    ),
    ...invalidLengths([
      ['diameterMm', 'The well across', well?.diameterMm],
      ['depthMm', 'The depth of the well', well?.depthMm],
    ]).map(({ reason }) => reason),
  ];
}

/** Where the table knows several names of a size, the one a witness used. */
function nameOf(
  cell: CellType,
  claims: readonly { readonly size: Size | null; readonly says: string }[],
): string {
  const size = sized(cell);
  return claims.find((claim) => claim.size && size && sameSize(claim.size, size))?.says ?? cell.code;
}

function erredBecause(
  kind: WitnessKind,
  says: string,
  code: string,
  cell: CellType,
  { found }: WitnessQuestion,
): string {
  switch (kind) {
    case 'cell found': {
      // By the names that were seen: the one that belongs there, as whoever names it wrote it.
      const likeness = found ? looksLike({ ...cell, names: [code] }, found) : null;
      return `The previous repairer probably fitted the wrong cell: ${says} instead of ${code}.${likeness ? ` ${likeness.name} and ${likeness.own} are easily confused (${likeness.how}).` : ''} That the watch ran proves only contact and voltage.`;
    }
    case 'book':
      return `The book’s ${says} is probably not for this movement. The movement may be misidentified, or be another revision.`;
    case 'print':
      return `The print names ${says}: the back may belong to another watch or to an earlier movement.`;
    case 'well measured':
      return `The well was probably measured wrongly (${says}): with the insulator in, or with the holder pressed down.`;
  }
}

/** The size that speaks against what they say together, which the well would tell from it. */
function rivalOf(against: readonly WitnessSaid[], { found, book }: WitnessQuestion): Size | null {
  const other = against.some(({ kind }) => kind === 'cell found') && found ? sized(found) : null;
  return other ?? (against.some(({ kind }) => kind === 'book') ? book : null);
}

function waysToTell(
  top: { readonly cell: CellType; readonly size: Size },
  against: readonly WitnessSaid[],
  question: WitnessQuestion,
): string[] {
  const ways: string[] = [];
  const { well } = question;
  const rival = rivalOf(against, question);
  if (rival && !well) {
    const byHeight = Math.abs(rival.heightMm - top.size.heightMm) > 0.1;
    ways.push(
      byHeight
        ? `Measure the depth of the well: about ${figure(top.size.heightMm + 0.2, 1)} mm for ${figure(top.size.heightMm)} mm, about ${figure(rival.heightMm + 0.2, 1)} mm for ${figure(rival.heightMm)} mm.`
        : `Measure across the well: about ${figure(top.size.diameterMm + 0.2, 1)} mm for ${figure(top.size.diameterMm)} mm, about ${figure(rival.diameterMm + 0.2, 1)} mm for ${figure(rival.diameterMm)} mm.`,
    );
  }
  for (const { kind } of against) {
    if (kind === 'book')
      ways.push('Check the marks on the movement again, and the differences between its revisions.');
    if (kind === 'print')
      ways.push('Compare the number inside the back with the case. They should belong together.');
    if (kind === 'well measured')
      ways.push(
        'Measure the well again without its insulator, with the holder in the position it has on a cell.',
      );
    if (kind === 'cell found')
      ways.push(
        'Look for signs of force. A bent clip, packing in the well or a dented back points to a wrong height.',
      );
  }
  return ways;
}

function listed(words: readonly string[]): string {
  const [last, ...before] = [...words].reverse();
  const text = before.length === 0 ? (last ?? '') : `${before.reverse().join(', ')} and ${last}`;
  return text.charAt(0).toUpperCase() + text.slice(1);
}
