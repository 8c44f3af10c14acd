export type { Book, Catalogue } from './book';
export { drainNeeded, openBook } from './openBook';
export {
  CATALOGUE_KINDS,
  catalogueOf,
  type CatalogueKind,
  changedFields,
  judgeRecord,
  type RecordBodies,
  recordId,
  recordsIn,
  withoutRecord,
  withRecords,
} from './records';
export { type HeldRecords, holdRecords, type RecordChange } from './held';
