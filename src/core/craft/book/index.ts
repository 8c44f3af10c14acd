export type { Book, Catalogue } from './book';
export { drainNeeded, openBook } from './openBook';
export {
  CATALOGUE_KINDS,
  CATALOGUE_LISTS,
  type CatalogueKind,
  changedFields,
  judgeRecord,
  type RecordBodies,
  recordId,
} from './records';
