import { useSyncExternalStore } from 'react';

const KEY = 'wax-lantern.px-per-mm';
/** What a browser calls a millimetre, whatever the screen makes of it. */
export const NOMINAL_PX_PER_MM = 96 / 25.4;
/** The long edge of a bank card (ISO/IEC 7810 ID-1), mm. */
export const CARD_MM = 85.6;

const listeners = new Set<() => void>();

function read(): number | null {
  const kept = Number(localStorage.getItem(KEY));
  return kept > 1 && kept < 30 ? kept : null;
}

/** Keeps how many pixels of this screen make a millimetre. */
export function setScreenScale(pxPerMm: number): void {
  localStorage.setItem(KEY, String(pxPerMm));
  for (const listener of listeners) listener();
}

/** Pixels a millimetre on this screen: as calibrated here, or null. */
export function useScreenScale(): number | null {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, read);
}
