import type { CellTable } from './table';
import { bareName } from './names';
import type { CellType } from './types';

/** What is asked of the finder; empty and null fields ask nothing. */
export interface CellQuery {
  /** Part of any name, in any spelling. */
  readonly name: string;
  readonly diameterMm: number | null;
  readonly heightMm: number | null;
}

export interface FoundCell {
  readonly cell: CellType;
  /** The name that answered, or its own code where it was found by size. */
  readonly name: string;
  /** How far its size is from what was measured, mm: the larger of diameter and height; null where nothing was measured. */
  readonly offMm: number | null;
}

/** A caliper on a cell, its tolerance of make and a little dirt. */
export const FINDER_WITHIN_MM = 0.15;
const MOST_FOUND = 60;
/** No cell has more names than this, so that so many names hold enough cells. */
const NAMES_OF_A_CELL = 6;

/** A table made ready for the finder: every name once, in its bare spelling. */
export interface CellFinder {
  find(query: CellQuery): readonly FoundCell[];
}

interface Name {
  readonly bare: string;
  readonly name: string;
  readonly cell: CellType;
}

/**
 * Finds cells by part of a name and by measured size, both together where both are given: names that are what was typed
 * first, then those that begin with it, then those that hold it; by size the nearest first, within a caliper’s
 * tolerance. Over every name of the table, quick enough for each key.
 */
export function openFinder(table: CellTable): CellFinder {
  // The shortest first, so that the first found are those to show.
  const names: Name[] = table.types
    .flatMap((cell) => cell.names.map((name): Name => ({ bare: bareName(name), name, cell })))
    .sort((a, b) => a.name.length - b.name.length);
  const find = ({ name, diameterMm, heightMm }: CellQuery): readonly FoundCell[] => {
    const wanted = bareName(name);
    // A size that is no number is no cell's.
    if (![diameterMm ?? 0, heightMm ?? 0].every(Number.isFinite)) return [];
    const measured = diameterMm !== null || heightMm !== null;
    if (wanted === '' && !measured) return [];
    const off = ({ diameterMm: d, heightMm: h }: CellType): number =>
      Math.max(
        diameterMm === null ? 0 : d === null ? Infinity : Math.abs(d - diameterMm),
        heightMm === null ? 0 : h === null ? Infinity : Math.abs(h - heightMm),
      );
    const ranks: [FoundCell[], FoundCell[], FoundCell[]] = [[], [], []];
    for (const each of names) {
      const at = wanted === '' ? 0 : each.bare.indexOf(wanted);
      if (at < 0) continue;
      const rank = wanted === '' || each.bare === wanted ? 0 : at === 0 ? 1 : 2;
      // By name alone what comes later is no better; by size it may be nearer.
      if (!measured && ranks[rank].length >= MOST_FOUND * NAMES_OF_A_CELL) continue;
      const offMm = measured ? off(each.cell) : null;
      if (offMm !== null && offMm > FINDER_WITHIN_MM + 1e-9) continue;
      ranks[rank].push({ cell: each.cell, name: wanted === '' ? each.cell.code : each.name, offMm });
    }
    const found = new Map<CellType, FoundCell>();
    for (const rank of ranks) {
      if (measured) rank.sort((a, b) => (a.offMm ?? 0) - (b.offMm ?? 0));
      for (const each of rank) if (!found.has(each.cell)) found.set(each.cell, each);
    }
    return [...found.values()].slice(0, MOST_FOUND);
  };
  return { find };
}
