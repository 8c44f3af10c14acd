export { chemistries } from './chemistry';
export { crossReference, mayBeFitted, wantedFromType } from './crossReference';
export { type CellFinder, type CellQuery, FINDER_WITHIN_MM, type FoundCell, openFinder } from './finder';
export { lookAlikes, type LookAlikes, lookAlikesHere, looksLike, type LookAlike } from './lookAlikes';
export { readCellMarking } from './readCellMarking';
export { buildCellTable, sizeFromDigits, type CellTable } from './table';
export type {
  CellReading,
  NameOnLabel,
  CellRow,
  CellType,
  CellWanted,
  Chemistry,
  CrossReference,
  Drain,
} from './types';
export {
  liesInWell,
  type MeasuredWell,
  weighWitnesses,
  WITNESSES,
  type WitnessKind,
  type WitnessVerdict,
} from './witnesses';
