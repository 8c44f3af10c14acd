import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import {
  keepJudgement,
  type LeakEvidence,
  type LeakJudgement,
  type LeakRecord,
  type LeakSetting,
  type residualsOf,
  type TestOutlook,
  type TraceReading,
} from '../../../core/craft/tightness';
import { beside } from '../../api/beside';
import type { LeakWorker } from '../../workers/leak.worker';
import workerUrl from '../../workers/leak.worker?worker&url';

const leaks = beside<LeakWorker>(workerUrl, 'The judgement of the leak');

/** Has the worker's code here, so that a leak is judged when the server is away. */
export const fetchLeaks = leaks.fetchCode;

/** Whether a test that runs will settle it in its time, worked out beside the page. */
export function outlookBeside(
  record: LeakRecord,
  setting: LeakSetting,
  watchS: number,
): Promise<TestOutlook> {
  return leaks.ask((worker) => worker.outlook(record, setting, watchS));
}

/** Reads a tester's file beside the page. */
export function readTrace(file: Blob, onRows: (rows: number) => void): Promise<TraceReading> {
  return leaks.ask<TraceReading>(async (worker) => worker.readFile(file, proxy(onRows)));
}

export interface LeakShown {
  /** Null while it is worked out, where that broke off, or where there is nothing to judge. */
  readonly judgement: LeakJudgement | null;
  readonly busy: boolean;
  /** Whether it could not be worked out here. */
  readonly broke: boolean;
  readonly again: () => void;
}

/** What a record or two figures show, worked out beside the page. */
export function useLeakJudgement(evidence: LeakEvidence | null, setting: LeakSetting): LeakShown {
  const [round, setRound] = useState(0);
  const key = evidence === null ? '' : JSON.stringify([round, evidence, setting]);
  const [answer, setAnswer] = useState<{ key: string; judgement: LeakJudgement | null } | null>(null);
  useEffect(() => {
    if (evidence === null) return;
    let gone = false;
    void leaks
      .ask((worker) => worker.judge(evidence, setting))
      .then(
        (judgement) => {
          // The job that is folded with this test, once it is recorded, need not work it out again.
          keepJudgement(evidence, setting, judgement);
          if (!gone) setAnswer({ key, judgement });
        },
        () => {
          if (!gone) setAnswer({ key, judgement: null });
        },
      );
    return () => {
      gone = true;
    };
    // Evidence and setting are told apart by the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const answered = answer !== null && answer.key === key && evidence !== null;
  const judgement = answered ? answer.judgement : null;
  return {
    judgement,
    busy: evidence !== null && !answered,
    broke: answered && judgement === null,
    again: () => setRound((before) => before + 1),
  };
}

/** The fit through a record and what it leaves, worked out beside the page. */
export function useResiduals(record: LeakRecord, setting: LeakSetting): ReturnType<typeof residualsOf> {
  const [left, setLeft] = useState<ReturnType<typeof residualsOf>>(null);
  const key = JSON.stringify([record, setting]);
  useEffect(() => {
    let gone = false;
    void leaks
      .ask((worker) => worker.residuals(record, setting))
      .then(
        (found) => {
          if (!gone) setLeft(found);
        },
        // Without it the figure shows the record alone.
        () => undefined,
      );
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return left;
}
