import { notKept } from '../problem';
import type { Store } from '../store/store';

/** Refuses a hand that is none of this shop's. */
export const knownTo =
  (store: Store) =>
  (technicianId: string): void => {
    if (!store.shops.technician(technicianId)) throw notKept({ outcome: 'no such technician' });
  };
