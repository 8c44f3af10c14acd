import type { CellTable } from './table';
import type { CellType } from './types';

/** Digits often misread for each other on worn or small print. */
const MISREAD_PAIRS = ['17', '38', '56', '68', '69', '08'];

function digitsOf(name: string): string {
  return name.replace(/\D/g, '');
}

function prefixOf(name: string): string {
  return /^[A-Z]*/.exec(name)?.[0] ?? '';
}

function isMisread(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  const differing = [...a].flatMap((character, index) =>
    character === b[index] ? [] : [character + (b[index] ?? '')],
  );
  return (
    differing.length === 1 &&
    MISREAD_PAIRS.some((pair) => differing[0] === pair || differing[0] === [...pair].reverse().join(''))
  );
}

function isShuffled(a: string, b: string): boolean {
  return a !== b && a.length >= 3 && [...a].sort().join('') === [...b].sort().join('');
}

function isDoubled(a: string, b: string): boolean {
  const [shorter, longer] = a.length < b.length ? [a, b] : [b, a];
  return (
    longer.length === shorter.length + 1 &&
    [...longer].some((_, at) => longer.slice(0, at) + longer.slice(at + 1) === shorter)
  );
}

export interface LookAlike {
  /** The two names that are alike: of the cell asked about, and of the other. */
  readonly own: string;
  readonly name: string;
  readonly cell: CellType;
  readonly how: string;
}

function howAlike(a: string, b: string): string | null {
  const [prefixA, prefixB, digitsA, digitsB] = [prefixOf(a), prefixOf(b), digitsOf(a), digitsOf(b)];
  if (prefixA !== prefixB) return digitsA === digitsB ? 'the same digits under other letters' : null;
  if (prefixA === 'AG' && isDoubled(digitsA, digitsB)) return 'a digit missing or doubled';
  if (isShuffled(digitsA, digitsB)) return 'the same digits in another order';
  if (isMisread(digitsA, digitsB)) return 'one digit often misread for another';
  return null;
}

/**
 * Whether one cell is easily taken for another, and how: same digits in another order or under other letters, one
 * digit of a pair often misread, a digit missing or doubled in a card name. Null where the names are unlike, or
 * where size and chemistry are the same and nothing would go wrong. Compared are the names each carries: of a cell in the
 * hand those on its label (`asMarked`), since nobody mixes up what was not printed.
 */
export function looksLike(cell: CellType, other: CellType): Pick<LookAlike, 'own' | 'name' | 'how'> | null {
  const same =
    other.diameterMm === cell.diameterMm &&
    other.heightMm === cell.heightMm &&
    other.chemistry === cell.chemistry;
  if (same) return null;
  const bare = (name: string): string => name.replace(/S?W$/, '');
  for (const own of cell.names) {
    for (const name of other.names) {
      const how = howAlike(bare(own), bare(name));
      if (how !== null) return { own, name, how };
    }
  }
  return null;
}

/**
 * Every cell of the table that is easily taken for this one. Whether to warn of one or only list it is the
 * caller's: it depends on the job.
 */
export function lookAlikes(cell: CellType, table: CellTable): LookAlike[] {
  return table.types.flatMap((other) => {
    const likeness = looksLike(cell, other);
    return likeness ? [{ ...likeness, cell: other }] : [];
  });
}

/** Cells a look-alike matters against: what the movement takes, what was found, the lot being taken, what was ordered. */
export interface LookAlikeContext {
  readonly movement?: CellType | null;
  readonly found?: CellType | null;
  readonly lot?: CellType | null;
  readonly ordered?: readonly CellType[];
}

const BECAUSE: Readonly<Record<keyof LookAlikeContext, string>> = {
  movement: 'the movement’s cell',
  found: 'what was found in the watch',
  lot: 'the lot being taken',
  ordered: 'what was ordered',
};

export interface LookAlikes {
  /** Those that matter here, each with why. */
  readonly warn: readonly (LookAlike & { readonly because: string })[];
  /** All others: only listed. */
  readonly list: readonly LookAlike[];
}

/**
 * The look-alikes of a cell, told apart by whether they matter here. Warned of is one that is the movement’s cell, was
 * found in the watch, is the lot being taken or was ordered; the others are only listed, since a warning that always
 * stands is read by nobody.
 */
export function lookAlikesHere(cell: CellType, context: LookAlikeContext, table: CellTable): LookAlikes {
  const warn = (Object.keys(BECAUSE) as (keyof LookAlikeContext)[]).flatMap((key) =>
    [context[key] ?? []].flat().flatMap((other) => {
      const likeness = other === cell ? null : looksLike(cell, other);
      return likeness ? [{ ...likeness, cell: other, because: BECAUSE[key] }] : [];
    }),
  );
  const first = warn.filter(
    (each, index) => warn.findIndex((other) => sameCell(other.cell, each.cell)) === index,
  );
  return {
    warn: first,
    list: lookAlikes(cell, table).filter((each) => !first.some((warned) => sameCell(warned.cell, each.cell))),
  };
}

function sameCell(a: CellType, b: CellType): boolean {
  return (
    a.code === b.code ||
    (a.diameterMm === b.diameterMm &&
      a.heightMm === b.heightMm &&
      a.chemistry === b.chemistry &&
      a.drain === b.drain)
  );
}
