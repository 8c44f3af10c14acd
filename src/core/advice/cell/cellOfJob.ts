import type { Book } from '../../craft/book';
import { placeWants } from './goesIn';
import { lifeQuestion } from '../life';
import { serviceGain, type ServiceGain } from '../../craft/life';
import { fellBack, type JobState, readingIn, type WellState } from '../../logbook';
import { type Policy, priceInList, type Schools } from '../../craft/policy';
import { type Lot, type SupplierRecord, type WhatToFit, whatToFit } from '../../craft/stock';
import { type FittingGuide, fittingGuide, type GuidedMovement, type GuidedPlace } from '../../craft/fitting';
import { type AboveCell, type Calibre, openRevisions } from '../../craft/movements';
import { seenMovement } from '../identify';
import { supplyOf } from '../supply';
/** How a revision is told by its contact, or which revisions it may be. */
function contactWords(calibre: Calibre, revision: string | null): string {
  const open = openRevisions(calibre, revision);
  if (open.length > 0)
    return `Which revision is it? ${open.map(({ name, seenBy }) => `${name}: ${seenBy}`).join('; ')}.`;
  const own = calibre.revisions.find(({ name }) => name === revision);
  return own ? `Revision ${own.name}: ${own.seenBy}.` : '';
}

/**
 * The fitting guide of each place of a job’s movement, in their order; a danger stands at the first step that meets it.
 * A movement that is not in the book is guided by what was seen of it, and the guide asks for the rest.
 */
export function guidesOf(state: JobState, book: Book, schools: Schools): ReadonlyMap<string, FittingGuide> {
  const { calibre, facts } = state;
  const guides = new Map<string, FittingGuide>();
  const seen = calibre === null ? seenMovement(state, book) : null;
  const aboveCell = facts.above?.payload.above ?? calibre?.aboveCell ?? [];
  // A cell that stays in is not worked: what comes once, after the last cell, comes after the last that is.
  const lastWorked = state.wells.findLast(({ putBack }) => putBack === null) ?? state.wells.at(-1);
  for (const each of state.wells) {
    const { name, well, found } = each;
    const movement: GuidedMovement | null = calibre
      ? {
          ...calibre,
          coilsSeen: null,
          contactOfRevision: contactWords(calibre, facts.movement?.payload.revision ?? null),
        }
      : seen && { ...seen, recipes: [], coilsSeen: seen.coilCount, contactOfRevision: '' };
    const place: GuidedPlace | null =
      well ?? (seen && { xMm: 0, yMm: 0, heldBy: seen.heldBy, faceUp: null, pushDegrees: null });
    if (movement === null || place === null) continue;
    const cellCode = placeWants(state, each, book)?.wanted.code ?? null;
    const guide = fittingGuide({
      movement,
      place,
      above: aboveThis(state, each, aboveCell, lastWorked),
      notSeen: seen?.asks ?? [],
      cellDiameterMm: cellCode === null ? null : (book.cell(cellCode)?.diameterMm ?? null),
      schools,
      prints: facts.prints.map(({ payload }) => payload.text),
      fromFront: facts.back?.payload.kind === 'opens from the front',
      noneFound: found !== null && found.payload.marking === null,
      foundClean: found?.payload.condition === 'clean' || found?.payload.marking === null,
      further: guides.size > 0,
      last: each === lastWorked,
      ofPair: ofLatchedPair(state.wells, each),
      dangersNamed: [...guides.values()].flatMap(({ steps }) => steps.flatMap(({ danger }) => danger ?? [])),
    });
    guides.set(name, guide);
  }
  return guides;
}

/** A light module has a cell of its own and lies over the others. */
const isStacked = ({ well }: WellState): boolean => well?.heldBy === 'stacked light module';

/**
 * What is lifted before this cell is reached, and what is put back once it is in: what lies above all of them at the first and
 * the last that is worked; a light module, with its own cell in it, at the cells beneath it alone.
 */
function aboveThis(
  { wells }: Pick<JobState, 'wells'>,
  well: WellState,
  aboveCell: readonly AboveCell[],
  lastWorked: WellState | undefined,
): { readonly off: readonly AboveCell[]; readonly on: readonly AboveCell[] } {
  const beneath = wells.filter((each) => !isStacked(each));
  const stacked = beneath.length > 0 && beneath.length < wells.length;
  const over = stacked ? aboveCell.filter((each) => each !== 'light module') : aboveCell;
  const lastBeneath = beneath.findLast(({ putBack }) => putBack === null) ?? beneath.at(-1);
  return {
    off: [
      ...(well === wells[0] ? over : []),
      ...(stacked && well === beneath[0] ? (['light module'] as const) : []),
    ],
    on: [
      ...(well === lastWorked ? over : []),
      ...(stacked && well === lastBeneath ? (['light module'] as const) : []),
    ],
  };
}

/** Whether a well shares its latch with another, and which of the two it is: alike, in one circuit, held alike. */
function ofLatchedPair(wells: readonly WellState[], well: WellState): 'first' | 'second' | null {
  const pair = wells.filter((each) => inOneCircuit(each, well) && each.well?.heldBy === well.well?.heldBy);
  return pair.length !== 2 ? null : pair[0] === well ? 'first' : 'second';
}

/** Whether two places of the book take the same cell and feed the same. */
function inOneCircuit(a: WellState, b: WellState): boolean {
  const feeds = ({ well: place }: WellState): string => [...(place?.feeds ?? [])].sort().join();
  return a.well !== null && a.wanted !== null && a.wanted.code === b.wanted?.code && feeds(a) === feeds(b);
}

/** Whether the accumulator comes out: it did, or the last charge did not bring the watch to step normally, or not for long. */
export function accumulatorInQuestion({
  facts: { accumulator, charges },
  activeEntries,
}: Pick<JobState, 'facts' | 'activeEntries'>): boolean {
  const last = charges.at(-1);
  return (
    accumulator !== null ||
    (last !== undefined && last.payload.outcome !== 'steps normally') ||
    fellBack(activeEntries) !== null
  );
}

/** The places of a movement that take the same cell as this one, as the book has it or the witnesses say: a set, from one lot. */
export function setOf(state: JobState, well: WellState, book: Book): readonly WellState[] {
  const code = placeWants(state, well, book)?.wanted.code ?? null;
  return code === null
    ? [well]
    : state.wells.filter((each) => each === well || placeWants(state, each, book)?.wanted.code === code);
}

/**
 * The other cell of a pair in one circuit, once it is fitted: book-known places that take the same cell and feed the same.
 * The weaker of two unlike ones is driven backwards and leaks, so both are of one type and one lot. Null: no such pair.
 */
export function pairedWith(state: JobState, well: WellState): NonNullable<WellState['fitted']> | null {
  const other = state.wells.find(
    (each) => each.name !== well.name && each.fitted !== null && inOneCircuit(each, well),
  );
  return other?.fitted ?? null;
}

interface FitContext {
  readonly lots: readonly Lot[];
  readonly records: readonly SupplierRecord[];
  readonly book: Book;
  readonly policy: Pick<Policy, 'extras'>;
  readonly day: string;
  /** The owner’s own word that an alkaline may replace silver oxide. */
  readonly alkalineAgreed: boolean;
}

/** What to fit in one place of a job; null where nobody knows what it takes, or something bars every primary cell. */
export function fitForWell(
  state: JobState,
  well: WellState,
  { lots, records, book, policy, day, alkalineAgreed }: FitContext,
): WhatToFit | null {
  const wants = placeWants(state, well, book);
  if (wants === null || supplyOf(state, book).againstPrimary.length > 0) return null;
  const set = setOf(state, well, book);
  const other = set.find((each) => each !== well && each.fitted !== null);
  return whatToFit({
    wanted: wants.wanted,
    lots,
    table: book.cellTable,
    cellOf: book.cell,
    day,
    alkalineAgreed,
    records,
    together: other ? 1 : set.length,
    sameLotAs: other?.fitted?.payload.lotId ?? null,
    setHolds: pairedWith(state, well)?.payload ?? null,
    priceOf: (item) => priceInList(policy, item),
  });
}

/** What a service would gain for the cell, where a current was measured and the book has a typical one. */
export function serviceGainOf(
  state: JobState,
  well: WellState,
  cellCode: string,
  book: Book,
  today: string,
): ServiceGain | null {
  const measured = readingIn(state.facts, 'currentUA', well.name)?.payload.value ?? null;
  const typical =
    well.well?.typicalUA ?? (well.name === state.wells[0]?.name ? state.calibre?.typicalUA : null) ?? null;
  const question = lifeQuestion(state, well, cellCode, null, today, book);
  if (measured === null || typical === null || typeof question === 'string' || measured <= typical)
    return null;
  return serviceGain(question, measured, typical);
}
