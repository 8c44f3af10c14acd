import type { Entry } from './entry';
import type { Conflict } from './state';

const placeOf = (entry: Entry | undefined): number => entry?.sequence ?? Number.MAX_SAFE_INTEGER;

/** Server order; entries still waiting in the browser come after, as they were made. */
export function inSequence(entries: readonly Entry[]): Entry[] {
  // As they come from the server they are in order already.
  const isInOrder = entries.every(
    (entry, index) => index === 0 || placeOf(entries[index - 1]) <= placeOf(entry),
  );
  if (isInOrder) return [...entries];
  return entries
    .map((entry, index) => ({ entry, index }))
    .sort((a, b) => placeOf(a.entry) - placeOf(b.entry) || a.index - b.index)
    .map(({ entry }) => entry);
}

interface Settled {
  readonly activeEntries: Entry[];
  readonly replaced: Map<string, Entry[]>;
  readonly conflicts: Conflict[];
}

/**
 * Which entries stand. An entry falls when a later entry supersedes or withdraws it; only withdrawing a correction brings
 * back what it corrected, correcting it once more does not. Corrections of one entry that stand beside each other are a
 * conflict, and all of them stand.
 */
export function resolveCorrections(ordered: readonly Entry[]): Settled {
  // In most jobs nothing was corrected yet.
  if (ordered.every(({ supersedes, withdraws }) => supersedes.length === 0 && withdraws === null))
    return { activeEntries: [...ordered], replaced: new Map(), conflicts: [] };
  const at = new Map(ordered.map((entry, index) => [entry.id, index]));
  const rivals = new Map<string, Entry[]>();
  ordered.forEach((entry, index) => {
    for (const target of [...entry.supersedes, ...(entry.withdraws === null ? [] : [entry.withdraws])]) {
      // Only what came before can be corrected: a reference forward or to itself counts for nothing.
      if ((at.get(target) ?? Infinity) < index) rivals.set(target, [...(rivals.get(target) ?? []), entry]);
    }
  });
  // From the last entry back: what came later is settled by then.
  const withdrawn = new Set<string>();
  /** What stands in the place of an entry that fell: of a correction corrected again the last. */
  const replaced = new Map<string, Entry[]>();
  const conflicts: Conflict[] = [];
  for (const target of [...ordered].reverse()) {
    const counting = (rivals.get(target.id) ?? []).filter((rival) => !withdrawn.has(rival.id));
    if (counting.length === 0) continue;
    if (counting.some((rival) => rival.withdraws === target.id)) withdrawn.add(target.id);
    const inItsPlace = [...new Set(counting.flatMap((rival) => replaced.get(rival.id) ?? [rival]))];
    replaced.set(target.id, inItsPlace);
    // A conflict further down the chain is told there, once.
    if (counting.length > 1 && inItsPlace.length > 1) conflicts.unshift({ target, rivals: inItsPlace });
  }
  // In server order, so that what an entry corrects has its place before the entry does.
  const places = new Map<string, number>();
  ordered.forEach((entry, index) => {
    const corrected = entry.supersedes.flatMap((target) => places.get(target) ?? []);
    places.set(entry.id, Math.min(index, ...corrected));
  });
  const activeEntries = ordered
    .filter((entry) => !replaced.has(entry.id))
    .map((entry) => ({ entry, place: places.get(entry.id) ?? 0, index: at.get(entry.id) ?? 0 }))
    .sort((a, b) => a.place - b.place || a.index - b.index)
    .map(({ entry }) => entry);
  return { activeEntries, replaced, conflicts };
}
