import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';
import { diagnosesOf, measureOfTest } from '../../../core/advice/health';
import type { Diagnosis, Measure, NextTest } from '../../../core/craft/health';
import { type JobState, readingIn } from '../../../core/logbook';
import { useJob } from '../../job/JobContext';

export interface Diagnosed {
  /** The cell it is about, of several. */
  readonly well: string | null;
  readonly diagnosis: Diagnosis;
  /** The test the lamp asks for: the next, or the one that is being answered. */
  readonly asked: NextTest | null;
}

interface Diagnoses {
  readonly diagnoses: readonly Diagnosed[];
  /** Keeps a test asked for while its figure is typed, whatever is recorded elsewhere meanwhile. */
  readonly hold: (well: string | null, test: NextTest) => void;
  /** Readings whose form stands in the lamp, and not on the mat. */
  readonly inLamp: readonly Measure[];
}

const Context = createContext<Diagnoses | null>(null);

export function useDiagnoses(): Diagnoses {
  const diagnoses = useContext(Context);
  if (!diagnoses) throw new Error('Nothing is diagnosed here.');
  return diagnoses;
}

/** What the service asks for is read on the mat, and any other test where the lamp asks for it. */
export function readInLamp({ required }: Pick<JobState, 'required'>, test: NextTest): Measure | null {
  const measure = measureOfTest(test);
  const asked: readonly string[] = required;
  return measure === null || asked.includes(`check.${measure}`) ? null : measure;
}

/** What ails the watch, each of its cells by itself once they were read apart, and the tests the lamp asks for. */
export function DiagnosesProvider({ children }: { readonly children: ReactNode }) {
  const { state, book, context } = useJob();
  const [held, hold] = useState<{ readonly well: string | null; readonly test: NextTest } | null>(null);
  const value = useMemo<Diagnoses>(() => {
    const isOpen = (well: string | null, test: NextTest): boolean => {
      const measure = measureOfTest(test);
      return measure !== null && readingIn(state.facts, measure, well ?? undefined) === undefined;
    };
    const diagnoses = diagnosesOf(state, book, context.policy).map((each): Diagnosed => ({
      ...each,
      asked:
        held !== null && held.well === each.well && isOpen(each.well, held.test)
          ? held.test
          : each.diagnosis.nextTest,
    }));
    return {
      diagnoses,
      hold: (well, test) => hold({ well, test }),
      inLamp: diagnoses.flatMap(({ asked }) => (asked && readInLamp(state, asked)) ?? []),
    };
  }, [state, book, context.policy, held]);
  return <Context value={value}>{children}</Context>;
}
