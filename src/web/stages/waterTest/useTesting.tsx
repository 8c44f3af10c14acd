import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { type JudgedTest, judgeTests, leakSettingOf, usualStiffness } from '../../../core/advice/leaks';
import { testNotYet, testPlanOf, waterStatement, type WaterStatement } from '../../../core/advice/tightness';
import type { LeakEvidence, LeakSetting, LeakTestPlan, PlannedStep } from '../../../core/craft/tightness';
import { useUsualOfCase } from '../../api/resources';
import { useJob } from '../../job/JobContext';
import { type LeakShown, useLeakJudgement } from './leakWorker';

/** What is on the form and not recorded yet. */
interface OnForm {
  readonly evidence: LeakEvidence;
  readonly temperatureC: number | null;
}

interface Testing {
  readonly plan: LeakTestPlan;
  readonly tests: readonly JudgedTest[];
  readonly water: WaterStatement;
  /** What this case gave for each bar before; null where nobody knows. */
  readonly usualUmPerBar: number | null;
  /** What a dry test is judged in here. */
  readonly setting: LeakSetting;
  readonly onForm: OnForm | null;
  readonly setOnForm: (on: OnForm | null) => void;
  /** What stands on the form shows. */
  readonly shows: LeakShown;
  /** The step of the plan that was taken into the form, with how often one was. */
  readonly taken: { readonly step: PlannedStep; readonly turn: number } | null;
  readonly take: (step: PlannedStep) => void;
  /** Why no test may be recorded yet; null where one may. */
  readonly notYet: ReturnType<typeof testNotYet>;
}

const Context = createContext<Testing | null>(null);

/** What the core says of testing the watch of this stage. */
export function useTesting(): Testing {
  const testing = useContext(Context);
  if (!testing) throw new Error('This stands outside the stage that tests.');
  return testing;
}

/** Works it out once for the whole stage, with what is on the form just now. */
export function TestingProvider({ children }: { readonly children: ReactNode }) {
  const { state, context, earlier } = useJob();
  const [onForm, setOnForm] = useState<OnForm | null>(null);
  const [taken, setTaken] = useState<Testing['taken']>(null);
  const tests = useMemo(() => judgeTests(state), [state]);
  const { data: ofType } = useUsualOfCase(state.caseType?.code ?? null);
  const usualUmPerBar = useMemo(
    () => usualStiffness(tests, earlier?.history ?? null, ofType ?? null),
    [tests, earlier, ofType],
  );
  const plan = useMemo(
    () => testPlanOf(state, context.policy, usualUmPerBar),
    [state, context.policy, usualUmPerBar],
  );
  const water = useMemo(() => waterStatement(state, context.shop.zone), [state, context.shop.zone]);
  const setting = leakSettingOf(
    {
      temperatureC: onForm?.temperatureC ?? null,
      testerNoiseUm: context.policy.dryTesterNoiseUm,
      usualUmPerBar,
    },
    state.facts,
  );
  const shows = useLeakJudgement(onForm?.evidence ?? null, setting);
  return (
    <Context
      value={{
        plan,
        tests,
        water,
        usualUmPerBar,
        setting,
        onForm,
        setOnForm,
        shows,
        taken,
        notYet: testNotYet(state),
        take: (step) => setTaken((before) => ({ step, turn: (before?.turn ?? 0) + 1 })),
      }}
    >
      {children}
    </Context>
  );
}
