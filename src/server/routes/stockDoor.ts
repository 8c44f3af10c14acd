import { doubtfulDates, type Lot } from '../../core/craft/stock';
import { localDay } from '../../core/craft/time';
import { notKept } from '../problem';
import type { Store } from '../store/store';
import { knownTo } from './known';

/** What every door of the stock asks before it writes, and tells once it has. */
export interface StockDoor {
  /** Refuses a hand that is none of this shop's. */
  readonly known: (technicianId: string) => void;
  readonly announce: () => void;
  readonly today: () => string;
  /** A cell's code as the book has it; refused where no name of the table is meant. */
  readonly codeOf: (item: Lot['item'], code: string) => string;
  readonly datesOf: (lot: Pick<Lot, 'madeOn' | 'bestBefore'>) => void;
  readonly refuseOtherBody: (outcome: string | null) => void;
}

export function stockDoor(store: Store): StockDoor {
  const today = (): string => localDay(store.clock.nowUtc(), store.shops.shop().zone);
  return {
    today,
    known: knownTo(store),
    announce() {
      store.publish({ jobId: null, what: 'stock' });
    },
    codeOf(item, code) {
      const read = item === 'cell' ? store.catalogue.book().cell(code)?.code : code;
      if (read === undefined)
        throw notKept({
          outcome: 'refused',
          reasons: [`“${code}” is not in the cell table.`],
          whatToDo: 'Enter the name printed on the blister, e.g. SR621SW or 364.',
        });
      return read;
    },
    datesOf(lot) {
      const doubt = doubtfulDates(lot, today());
      if (doubt !== null)
        throw notKept({
          outcome: 'refused',
          reasons: [doubt],
          whatToDo: 'Read the blister again and enter the date as year-month-day.',
        });
    },
    refuseOtherBody(outcome) {
      if (outcome === 'other body under this id') throw notKept({ outcome });
    },
  };
}
