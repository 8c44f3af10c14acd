import type { JobResource } from '../../../contract';
import type { Entry } from '../../../core/logbook';

interface Kept {
  readonly outcome: 'recorded' | 'same again';
  readonly entry: Entry;
  /** Other jobs in which the same fact wrote an entry. */
  readonly also: readonly string[];
}

export type NotKept =
  | { readonly outcome: 'other body under this id' }
  | { readonly outcome: 'no such job' }
  | { readonly outcome: 'no such technician' }
  | {
      readonly outcome: 'refused';
      readonly reasons: readonly string[];
      readonly whatToDo: string;
      /** The field of the payload it is about, where it is about one. */
      readonly path?: string | null;
    };

export type Appended = Kept | NotKept;

export type Taken =
  { readonly outcome: 'taken in' | 'same again'; readonly job: JobResource['job'] } | NotKept;

export type Erased = 'erased' | 'erased before' | 'no such customer' | 'no such technician';

/** Thrown within a write, so that nothing of it stands; given back as what it carries. */
export class Refusal extends Error {
  constructor(readonly notKept: NotKept) {
    super(notKept.outcome);
  }
}

export function refusal(reason: string, whatToDo: string): Refusal {
  return new Refusal({ outcome: 'refused', reasons: [reason], whatToDo });
}

/** A write that gives back why nothing of it was kept. */
export function refusable<A extends unknown[], R>(write: (...given: A) => R): (...given: A) => R | NotKept {
  return (...given) => {
    try {
      return write(...given);
    } catch (error) {
      if (error instanceof Refusal) return error.notKept;
      throw error;
    }
  };
}
