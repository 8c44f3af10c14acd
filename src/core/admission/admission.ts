import type { Lot } from '../craft/stock';
import type { Entry, EntryKind, EntryOf, JobContext, JobState } from '../logbook';

export type Admission =
  | { readonly verdict: 'admitted' }
  | {
      readonly verdict: 'refused';
      readonly reasons: readonly string[];
      readonly whatToDo: string;
      /** The field of the payload it is about, so that a form shows it there; null: none alone. */
      readonly path: string | null;
    };

/** What an entry is judged against. */
export interface Question {
  /** The job as it stands before the entry. */
  readonly state: JobState;
  /** Every entry the job holds. */
  readonly known: readonly Entry[];
  /** Asked only where the stock matters. */
  readonly lots: () => readonly Lot[];
  readonly context: JobContext;
}

/** Why an entry of a kind must not be written; null where it may. */
export type Judge<K extends EntryKind> = (entry: EntryOf<K>, question: Question) => Admission | null;

/** The judges of some kinds. */
export type Judges<K extends EntryKind> = { readonly [Kind in K]: Judge<Kind> };

export const ADMITTED: Admission = { verdict: 'admitted' };

export function refuse(
  reasons: readonly string[],
  whatToDo: string,
  path: string | null = null,
): Extract<Admission, { verdict: 'refused' }> {
  return { verdict: 'refused', reasons, whatToDo, path };
}
