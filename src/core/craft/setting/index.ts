export {
  functionsToProve,
  judgeRun,
  type ProofStep,
  type RunVerdict,
  settingAdvice,
  watchSeconds,
} from './setting';
