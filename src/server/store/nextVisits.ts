import { deepEqual } from 'fast-equals';
import type { Reminder } from '../../contract';
import { isToRemind, nextVisitNoted, remindedOf } from '../../core/advice/dayplan';
import type { JobState } from '../../core/logbook';
import type { Db } from './database';

interface Row {
  readonly jobId: string;
  readonly watchId: string;
  readonly dueOn: string;
  readonly reminded: 0 | 1;
}

/** Told at most: what comes first, the soonest first; then what was missed, the latest first. */
const MOST = 100;

/** Which watches are due again, and whose owners are still to be reminded. */
export interface NextVisitsStore {
  /** Works a job's line out anew; inside the transaction that wrote its entry. */
  update(job: { readonly id: string; readonly watchId: string }, state: JobState): void;
  toRemind(today: string): readonly Reminder[];
}

export function nextVisitsStore(db: Db): NextVisitsStore {
  const noted = db.prepare<[string], Row>(
    'SELECT job_id AS jobId, watch_id AS watchId, due_on AS dueOn, reminded FROM next_visit WHERE job_id = ?',
  );
  const forget = db.prepare<[string]>('DELETE FROM next_visit WHERE job_id = ?');
  const note = db.prepare<Row>(
    'INSERT INTO next_visit (job_id, watch_id, due_on, reminded) VALUES (@jobId, @watchId, @dueOn, @reminded)',
  );
  // Not waited for: a watch that is here, or that this shop gave a later day or another cell since; nor an owner who was
  // erased. What another counter did stands beside.
  const due = db.prepare<{ from: string; to: string; today: string; most: number }, Reminder>(
    `SELECT job.id AS jobId, job.ticket, due.watch_id AS watchId, due.due_on AS dueOn, customer.name AS customerName,
       customer.phone, customer.email, coalesce(json_extract(job_summary.summary, '$.watch'), '') AS watch,
       (SELECT told.ticket FROM job AS told WHERE told.watch_id = job.watch_id AND told.number > job.number
          AND told.came_as IS NOT NULL ORDER BY told.number DESC LIMIT 1) AS seenElsewhere
     FROM next_visit AS due JOIN job ON job.id = due.job_id
       JOIN visit ON visit.id = job.visit_id JOIN customer ON customer.id = visit.customer_id
       LEFT JOIN job_summary ON job_summary.job_id = job.id
     WHERE due.reminded = 0 AND due.due_on BETWEEN @from AND @to AND customer.erased_at IS NULL
       AND NOT EXISTS (
         SELECT 1 FROM job AS later LEFT JOIN job_summary AS now ON now.job_id = later.id
         WHERE later.watch_id = job.watch_id AND later.number > job.number AND later.came_as IS NULL AND (
           now.on_rack = 1
           OR EXISTS (SELECT 1 FROM next_visit WHERE next_visit.job_id = later.id)
           OR EXISTS (SELECT 1 FROM cell_in_watch WHERE cell_in_watch.job_id = later.id)
         )
       )
     ORDER BY due.due_on < @today, abs(julianday(due.due_on) - julianday(@today)), job.number LIMIT @most`,
  );
  return {
    update({ id, watchId }, state) {
      const visit = nextVisitNoted(state);
      const wanted: Row | undefined = visit
        ? { jobId: id, watchId, dueOn: visit.dueOn, reminded: visit.reminded ? 1 : 0 }
        : undefined;
      if (deepEqual(noted.get(id), wanted)) return;
      forget.run(id);
      if (wanted) note.run(wanted);
    },
    toRemind(today) {
      const { from, to } = remindedOf(today);
      return due.all({ from, to, today, most: MOST }).filter(({ dueOn }) => isToRemind(dueOn, today));
    },
  };
}
