import { useCallback } from 'react';
import { v7 } from 'uuid';
import { makeEntry } from '../../contract';
import type { EntryKind, Payloads } from '../../core/logbook';
import { useBench } from '../api/bench';
import { type SeenShop, shopNow } from '../api/resources';
import { putWaiting } from '../api/waiting';

export interface RecordOptions {
  readonly well?: string | null;
  readonly supersedes?: readonly string[];
  readonly withdraws?: string | null;
  readonly attachments?: readonly string[];
}

/** Gives the entry’s id; null where nobody is at the bench to record. */
export type Recorder = <K extends EntryKind>(
  jobId: string,
  kind: K,
  payload: Payloads[K],
  options?: RecordOptions,
) => Promise<string | null>;

/** Records facts of any job as who is at this bench: kept here at once, on record when the server has them. */
export function useRecorder(shop: SeenShop): Recorder {
  const { name: bench, technicianId } = useBench();
  const known = technicianId !== null && shop.technicians.some(({ id }) => id === technicianId);
  return useCallback<Recorder>(
    async (jobId, kind, payload, options = {}) => {
      if (technicianId === null || !known) return null;
      const entry = makeEntry(kind, payload, {
        id: v7(),
        occurredAt: shopNow(shop),
        technicianId,
        bench,
        ...options,
      });
      await putWaiting(jobId, entry);
      return entry.id;
    },
    [known, technicianId, bench, shop],
  );
}
