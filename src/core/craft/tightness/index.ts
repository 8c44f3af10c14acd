export type { DriftBound } from './leakModel';
export { driftOf } from './drift';
export { judgeLeak, keepJudgement, residualsOf } from './judgeLeak';
export type { LeakEvidence, LeakJudgement, LeakSetting, LeakVerdict, TwoFigures } from './leakJudgement';
export {
  AMBIENT_BAR,
  freeVolume,
  type FreeVolume,
  insideAfter,
  LIMIT_AT_BAR,
  LIMIT_UG_PER_MIN,
  limitConstant,
  massFlow,
  ROOM_C,
  volumeContradiction,
} from './law';
export {
  type LeakTestPlan,
  planLeakTest,
  pressureInOtherUnits,
  pressureWords,
  type PlannedStep,
  type Testers,
  type ToBeTested,
} from './planLeakTest';
export { type Flow, flowFigure } from './flow';
export { mayEnd, outlookOf, type TestOutlook } from './outlook';
export { TEST_GUIDES, type TestStep } from './guides';
export { openTraceReader, type TraceReading, traceRowsOfJson } from './readTrace';
export {
  carriedBy,
  condense,
  type Held,
  heldOf,
  heldPhases,
  type LeakRecord,
  NO_PRESSURE_BAR,
  type Phase,
  phasesOf,
  POINTS_KEPT,
  pressedAt,
  recordContradictions,
} from './record';
export { apart, type Share, shareOf } from './share';
export { delimiterOf } from './traceColumns';
export { SETTLE_S, standardTest, watchTime } from './watchTime';
export {
  deflectionKept,
  judgeTest,
  pressureExcess,
  type PressureLimits,
  TEST_METHODS,
  TEST_OUTCOMES,
  type TestMethod,
  type TestOutcome,
  type TestVerdict,
  type TightnessTest,
} from './judgeTest';
