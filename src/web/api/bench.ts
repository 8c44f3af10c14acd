import { useSyncExternalStore } from 'react';

/** Who works at this bench, and how it is set: kept in this browser. */
export interface Bench {
  readonly name: string;
  readonly technicianId: string | null;
  readonly singleKeys: boolean;
}

const KEY = 'wax-lantern.bench';
const FIRST: Bench = { name: 'bench 1', technicianId: null, singleKeys: true };
const listeners = new Set<() => void>();

function read(): Bench {
  try {
    return { ...FIRST, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Bench>) };
  } catch {
    return FIRST;
  }
}

let bench = read();

export function setBench(change: Partial<Bench>): void {
  bench = { ...bench, ...change };
  localStorage.setItem(KEY, JSON.stringify(bench));
  for (const listener of listeners) listener();
}

export function useBench(): Bench {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    () => bench,
  );
}
