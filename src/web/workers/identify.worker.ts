import { expose } from 'comlink';
import { type Book, type Catalogue, openBook } from '../../core/craft/book';
import type { CaseType } from '../../core/craft/cases';
import { type Calibre, type EngravingReading, readEngraving } from '../../core/craft/movements';
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

/** A book on its way. */
let coming:
  (Omit<Catalogue, 'calibres' | 'caseTypes'> & { calibres: Calibre[]; caseTypes: CaseType[] }) | null = null;
let open: { readonly identifier: Identifier; readonly book: Book } | null = null;

export interface Answer {
  readonly identification: Identification;
  readonly next: NextLook;
  /** What the engraving holds beside the movement; null where there is none. */
  readonly engraved: EngravingReading | null;
}

/** Identifies movements beside the page, so that no key waits for it. */
const worker = {
  /** Begins a book whose calibres and case types follow. */
  begin(catalogue: Catalogue): void {
    coming = { ...catalogue, calibres: [...catalogue.calibres], caseTypes: [...catalogue.caseTypes] };
  },
  add(calibres: readonly Calibre[], caseTypes: readonly CaseType[]): void {
    coming?.calibres.push(...calibres);
    coming?.caseTypes.push(...caseTypes);
  },
  open(before: readonly SeenBefore[]): void {
    if (coming === null) return;
    const book = openBook(coming);
    open = { book, identifier: openIdentifier(book, before) };
    coming = null;
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
