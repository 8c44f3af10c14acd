import { type Remote, wrap } from 'comlink';
import type { Book } from '../../../core/catalogue';
import type { SeenBefore } from '../../../core/identify';
import { NO_TOOLS } from '../../../core/tools';
import type { IdentifyWorker } from '../../workers/identify.worker';

let remote: Remote<IdentifyWorker> | null = null;
let opened: {
  readonly book: Book;
  readonly before: readonly SeenBefore[];
  readonly ready: Promise<Remote<IdentifyWorker>>;
} | null = null;

function started(): Remote<IdentifyWorker> {
  remote ??= wrap<IdentifyWorker>(
    new Worker(new URL('../../workers/identify.worker.ts', import.meta.url), { type: 'module' }),
  );
  return remote;
}

/** Has the worker's code here, so that a movement is identified when the server is away. */
export async function startIdentifier(): Promise<void> {
  await started().there();
}

/** The worker with this book open in it; one for the page, kept from job to job. */
export function identifierFor(book: Book, before: readonly SeenBefore[]): Promise<Remote<IdentifyWorker>> {
  if (opened?.book === book && opened.before === before) return opened.ready;
  const worker = started();
  const { revision, cells, makers, calibres, caseTypes, gaskets } = book;
  const ready = worker
    .open({ ...NO_TOOLS, revision, cells, makers, calibres, caseTypes, gaskets }, before)
    .then(() => worker);
  opened = { book, before, ready };
  return ready;
}
