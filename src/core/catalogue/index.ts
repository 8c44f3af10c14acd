import {
  buildCellTable,
  type CellRow,
  type CellTable,
  type CellType,
  type CellWanted,
  readCellMarking,
  wantedFromType,
} from '../cells';
import type { Gasket } from './records';
import type { ShopTools } from '../tools';
import { bareCode, type Calibre, type CaseType, type Maker, type Well } from '../movements';

export {
  CATALOGUE_KINDS,
  CATALOGUE_LISTS,
  cellRowId,
  changedFields,
  judgeRecord,
  recordId,
  type CatalogueKind,
  type Gasket,
  type RecordBodies,
  type RecordProblem,
} from './records';

/** The book of the shop at one revision, its tool board with it. */
export interface Catalogue extends ShopTools {
  readonly revision: number;
  readonly cells: readonly CellRow[];
  readonly makers: readonly Maker[];
  readonly calibres: readonly Calibre[];
  readonly caseTypes: readonly CaseType[];
  readonly gaskets: readonly Gasket[];
}

/** A catalogue with its look-ups built once. */
export interface Book extends Catalogue {
  readonly cellTable: CellTable;
  calibre(id: string | null): Calibre | null;
  maker(id: string | null): Maker | null;
  caseType(id: string | null): CaseType | null;
  /** The case type a reference names, however it is spaced or dashed. */
  caseTypeOfReference(reference: string): CaseType | null;
  /** The rings that seal a case, by its code. */
  gasketsOf(caseCode: string): readonly Gasket[];
  /** The calibres whose code holds what was typed, however it is spaced or dashed. */
  calibresHolding(typed: string): readonly Calibre[];
  /** The one cell a code or marking names, or null where it names none for certain. */
  cell(code: string): CellType | null;
  /** What a well of a calibre asks for, or null where the book's own cell code cannot be read. */
  wanted(calibre: Calibre, well: Well): CellWanted | null;
}

/** Whether light, alarm or chronograph draw on the cell, which asks for high drain. */
export function drainNeeded(calibre: Pick<Calibre, 'functions'>): 'low' | 'high' {
  const heavy = ['light', 'alarm', 'chronograph'] as const;
  return heavy.some((each) => calibre.functions.includes(each)) ? 'high' : 'low';
}

/** Builds the look-ups of a catalogue: by id, and of cells by any name. */
export function openBook(catalogue: Catalogue): Book {
  const cellTable = buildCellTable(catalogue.cells);
  const byId = <T extends { readonly id: string }>(
    items: readonly T[],
  ): ((id: string | null) => T | null) => {
    const map = new Map(items.map((item) => [item.id, item]));
    return (id) => (id === null ? null : (map.get(id) ?? null));
  };
  const casesByCode = new Map(catalogue.caseTypes.map((type) => [bareCode(type.code), type]));
  const cell = (code: string): CellType | null => {
    const known = cellTable.byName.get(code.toUpperCase());
    if (known) return known;
    const reading = readCellMarking(code, cellTable);
    return reading.verdict === 'read' ? reading.cell : null;
  };
  return {
    ...catalogue,
    cellTable,
    calibre: byId(catalogue.calibres),
    maker: byId(catalogue.makers),
    caseType: byId(catalogue.caseTypes),
    caseTypeOfReference: (reference) => casesByCode.get(bareCode(reference)) ?? null,
    gasketsOf: (caseCode) =>
      catalogue.gaskets.filter((ring) =>
        ring.caseCodes.some((code) => bareCode(code) === bareCode(caseCode)),
      ),
    calibresHolding: (typed) => {
      const wanted = bareCode(typed);
      return wanted === '' ? [] : catalogue.calibres.filter((each) => bareCode(each.code).includes(wanted));
    },
    cell,
    wanted: (calibre, well) => {
      const type = cell(well.cellCode);
      return type
        ? wantedFromType(type, { drain: drainNeeded(calibre), otherHeightsMm: well.otherHeightsMm })
        : null;
    },
  };
}
