import { useMemo } from 'react';
import type { Attachment } from '../../contract';
import type { Book } from '../../core/craft/book';
import { foldJob } from '../../core/logbook';
import { watchHistory, type WatchHistory, type WatchVisit } from '../../core/advice/watches';
import { type SeenShop, useWatch } from '../api/resources';

export interface SeenWatch {
  readonly visits: readonly WatchVisit[];
  readonly history: WatchHistory;
  readonly attachments: readonly Attachment[];
}

/** A watch's visits, folded, and what they amount to; `except` leaves out the job at hand and what came after it. */
export function useWatchHistory(
  watchId: string,
  book: Book | undefined,
  shop: SeenShop | undefined,
  except: string | null = null,
): { readonly watch: SeenWatch | null; readonly error: unknown } {
  const { data, error } = useWatch(watchId);
  const watch = useMemo(() => {
    if (!data || !book || !shop) return null;
    const context = { catalogue: book, policy: shop.policy, shop: shop.shop, nowUtc: shop.nowUtc };
    const own = data.visits.find((visit) => visit.jobId === except);
    // A job that follows this one is no earlier visit.
    const visits = data.visits
      .filter((visit) => visit !== own && (!own || visit.receivedAt < own.receivedAt))
      .map(({ entries, ...visit }) => ({ ...visit, state: foldJob(entries, context) }));
    return { visits, history: watchHistory(visits), attachments: data.attachments };
  }, [data, book, shop, except]);
  return { watch, error };
}
