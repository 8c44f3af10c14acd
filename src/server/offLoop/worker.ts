import { parentPort, workerData } from 'node:worker_threads';
import { TASKS, type Tasks } from './tasks';

/** What a worker is started with. */
export type WorkerGiven = {
  readonly [T in keyof Tasks]: { readonly task: T; readonly given: Tasks[T]['given'] };
}[keyof Tasks];

const started = workerData as WorkerGiven;
const says = started.task === 'table' ? TASKS.table(started.given) : TASKS.jobFile(started.given);
for await (const each of says) parentPort?.postMessage(JSON.stringify(each));
