import { proxy, type Remote, wrap } from 'comlink';
import { startTransition, useEffect, useId, useState } from 'react';
import type { LifeForecast, LifeInput } from '../../../core/craft/life';
import type { LifeWorker } from '../../workers/life.worker';
import workerUrl from '../../workers/life.worker?worker&url';

let running: Remote<LifeWorker> | null = null;

/** One worker for the page; started at the first question. */
function lifeWorker(): Remote<LifeWorker> {
  running ??= wrap<LifeWorker>(new Worker(workerUrl, { type: 'module' }));
  return running;
}

/** Has the worker's code here, so that a life is forecast when the server is away. */
export async function fetchForecasts(): Promise<void> {
  const { ok } = await fetch(workerUrl);
  if (!ok) throw new Error('The code of the forecast cannot be had.');
}

export interface Forecasts {
  /** Null while they are drawn, or once they were stopped. */
  readonly lives: readonly LifeForecast[] | null;
  /** How far the drawing is; null when none is. */
  readonly progress: number | null;
  readonly stop: () => void;
  readonly again: () => void;
}

/** Forecasts drawn in a worker whenever the questions change; told apart by `key`, which changes with them. */
export function useForecasts(inputs: readonly LifeInput[], key: string): Forecasts {
  const card = useId();
  const [round, setRound] = useState(0);
  const asked = `${round} ${key}`;
  const [answer, setAnswer] = useState<{ asked: string; lives: readonly LifeForecast[] | null } | null>(null);
  const [share, setShare] = useState<{ asked: string; share: number } | null>(null);
  useEffect(() => {
    if (inputs.length === 0) return;
    let gone = false;
    void lifeWorker()
      .forecast(
        card,
        inputs,
        proxy((drawn: number) => {
          if (!gone) setShare({ asked, share: drawn });
        }),
      )
      .then((lives) => {
        // Table and chart are drawn in pieces, as the page has time.
        // What was stopped meanwhile stays so.
        if (!gone)
          startTransition(() => setAnswer((before) => (before?.asked === asked ? before : { asked, lives })));
      });
    return () => {
      gone = true;
    };
    // The inputs are told apart by what was asked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked, card]);
  const answered = answer?.asked === asked;
  return {
    lives: answered ? answer.lives : null,
    progress: answered ? null : share?.asked === asked ? share.share : 0,
    stop: () => {
      // At once, though its worker may still be on its way.
      setAnswer({ asked, lives: null });
      void lifeWorker().stop(card);
    },
    again: () => setRound((before) => before + 1),
  };
}
