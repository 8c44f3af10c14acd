import { proxy } from 'comlink';
import { startTransition, useEffect, useId, useState } from 'react';
import type { LifeForecast, LifeInput } from '../../../core/craft/life';
import { beside } from '../../api/beside';
import type { LifeWorker } from '../../workers/life.worker';
import workerUrl from '../../workers/life.worker?worker&url';

const forecasts = beside<LifeWorker>(workerUrl, 'The forecast');

/** Has the worker's code here, so that a life is forecast when the server is away. */
export const fetchForecasts = forecasts.fetchCode;

export interface Forecasts {
  /** Null while they are drawn, or once they were stopped or broke off. */
  readonly lives: readonly LifeForecast[] | null;
  /** Whether they could not be drawn here. */
  readonly broke: boolean;
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
  const [answer, setAnswer] = useState<{
    readonly asked: string;
    readonly lives: readonly LifeForecast[] | null;
    readonly broke?: boolean;
  } | null>(null);
  const [share, setShare] = useState<{ asked: string; share: number } | null>(null);
  useEffect(() => {
    if (inputs.length === 0) return;
    let gone = false;
    const drawn = proxy((share: number) => {
      if (!gone) setShare({ asked, share });
    });
    // What was stopped meanwhile stays so.
    const answered = (lives: readonly LifeForecast[] | null, broke: boolean): void => {
      if (!gone) setAnswer((before) => (before?.asked === asked ? before : { asked, lives, broke }));
    };
    void forecasts
      .ask((worker) => worker.forecast(card, inputs, drawn))
      .then(
        // Table and chart are drawn in pieces, as the page has time.
        (lives) => startTransition(() => answered(lives, false)),
        () => answered(null, true),
      );
    return () => {
      gone = true;
    };
    // The inputs are told apart by what was asked.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked, card]);
  const answered = answer?.asked === asked;
  return {
    lives: answered ? answer.lives : null,
    broke: answered && answer.broke === true,
    progress: answered ? null : share?.asked === asked ? share.share : 0,
    stop: () => {
      // At once, though its worker may still be on its way.
      setAnswer({ asked, lives: null });
      forecasts.ask((worker) => worker.stop(card)).catch(() => undefined);
    },
    again: () => setRound((before) => before + 1),
  };
}
