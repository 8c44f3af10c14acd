import { bareCode, type Charge, type KitFor, kitsFor } from '../../craft/movements';
import { type Lot, setAside } from '../../craft/stock';

interface KitHere extends KitFor {
  /** Lots it can be used from, the one whose date ends first before the others. */
  readonly lots: readonly Lot[];
  /** How many can be used. */
  readonly left: number;
  /** Lots that hold it and may not be taken from, each in words. */
  readonly aside: readonly string[];
}

/** Lots a kit can be used from on a day, the one whose date ends first before the others; `kitCode` null: any kit. */
export function kitLots(lots: readonly Lot[], kitCode: string | null, day: string): readonly Lot[] {
  return holding(lots, kitCode)
    .filter((lot) => setAside(lot, day) === null)
    .sort((a, b) => (a.bestBefore ?? '9').localeCompare(b.bestBefore ?? '9'));
}

/** The kits the book foresees for a movement, each with what this shop has of it. `day`: the shop’s calendar day. */
export function kitsHere(charge: Charge, lots: readonly Lot[], day: string): readonly KitHere[] {
  return kitsFor(charge).map((kit) => {
    const taken = kitLots(lots, kit.kitCode, day);
    return {
      ...kit,
      lots: taken,
      left: taken.reduce((sum, { balance }) => sum + balance, 0),
      aside: holding(lots, kit.kitCode).flatMap((lot) => {
        const why = setAside(lot, day);
        return why === null ? [] : [`Lot ${lot.lotCode} of ${lot.code} is ${why}.`];
      }),
    };
  });
}

function holding(lots: readonly Lot[], kitCode: string | null): Lot[] {
  return lots.filter(
    ({ item, code, balance }) =>
      item === 'kit' && balance > 0 && (kitCode === null || bareCode(code) === bareCode(kitCode)),
  );
}
