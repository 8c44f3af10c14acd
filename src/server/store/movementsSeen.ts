import { deepEqual } from 'fast-equals';
import type { CalibreHistory } from '../../contract';
import type { SeenBefore } from '../../core/craft/identify';
import { readingOfMovement } from '../../core/advice/health';
import type { JobState } from '../../core/logbook';
import { wentUnnamed } from '../../core/advice/identify';
import type { Db } from './database';

interface Row {
  readonly jobId: string;
  readonly calibreId: string | null;
  readonly revision: string | null;
  readonly code: string;
  readonly caseCode: string;
  readonly seenAt: string;
  readonly currentUA: number | null;
  readonly rateSPerDay: number | null;
  readonly leaked: 0 | 1;
  readonly cause: string;
}

/** Readings told of a calibre at most, the newest. */
const MOST_READINGS = 200;
const MOST_JOBS = 12;

/** Which movements this shop saw, and what it read on them. */
export interface MovementsSeenStore {
  /** Works a job's line out anew; inside the transaction that wrote its entry. */
  update(jobId: string, state: JobState): void;
  /** How many jobs had each movement, in which case. */
  before(): readonly SeenBefore[];
  history(calibreId: string): CalibreHistory;
}

const UNNAMED = { calibreId: null, revision: null, code: '' };

/** What a job tells of its movement; null while it is not named, unless it went out so. */
function rowOf(jobId: string, state: JobState): Row | null {
  const { facts, caseType } = state;
  const { movement, watch, findings, signed } = facts;
  const movementSeen = movement ?? (wentUnnamed(facts) ? signed : null);
  const { calibreId, revision, code } = movement?.payload ?? UNNAMED;
  return (
    movementSeen && {
      jobId,
      calibreId,
      revision,
      code,
      caseCode: caseType?.code ?? watch?.payload.reference ?? '',
      seenAt: movementSeen.occurredAt,
      currentUA: readingOfMovement(state, 'currentUA'),
      rateSPerDay: readingOfMovement(state, 'rateSPerDay'),
      leaked: facts.leakages.length > 0 ? 1 : 0,
      cause: [...findings.values()].at(-1)?.payload.cause ?? '',
    }
  );
}

export function movementsSeenStore(db: Db): MovementsSeenStore {
  const forget = db.prepare<[string]>('DELETE FROM movement_seen WHERE job_id = ?');
  const noted = db.prepare<[string], Row>(
    `SELECT job_id AS jobId, calibre_id AS calibreId, revision, code, case_code AS caseCode, seen_at AS seenAt,
       current_ua AS currentUA, rate_s_per_day AS rateSPerDay, leaked, cause FROM movement_seen WHERE job_id = ?`,
  );
  const note = db.prepare<Row>(
    `INSERT INTO movement_seen (job_id, calibre_id, revision, code, case_code, seen_at, current_ua, rate_s_per_day, leaked, cause)
     VALUES (@jobId, @calibreId, @revision, @code, @caseCode, @seenAt, @currentUA, @rateSPerDay, @leaked, @cause)`,
  );
  const before = db.prepare<[], SeenBefore>(
    `SELECT calibre_id AS calibreId, revision, case_code AS caseCode, count(*) AS jobs
     FROM movement_seen GROUP BY calibre_id, revision, case_code`,
  );
  const counted = db.prepare<
    [string],
    { jobs: number; leaked: number; firstAtUtc: string | null; lastAtUtc: string | null }
  >(
    `SELECT count(*) AS jobs, coalesce(sum(leaked), 0) AS leaked, min(seen_at) AS firstAtUtc, max(seen_at) AS lastAtUtc
     FROM movement_seen WHERE calibre_id = ?`,
  );
  const readings = db.prepare<[string, number], CalibreHistory['readings'][number]>(
    `SELECT seen_at AS atUtc, current_ua AS currentUA, rate_s_per_day AS rateSPerDay
     FROM movement_seen JOIN job ON job.id = movement_seen.job_id
     WHERE calibre_id = ? AND (current_ua IS NOT NULL OR rate_s_per_day IS NOT NULL)
     ORDER BY seen_at DESC, job.number DESC LIMIT ?`,
  );
  const causes = db.prepare<[string], CalibreHistory['causes'][number]>(
    `SELECT cause, count(*) AS jobs FROM movement_seen WHERE calibre_id = ? AND cause <> ''
     GROUP BY cause ORDER BY jobs DESC, cause`,
  );
  const jobs = db.prepare<[string, number], CalibreHistory['latest'][number]>(
    `SELECT job_id AS jobId, job.ticket, seen_at AS atUtc, revision FROM movement_seen
     JOIN job ON job.id = movement_seen.job_id WHERE calibre_id = ? ORDER BY seen_at DESC, job.number DESC LIMIT ?`,
  );
  return {
    update(jobId, state) {
      const wanted = rowOf(jobId, state);
      const there = noted.get(jobId) ?? null;
      if (deepEqual(there, wanted)) return;
      forget.run(jobId);
      if (wanted) note.run(wanted);
    },
    before: () => before.all(),
    history(calibreId) {
      const all = counted.get(calibreId) ?? { jobs: 0, leaked: 0, firstAtUtc: null, lastAtUtc: null };
      return {
        ...all,
        readings: readings.all(calibreId, MOST_READINGS).reverse(),
        causes: causes.all(calibreId),
        latest: jobs.all(calibreId, MOST_JOBS),
      };
    },
  };
}
