import useSWR, { type SWRConfiguration, type SWRResponse } from 'swr';
import { browserStore } from './browserStore';
import { getJson, ServerAway } from './http';
import { noteAway } from './waiting';

const same = <T>(value: T): T => value;

/** Reads a resource and keeps it; with the server away, gives it as last seen. */
async function getKept<T>(path: string, prepare: (fresh: T) => T, asToday: (seen: T) => T): Promise<T> {
  try {
    const fresh = prepare(await getJson<T>(path));
    noteAway(null);
    void browserStore()
      .then((db) => db.put('seen', fresh, path))
      .catch(() => undefined);
    return fresh;
  } catch (error) {
    if (!(error instanceof ServerAway)) throw error;
    noteAway(error);
    const seen = await browserStore()
      .then((db) => db.get('seen', path))
      .catch(() => undefined);
    if (seen === undefined) throw error;
    return asToday(seen as T);
  }
}

interface ResourceOptions<T> extends SWRConfiguration<T> {
  /** What tells two readings of one path apart, such as the revision a catalogue is read at. */
  readonly at?: number;
  /** Kept in the browser, and given as last seen while the server is away. */
  readonly kept?: boolean;
  /** What is noted down beside a fresh answer before it is kept. */
  readonly prepare?: (fresh: T) => T;
  /** What an older program kept, as today's has it. */
  readonly asToday?: (seen: T) => T;
}

/**
 * One resource of the server by its path; null: not asked for. An error is `Refused` or `ServerAway`, or something that
 * broke on the way.
 */
export function useResource<T>(
  path: string | null,
  { at, kept = true, prepare = same, asToday = same, ...options }: ResourceOptions<T> = {},
): SWRResponse<T, unknown> {
  const read = (): Promise<T> => (kept ? getKept(path ?? '', prepare, asToday) : getJson<T>(path ?? ''));
  return useSWR<T, unknown>(path === null || at === undefined ? path : [path, at], read, options);
}
