export { chemistries } from './chemistry';
export { crossReference, mayBeFitted, wantedFromType } from './crossReference';
export { type CellQuery, FINDER_WITHIN_MM, type FoundCell, openFinder } from './finder';
export { lookAlikes, lookAlikesHere, looksLike } from './lookAlikes';
export { readCellMarking } from './readCellMarking';
export { buildCellTable, type CellTable } from './table';
export type { CellReading, CellRow, CellType, CellWanted, Chemistry, CrossReference } from './types';
export { saidTogether, weighWitnesses, type WitnessVerdict } from './witnesses';
