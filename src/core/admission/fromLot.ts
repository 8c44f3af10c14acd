import { type Lot, setAside } from '../craft/stock';
import { localDay } from '../craft/time';
import type { Entry } from '../logbook';
import { type Admission, type Question, refuse } from './admission';

export const lotOf = ({ lots }: Pick<Question, 'lots'>, id: string | null): Lot | undefined =>
  lots().find((lot) => lot.id === id);

/**
 * Why nothing can be used from a lot now: set aside, or past its date; null where it may. By the shop's clock: that of a
 * bench may be behind. A correction takes nothing from the lot that the entry it corrects had named already.
 */
export function refuseLot(
  lot: Lot,
  { supersedes }: Pick<Entry, 'supersedes'>,
  { context, known }: Pick<Question, 'context' | 'known'>,
  what: string,
): Admission | null {
  const taken = known.some(
    ({ id, payload }) => supersedes.includes(id) && 'lotId' in payload && payload.lotId === lot.id,
  );
  const why = taken ? null : setAside(lot, localDay(context.nowUtc, context.shop.zone));
  return why === null
    ? null
    : refuse(
        [`Lot ${lot.lotCode} is ${why}.`],
        lot.quarantined === null
          ? `Take a ${what} from a lot that is in date.`
          : `Take a ${what} from another lot, or release the lot on the stock page once it is cleared.`,
      );
}
