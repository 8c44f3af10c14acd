-- What the stored answers of a job were last worked out with: program, policy, book. Empty: by an earlier program.
ALTER TABLE job_summary ADD COLUMN basis TEXT NOT NULL DEFAULT '';
CREATE INDEX job_summary_basis ON job_summary (basis, on_rack);
-- That tells of what an earlier program did not work out, too.
DROP TABLE cell_visit_missing;

-- What this shop fitted and what another counter says it fitted later stand side by side.
DROP TRIGGER cell_in_watch_counted;
DROP TRIGGER cell_in_watch_uncounted;
ALTER TABLE cell_in_watch RENAME TO cell_in_watch_before;
DROP INDEX cell_in_watch_of_lot;
DROP INDEX cell_in_watch_of_watch;
CREATE TABLE cell_in_watch (
  job_id TEXT NOT NULL REFERENCES job (id),
  well TEXT NOT NULL,
  is_here INTEGER NOT NULL CHECK (is_here IN (0, 1)),
  counter TEXT NOT NULL,
  watch_id TEXT NOT NULL,
  lot_id TEXT,
  cell_code TEXT NOT NULL,
  supplier TEXT NOT NULL,
  lot_code TEXT NOT NULL,
  fitted_at TEXT NOT NULL,
  PRIMARY KEY (job_id, well, is_here)
) STRICT, WITHOUT ROWID;
INSERT INTO cell_in_watch (job_id, well, is_here, counter, watch_id, lot_id, cell_code, supplier, lot_code, fitted_at)
SELECT was.job_id, was.well, job.came_as IS NULL, '', was.watch_id, was.lot_id, was.cell_code, was.supplier,
  was.lot_code, was.fitted_at
FROM cell_in_watch_before AS was JOIN job ON job.id = was.job_id;
DROP TABLE cell_in_watch_before;
CREATE INDEX cell_in_watch_of_lot ON cell_in_watch (supplier, lot_code);
CREATE INDEX cell_in_watch_of_watch ON cell_in_watch (watch_id, well, fitted_at);
CREATE TRIGGER cell_in_watch_counted AFTER INSERT ON cell_in_watch WHEN NEW.supplier <> ''
BEGIN
  INSERT INTO supplier_count (supplier, fitted) VALUES (NEW.supplier, 1)
    ON CONFLICT (supplier) DO UPDATE SET fitted = fitted + 1;
END;
CREATE TRIGGER cell_in_watch_uncounted AFTER DELETE ON cell_in_watch WHEN OLD.supplier <> ''
BEGIN
  UPDATE supplier_count SET fitted = fitted - 1 WHERE supplier = OLD.supplier;
END;
