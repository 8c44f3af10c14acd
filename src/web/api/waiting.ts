import { useSyncExternalStore } from 'react';
import type { NewEntry } from '../../contract';
import type { Entry } from '../../core/logbook';
import { browserStore, type WaitingEntry } from './browserStore';
import { postJson, Refused, saidInWords } from './http';

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
let onRecorded: (jobId: string, entry: Entry) => Promise<void> = () => Promise.resolve();
let sending = false;
let lastOrder = 0;
let retryTimer: ReturnType<typeof setTimeout> | undefined;
let retryMs = 500;
const LONGEST_RETRY_MS = 8000;

function change(next: Partial<WaitingState>): void {
  state = { ...state, ...next };
  for (const listener of listeners) listener();
}

async function keep(waiting: WaitingEntry): Promise<void> {
  try {
    await (await browserStore()).put('waiting', waiting);
  } catch {
    change({ onlyInMemory: true });
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

/** Sends what waits, oldest first, until all is sent or the server is away. */
async function send(): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (;;) {
      const next = state.entries.find((each) => each.refused === null);
      if (!next) break;
      try {
        const entry = await postJson<Entry>(`/api/jobs/${next.jobId}/entries`, next.entry);
        await forget(next.id);
        await onRecorded(next.jobId, entry);
        change({ entries: state.entries.filter((each) => each.id !== next.id), away: false, awaySays: null });
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
          noteAway(error);
          retryTimer = setTimeout(() => void send(), retryMs);
          retryMs = Math.min(retryMs * 2, LONGEST_RETRY_MS);
          break;
        }
      }
    }
  } finally {
    sending = false;
  }
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
export async function startWaiting(recorded: (jobId: string, entry: Entry) => Promise<void>): Promise<void> {
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
export async function letGo(id: string): Promise<void> {
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
