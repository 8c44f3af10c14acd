-- What each visit of a watch told of the life of its cells, worked out anew with every entry of the job; and of which type
-- and supplier a cell was fitted in it.
CREATE TABLE cell_visit (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  watch_id TEXT NOT NULL,
  came_on TEXT NOT NULL,
  visit TEXT NOT NULL CHECK (json_valid(visit))
) STRICT;
CREATE INDEX cell_visit_of_watch ON cell_visit (watch_id, came_on);

CREATE TABLE cell_visit_fitted (
  job_id TEXT NOT NULL REFERENCES job (id),
  watch_id TEXT NOT NULL,
  cell_code TEXT NOT NULL,
  supplier TEXT NOT NULL,
  PRIMARY KEY (job_id, cell_code, supplier)
) STRICT, WITHOUT ROWID;
CREATE INDEX cell_visit_fitted_of_cells ON cell_visit_fitted (cell_code, supplier);
CREATE INDEX cell_visit_fitted_of_watch ON cell_visit_fitted (watch_id);

-- Jobs of before this version: of every watch that was ever given a cell. The program works them out as it starts, since
-- forecasts are no matter of SQL.
CREATE TABLE cell_visit_missing (job_id TEXT PRIMARY KEY REFERENCES job (id)) STRICT;
INSERT INTO cell_visit_missing (job_id)
SELECT id FROM job WHERE watch_id IN (
  SELECT job.watch_id FROM entry JOIN job ON job.id = entry.job_id WHERE entry.kind = 'cell.fitted'
);
