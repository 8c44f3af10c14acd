import { type Remote, wrap } from 'comlink';
import type { Book } from '../../../core/craft/book';
import type { SeenBefore } from '../../../core/craft/identify';
import { NO_TOOLS } from '../../../core/craft/tools';
import type { IdentifyWorker } from '../../workers/identify.worker';
import workerUrl from '../../workers/identify.worker?worker&url';

interface Started {
  readonly worker: Remote<IdentifyWorker>;
  /** Never kept; broken when the worker's code cannot be had or fails. */
  readonly broke: Promise<never>;
}

let running: Started | null = null;
let opened: {
  readonly book: Book;
  readonly before: readonly SeenBefore[];
  readonly ready: Promise<{ readonly worker: Remote<IdentifyWorker> }>;
} | null = null;

function started(): Started {
  if (running) return running;
  const worker = new Worker(workerUrl, { type: 'module' });
  const broke = new Promise<never>((_, reject) => {
    worker.addEventListener('error', () => {
      // The next question starts another one.
      running = null;
      opened = null;
      reject(new Error('The identification could not start.'));
    });
  });
  broke.catch(() => undefined);
  running = { worker: wrap<IdentifyWorker>(worker), broke };
  return running;
}

/** Has the worker's code here, so that a movement is identified when the server is away. */
export async function fetchIdentifier(): Promise<void> {
  const { ok } = await fetch(workerUrl);
  if (!ok) throw new Error('The code of the identification cannot be had.');
}

/** The worker with this book open in it; one for the page, kept from job to job. Refuses where it cannot start. */
export function identifierFor(
  book: Book,
  before: readonly SeenBefore[],
): Promise<{ readonly worker: Remote<IdentifyWorker> }> {
  if (opened?.book === book && opened.before === before) return opened.ready;
  const { worker, broke } = started();
  const { revision, cells, makers, calibres, caseTypes, gaskets } = book;
  // A remote answers to every name, so it is never what a promise is kept with.
  const open = worker.open({ ...NO_TOOLS, revision, cells, makers, calibres, caseTypes, gaskets }, before);
  const ready = Promise.race([open, broke]).then(() => ({ worker }));
  opened = { book, before, ready };
  return ready;
}
