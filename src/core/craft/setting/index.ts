export {
  type AddedProof,
  FURTHER_PROOFS,
  OUTSIDE,
  type Outside,
  type Proof,
  PROOF_RESULTS,
  type ProofResult,
  type ProofStep,
  type ProvedMovement,
  proofsToMake,
  type WayBack,
  wayBackOf,
} from './proofs';
export {
  judgeRun,
  LEAST_WATCHED_S,
  RUN_PURPOSES,
  type RunPurpose,
  type RunVerdict,
  watchSeconds,
} from './run';
export { changeOverOf } from './night';
export {
  cautionsAtSetting,
  hasDateWheel,
  recipesAtSetting,
  settingAdvice,
  type SettingAdvice,
  type SetMovement,
} from './setting';
export { HALVES, type Half, planSetting, QUICK_SETS, type QuickSet, type SettingPlan } from './planSetting';
export { readShown, type TypedShown } from './readShown';
