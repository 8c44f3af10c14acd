import { bareCode } from './characters';
import type { Charge } from './types';

/** A kit that renews the accumulator of a calibre, and what it gives. */
export interface KitFor {
  readonly kitCode: string;
  readonly reserveDays: number;
  /** More than what the movement came with, days; 0 for the kit of its own. */
  readonly gainDays: number;
}

/** The kits the book foresees for a movement: its own, and a modern accumulator in place of an old capacitor where it names one. */
export function kitsFor(charge: Charge): readonly KitFor[] {
  const { kitCode, reserveDays, upgradeKitCode, upgradeReserveDays } = charge;
  return [
    { kitCode, reserveDays, gainDays: 0 },
    ...(upgradeKitCode === null || upgradeReserveDays === null
      ? []
      : [
          {
            kitCode: upgradeKitCode,
            reserveDays: upgradeReserveDays,
            gainDays: upgradeReserveDays - reserveDays,
          },
        ]),
  ];
}

/** How long a movement runs when full, days, with the kit that is in it; null: what it came with. */
export function reserveWith(charge: Charge, kitCode: string | null): number {
  const fitted = kitsFor(charge).find(
    (kit) => kitCode !== null && bareCode(kit.kitCode) === bareCode(kitCode),
  );
  return fitted?.reserveDays ?? charge.reserveDays;
}
