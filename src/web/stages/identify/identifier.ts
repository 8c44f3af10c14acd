import type { Remote } from 'comlink';
import type { Book } from '../../../core/craft/book';
import type { Look, Seen, SeenBefore } from '../../../core/craft/identify';
import { NO_TOOLS } from '../../../core/craft/tools';
import { beside } from '../../api/beside';
import type { Answer, IdentifyWorker } from '../../workers/identify.worker';
import workerUrl from '../../workers/identify.worker?worker&url';

const identifying = beside<IdentifyWorker>(workerUrl, 'The identification');

/** Fetches the worker's code, so that a movement is identified while the server is away. */
export const fetchIdentifier = identifying.fetchCode;

let opened: {
  readonly worker: Remote<IdentifyWorker>;
  readonly book: Book;
  readonly before: readonly SeenBefore[];
  readonly ready: Promise<void>;
} | null = null;

/** So many records are copied for the worker at a time: the page goes on in between. */
const COPIED_AT_ONCE = 250;

/** Sends a book to a worker, a few records at a time, and opens it there. */
async function sendBook(
  worker: Remote<IdentifyWorker>,
  { revision, cells, makers, calibres, caseTypes, gaskets }: Book,
  before: readonly SeenBefore[],
): Promise<void> {
  await worker.begin({ ...NO_TOOLS, revision, cells, makers, calibres: [], caseTypes: [], gaskets });
  for (let from = 0; from < Math.max(calibres.length, caseTypes.length); from += COPIED_AT_ONCE) {
    const to = from + COPIED_AT_ONCE;
    await worker.add(calibres.slice(from, to), caseTypes.slice(from, to));
  }
  await worker.open(before);
}

/** Opens a book in a worker once; it stays open from job to job, and is opened again in a worker that was restarted. */
function openIn(worker: Remote<IdentifyWorker>, book: Book, before: readonly SeenBefore[]): Promise<void> {
  if (opened?.worker === worker && opened.book === book && opened.before === before) return opened.ready;
  const ready = sendBook(worker, book, before);
  opened = { worker, book, before, ready };
  return ready;
}

/** Which movement the evidence speaks for, worked out beside the page. `taken`: looks that are not asked for again. */
export function identify(
  book: Book,
  before: readonly SeenBefore[],
  evidence: readonly Seen[],
  taken: readonly Look[],
  hidden: boolean,
): Promise<Answer | null> {
  return identifying.ask(async (worker) => {
    await openIn(worker, book, before);
    return worker.identify(evidence, taken, hidden);
  });
}
