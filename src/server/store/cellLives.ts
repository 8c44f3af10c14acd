import { cellVisitOf, type DatedLots, withForecastsKept } from '../../core/advice/life';
import { type CellVisit, estimateLives, livesOf, type ShopLife } from '../../core/craft/life';
import type { Lot } from '../../core/craft/stock';
import { daysBetween } from '../../core/craft/time';
import type { JobContext, JobState } from '../../core/logbook';
import type { Db } from './database';

type Cells = Pick<Lot, 'code' | 'supplier'>;

/** A week more or less without a watch seen again changes no factor. */
const TOLD_FOR_DAYS = 7;

/** How long the cells of a type from a supplier lasted in the watches of this shop. */
export interface CellLivesStore {
  /** Works a job's line out anew; inside the transaction that wrote its entry. */
  update(
    job: { readonly id: string; readonly watchId: string },
    state: JobState,
    lots: DatedLots,
    context: JobContext,
  ): void;
  /** What those cells did, as parts of what was forecast for each. */
  readonly ofCells: (cells: Cells) => ShopLife;
}

/** Tables of what was seen, from which lives are told by the core; `typeOf`: a cell's name as the book has it. */
export function cellLivesStore(
  db: Db,
  { dayNow, typeOf }: { readonly dayNow: () => string; readonly typeOf: (code: string) => string },
): CellLivesStore {
  const noted = db.prepare<[string], string>('SELECT visit FROM cell_visit WHERE job_id = ?').pluck();
  const forget = db.prepare<[string]>('DELETE FROM cell_visit WHERE job_id = ?');
  const forgetFitted = db.prepare<[string]>('DELETE FROM cell_visit_fitted WHERE job_id = ?');
  const note = db.prepare<[string, string, string, string]>(
    'INSERT INTO cell_visit (job_id, watch_id, came_on, visit) VALUES (?, ?, ?, ?)',
  );
  const noteFitted = db.prepare<[string, string, string, string]>(
    'INSERT OR IGNORE INTO cell_visit_fitted (job_id, watch_id, cell_code, supplier) VALUES (?, ?, ?, ?)',
  );
  const fittedIn = db.prepare<[string], Cells>(
    'SELECT DISTINCT cell_code AS code, supplier FROM cell_visit_fitted WHERE watch_id = ?',
  );
  const visits = db.prepare<[string, string], { watchId: string; visit: string }>(
    `SELECT seen.watch_id AS watchId, visit FROM cell_visit AS seen JOIN job ON job.id = seen.job_id
     WHERE seen.watch_id IN (SELECT watch_id FROM cell_visit_fitted WHERE cell_code = ? AND supplier = ?)
     ORDER BY came_on, job.number`,
  );
  /** As told on a day, until a watch that carried such a cell is seen again, or for so long. */
  const lifeByDay = new Map<string, { readonly day: string; readonly life: ShopLife }>();
  const keyOf = ({ code, supplier }: Cells): string => JSON.stringify([code, supplier]);
  const forgetTold = (watchId: string): void => {
    for (const cells of fittedIn.all(watchId)) lifeByDay.delete(keyOf(cells));
  };

  return {
    update({ id, watchId }, state, lots, context) {
      const before = noted.get(id);
      const seen = cellVisitOf(state, lots, context);
      const visit =
        seen &&
        withForecastsKept(seen, before === undefined ? null : (JSON.parse(before) as CellVisit), state);
      const wanted = visit === null ? undefined : JSON.stringify(visit);
      if (before === wanted) return;
      forgetTold(watchId);
      forget.run(id);
      forgetFitted.run(id);
      if (visit === null || wanted === undefined) return;
      note.run(id, watchId, visit.cameOn, wanted);
      for (const { fitted } of visit.places)
        if (fitted !== null) noteFitted.run(id, watchId, fitted.code, fitted.supplier);
      forgetTold(watchId);
    },
    ofCells: ({ code: named, supplier: of }) => {
      const cells = { code: typeOf(named), supplier: of };
      const [key, day] = [keyOf(cells), dayNow()];
      const known = lifeByDay.get(key);
      if (known && Math.abs(daysBetween(known.day, day)) < TOLD_FOR_DAYS) return known.life;
      const byWatch = new Map<string, CellVisit[]>();
      for (const { watchId, visit } of visits.all(cells.code, cells.supplier))
        byWatch.set(watchId, [...(byWatch.get(watchId) ?? []), JSON.parse(visit) as CellVisit]);
      const life = estimateLives(
        [...byWatch.values()]
          .flatMap((of) => livesOf(of, day))
          .filter(({ code, supplier }) => code === cells.code && supplier === cells.supplier),
      );
      lifeByDay.set(key, { day, life });
      return life;
    },
  };
}
