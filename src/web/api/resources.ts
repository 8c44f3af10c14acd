import { mutate } from 'swr';
import type {
  CalibreHistory,
  CarriedLot,
  CustomerResource,
  DayResource,
  JobResource,
  JobSummary,
  KeptWrites,
  LedgerLine,
  LiveNews,
  Reminder,
  ShopResource,
  StockResource,
  ToolsServed,
  WatchResource,
} from '../../contract';
import type { LeakGroup, UsualOfCase } from '../../core/advice/leaks';
import type { SeenBefore } from '../../core/craft/identify';
import { completePolicy } from '../../core/craft/policy';
import type { Entry } from '../../core/logbook';
import type { Lot } from '../../core/craft/stock';
import { DEVICES_PATH } from './devices';
import { listen } from './live';
import { useResource } from './resource';
import { sendNow, startWaiting } from './waiting';

/** The shop as seen, with how far this machine's clock is from the shop's. */
export interface SeenShop extends ShopResource {
  readonly clockAheadMs: number;
}

/** The shop's instant now, by this machine's clock and the difference last seen. */
export function shopNow(shop: SeenShop): string {
  return new Date(Date.now() + shop.clockAheadMs).toISOString();
}

const POLL_MS = 15_000;
/** The shop is read again now and then, so that day and clock move on in a window left open. */
const CLOCK_MS = 60_000;

export function useShop() {
  return useResource<SeenShop>('/api/shop', {
    prepare: (fresh) => ({ ...fresh, clockAheadMs: Date.parse(fresh.nowUtc) - Date.now() }),
    asToday: (seen) => ({ ...seen, policy: completePolicy(seen.policy) }),
    refreshInterval: CLOCK_MS,
  });
}

export function useRack() {
  return useResource<JobSummary[]>('/api/rack', {
    refreshInterval: POLL_MS,
  });
}

/** Owners to be reminded of the next visit: what comes, then what was missed. */
export function useReminders() {
  return useResource<readonly Reminder[]>('/api/reminders', { refreshInterval: CLOCK_MS });
}

/** Lots an older program kept here say nothing of how long their cells lasted. */
const lotsAsToday = (lots: readonly Lot[]): readonly Lot[] =>
  lots.map((lot) => Object.assign({ lasts: null }, lot));

export function useKeptWrites() {
  return useResource<readonly KeptWrites[]>('/api/kept');
}

export function useStock() {
  return useResource<StockResource>('/api/stock', {
    asToday: (seen) => ({ ...seen, lots: lotsAsToday(seen.lots) }),
  });
}

/** Lots used up, the first page of them, once they are asked for. */
export function useEmptyLots(asked: boolean) {
  return useResource<Lot[]>(asked ? '/api/lots/empty' : null);
}

/** The last lines of a lot’s ledger. */
export function useLedgerOfLot(lotId: string) {
  return useResource<LedgerLine[]>(`/api/lots/${lotId}/ledger`);
}

/** Who carries a lot now; asked once both are said. */
export function useCarried(supplier: string, lotCode: string) {
  return useResource<CarriedLot>(
    supplier === '' || lotCode === ''
      ? null
      : `/api/lots/carried?${new URLSearchParams({ supplier, lot: lotCode }).toString()}`,
  );
}

/** What stands in the way of closing the day. */
export function useDay() {
  return useResource<DayResource>('/api/day');
}

/** Which movements this shop saw, and in which cases. */
export function useSeenBefore() {
  return useResource<SeenBefore[]>('/api/movements/seen');
}

/** What this shop's tests showed, by case type and year. */
export function useLeakReport() {
  return useResource<readonly LeakGroup[]>('/api/leaks');
}

/** What the watches of a case type give under pressure; nothing is asked while the type is not known. */
export function useUsualOfCase(caseCode: string | null) {
  return useResource<UsualOfCase | null>(
    caseCode === null ? null : `/api/leaks/usual?${new URLSearchParams({ case: caseCode }).toString()}`,
  );
}

/** This shop's own history with a calibre. */
export function useCalibreHistory(calibreId: string) {
  return useResource<CalibreHistory>(`/api/calibres/${encodeURIComponent(calibreId)}/history`);
}

/** What each tool opened, and how often one was missing. */
export function useToolsServed() {
  return useResource<ToolsServed>('/api/tools/served');
}

export function useCustomer(customerId: string | null) {
  return useResource<CustomerResource>(customerId === null ? null : `/api/customers/${customerId}`, {
    // What an older page kept here knows of no revisions.
    asToday: (seen) => ({ ...seen, revisions: (seen as Partial<CustomerResource>).revisions ?? [] }),
  });
}

export function useWatch(watchId: string | null) {
  return useResource<WatchResource>(watchId === null ? null : `/api/watches/${watchId}`);
}

const jobKey = (jobId: string): string => `/api/jobs/${jobId}`;

export function useJobResource(jobId: string) {
  return useResource<JobResource>(jobKey(jobId), {
    // What an older program kept here knows of no lots, and of nothing it could not read.
    asToday: (seen) => ({
      ...seen,
      lots: 'lots' in seen ? lotsAsToday(seen.lots) : [],
      unreadable: 'unreadable' in seen ? seen.unreadable : [],
    }),
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
  if (entry.kind === 'handback.reminded')
    await mutate<readonly Reminder[]>('/api/reminders', (seen) =>
      seen?.filter((each) => each.jobId !== jobId),
    );
}

function onNews(item: LiveNews): void {
  if (item.what === 'shop') void mutate('/api/shop');
  if (item.what === 'devices') {
    void mutate(DEVICES_PATH);
    return;
  }
  // Policy and book change what the rack says, too.
  void mutate('/api/rack');
  if (item.jobId !== null) void mutate(jobKey(item.jobId));
  if (item.what !== 'shop')
    void mutate((key) => typeof key === 'string' && /^\/api\/(watches|customers)\//.test(key));
  if (item.what === 'stock' || item.what === 'entry') {
    void mutate('/api/stock');
    void mutate('/api/day');
    void mutate('/api/reminders');
  }
}

/** Starts the queue and the live stream. Gives the way to stop listening. */
export function startLive(): () => void {
  void startWaiting(entryRecorded);
  return listen((says) => {
    if (says !== 'open') {
      onNews(says);
      return;
    }
    // What was written while nobody listened.
    void mutate(() => true);
    void sendNow();
  });
}
