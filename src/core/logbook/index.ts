export {
  type Entry,
  entryInWords,
  type EntryKind,
  type EntryOf,
  type JobFacts,
  type Payloads,
  reopens,
} from './entry';
export { clockApart } from './clocks';
export { elsewhereWords } from './elsewhere';
export { type OwnerDetails, type OwnerRevision, sameDetails, activeRevisions } from './owner';
export { MAIN_WELL, wellKey, wellOf } from './envelope';
export {
  AGREED_HOW,
  type ArrivePayloads,
  CHANGED_BY,
  COMPLAINTS,
  type Complaint,
  AVAILABILITY,
  MARK_KINDS,
  MARK_VIEWS,
  type MarkView,
  markPlace,
  meetsWater,
  notAvailable,
  REFER_REASONS,
  type Risk,
  RISKS,
  WEAR,
} from './facts/arrive';
export {
  ACCUMULATOR_WAYS,
  CELL_CONDITIONS,
  isLeaked,
  type CellPayloads,
  CHARGE_OUTCOMES,
  DROPPED,
  DROPPED_ENDS,
  OUT_GOES_TO,
  type UnderLight,
} from './facts/cell';
export {
  AT_FITTING,
  CAUSES,
  causesWords,
  type CheckPayloads,
  CROWN_SEEN,
  lastReading,
  leakWords,
  NOT_LOOKED,
  readingIn,
  readingsOf,
} from './facts/check';
export type { HandbackPayloads, Statement } from './facts/handback';
export type { IdentifyPayloads } from './facts/identify';
export type { LogbookPayloads } from './facts/logbook';
export {
  AS_FOUND,
  LEFT_BY,
  OPENED_HOW,
  OPENED_HOW_ASKED,
  type OpenPayloads,
  PHOTO_MARKS,
  PROTECTIONS,
  PROTECTIONS_ASKED,
  settingOf,
} from './facts/open';
export { crownOf } from './crown';
export { GASKET_PROFILES, GREASED_BY, SEAL_STATES, activeRing, type SealPayloads } from './facts/seal';
export type { Proofs, Run, SetPayloads } from './facts/set';
export { PART_OUTCOMES, type PartOff, type PartOutcome } from './facts/tray';
export {
  type Failed,
  failedProofs,
  proofsOf,
  ranBeforeClosing,
  runOf,
  seenRunning,
  type SeenRunning,
  unproved,
  watchedLongEnough,
} from './proofs';
export { fellBack } from './fellBack';
export { foldJob, type JobState, replacedBy, undoable } from './foldJob';
export {
  LOOSE_CELL_CAUTION,
  type LooseCell,
  freshLoose,
  looseCells,
  type LooseOutcome,
  mayCloseDay,
  movesBetween,
  nextToSettle,
  openDrops,
  outcomesOf,
  type StockMove,
  stockMoves,
} from './loose';
export { watchName, watchNameWithSerial } from './watchName';
export { type LyingOpen, lyingOpen, openedBeside, type Openness, openness, tellsOfInside } from './openness';
export {
  pairBack,
  partProofs,
  partsSettledAs,
  partsToOrder,
  insideContradictions,
  outcomesFor,
  requestWith,
  positionsToNote,
  sealsInside,
  wayBack,
} from './parts';
export {
  awaitedParts,
  hasCrown,
  isAfter,
  isOnRack,
  openParts,
  type StageProgress,
  type StageStatus,
} from './progress';
export type { JobContext, WellState } from './state';
export {
  type KeptRecord,
  LEAK_DONE,
  LEAK_SEATS,
  LEAK_SIDES,
  type LeakMark,
  leakMarkWords,
  type LeakSeat,
  type LeakSide,
  type TestPayloads,
} from './facts/waterTest';
