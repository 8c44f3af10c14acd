import type { Book } from '../craft/book';
import type { CellReading, CellType, CellWanted } from '../craft/cells';
import type { Well } from '../craft/movements';
import type { Policy, Shop } from '../craft/policy';
import type { Entry, EntryOf, JobFacts } from './entry';

/** What a job is judged against. */
export interface JobContext {
  readonly catalogue: Book;
  readonly policy: Policy;
  readonly shop: Shop;
  readonly nowUtc: string;
}

/** Two or more corrections that name the same entry; all stay until someone settles it. */
export interface Conflict {
  readonly target: Entry;
  readonly rivals: readonly Entry[];
}

export type Signature =
  | { readonly state: 'unsigned' }
  | { readonly state: 'signed'; readonly entry: EntryOf<'handback.signed'> }
  | { readonly state: 'reopened'; readonly entry: EntryOf<'handback.signed'>; readonly by: readonly Entry[] };

export interface WellState {
  readonly name: string;
  /** The book's well, where the movement is in the book. */
  readonly well: Well | null;
  readonly wanted: CellWanted | null;
  readonly found: EntryOf<'cell.found'> | null;
  /** How the marking found is read; null where no cell was found. */
  readonly foundReading: CellReading | null;
  /** The cell found, where its marking names one surely; its names are those of the marking. */
  readonly foundCell: CellType | null;
  readonly fitted: EntryOf<'cell.fitted'> | null;
  readonly putBack: EntryOf<'cell.put-back'> | null;
  readonly oldSettled: EntryOf<'cell.old-settled'> | null;
  readonly measured: EntryOf<'cell.well-measured'> | null;
}

/** A job as far as it was folded, before its progress is worked out. */
export interface JobSoFar {
  readonly facts: Readonly<JobFacts>;
  readonly wells: readonly WellState[];
  readonly conflicts: readonly Conflict[];
  readonly signature: Signature;
}
