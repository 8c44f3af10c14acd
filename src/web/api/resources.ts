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
import { noteNews, onStaleReading, standsAt } from './asOf';
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
async function entryRecorded(jobId: string, entry: Entry | null): Promise<void> {
  if (entry === null) {
    await mutate(jobKey(jobId));
    return;
  }
  await mutate<JobResource>(
    jobKey(jobId),
    (seen) =>
      seen && !seen.entries.some((each) => each.id === entry.id)
        ? { ...seen, entries: [...seen.entries, entry] }
        : seen,
    { revalidate: false },
  );
  readAgain([jobKey(jobId)]);
  if (entry.kind === 'handback.reminded')
    await mutate<readonly Reminder[]>('/api/reminders', (seen) =>
      seen?.filter((each) => each.jobId !== jobId),
    );
}

/**
 * What was written is read again so soon after the last reading, ms. As long as news keep coming, as they do when a counter
 * was away, the wait doubles up to the longest: ten windows that read with each of sixty entries would do nothing else.
 */
const READ_AGAIN_MS = 400;
const LONGEST_READ_AGAIN_MS = 3200;
/** So many news in one wait are more than a hand makes. */
const BURST = 3;
const OF_A_WATCH_OR_OWNER = 'watches and customers';
const toRead = new Set<string>();
let readAtMs = -READ_AGAIN_MS;
let readAgainMs = READ_AGAIN_MS;
let newsSince = 0;
/** While what waited is sent, nothing is read again: all of it is, once that is done. */
let isSending = false;
let readTimer: ReturnType<typeof setTimeout> | undefined;

function readNow(): void {
  readTimer = undefined;
  readAtMs = performance.now();
  readAgainMs = newsSince >= BURST ? Math.min(2 * readAgainMs, LONGEST_READ_AGAIN_MS) : READ_AGAIN_MS;
  newsSince = 0;
  for (const key of toRead)
    void (key === OF_A_WATCH_OR_OWNER
      ? mutate((each) => typeof each === 'string' && /^\/api\/(watches|customers)\//.test(each))
      : mutate(key));
  toRead.clear();
}

/** Reads resources again: at once, or together with what else changes in a moment. */
function readAgain(keys: readonly string[]): void {
  newsSince += 1;
  for (const key of keys) toRead.add(key);
  if (readTimer !== undefined || isSending) return;
  const waitMs = readAtMs + readAgainMs - performance.now();
  if (waitMs <= 0) readNow();
  else readTimer = setTimeout(readNow, waitMs);
}

function onNews({ what, jobId }: LiveNews): void {
  if (what === 'devices') {
    readAgain([DEVICES_PATH]);
    return;
  }
  readAgain([
    // Policy and book change what the rack says, too.
    '/api/rack',
    ...(what === 'shop' ? ['/api/shop'] : [OF_A_WATCH_OR_OWNER]),
    ...(jobId === null ? [] : [jobKey(jobId)]),
    ...(what === 'stock' || what === 'entry' ? ['/api/stock', '/api/day', '/api/reminders'] : []),
  ]);
}

/** So long what waits goes before what is read, ms. */
const SENT_FIRST_MS = 12_000;

/** Starts the queue and the live stream. Gives the way to stop listening. */
export function startLive(): () => void {
  void startWaiting(entryRecorded);
  onStaleReading(() => void mutate(() => true));
  return listen(({ mark, news }) => {
    if (news !== null) {
      noteNews(mark);
      onNews(news);
      return;
    }
    const missedNothing = standsAt(mark);
    // First what waits is sent, by one window after the other; then, or after a while, what was written while nobody
    // listened is read.
    isSending = true;
    const sent = sendNow();
    const longEnough = new Promise((resolve) => setTimeout(resolve, SENT_FIRST_MS));
    void Promise.race([sent, longEnough]).then(() => {
      isSending = false;
      if (missedNothing) {
        if (toRead.size > 0) readNow();
        return undefined;
      }
      toRead.clear();
      return mutate(() => true);
    });
  });
}
