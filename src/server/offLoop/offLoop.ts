import { on } from 'node:events';
import { Worker } from 'node:worker_threads';
import { here } from '../here';
import { TASKS, type Tasks } from './tasks';

/** What a worker may use, MB: a file of the largest size and what is made of it. */
const MOST_HEAP_MB = 900;

/** A file that would take more memory than reading it may cost. */
export class TooMuchToRead extends Error {}

/** Built, a worker has its own file; in development and in the tests of one part there is none. */
const isBuilt = !import.meta.url.endsWith('.ts');

/** One after the other: two of the largest files at once would not fit a small machine. */
let last: Promise<void> = Promise.resolve();

async function* inWorker<T extends keyof Tasks>(
  task: T,
  given: Tasks[T]['given'],
): AsyncGenerator<Tasks[T]['says']> {
  const worker = new Worker(here(import.meta.url, 'worker.js'), {
    workerData: { task, given },
    resourceLimits: { maxOldGenerationSizeMb: MOST_HEAP_MB },
  });
  try {
    const messages = on(worker, 'message', { close: ['exit'] }) as AsyncIterable<[string]>;
    for await (const [says] of messages) yield JSON.parse(says) as Tasks[T]['says'];
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new TooMuchToRead('It does not fit the memory.');
    throw error;
  } finally {
    await worker.terminate();
  }
}

/**
 * Does a long piece of reading in a thread of its own, so that everybody else is answered meanwhile, and gives what it
 * says as it goes. Throws `TooMuchToRead` where it outgrows its memory.
 */
export async function* offLoop<T extends keyof Tasks>(
  task: T,
  given: Tasks[T]['given'],
): AsyncGenerator<Tasks[T]['says']> {
  const before = last;
  let done: () => void = () => undefined;
  last = new Promise((resolve) => (done = resolve));
  await before;
  try {
    yield* isBuilt ? inWorker(task, given) : TASKS[task](given);
  } finally {
    done();
  }
}
