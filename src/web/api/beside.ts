import { type Remote, wrap } from 'comlink';

/** A worker beside the page broke, or its code could not be loaded. */
export class WorkerBroke extends Error {}

interface Started<T> {
  readonly worker: Remote<T>;
  /** Never kept; refused when the worker breaks. */
  readonly broke: Promise<never>;
}

export interface Beside<T> {
  /** Asks the worker. One that breaks is started again and asked once more; `WorkerBroke` where that breaks, too. */
  readonly ask: <R>(question: (worker: Remote<T>) => Promise<R>) => Promise<R>;
  /** Has its code here, so that it answers while the server is away. */
  readonly fetchCode: () => Promise<void>;
}

/** What works beside the page at an address: one worker, started at the first question. `what`: what it works out, in words. */
export function beside<T>(
  url: string,
  what: string,
  start = (): Worker => new Worker(url, { type: 'module' }),
): Beside<T> {
  let running: Started<T> | null = null;
  const started = (): Started<T> => {
    if (running !== null) return running;
    const worker = start();
    const broke = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        // The next question starts another one.
        running = null;
        worker.terminate();
        reject(new WorkerBroke(`${what} stopped unexpectedly.`));
      });
    });
    // Whoever asks is told; nobody asking is no fault.
    broke.catch(() => undefined);
    running = { worker: wrap<T>(worker), broke };
    return running;
  };
  const once = <R>(question: (worker: Remote<T>) => Promise<R>): Promise<R> => {
    const { worker, broke } = started();
    return Promise.race([question(worker), broke]);
  };
  return {
    ask: (question) =>
      once(question).catch((error: unknown) => {
        if (!(error instanceof WorkerBroke)) throw error;
        return once(question);
      }),
    async fetchCode() {
      const { ok } = await fetch(url);
      if (!ok) throw new WorkerBroke(`The code of ${what.toLowerCase()} could not be loaded.`);
    },
  };
}
