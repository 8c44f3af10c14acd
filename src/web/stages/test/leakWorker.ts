import { proxy, type Remote, wrap } from 'comlink';
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
import type { LeakWorker } from '../../workers/leak.worker';
import workerUrl from '../../workers/leak.worker?worker&url';

let running: Remote<LeakWorker> | null = null;

/** One worker for the page; started at the first question. */
function leakWorker(): Remote<LeakWorker> {
  running ??= wrap<LeakWorker>(new Worker(workerUrl, { type: 'module' }));
  return running;
}

/** Has the worker's code here, so that a leak is judged when the server is away. */
export async function fetchLeaks(): Promise<void> {
  const { ok } = await fetch(workerUrl);
  if (!ok) throw new Error('The code of the leak test cannot be had.');
}

/** Whether a test that runs will settle it in its time, worked out beside the page. */
export function outlookBeside(
  record: LeakRecord,
  setting: LeakSetting,
  watchS: number,
): Promise<TestOutlook> {
  return leakWorker().outlook(record, setting, watchS);
}

/** Reads a tester's file beside the page. */
export function readTrace(file: Blob, onRows: (rows: number) => void): Promise<TraceReading> {
  return leakWorker().readFile(file, proxy(onRows));
}

/** What a record or two figures show, worked out beside the page; null while it is, or where there is nothing to judge. */
export function useLeakJudgement(
  evidence: LeakEvidence | null,
  setting: LeakSetting,
): { readonly judgement: LeakJudgement | null; readonly busy: boolean } {
  const key = evidence === null ? '' : JSON.stringify([evidence, setting]);
  const [answer, setAnswer] = useState<{ key: string; judgement: LeakJudgement } | null>(null);
  useEffect(() => {
    if (evidence === null) return;
    let gone = false;
    void leakWorker()
      .judge(evidence, setting)
      .then((judgement) => {
        // The job that is folded with this test, once it is recorded, need not work it out again.
        keepJudgement(evidence, setting, judgement);
        if (!gone) setAnswer({ key, judgement });
      });
    return () => {
      gone = true;
    };
    // Evidence and setting are told apart by the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const judgement = answer !== null && answer.key === key && evidence !== null ? answer.judgement : null;
  return { judgement, busy: evidence !== null && judgement === null };
}

/** The fit through a record and what it leaves, worked out beside the page. */
export function useResiduals(record: LeakRecord, setting: LeakSetting): ReturnType<typeof residualsOf> {
  const [left, setLeft] = useState<ReturnType<typeof residualsOf>>(null);
  const key = JSON.stringify([record, setting]);
  useEffect(() => {
    let gone = false;
    void leakWorker()
      .residuals(record, setting)
      .then((found) => {
        if (!gone) setLeft(found);
      });
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return left;
}
