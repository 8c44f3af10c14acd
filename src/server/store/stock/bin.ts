import type { Collection } from '../../../contract';
import type { Clock } from '../clock';
import { type Db, inTransaction } from '../database';
import type { IdempotencyStore, SentBefore } from '../idempotencyStore';

/** The bin of spent cells: what goes in, what is collected, and the day's close over it. */
export interface SpentBin {
  /** How many lie in it. */
  readonly count: () => number;
  /** What one fact put into it. */
  readonly of: (factId: string) => number;
  readonly put: (factId: string, causeId: string, count: number) => void;
  /** Things of a lot that nobody fitted. */
  readonly putUnused: (count: number) => void;
  /** The newest first; all of them where no number is given. */
  readonly collections: (most?: number) => Collection[];
  /** Empties it, or part of it. Never more than lies in it. */
  readonly collect: (collection: Collection) => 'collected' | 'more than in the bin' | SentBefore;
  readonly lastClosed: () => string | null;
  readonly isClosed: (day: string) => boolean;
  readonly closeDay: (day: string, words: string, technicianId: string) => void;
}

export function spentBin(db: Db, clock: Clock, once: IdempotencyStore['once']): SpentBin {
  const spentLine = db.prepare<[string, string, number, string]>(
    'INSERT INTO spent_ledger (fact_id, cause_id, delta, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const spentOf = db
    .prepare<[string], number>('SELECT coalesce(sum(delta), 0) FROM spent_ledger WHERE fact_id = ?')
    .pluck();
  const spentTotal = db.prepare<[], number>('SELECT total FROM spent_bin WHERE id = 1').pluck();
  const moreSpent = db.prepare<[number]>('UPDATE spent_bin SET total = total + ? WHERE id = 1');
  const collections = db.prepare<[number], Collection>(
    `SELECT id, count, weight_g AS weightG, collected_on AS collectedOn, receipt, technician_id AS technicianId
     FROM spent_collection ORDER BY collected_on DESC, recorded_at DESC LIMIT ?`,
  );
  const collectionKnown = db
    .prepare<[string], string>('SELECT id FROM spent_collection WHERE id = ?')
    .pluck();
  const insertCollection = db.prepare<Collection & { readonly recordedAt: string }>(
    `INSERT INTO spent_collection (id, count, weight_g, collected_on, receipt, technician_id, recorded_at)
     VALUES (@id, @count, @weightG, @collectedOn, @receipt, @technicianId, @recordedAt)`,
  );
  const collectedTotal = db
    .prepare<[], number>('SELECT coalesce(sum(count), 0) FROM spent_collection')
    .pluck();
  const lastClosed = db.prepare<[], string>('SELECT day FROM day_close ORDER BY day DESC LIMIT 1').pluck();
  const dayClosed = db.prepare<[string], string>('SELECT day FROM day_close WHERE day = ?').pluck();
  const insertDayClose = db.prepare<[string, number, string, string, string]>(
    'INSERT INTO day_close (day, bin, words, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?)',
  );
  const count = (): number => (spentTotal.get() ?? 0) - (collectedTotal.get() ?? 0);
  return {
    count,
    of: (factId) => spentOf.get(factId) ?? 0,
    put: (factId, causeId, delta) => void spentLine.run(factId, causeId, delta, clock.nowUtc()),
    putUnused: (more) => void moreSpent.run(more),
    collections: (most = -1) => collections.all(most),
    collect: inTransaction(
      db,
      once('collection', 'collected', (collection: Collection) => {
        if (collectionKnown.get(collection.id) !== undefined) return 'same again';
        if (collection.count > count()) return 'more than in the bin';
        insertCollection.run({ ...collection, recordedAt: clock.nowUtc() });
        return 'collected';
      }),
    ),
    lastClosed: () => lastClosed.get() ?? null,
    isClosed: (day) => dayClosed.get(day) !== undefined,
    closeDay: (day, words, technicianId) =>
      void insertDayClose.run(day, count(), words, technicianId, clock.nowUtc()),
  };
}
