import type { Book } from '../book';
import { type Hypotheses, hypothesesOf } from './hypotheses';
import type { SeenBefore } from './identification';

/** Before anything is seen here, the chance that a movement brought in is not in the book, as so many jobs' worth. */
const UNKNOWN = { share: 0.1, worth: 10 } as const;
/** Of unknown calibres, how many are of a maker the book does not know. */
const UNKNOWN_MAKER = 0.2;

export type IdentifierBook = Pick<Book, 'calibres' | 'makers' | 'maker' | 'cell' | 'caseTypes' | 'calibre'>;

/** What is believed before anything is seen, and all that evidence is weighed against. */
export interface Ground {
  readonly book: IdentifierBook;
  readonly before: readonly SeenBefore[];
  readonly hypotheses: Hypotheses;
  readonly prior: Prior;
  /** The makers an unknown calibre may be of, and last *nobody in the book*; they make one. */
  readonly unknownOf: Float64Array;
  /** What each maker engraves on its movements, in the order of the makers. */
  readonly templates: readonly (readonly string[])[];
}

interface Prior {
  /** Of each hypothesis. */
  readonly share: Float64Array;
  readonly notInBook: number;
}

/** The ground of a book and of what this shop identified before. */
export function groundOf(book: IdentifierBook, before: readonly SeenBefore[]): Ground {
  const hypotheses = hypothesesOf(book);
  return {
    book,
    before,
    hypotheses,
    prior: priorOf(hypotheses, book.calibres.length, before),
    unknownOf: unknownMakers(hypotheses),
    templates: book.makers.map(({ patterns }) =>
      patterns.filter(({ meaning }) => meaning === 'movement').map(({ template }) => template),
    ),
  };
}

function unknownMakers({ all, makerIds, makerShare }: Hypotheses): Float64Array {
  const known = Math.max(1, all.length) + makerIds.length;
  const shares = makerIds.map((_, index) => ((1 - UNKNOWN_MAKER) * ((makerShare[index] ?? 0) + 1)) / known);
  return Float64Array.from([...shares, makerIds.length === 0 ? 1 : UNKNOWN_MAKER]);
}

function priorOf({ all, siblings }: Hypotheses, calibres: number, before: readonly SeenBefore[]): Prior {
  const jobs = new Map<string, number>();
  const revisions = new Map<string, number>();
  let [known, unknowns] = [0, 0];
  const inBook = new Set(all.map(({ calibreId }) => calibreId));
  for (const each of before) {
    if (each.calibreId === null || !inBook.has(each.calibreId)) {
      unknowns += each.jobs;
      continue;
    }
    known += each.jobs;
    jobs.set(each.calibreId, (jobs.get(each.calibreId) ?? 0) + each.jobs);
    const key = `${each.calibreId}|${each.revision ?? ''}`;
    if (each.revision !== null) revisions.set(key, (revisions.get(key) ?? 0) + each.jobs);
  }
  const notInBook =
    all.length === 0 ? 1 : (unknowns + UNKNOWN.share * UNKNOWN.worth) / (known + unknowns + UNKNOWN.worth);
  const inRevisions = new Map<string, number>();
  for (const { calibreId, revision } of all)
    inRevisions.set(
      calibreId,
      (inRevisions.get(calibreId) ?? 0) + (revisions.get(`${calibreId}|${revision ?? ''}`) ?? 0),
    );
  const share = Float64Array.from(all, ({ calibreId, revision }, index) => {
    const calibre = ((jobs.get(calibreId) ?? 0) + 1) / (known + calibres);
    const beside = siblings[index] as number;
    const ofRevision =
      ((revisions.get(`${calibreId}|${revision ?? ''}`) ?? 0) + 1) /
      ((inRevisions.get(calibreId) ?? 0) + beside);
    return (1 - notInBook) * calibre * ofRevision;
  });
  return { share, notInBook };
}
