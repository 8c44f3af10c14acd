import type { CarriedLot } from '../../contract';
import { type JobState, wellOf } from '../../core/logbook';
import type { Db } from './database';

type LaterElsewhere = NonNullable<CarriedLot['watches'][number]['laterElsewhere']>;
type CarriedRow = Omit<CarriedLot['watches'][number], 'laterElsewhere'> & {
  readonly laterElsewhere: string | null;
};

interface FittedRow {
  readonly jobId: string;
  readonly well: string;
  /** Fitted by this shop, not as another counter tells. */
  readonly isHere: 0 | 1;
  readonly counter: string;
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
  update(
    job: { readonly id: string; readonly watchId: string },
    state: JobState,
    before: JobState | null,
  ): void;
  /** Every watch that carries a cell of a lot now, with its owner. */
  carrying(supplier: string, lotCode: string): CarriedLot;
}

/** Whether the same cells were fitted, and the same leaks found. */
function sameCells(a: JobState['facts'], b: JobState['facts']): boolean {
  return (
    a.fittings.length === b.fittings.length &&
    a.fittings.every((entry, index) => entry === b.fittings[index]) &&
    a.leakages.length === b.leakages.length &&
    a.leakages.every((entry, index) => entry === b.leakages[index])
  );
}

/** What was fitted last at each place, as this shop did it and as another counter tells it. */
function fittedLast({
  fittings,
}: JobState['facts']): ReadonlyMap<string, Omit<FittedRow, 'jobId' | 'watchId'>> {
  const last = new Map<string, Omit<FittedRow, 'jobId' | 'watchId'>>();
  for (const entry of fittings) {
    const { payload, occurredAt, counter } = entry;
    const well = wellOf(entry);
    const isHere = counter === null ? 1 : 0;
    last.set(`${well} ${isHere}`, {
      well,
      isHere,
      counter: counter ?? '',
      lotId: payload.lotId,
      cellCode: entry.kind === 'cell.fitted' ? entry.payload.cellCode : entry.payload.kitCode,
      supplier: payload.supplier,
      lotCode: payload.lotCode,
      fittedAt: occurredAt,
    });
  }
  return last;
}

export function cellsInWatchesStore(db: Db): CellsInWatchesStore {
  const forgetFitted = db.prepare<[string]>('DELETE FROM cell_in_watch WHERE job_id = ?');
  const forgetLeaked = db.prepare<[string]>('DELETE FROM cell_leaked WHERE job_id = ?');
  const noteFitted = db.prepare<FittedRow>(
    `INSERT INTO cell_in_watch (job_id, well, is_here, counter, watch_id, lot_id, cell_code, supplier, lot_code, fitted_at)
     VALUES (@jobId, @well, @isHere, @counter, @watchId, @lotId, @cellCode, @supplier, @lotCode, @fittedAt)`,
  );
  const noteLeaked = db.prepare<[string, string, string, string]>(
    'INSERT INTO cell_leaked (job_id, supplier, lot_code, leaked_at) VALUES (?, ?, ?, ?)',
  );
  // Carried now: this shop fitted nothing later in that watch and well. What another counter says of it stands beside.
  const carrying = db.prepare<[string, string], CarriedRow>(
    `SELECT fitted.watch_id AS watchId, fitted.job_id AS jobId, job.ticket, well, cell_code AS cellCode,
       fitted_at AS fittedAt, coalesce(customer.name, '') AS customerName, coalesce(customer.phone, '') AS phone,
       coalesce(customer.email, '') AS email, coalesce(json_extract(job_summary.summary, '$.watch'), '') AS watch,
       (SELECT json_object('jobId', told.job_id, 'cellCode', told.cell_code, 'fittedAt', told.fitted_at, 'counter', told.counter)
        FROM cell_in_watch AS told WHERE told.watch_id = fitted.watch_id AND told.well = fitted.well
          AND fitted.is_here = 1 AND told.is_here = 0 AND told.fitted_at > fitted.fitted_at
        ORDER BY told.fitted_at DESC LIMIT 1) AS laterElsewhere
     FROM cell_in_watch AS fitted JOIN job ON job.id = fitted.job_id
       LEFT JOIN job_summary ON job_summary.job_id = job.id
       LEFT JOIN visit ON visit.id = job.visit_id LEFT JOIN customer ON customer.id = visit.customer_id
     WHERE fitted.supplier = ? AND fitted.lot_code = ? AND NOT EXISTS (
       SELECT 1 FROM cell_in_watch AS later
       WHERE later.watch_id = fitted.watch_id AND later.well = fitted.well AND later.fitted_at > fitted.fitted_at
         AND (later.is_here = 1 OR fitted.is_here = 0)
     )
     ORDER BY fitted_at, job.number`,
  );
  const counts = db.prepare<{ supplier: string; lotCode: string }, { fitted: number; leaked: number }>(
    `SELECT (SELECT count(*) FROM cell_in_watch WHERE supplier = @supplier AND lot_code = @lotCode) AS fitted,
       (SELECT count(*) FROM cell_leaked WHERE supplier = @supplier AND lot_code = @lotCode) AS leaked`,
  );
  return {
    update({ id, watchId }, { facts }, before) {
      if (before !== null && sameCells(before.facts, facts)) return;
      forgetFitted.run(id);
      forgetLeaked.run(id);
      for (const fitted of fittedLast(facts).values()) noteFitted.run({ jobId: id, watchId, ...fitted });
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
        watches: carrying.all(supplier, lotCode).map((row) => ({
          ...row,
          laterElsewhere:
            row.laterElsewhere === null ? null : (JSON.parse(row.laterElsewhere) as LaterElsewhere),
        })),
      };
    },
  };
}
