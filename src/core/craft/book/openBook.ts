import type { Book, Catalogue } from './book';
import { buildCellTable, type CellReading, type CellType, readCellMarking, wantedFromType } from '../cells';
import { bareCode, type Calibre, type Well } from '../movements';

/**
 * Whether light, alarm or chronograph draw on a cell, which asks for high drain: those the well feeds, where the book says
 * which, else any the movement has.
 */
export function drainNeeded(
  { functions }: Pick<Calibre, 'functions'>,
  { feeds }: Pick<Well, 'feeds'> = { feeds: [] },
): 'low' | 'high' {
  const heavy = ['light', 'alarm', 'chronograph'] as const;
  const drawing = feeds.length > 0 ? feeds : functions;
  return heavy.some((each) => drawing.includes(each)) ? 'high' : 'low';
}

/** Worked out when it is asked for first: of a book of thousands a page asks for few look-ups. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** So many markings of a book are kept read. */
const MOST_MARKINGS = 500;

/** Builds the look-ups of a catalogue: by id, and of cells by any name. */
export function openBook(catalogue: Catalogue): Book {
  const cellTable = buildCellTable(catalogue.cells);
  const byId = <T extends { readonly id: string }>(
    items: readonly T[],
  ): ((id: string | null) => T | null) => {
    const map = once(() => new Map(items.map((item) => [item.id, item])));
    return (id) => (id === null ? null : (map().get(id) ?? null));
  };
  const casesByCode = once(() => new Map(catalogue.caseTypes.map((type) => [bareCode(type.code), type])));
  const markings = new Map<string, CellReading>();
  const readMarking = (marking: string): CellReading => {
    const known = markings.get(marking);
    if (known) return known;
    const reading = readCellMarking(marking, cellTable);
    if (markings.size >= MOST_MARKINGS) markings.clear();
    markings.set(marking, reading);
    return reading;
  };
  const cell = (code: string): CellType | null => {
    const known = cellTable.byName.get(code.toUpperCase());
    if (known) return known;
    const reading = readMarking(code);
    return reading.verdict === 'read' ? reading.cell : null;
  };
  return {
    ...catalogue,
    cellTable,
    calibre: byId(catalogue.calibres),
    maker: byId(catalogue.makers),
    caseType: byId(catalogue.caseTypes),
    caseTypeOfReference: (reference) => casesByCode().get(bareCode(reference)) ?? null,
    gasketsOf: (caseCode) =>
      catalogue.gaskets.filter((ring) =>
        ring.caseCodes.some((code) => bareCode(code) === bareCode(caseCode)),
      ),
    calibresHolding: (typed) => {
      const wanted = bareCode(typed);
      return wanted === '' ? [] : catalogue.calibres.filter((each) => bareCode(each.code).includes(wanted));
    },
    readMarking,
    cell,
    wanted: (calibre, well) => {
      const type = cell(well.cellCode);
      return type
        ? wantedFromType(type, { drain: drainNeeded(calibre, well), otherHeightsMm: well.otherHeightsMm })
        : null;
    },
  };
}
