export { judgeEntry, type Admission } from './admit';
export { MAIN_WELL, wellKey, wellOf } from './entry';
export type { Entry, EntryKind, EntryOf, JobFacts, PartOff, Payloads } from './entry';
export {
  AGREED_HOW,
  CHANGED_BY,
  COMPLAINTS,
  IN_HOUSE,
  MARK_KINDS,
  MARK_VIEWS,
  meetsWater,
  notInHouse,
  REFER_REASONS,
  RISKS,
  WEAR,
  type Complaint,
  type MarkKind,
  type MarkView,
  type Risk,
  type Wear,
} from './facts/arrive';
export {
  ACCUMULATOR_WAYS,
  CELL_CONDITIONS,
  CHARGE_OUTCOMES,
  type CellCondition,
  DROPPED,
  DROPPED_ENDS,
  OUT_GOES_TO,
} from './facts/cell';
export {
  AT_FITTING,
  CAUSES,
  causesWords,
  CROWN_SEEN,
  leakWords,
  LEAK_DECISIONS,
  LEAK_PLACES,
  type LeakPlace,
} from './facts/check';
export type { Statement } from './facts/handback';
export {
  AS_FOUND,
  LEFT_BY,
  OPENED_HOW,
  PHOTO_MARKS,
  PROTECTIONS,
  settingOf,
  type AsFound,
} from './facts/open';
export {
  type BackPairing,
  lyingOpen,
  type LyingOpen,
  openedBeside,
  pairBack,
  partProofs,
  partsSettledAs,
  partsToOrder,
  wayBack,
} from './parts';
export { GASKET_PROFILES, SEAL_STATES } from './facts/seal';
export { OUTSIDE, type Outside } from './facts/set';
export { deflectionKept, TEST_METHODS, type TestMethod } from './facts/test';
export { foldJob, settleEntries, undoable } from './foldJob';
export type { Conflict, JobContext, JobState, Signature, WellState } from './foldJob';
export { entryInWords, reopens } from './kinds';
export {
  LOOSE_CELL_CAUTION,
  looseCells,
  type LooseCell,
  mayCloseDay,
  movesBetween,
  openDrops,
  type LooseOutcome,
  outcomesOf,
  type StockMove,
  stockMoves,
} from './loose';
export { awaitedParts, openParts, type StageProgress, type StageStatus } from './progress';
