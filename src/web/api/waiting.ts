import { useSyncExternalStore } from 'react';
import type { JobResource, NewEntry } from '../../contract';
import type { Entry } from '../../core/logbook';
import { browserStore, type WaitingEntry } from './browserStore';
import { getJson, postJson, Refused, saidInWords } from './http';

/**
 * The waiting queue: every entry is kept in the browser before it is sent, in order, and leaves only when the
 * server has it on disk. What the server refuses stays, marked, until a person settles it.
 */
export interface WaitingState {
  readonly entries: readonly WaitingEntry[];
  readonly away: boolean;
  /** Where the server is there and says why it cannot now: what it says. */
  readonly awaySays: string | null;
  /** The browser would not keep the entries: they do not survive a reload. */
  readonly onlyInMemory: boolean;
}

let state: WaitingState = { entries: [], away: false, awaySays: null, onlyInMemory: false };
const listeners = new Set<() => void>();
/** Told of each entry that is on record; null: another window sent what waited for a job. */
type OnRecorded = (jobId: string, entry: Entry | null) => Promise<void>;
let onRecorded: OnRecorded = () => Promise.resolve();
/** Entries on their way into the browser’s database. */
const keeping = new Set<string>();
let sending: Promise<void> | null = null;
let lastOrder = 0;
let retryTimer: ReturnType<typeof setTimeout> | undefined;
let retryMs = 500;
const LONGEST_RETRY_MS = 8000;

function change(next: Partial<WaitingState>): void {
  state = { ...state, ...next };
  for (const listener of listeners) listener();
}

async function keep(waiting: WaitingEntry): Promise<void> {
  keeping.add(waiting.id);
  try {
    await (await browserStore()).put('waiting', waiting);
  } catch {
    change({ onlyInMemory: true });
  } finally {
    keeping.delete(waiting.id);
  }
}

async function forget(id: string): Promise<void> {
  try {
    await (await browserStore()).delete('waiting', id);
  } catch {
    change({ onlyInMemory: true });
  }
}

function replace(waiting: WaitingEntry): void {
  change({ entries: state.entries.map((each) => (each.id === waiting.id ? waiting : each)) });
}

const QUEUE_LOCK = 'wax-lantern-queue';

/**
 * Does it while no other window of this browser does: each holds what all of them left, and would send it once more. Where
 * the browser has no locks, as without encryption, each does; sending twice does no harm.
 */
async function alone(work: () => Promise<void>): Promise<void> {
  const locks = (globalThis.navigator as Partial<Navigator> | undefined)?.locks;
  if (!locks) return work();
  await locks.request(QUEUE_LOCK, work);
}

/** Removes what another window has sent meanwhile, once the server says that it is on record. */
async function dropSent(): Promise<void> {
  const known = state.entries.filter((each) => !keeping.has(each.id));
  if (known.length === 0) return;
  const kept = await browserStore()
    .then((store) => store.getAllKeys('waiting'))
    .catch(() => null);
  if (kept === null) return;
  const gone = known.filter((each) => !kept.includes(each.id));
  for (const jobId of new Set(gone.map((each) => each.jobId))) {
    try {
      const { entries } = await getJson<Pick<JobResource, 'entries'>>(`/api/jobs/${jobId}`);
      const onRecord = new Set(entries.map(({ id }) => id));
      await onRecorded(jobId, null);
      change({ entries: state.entries.filter((each) => each.jobId !== jobId || !onRecord.has(each.id)) });
    } catch {
      // They are sent once more, which does no harm.
    }
  }
}

/** Sends what waits, oldest first, until all is sent or the server is away. */
function send(): Promise<void> {
  if (sending) return sending;
  const mine = alone(sendAll).finally(() => (sending = null));
  sending = mine;
  // What was put in as the last was sent goes, too; what failed in another way waits until there is reason to try again.
  mine.then(
    () => {
      if (!state.away && state.entries.some((each) => each.refused === null)) void send();
    },
    (error: unknown) => noteAway(error),
  );
  return mine;
}

/** So long entries that are sent one after the other are shown together, ms: the page is not drawn anew with each. */
const SHOWN_TOGETHER_MS = 400;

async function sendAll(): Promise<void> {
  await dropSent();
  const done = new Map<string, Entry>();
  let shownAtMs = -SHOWN_TOGETHER_MS;
  const show = async (): Promise<void> => {
    shownAtMs = performance.now();
    const sent = [...done.values()];
    for (const entry of sent) await onRecorded(entry.jobId, entry);
    change({ entries: state.entries.filter((each) => !done.has(each.id)), away: false, awaySays: null });
    done.clear();
  };
  for (;;) {
    const next = state.entries.find((each) => each.refused === null && !done.has(each.id));
    if (!next) break;
    try {
      const entry = await postJson<Entry>(`/api/jobs/${next.jobId}/entries`, next.entry);
      await forget(next.id);
      done.set(next.id, entry);
      if (performance.now() - shownAtMs > SHOWN_TOGETHER_MS) await show();
      retryMs = 500;
    } catch (error) {
      if (error instanceof Refused) {
        const refused = { ...next, refused: error.problem };
        await keep(refused);
        replace(refused);
        // It answered: the others go on.
        noteAway(null);
      } else {
        // Away, or an answer that made no sense: the entry stays and is sent again.
        await show();
        noteAway(error);
        retryTimer = setTimeout(() => void send(), retryMs);
        retryMs = Math.min(retryMs * 2, LONGEST_RETRY_MS);
        return;
      }
    }
  }
  if (done.size > 0) await show();
}

/** Puts entries not yet known here among those that wait, in the order they were made. */
function take(entries: readonly WaitingEntry[]): void {
  const known = new Set(state.entries.map((each) => each.id));
  const fresh = entries.filter((each) => !known.has(each.id));
  if (fresh.length > 0) change({ entries: [...state.entries, ...fresh].sort((a, b) => a.order - b.order) });
}

/** What is kept, each record by itself: one that cannot be read stops no other. */
async function readKept(): Promise<ReadonlyMap<string, unknown>> {
  const store = await browserStore();
  const kept = new Map<string, unknown>();
  for (const id of await store.getAllKeys('waiting'))
    kept.set(id, await store.get('waiting', id).catch(() => undefined));
  return kept;
}

/** Takes up what is kept in the browser and not yet known here: from an earlier page, or left by another window. */
async function takeUpKept(): Promise<void> {
  let kept: ReadonlyMap<string, unknown>;
  try {
    kept = await readKept();
  } catch {
    change({ onlyInMemory: true });
    return;
  }
  if (kept.size === 0) return;
  try {
    // What reads an older page's entries is fetched where there are any.
    const { asKept } = await import('./kept');
    take([...kept].map(([id, record]) => asKept(id, record)));
  } catch (error) {
    // They stay kept, and are taken up once the server is there again.
    noteAway(error);
  }
}

/** Tries at once, because there is reason to think the server is back. Sending an entry twice does no harm. */
export async function sendNow(): Promise<void> {
  clearTimeout(retryTimer);
  await takeUpKept();
  await send();
}

/** Loads what an earlier page left waiting and begins to send. `recorded` is told of each entry that is on disk. */
export async function startWaiting(recorded: OnRecorded): Promise<void> {
  onRecorded = recorded;
  window.addEventListener('online', () => void sendNow());
  await sendNow();
}

/**
 * Puts an entry into the queue and sends it. Shown at once, before this returns its promise; kept in the browser when
 * that is fulfilled; on record when the server says so.
 */
export async function putWaiting(jobId: string, entry: NewEntry): Promise<void> {
  lastOrder = Math.max(Date.now(), lastOrder + 1);
  const waiting: WaitingEntry = { id: entry.id, order: lastOrder, jobId, entry, refused: null };
  take([waiting]);
  await keep(waiting);
  void send();
}

/** Sends a refused entry once more, after a person changed what stood against it. */
export async function tryAgain(waiting: WaitingEntry): Promise<void> {
  const { asOfToday } = await import('./kept');
  const again = asOfToday({ ...waiting, refused: null });
  await keep(again);
  replace(again);
  await sendNow();
}

/** Lets a refused entry go, on a person's word. */
export async function discardEntry(id: string): Promise<void> {
  await forget(id);
  change({ entries: state.entries.filter((each) => each.id !== id) });
}

/** Notes that the server could not be reached or could not do its work, so that the screen can say so; null: it answered. */
export function noteAway(error: unknown): void {
  const away = error !== null;
  const awaySays = saidInWords(error);
  if (state.away !== away || state.awaySays !== awaySays) change({ away, awaySays });
}

/** The queue as it stands. */
export function readWaiting(): WaitingState {
  return state;
}

export function useWaiting(): WaitingState {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, readWaiting);
}
