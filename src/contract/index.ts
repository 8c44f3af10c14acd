export {
  ENTRY_KINDS,
  type FactField,
  fieldLabel,
  labelIn,
  makeEntry,
  kindDefinition,
  readStored,
  newEntry,
  upcastNewEntry,
  upcastPayload,
  type KindDefinition,
  type NewEntry,
} from './entries/entries';
export { calendarDay } from './fields';
export * from './problems';
export * from './resources';
export * from './book';
export * from './devices';
export * from './jobFile';
export * from './policy';
export * from './stock';
