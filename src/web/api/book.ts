import { useMemo } from 'react';
import { asToday, type CatalogueResource } from '../../contract';
import { type Book, catalogueOf, openBook, recordsIn } from '../../core/craft/book';
import { useResource } from './resource';

/** The book at a revision, read once and opened. */
export function useBook(revision: number | undefined): {
  readonly book: Book | undefined;
  readonly error: unknown;
} {
  const { data, error } = useResource<CatalogueResource>(revision === undefined ? null : '/api/catalogue', {
    ...(revision === undefined ? {} : { at: revision }),
    // While a new revision is read the old one stands, so that no page falls apart under a hand.
    revalidateOnFocus: false,
    revalidateIfStale: false,
    keepPreviousData: true,
  });
  // What an older program kept here for the time the server is away knows less.
  const book = useMemo(
    () =>
      data &&
      openBook(
        catalogueOf(data.revision, (kind) => recordsIn(kind, data).map((each) => asToday(kind, each))),
      ),
    [data],
  );
  return { book, error };
}
