import { type JobFileSays, type JobFileTask, readJobFileAt } from './jobFile.task';
import { readTableAt, type TableSays, type TableTask } from './table.task';

/** What is read beside the loop that answers: what each task is given, and what it says. */
export interface Tasks {
  readonly jobFile: { readonly given: JobFileTask; readonly says: JobFileSays };
  readonly table: { readonly given: TableTask; readonly says: TableSays };
}

type Does = { readonly [T in keyof Tasks]: (given: Tasks[T]['given']) => AsyncIterable<Tasks[T]['says']> };

async function* once<Says>(says: Says): AsyncGenerator<Says> {
  yield await Promise.resolve(says);
}

export const TASKS: Does = {
  jobFile: (given) => once(readJobFileAt(given)),
  table: readTableAt,
};
