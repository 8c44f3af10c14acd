import type { CarriedLot } from '../../contract';
import type { JobState } from '../../core/logbook';
import type { Db } from './database';

interface FittedRow {
  readonly jobId: string;
  readonly well: string;
  readonly watchId: string;
  readonly lotId: string | null;
  readonly cellCode: string;
  readonly supplier: string;
  readonly lotCode: string;
  readonly fittedAt: string;
}

/** Which cell lies in which watch, and which leaked. */
export interface CellsInWatchesStore {
  /**
   * Works a job's lines out anew, unless they are those of the state `before`; inside the transaction that wrote its
   * entry.
   */
  follow(
    job: { readonly id: string; readonly watchId: string },
    state: JobState,
    before: JobState | null,
  ): void;
  /** Every watch that carries a cell of a lot now, with its owner. */
  carrying(supplier: string, lotCode: string): CarriedLot;
}

/** Whether the same cells were fitted, and the same leaks found. */
function sameCells(a: JobState['facts'], b: JobState['facts']): boolean {
  const [fittedA, fittedB] = [[...a.cellsFitted], [...b.cellsFitted]];
  return (
    fittedA.length === fittedB.length &&
    fittedA.every(([well, entry], index) => fittedB[index]?.[0] === well && fittedB[index][1] === entry) &&
    a.leakages.length === b.leakages.length &&
    a.leakages.every((entry, index) => entry === b.leakages[index])
  );
}

export function cellsInWatchesStore(db: Db): CellsInWatchesStore {
  const forgetFitted = db.prepare<[string]>('DELETE FROM cell_in_watch WHERE job_id = ?');
  const forgetLeaked = db.prepare<[string]>('DELETE FROM cell_leaked WHERE job_id = ?');
  const noteFitted = db.prepare<FittedRow>(
    `INSERT INTO cell_in_watch (job_id, well, watch_id, lot_id, cell_code, supplier, lot_code, fitted_at)
     VALUES (@jobId, @well, @watchId, @lotId, @cellCode, @supplier, @lotCode, @fittedAt)`,
  );
  const noteLeaked = db.prepare<[string, string, string, string]>(
    'INSERT INTO cell_leaked (job_id, supplier, lot_code, leaked_at) VALUES (?, ?, ?, ?)',
  );
  // Carried now: nothing was fitted in that watch and well later.
  const carrying = db.prepare<[string, string], CarriedLot['watches'][number]>(
    `SELECT fitted.watch_id AS watchId, fitted.job_id AS jobId, job.ticket, well, cell_code AS cellCode,
       fitted_at AS fittedAt, coalesce(customer.name, '') AS customerName, coalesce(customer.phone, '') AS phone,
       coalesce(customer.email, '') AS email, coalesce(json_extract(job_summary.summary, '$.watch'), '') AS watch
     FROM cell_in_watch AS fitted JOIN job ON job.id = fitted.job_id
       LEFT JOIN job_summary ON job_summary.job_id = job.id
       LEFT JOIN visit ON visit.id = job.visit_id LEFT JOIN customer ON customer.id = visit.customer_id
     WHERE fitted.supplier = ? AND fitted.lot_code = ? AND NOT EXISTS (
       SELECT 1 FROM cell_in_watch AS later
       WHERE later.watch_id = fitted.watch_id AND later.well = fitted.well AND later.fitted_at > fitted.fitted_at
     )
     ORDER BY fitted_at, job.number`,
  );
  const counts = db.prepare<{ supplier: string; lotCode: string }, { fitted: number; leaked: number }>(
    `SELECT (SELECT count(*) FROM cell_in_watch WHERE supplier = @supplier AND lot_code = @lotCode) AS fitted,
       (SELECT count(*) FROM cell_leaked WHERE supplier = @supplier AND lot_code = @lotCode) AS leaked`,
  );
  return {
    follow({ id, watchId }, { facts }, before) {
      if (before !== null && sameCells(before.facts, facts)) return;
      forgetFitted.run(id);
      forgetLeaked.run(id);
      for (const [well, { occurredAt, payload }] of facts.cellsFitted)
        noteFitted.run({
          jobId: id,
          well,
          watchId,
          lotId: payload.lotId,
          cellCode: payload.cellCode,
          supplier: payload.supplier,
          lotCode: payload.lotCode,
          fittedAt: occurredAt,
        });
      for (const { occurredAt, payload } of facts.leakages)
        if (payload.supplier !== '' || payload.lotCode !== '')
          // Of a cell fitted elsewhere often nobody knows the lot: its supplier’s cells leaked all the same.
          noteLeaked.run(id, payload.supplier, payload.lotCode, occurredAt);
    },
    carrying(supplier, lotCode) {
      return {
        supplier,
        lotCode,
        ...(counts.get({ supplier, lotCode }) ?? { fitted: 0, leaked: 0 }),
        watches: carrying.all(supplier, lotCode),
      };
    },
  };
}
