export { backMeasureFields } from './caseType';
export {
  type AnyField,
  type AnyFields,
  blankOf,
  schemasOf,
  shortLabel,
  unitOf,
  withLater,
} from '../describe';
export type { ImportNews, ImportReport, RecordRevision } from './news';
export { asToday, fieldsOfKind, RECORDS, recordWrite, unknownCalibreForm } from './records';
export {
  CATALOGUE_TABLES,
  type CatalogueTable,
  OWNER_COLUMN,
  readField,
  recordOf,
  silentFields,
  tablesOf,
  valueAt,
  writeField,
} from './tables';
