import { createHash } from 'node:crypto';
import type { Clock } from './clock';
import type { Db } from './database';

export type SentBefore = 'same again' | 'other body under this id';

/** Writes that may be sent twice, known by the id their sender gave them. */
export interface IdempotencyStore {
  /** What was written under an id before; null where nothing was. */
  readonly seen: (kind: string, given: { readonly id: string }) => SentBefore | null;
  /** Inside a write: notes that it is written. */
  readonly note: (kind: string, given: { readonly id: string }) => void;
  /**
   * A write that answers the same again without writing, and tells another body under a known id; noted where its
   * outcome is `done`.
   */
  readonly once: <G extends { readonly id: string }, R>(
    kind: string,
    done: R,
    write: (given: G) => R,
  ) => (given: G) => R | SentBefore;
}

export function idempotencyStore(db: Db, clock: Clock): IdempotencyStore {
  const known = db.prepare<[string], { kind: string; bodyHash: string }>(
    'SELECT kind, body_hash AS bodyHash FROM written_once WHERE id = ?',
  );
  const insert = db.prepare<[string, string, string, string]>(
    'INSERT INTO written_once (id, kind, body_hash, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const hashOf = (given: object): string => createHash('sha256').update(JSON.stringify(given)).digest('hex');
  const seen: IdempotencyStore['seen'] = (kind, given) => {
    const before = known.get(given.id);
    if (!before) return null;
    return before.kind === kind && before.bodyHash === hashOf(given)
      ? 'same again'
      : 'other body under this id';
  };
  const note: IdempotencyStore['note'] = (kind, given) =>
    void insert.run(given.id, kind, hashOf(given), clock.nowUtc());
  return {
    seen,
    note,
    once: (kind, done, write) => (given) => {
      const before = seen(kind, given);
      if (before !== null) return before;
      const outcome = write(given);
      if (outcome === done) note(kind, given);
      return outcome;
    },
  };
}
