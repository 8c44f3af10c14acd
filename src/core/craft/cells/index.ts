export { chemistries } from './chemistry';
export { crossReference, mayBeFitted, MOST_CELL_V, wantedFromType } from './crossReference';
export { type CellQuery, FINDER_WITHIN_MM, type FoundCell, openFinder } from './finder';
export { lookAlikes, lookAlikesHere, looksLike } from './lookAlikes';
export { asMarked, readCellMarking } from './readCellMarking';
export { cellNamedIn, SUPPLIES, type Supply, SUPPLY_WORDS, type SupplySaid, supplySaid } from './supplySaid';
export { buildCellTable, type CellTable } from './table';
export type { CellReading, CellRow, CellType, CellWanted, Chemistry, CrossReference } from './types';
export {
  liesInWell,
  type MeasuredWell,
  saidTogether,
  weighWitnesses,
  type WitnessVerdict,
  WRONG_CELL_FOUND,
} from './witnesses';
