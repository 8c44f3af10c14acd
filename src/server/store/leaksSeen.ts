import { deepEqual } from 'fast-equals';
import { type LeakCaseSeen, leakCaseOf, usualOfCase, type UsualOfCase } from '../../core/advice/leaks';
import type { JobState } from '../../core/logbook';
import type { Db } from './database';

type Row = Omit<LeakCaseSeen, 'leaked' | 'mended' | 'seats' | 'ringRenewed'> & {
  readonly leaked: 0 | 1;
  readonly mended: 0 | 1;
  readonly seats: string;
  readonly ringRenewed: 0 | 1;
};

/** The stiffness of so many watches tells what a case type usually gives. */
const MOST_MEASURED = 200;

/** What this shop's tests showed, job by job. */
export interface LeaksSeenStore {
  /** Works a job's line out anew; inside the transaction that wrote its entry. */
  update(jobId: string, state: JobState): void;
  all(): readonly LeakCaseSeen[];
  /** What the watches of a case type gave under pressure; null where none was measured. */
  usual(caseCode: string): UsualOfCase | null;
}

const bit = (is: boolean): 0 | 1 => (is ? 1 : 0);

const toRow = (seen: LeakCaseSeen): Row => ({
  ...seen,
  leaked: bit(seen.leaked),
  mended: bit(seen.mended),
  seats: JSON.stringify(seen.seats),
  ringRenewed: bit(seen.ringRenewed),
});

const COLUMNS = `case_code AS caseCode, back_kind AS backKind, tested_at AS testedAt, leaked, mended, seats,
  ring_renewed AS ringRenewed, ring_age_years AS ringAgeYears, stiffness_um_per_bar AS stiffnessUmPerBar`;

export function leaksSeenStore(db: Db): LeaksSeenStore {
  const forget = db.prepare<[string]>('DELETE FROM leak_seen WHERE job_id = ?');
  const noted = db.prepare<[string], Row>(`SELECT ${COLUMNS} FROM leak_seen WHERE job_id = ?`);
  const note = db.prepare<Row & { readonly jobId: string }>(
    `INSERT INTO leak_seen (job_id, case_code, back_kind, tested_at, leaked, mended, seats, ring_renewed, ring_age_years, stiffness_um_per_bar)
     VALUES (@jobId, @caseCode, @backKind, @testedAt, @leaked, @mended, @seats, @ringRenewed, @ringAgeYears, @stiffnessUmPerBar)`,
  );
  const all = db.prepare<[], Row>(`SELECT ${COLUMNS} FROM leak_seen ORDER BY tested_at`);
  const measured = db.prepare<[string, number], { stiffness: number }>(
    `SELECT stiffness_um_per_bar AS stiffness FROM leak_seen
     WHERE case_code = ? AND stiffness_um_per_bar IS NOT NULL ORDER BY tested_at DESC LIMIT ?`,
  );
  return {
    update(jobId, state) {
      const seen = leakCaseOf(state);
      const wanted = seen && toRow(seen);
      const there = noted.get(jobId) ?? null;
      if (deepEqual(there, wanted)) return;
      forget.run(jobId);
      if (wanted) note.run({ ...wanted, jobId });
    },
    all: () =>
      all.all().map((row) => ({
        ...row,
        leaked: row.leaked === 1,
        mended: row.mended === 1,
        seats: JSON.parse(row.seats) as LeakCaseSeen['seats'],
        ringRenewed: row.ringRenewed === 1,
      })),
    usual: (caseCode) => usualOfCase(measured.all(caseCode, MOST_MEASURED).map(({ stiffness }) => stiffness)),
  };
}
