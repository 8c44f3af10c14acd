import type { Book } from '../../craft/book';
import { type Lot, setAside } from '../../craft/stock';
import type { JobState } from '../../logbook';

/** A ring of the stock, and whether the book has it for this case. */
export interface RingOffer {
  readonly lot: Lot;
  readonly ofThisCase: boolean;
}

/**
 * The rings of the stock a job may take one from on a day: those the book has for its case first. `chosen`: shown though used up or
 * set aside.
 */
export function ringOffers(
  { caseType }: Pick<JobState, 'caseType'>,
  book: Pick<Book, 'gasketsOf'>,
  lots: readonly Lot[],
  chosen: string | null,
  day: string,
): readonly RingOffer[] {
  const sizes = caseType ? book.gasketsOf(caseType.code).map(({ code }) => code) : [];
  const offers = lots
    .filter(
      (lot) =>
        lot.item === 'gasket' && ((lot.balance > 0 && setAside(lot, day) === null) || lot.id === chosen),
    )
    .map((lot) => ({ lot, ofThisCase: sizes.includes(lot.code) }));
  return [
    ...offers.filter(({ ofThisCase }) => ofThisCase),
    ...offers.filter(({ ofThisCase }) => !ofThisCase),
  ];
}
