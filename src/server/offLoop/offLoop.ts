import { on } from 'node:events';
import { Worker } from 'node:worker_threads';
import { here } from '../here';

/** What is read beside the loop that answers: each name has its file `<name>.worker`. */
type Task = 'jobFile' | 'table';

/** What a worker may use, MB: a file of the largest size and what is made of it. */
const MOST_HEAP_MB = 900;

/** A file that would take more memory than reading it may cost. */
export class TooMuchToRead extends Error {}

const isSource = import.meta.url.endsWith('.ts');

/** In development and tests a worker is compiled as it is loaded, like the server itself. */
function compiledAsLoaded(file: string): string {
  return `import('tsx/esm/api').then(({ tsImport }) => tsImport(${JSON.stringify(file)}, ${JSON.stringify(import.meta.url)}));`;
}

/** One after the other: two of the largest files at once would not fit a small machine. */
let last: Promise<void> = Promise.resolve();

/**
 * Does a long piece of reading in a thread of its own, so that everybody else is answered meanwhile, and gives what it
 * says as it goes, each as JSON. Throws `TooMuchToRead` where it outgrows its memory.
 */
export async function* offLoop<Says>(task: Task, given: object): AsyncGenerator<Says> {
  const before = last;
  let done: () => void = () => undefined;
  last = new Promise((resolve) => (done = resolve));
  await before;
  const options = { workerData: given, resourceLimits: { maxOldGenerationSizeMb: MOST_HEAP_MB } };
  const worker = isSource
    ? new Worker(compiledAsLoaded(here(import.meta.url, `${task}.worker.ts`)), { ...options, eval: true })
    : new Worker(here(import.meta.url, `${task}.worker.js`), options);
  try {
    const messages = on(worker, 'message', { close: ['exit'] }) as AsyncIterable<[string]>;
    for await (const [says] of messages) yield JSON.parse(says) as Says;
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new TooMuchToRead('It does not fit the memory.');
    throw error;
  } finally {
    await worker.terminate();
    done();
  }
}
