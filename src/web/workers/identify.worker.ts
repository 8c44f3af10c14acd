import { expose } from 'comlink';
import { type Book, type Catalogue, openBook } from '../../core/craft/book';
import { type EngravingReading, readEngraving } from '../../core/craft/movements';
import {
  type Identification,
  type Identifier,
  type Look,
  nextBestLook,
  type NextLook,
  openIdentifier,
  type Seen,
  type SeenBefore,
} from '../../core/craft/identify';

let open: { readonly identifier: Identifier; readonly book: Book } | null = null;

export interface Answer {
  readonly identification: Identification;
  readonly next: NextLook;
  /** What the engraving holds beside the movement; null where there is none. */
  readonly engraved: EngravingReading | null;
}

/** Identifies movements beside the page, so that no key waits for it. */
const worker = {
  open(catalogue: Catalogue, before: readonly SeenBefore[]): void {
    const book = openBook(catalogue);
    open = { book, identifier: openIdentifier(book, before) };
  },
  identify(evidence: readonly Seen[], taken: readonly Look[], hidden: boolean): Answer | null {
    if (open === null) return null;
    const { identifier, book } = open;
    const text = evidence.find(({ look }) => look === 'engraving')?.value;
    return {
      engraved: typeof text === 'string' ? readEngraving(text, book) : null,
      identification: identifier.identifyMovement(evidence),
      next: nextBestLook(identifier.believe(evidence), taken, { hidden }),
    };
  },
};
export type IdentifyWorker = typeof worker;

expose(worker);
