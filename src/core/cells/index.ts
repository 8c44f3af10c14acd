export { chemistries } from './chemistry';
export { crossReference, mayBeFitted, wantedFromType } from './crossReference';
export { lookAlikes, looksLike, type LookAlike } from './lookAlikes';
export { readCellMarking } from './readCellMarking';
export { buildCellTable, sizeFromDigits, type CellTable } from './table';
export type { CellReading, CellRow, CellType, CellWanted, Chemistry, CrossReference, Drain } from './types';
