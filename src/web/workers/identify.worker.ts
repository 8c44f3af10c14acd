import { expose } from 'comlink';
import { type Catalogue, openBook } from '../../core/catalogue';
import {
  type Identification,
  type Identifier,
  type Look,
  nextBestLook,
  type NextLook,
  openIdentifier,
  type Seen,
  type SeenBefore,
} from '../../core/identify';

let identifier: Identifier | null = null;

export interface Answer {
  readonly identification: Identification;
  readonly next: NextLook;
}

/** Identifies movements beside the page, so that no key waits for it. */
const worker = {
  there: (): true => true,
  open(catalogue: Catalogue, before: readonly SeenBefore[]): void {
    identifier = openIdentifier(openBook(catalogue), before);
  },
  identify(evidence: readonly Seen[], taken: readonly Look[], hidden: boolean): Answer | null {
    if (identifier === null) return null;
    return {
      identification: identifier.identify(evidence),
      next: nextBestLook(identifier.believe(evidence), taken, { hidden }),
    };
  },
};
export type IdentifyWorker = typeof worker;

expose(worker);
