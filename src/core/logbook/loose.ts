import { deepEqual } from 'fast-equals';
import type { Entry, EntryKind, JobFacts, Payloads } from './entry';
import { wellOf } from './envelope';
import type { CellDropped, CellOut } from './facts/cell';
import type { WellState } from './state';

/** Shown wherever a cell lies loose or was dropped. */
export const LOOSE_CELL_CAUTION =
  'A loose cell can short and burn. If a child or an animal swallows it, it can kill within hours. Call the emergency services at once and follow local guidance.';

/** A cell of a job that lies loose: out of a watch or a blister, and neither in a watch, a lot, the bin nor a hand. */
export interface LooseCell {
  /** What it is called: the marking of an old one, the name of a fresh one. */
  readonly marking: string;
  readonly kind: 'old' | 'fresh';
  readonly well: string;
  /** The entry that took it out. */
  readonly entryId: string;
  /** Missing: it was dropped and not found yet. */
  readonly dropped: boolean;
}

/** Dropped cells nobody has found yet and nobody above was told of. */
export function openDrops(facts: Readonly<JobFacts>): readonly CellDropped[] {
  return [...facts.dropped.values()].filter(({ settled }) => settled === null);
}

/** Whether a cell of a well was dropped, not found, and somebody above was told. */
export function escalated(
  facts: Readonly<JobFacts>,
  well: string,
  what: CellDropped['dropped']['payload']['what'],
): boolean {
  return [...facts.dropped.values()].some(
    ({ dropped, settled }) =>
      settled?.payload.outcome === 'escalated' && dropped.payload.what === what && wellOf(dropped) === well,
  );
}

type Fitted = Extract<Entry, { kind: 'cell.fitted' | 'cell.accumulator' }>;

function uses(fitted: Fitted, out: CellOut['out']): boolean {
  const isKit = fitted.kind === 'cell.accumulator';
  const { lotId } = out.payload;
  return (
    (isKit || wellOf(fitted) === wellOf(out)) &&
    fitted.payload.lotId === lotId &&
    // One lot holds one kind of thing, whatever it was called.
    (lotId !== null || (isKit ? fitted.payload.kitCode : fitted.payload.cellCode) === out.payload.cellCode)
  );
}

/** What became of a fresh cell that was out of its blister and of which nobody said where it went. */
interface Fate {
  readonly is: 'fitted' | 'dropped' | 'reported' | 'loose';
  /** The fitting it went into, or the drop; null while it lies loose. */
  readonly by: string | null;
}

/**
 * What became of each fresh cell or kit out of its blister, as things went: a fitting takes the first of the same lot and
 * well that lies loose, or of the same name where neither came from the stock; a drop takes the one taken out last. Each
 * cell goes one way, each fitting takes one cell. By the id of the out entry, those left out that were settled by name.
 */
function fatesOf(facts: Readonly<JobFacts>): ReadonlyMap<string, Fate> {
  const outs = [...facts.cellsOut.values()].filter(({ settled }) => settled === null);
  const fates = new Map<string, Fate>(outs.map(({ out }) => [out.id, { is: 'loose', by: null }]));
  const free = (at: string): CellOut[] =>
    outs.filter(({ out }) => fates.get(out.id)?.is === 'loose' && out.occurredAt <= at);
  const drops = [...facts.dropped.values()].filter(
    ({ dropped, settled }) => dropped.payload.what === 'a fresh cell' && settled?.payload.outcome !== 'found',
  );
  const events = [
    ...facts.fittings.map((fitted) => ({ at: fitted.occurredAt, fitted, drop: null })),
    ...drops.map((drop) => ({ at: drop.dropped.occurredAt, fitted: null, drop })),
  ].sort((a, b) => a.at.localeCompare(b.at));
  for (const { at, fitted, drop } of events) {
    const taken = fitted
      ? free(at).find(({ out }) => uses(fitted, out))
      : free(at).findLast(({ out }) => drop && wellOf(out) === wellOf(drop.dropped));
    if (!taken) continue;
    fates.set(
      taken.out.id,
      fitted
        ? { is: 'fitted', by: fitted.id }
        : { is: drop.settled === null ? 'dropped' : 'reported', by: drop.dropped.id },
    );
  }
  return fates;
}

/** Fresh cells out of their blister and neither fitted nor settled. */
export function freshLoose(facts: Readonly<JobFacts>): readonly (CellOut & { readonly dropped: boolean })[] {
  const fates = fatesOf(facts);
  return [...facts.cellsOut.values()].flatMap((cell) => {
    const fate = fates.get(cell.out.id)?.is;
    return fate === 'loose' || fate === 'dropped' ? [{ ...cell, dropped: fate === 'dropped' }] : [];
  });
}

/** Cells of a job that lie loose, old and fresh. */
export function looseCells(job: {
  readonly facts: Readonly<JobFacts>;
  readonly wells: readonly WellState[];
}): readonly LooseCell[] {
  const { facts, wells } = job;
  const drops = openDrops(facts);
  return [
    ...wells.flatMap(({ name, found, putBack, oldSettled }): LooseCell[] =>
      found !== null &&
      found.payload.marking !== null &&
      putBack === null &&
      oldSettled === null &&
      !escalated(facts, name, 'the old cell')
        ? [
            {
              marking: found.payload.marking,
              kind: 'old',
              well: name,
              entryId: found.id,
              dropped: drops.some(
                ({ dropped }) => wellOf(dropped) === name && dropped.payload.what === 'the old cell',
              ),
            },
          ]
        : [],
    ),
    ...freshLoose(facts).map(({ out, dropped }): LooseCell => ({
      marking: out.payload.cellCode,
      kind: 'fresh',
      well: wellOf(out),
      entryId: out.id,
      dropped,
    })),
  ];
}

/** What became of a loose cell, and the fact that says so. */
export type LooseOutcome = {
  [K in Extract<EntryKind, 'cell.old-settled' | 'cell.out-settled' | 'cell.dropped'>]: {
    readonly words: string;
    readonly kind: K;
    readonly payload: Payloads[K];
  };
}[Extract<EntryKind, 'cell.old-settled' | 'cell.out-settled' | 'cell.dropped'>];

/**
 * What may be said of a loose cell, with the fact that records each: taped and binned, with its owner, back in its lot,
 * or missed. Nothing of a dropped one: it is found or told of first. `missed` says when nobody had it.
 */
export function outcomesOf(cell: LooseCell, missed: string): readonly LooseOutcome[] {
  if (cell.dropped) return [];
  const lost: LooseOutcome = {
    words: 'Missing',
    kind: 'cell.dropped',
    payload: { what: cell.kind === 'old' ? 'the old cell' : 'a fresh cell', where: missed },
  };
  if (cell.kind === 'old')
    return [
      { words: 'Taped, in the bin', kind: 'cell.old-settled', payload: { taped: true, to: 'spent bin' } },
      { words: 'Taped, with its owner', kind: 'cell.old-settled', payload: { taped: true, to: 'owner' } },
      lost,
    ];
  const settled = (words: string, to: Payloads['cell.out-settled']['to']): LooseOutcome => ({
    words,
    kind: 'cell.out-settled',
    payload: { outEntryId: cell.entryId, to },
  });
  return [settled('Back in its lot', 'back in its lot'), settled('Taped, in the bin', 'spent bin'), lost];
}

/** Whether a day may close: with no button cell loose. Source: the shop rule that every cell taken out is somewhere. */
export function mayCloseDay(
  loose: readonly { readonly ticket: string; readonly cell: LooseCell }[],
):
  | { readonly verdict: 'close' }
  | { readonly verdict: 'cells are loose'; readonly reasons: readonly string[] } {
  if (loose.length === 0) return { verdict: 'close' };
  const many = loose.length === 1 ? 'One button cell is' : `${loose.length} button cells are`;
  return {
    verdict: 'cells are loose',
    reasons: [
      `${many} unaccounted for: ${loose.map(({ ticket, cell }) => `${cell.marking} of ${ticket}`).join(', ')}.`,
    ],
  };
}

/** What one fact moves: one thing out of a lot or back into it, and a spent cell into the bin. */
export interface StockMove {
  readonly lotId: string | null;
  readonly delta: -1 | 0 | 1;
  readonly spent: 0 | 1;
  /** The fact whose taking it gives back: where that took nothing, nothing comes back. */
  readonly givesBack: string | null;
}

/**
 * What the standing facts of a job move in the stock, by fact. A fitting from a lot takes one, unless one of that lot
 * is out of its blister for this well: then that was the taking, and each such cell goes into one fitting. So delivered is what
 * is on the shelf, fitted, loose, binned and given away, for every lot.
 */
export function stockMoves({
  activeEntries,
  facts,
}: {
  readonly activeEntries: readonly Entry[];
  readonly facts: Readonly<JobFacts>;
}): ReadonlyMap<string, StockMove> {
  const moves = new Map<string, StockMove>();
  const move = (id: string, made: Partial<StockMove>): void =>
    void moves.set(id, { lotId: null, delta: 0, spent: 0, givesBack: null, ...made });
  const take = (id: string, lotId: string | null): void => {
    if (lotId !== null) move(id, { lotId, delta: -1 });
  };
  const used = new Set([...fatesOf(facts).values()].flatMap(({ is, by }) => (is === 'fitted' ? [by] : [])));
  for (const fact of activeEntries) {
    switch (fact.kind) {
      case 'cell.out':
        take(fact.id, fact.payload.lotId);
        break;
      case 'cell.accumulator':
      case 'cell.fitted':
        if (!used.has(fact.id)) take(fact.id, fact.payload.lotId);
        break;
      case 'seal.gasket':
        if (fact.payload.state === 'renewed') take(fact.id, fact.payload.lotId);
        break;
      case 'cell.old-settled':
        if (fact.payload.to === 'spent bin') move(fact.id, { spent: 1 });
        break;
      case 'cell.out-settled': {
        const out = [...facts.cellsOut.values()].find(({ settled }) => settled?.id === fact.id)?.out;
        if (!out) break;
        if (fact.payload.to === 'spent bin') move(fact.id, { spent: 1 });
        else if (out.payload.lotId !== null)
          move(fact.id, { lotId: out.payload.lotId, delta: 1, givesBack: out.id });
      }
    }
  }
  return moves;
}

/** The moves that two states of a job differ by: what is undone, and what is done. */
export function movesBetween(
  before: ReadonlyMap<string, StockMove>,
  after: ReadonlyMap<string, StockMove>,
): { readonly undone: readonly string[]; readonly done: readonly (readonly [string, StockMove])[] } {
  const same = (id: string): boolean => deepEqual(before.get(id), after.get(id));
  return {
    undone: [...before.keys()].filter((id) => !same(id)),
    done: [...after].filter(([id]) => !same(id)),
  };
}

/** The first place that was given another cell, and of whose old one nobody said where it went. */
export function nextToSettle(wells: readonly WellState[]): WellState | null {
  return (
    wells.find(
      ({ found, fitted, putBack, oldSettled }) =>
        found !== null &&
        found.payload.marking !== null &&
        fitted !== null &&
        putBack === null &&
        oldSettled === null,
    ) ?? null
  );
}
