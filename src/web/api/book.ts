import { useMemo } from 'react';
import useSWR from 'swr';
import { type Book, type Catalogue, openBook } from '../../core/craft/book';
import { readBook } from './keptBook';

/** The book at a revision, read once and opened. */
export function useBook(revision: number | undefined): {
  readonly book: Book | undefined;
  readonly error: unknown;
} {
  const { data, error } = useSWR<Catalogue, unknown>(
    revision === undefined ? null : ['/api/catalogue', revision],
    readBook,
    {
      // While a new revision is read the old one stands, so that no page falls apart under a hand.
      revalidateOnFocus: false,
      revalidateIfStale: false,
      keepPreviousData: true,
      // Of one revision there is one book: thousands of records are not compared one by one.
      compare: (a, b) => a?.revision === b?.revision,
    },
  );
  const book = useMemo(() => data && openBook(data), [data]);
  return { book, error };
}
