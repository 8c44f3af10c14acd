import type { LotQuarantine, LotSample, Sampled } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { judgeSample } from '../../../core/craft/stock';
import type { Clock } from '../clock';
import { type Db, inTransaction } from '../database';
import { IN_USE, type LotTable } from './lots';

export type SampleTaken =
  | { readonly outcome: 'no such lot' | 'not a cell' | 'same again' }
  | { readonly outcome: 'sampled'; readonly verdict: ReturnType<typeof judgeSample> };

/** Lots that are in doubt: samples of them, and which are set aside. */
export interface Doubts {
  /** The last sample of each lot in use. */
  readonly samples: () => Sampled[];
  readonly setAside: (lotId: string, reason: string | null, technicianId: string) => void;
  /** Sets a lot aside, or releases it where no reason is given. */
  readonly quarantine: (given: LotQuarantine) => 'set' | 'no such lot';
  /** Records a sample of a lot; a doubtful one puts it in quarantine. */
  readonly sample: (given: LotSample) => SampleTaken;
}

export function doubtsOf(db: Db, clock: Clock, lots: LotTable, bookNow: () => Book): Doubts {
  const setAside = db.prepare<[string, string | null, string, string]>(
    'INSERT INTO lot_quarantine (lot_id, reason, technician_id, recorded_at) VALUES (?, ?, ?, ?)',
  );
  const insertSample = db.prepare<[string, string, number, string, string, string, string]>(
    'INSERT INTO lot_sample (id, lot_id, rest_voltage_v, print, verdict, technician_id, recorded_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const sampleKnown = db.prepare<[string], string>('SELECT id FROM lot_sample WHERE id = ?').pluck();
  const samplesInUse = db.prepare<[], Sampled>(
    `SELECT id, lot_id AS lotId, rest_voltage_v AS restVoltageV, print, verdict, recorded_at AS recordedAt
     FROM lot_sample WHERE rowid IN (
       SELECT max(lot_sample.rowid) FROM stock_lot JOIN lot_sample ON lot_sample.lot_id = stock_lot.id
       WHERE ${IN_USE} GROUP BY lot_sample.lot_id
     )`,
  );
  const putAside = (lotId: string, reason: string | null, technicianId: string): void =>
    void setAside.run(lotId, reason, technicianId, clock.nowUtc());
  return {
    samples: () => samplesInUse.all(),
    setAside: putAside,
    quarantine: inTransaction(db, ({ lotId, reason, technicianId }: LotQuarantine): 'set' | 'no such lot' => {
      if (!lots.get(lotId)) return 'no such lot';
      putAside(lotId, reason === '' ? null : reason, technicianId);
      return 'set';
    }),
    sample: inTransaction(db, ({ id, lotId, restVoltageV, print, technicianId }: LotSample): SampleTaken => {
      if (sampleKnown.get(id) !== undefined) return { outcome: 'same again' };
      const of = lots.get(lotId);
      if (!of) return { outcome: 'no such lot' };
      const cell = of.item === 'cell' ? bookNow().cell(of.code) : null;
      if (!cell) return { outcome: 'not a cell' };
      const verdict = judgeSample({ restVoltageV, print }, cell);
      insertSample.run(id, lotId, restVoltageV, print, verdict.verdict, technicianId, clock.nowUtc());
      if (verdict.verdict === 'doubtful') putAside(lotId, verdict.reasons.join(' '), technicianId);
      return { outcome: 'sampled', verdict };
    }),
  };
}
