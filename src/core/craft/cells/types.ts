import type { Judged } from '../judgement';

export type Chemistry = 'silver-oxide' | 'alkaline' | 'lithium' | 'mercury' | 'zinc-air' | 'accumulator';

/** `both`: a label that names the low and the high drain cell; `unstated`: a size name alone; `none`: no such class. */
export type Drain = 'low' | 'high' | 'both' | 'unstated' | 'none';

/** One line of the standard cell table: one size in one chemistry family. */
export interface CellRow {
  readonly chemistry: 'silver-oxide' | 'lithium';
  readonly iec: string;
  readonly diameterMm: number;
  readonly heightMm: number;
  readonly tradeLow: string;
  readonly tradeHigh: string;
  readonly numberLow: string;
  readonly numberHigh: string;
  readonly alkaline: string;
  readonly card: string;
  readonly capacityMinMAh: number;
  readonly capacityMaxMAh: number;
}

/** A type of cell that can lie in a hand: what a name on a label turns into. */
export interface CellType {
  /** The name this program calls it by. */
  readonly code: string;
  readonly chemistry: Chemistry;
  readonly drain: Drain;
  readonly nominalV: number;
  /** Null where a name gives no size and the table knows none. */
  readonly diameterMm: number | null;
  readonly heightMm: number | null;
  readonly capacityMinMAh: number | null;
  readonly capacityMaxMAh: number | null;
  /** The capacity is a share of the silver cell's, not a printed figure. */
  readonly capacityEstimated: boolean;
  /** Every name it goes by. */
  readonly names: readonly string[];
  /** False where the size was worked out from the name alone. */
  readonly inTable: boolean;
}

/** What a place in a movement asks for. */
export interface CellWanted {
  readonly code: string;
  readonly chemistry: Chemistry;
  /** High where light, alarm or chronograph draw from the cell. */
  readonly drain: 'low' | 'high' | 'none';
  readonly nominalV: number;
  readonly diameterMm: number;
  readonly heightMm: number;
  /** Further heights the calibre is made for. */
  readonly otherHeightsMm: readonly number[];
  readonly place: 'primary' | 'rechargeable';
}

/** How sure one name on a label is: in the table, only a size spelt by it, with places nobody can read, or not read. */
export type Sureness = 'table' | 'size from the name' | 'half legible' | 'rechargeable' | 'not read';

/** One name of a label as it was read. */
export interface NameOnLabel {
  readonly text: string;
  readonly sure: Sureness;
  /** What it may name: one cell where it was read, several where it is half legible. */
  readonly cells: readonly CellType[];
}

interface ReadLabel {
  readonly names: readonly NameOnLabel[];
  /** What could not be read of it, or is not known, may be the name of a rechargeable cell. */
  readonly mayBeRechargeable: boolean;
}

export type CellReading = ReadLabel &
  (
    | (Judged<'read'> & {
        readonly cell: CellType;
        readonly sure: 'table' | 'size from the name';
        /** Cells of the table a name that is not in it may be a slip for. */
        readonly near: readonly CellType[];
      })
    | (Judged<'ambiguous'> & { readonly alternatives: readonly CellType[] })
    | (Judged<'rechargeable'> & { readonly prefix: string })
    | (Judged<'asks'> & { readonly near: readonly CellType[] })
    | (Judged<'not read'> & { readonly near: readonly CellType[] })
  );

export type CrossReference = Judged<'equal' | 'accepted' | 'nearly' | 'never'>;
