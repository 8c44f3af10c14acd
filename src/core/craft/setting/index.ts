export {
  functionsToProve,
  judgeRun,
  type ProofStep,
  type RunVerdict,
  setsByHands,
  settingAdvice,
  watchSeconds,
} from './setting';
export { HALVES, type Half, planSetting, QUICK_SETS, type QuickSet, type SettingPlan } from './planSetting';
export { readShown, type TypedShown } from './readShown';
