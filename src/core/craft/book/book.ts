import type { CellReading, CellRow, CellTable, CellType, CellWanted } from '../cells';
import type { CaseType } from '../cases';
import type { Gasket } from '../gaskets';
import type { Calibre, Maker, Well } from '../movements';
import type { ShopTools } from '../tools';

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
  readonly calibre: (id: string | null) => Calibre | null;
  readonly maker: (id: string | null) => Maker | null;
  readonly caseType: (id: string | null) => CaseType | null;
  /** The case type a reference names, however it is spaced or dashed. */
  readonly caseTypeOfReference: (reference: string) => CaseType | null;
  /** The rings that seal a case, by its code. */
  readonly gasketsOf: (caseCode: string) => readonly Gasket[];
  /** The calibres whose code holds what was typed, however it is spaced or dashed. */
  readonly calibresHolding: (typed: string) => readonly Calibre[];
  /** What a marking names: every fold asks for the same few again. */
  readonly readMarking: (marking: string) => CellReading;
  /** The one cell a code or marking names, or null where it names none for certain. */
  readonly cell: (code: string) => CellType | null;
  /** What a well of a calibre asks for, or null where the book's own cell code cannot be read. */
  readonly wanted: (calibre: Calibre, well: Well) => CellWanted | null;
}
