import { useMemo } from 'react';
import useSWR, { mutate } from 'swr';
import type {
  CalibreHistory,
  CarriedLot,
  CatalogueResource,
  CustomerResource,
  DayResource,
  JobResource,
  JobSummary,
  LiveNews,
  ShopResource,
  StockResource,
  ToolsServed,
  WatchResource,
} from '../../contract';
import { type Book, openBook } from '../../core/craft/book';
import { NOTHING_MORE } from '../../core/craft/movements';
import type { SeenBefore } from '../../core/craft/identify';
import { NO_TOOLS } from '../../core/craft/tools';
import type { Entry } from '../../core/logbook';
import type { Lot } from '../../core/craft/stock';
import { browserStore } from './browserStore';
import { DEVICES_PATH } from './devices';
import { getJson, ServerAway } from './http';
import { noteAway, sendNow, startWaiting } from './waiting';

/** The shop as seen, with how far this machine's clock is from the shop's. */
export interface SeenShop extends ShopResource {
  readonly clockAheadMs: number;
}

/** Reads a resource and keeps it; with the server away, gives it as last seen. */
async function getKept<T>(path: string, prepare: (fresh: T) => T = (fresh) => fresh): Promise<T> {
  try {
    const fresh = prepare(await getJson<T>(path));
    noteAway(false);
    void browserStore()
      .then((db) => db.put('seen', fresh, path))
      .catch(() => undefined);
    return fresh;
  } catch (error) {
    if (!(error instanceof ServerAway)) throw error;
    noteAway(true);
    const seen = await browserStore()
      .then((db) => db.get('seen', path))
      .catch(() => undefined);
    if (seen === undefined) throw error;
    return seen as T;
  }
}

const POLL_MS = 15_000;
/** The shop is read again now and then, so that day and clock move on in a window left open. */
const CLOCK_MS = 60_000;

export function useShop() {
  return useSWR<SeenShop>(
    '/api/shop',
    (path: string) =>
      getKept<SeenShop>(path, (fresh) => ({ ...fresh, clockAheadMs: Date.parse(fresh.nowUtc) - Date.now() })),
    { refreshInterval: CLOCK_MS },
  );
}

export function useBook(revision: number | undefined): {
  readonly book: Book | undefined;
  readonly error: unknown;
} {
  const { data, error } = useSWR<CatalogueResource>(
    revision === undefined ? null : ['/api/catalogue', revision],
    ([path]: [string, number]) => getKept<CatalogueResource>(path),
    // While a new revision is read the old one stands, so that no page falls apart under a hand.
    { revalidateOnFocus: false, revalidateIfStale: false, keepPreviousData: true },
  );
  // What an older program kept here for the time the server is away knows less.
  const book = useMemo(
    () =>
      data &&
      openBook({
        ...NO_TOOLS,
        ...data,
        makers: data.makers.map((maker) => ({ ...maker, sign: maker.sign ?? null })),
        calibres: data.calibres.map((calibre) => ({ ...NOTHING_MORE, ...calibre })),
      }),
    [data],
  );
  return { book, error };
}

export function useRack() {
  return useSWR<JobSummary[]>('/api/rack', (path: string) => getKept<JobSummary[]>(path), {
    refreshInterval: POLL_MS,
  });
}

export function useStock() {
  return useSWR<StockResource>('/api/stock', (path: string) => getKept<StockResource>(path));
}

/** Lots used up, the first page of them, once they are asked for. */
export function useEmptyLots(asked: boolean) {
  return useSWR<Lot[]>(asked ? '/api/lots/empty' : null, (path: string) => getKept<Lot[]>(path));
}

export interface LedgerLine {
  readonly sequence: number;
  readonly recorded_at: string;
  readonly delta: number;
  readonly reason: string;
  readonly ticket: string;
  readonly technician: string;
}

/** The last lines of a lot’s ledger. */
export function useLedgerOfLot(lotId: string) {
  return useSWR<LedgerLine[]>(`/api/lots/${lotId}/ledger`, (path: string) => getKept<LedgerLine[]>(path));
}

/** Who carries a lot now; asked once both are said. */
export function useCarried(supplier: string, lotCode: string) {
  return useSWR<CarriedLot>(
    supplier === '' || lotCode === ''
      ? null
      : `/api/lots/carried?${new URLSearchParams({ supplier, lot: lotCode }).toString()}`,
    (path: string) => getKept<CarriedLot>(path),
  );
}

/** What stands in the way of closing the day. */
export function useDay() {
  return useSWR<DayResource>('/api/day', (path: string) => getKept<DayResource>(path));
}

/** Which movements this shop saw, and in which cases. */
export function useSeenBefore() {
  return useSWR<SeenBefore[]>('/api/movements/seen', (path: string) => getKept<SeenBefore[]>(path));
}

/** This shop's own history with a calibre. */
export function useCalibreHistory(calibreId: string) {
  return useSWR<CalibreHistory>(`/api/calibres/${encodeURIComponent(calibreId)}/history`, (path: string) =>
    getKept<CalibreHistory>(path),
  );
}

/** What each tool opened, and how often one was missing. */
export function useToolsServed() {
  return useSWR<ToolsServed>('/api/tools/served', (path: string) => getKept<ToolsServed>(path));
}

export function useCustomer(customerId: string | null) {
  return useSWR<CustomerResource>(
    customerId === null ? null : `/api/customers/${customerId}`,
    (path: string) => getKept<CustomerResource>(path),
  );
}

export function useWatch(watchId: string | null) {
  return useSWR<WatchResource>(watchId === null ? null : `/api/watches/${watchId}`, (path: string) =>
    getKept<WatchResource>(path),
  );
}

const jobKey = (jobId: string): string => `/api/jobs/${jobId}`;

export function useJobResource(jobId: string) {
  return useSWR<JobResource>(jobKey(jobId), (path: string) => getKept<JobResource>(path), {
    refreshInterval: POLL_MS,
    keepPreviousData: false,
  });
}

/**
 * Puts an entry the server has on record into the job as seen, so that nothing flickers, and reads the job again:
 * an entry may open another job or bring a file.
 */
async function entryRecorded(jobId: string, entry: Entry): Promise<void> {
  await mutate<JobResource>(jobKey(jobId), (seen) =>
    seen && !seen.entries.some((each) => each.id === entry.id)
      ? { ...seen, entries: [...seen.entries, entry] }
      : seen,
  );
}

function hear(item: LiveNews): void {
  if (item.what === 'shop') void mutate('/api/shop');
  if (item.what === 'devices') {
    void mutate(DEVICES_PATH);
    return;
  }
  if (item.what !== 'shop') void mutate('/api/rack');
  if (item.jobId !== null) void mutate(jobKey(item.jobId));
  if (item.what !== 'shop')
    void mutate((key) => typeof key === 'string' && /^\/api\/(watches|customers)\//.test(key));
  if (item.what === 'stock' || item.what === 'entry') {
    void mutate('/api/stock');
    void mutate('/api/day');
  }
}

/** Starts the queue and the live stream. Gives the way to stop listening. */
export function startLive(): () => void {
  void startWaiting(entryRecorded);
  const stream = new EventSource('/api/news');
  stream.onmessage = (message: MessageEvent<string>) => hear(JSON.parse(message.data) as LiveNews);
  stream.onopen = () => {
    // What was written while nobody listened.
    void mutate(() => true);
    void sendNow();
  };
  return () => stream.close();
}
