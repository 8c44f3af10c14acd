-- Lots nothing is taken from, and why; each change is a line of its own.
ALTER TABLE stock_lot ADD COLUMN quarantined TEXT;
CREATE TABLE lot_quarantine (
  sequence INTEGER PRIMARY KEY AUTOINCREMENT,
  lot_id TEXT NOT NULL REFERENCES stock_lot (id),
  -- Null: released.
  reason TEXT,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;
CREATE TRIGGER lot_quarantine_stands AFTER INSERT ON lot_quarantine
BEGIN
  UPDATE stock_lot SET quarantined = NEW.reason WHERE id = NEW.lot_id;
END;

-- A fresh cell of a lot, measured and looked at.
CREATE TABLE lot_sample (
  id TEXT PRIMARY KEY,
  lot_id TEXT NOT NULL REFERENCES stock_lot (id),
  rest_voltage_v REAL NOT NULL,
  print TEXT NOT NULL,
  verdict TEXT NOT NULL CHECK (verdict IN ('good', 'doubtful')),
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;
CREATE INDEX lot_sample_of_lot ON lot_sample (lot_id);

-- The lots a page must show, without those used up long ago.
CREATE INDEX stock_lot_in_use ON stock_lot (item, code, best_before)
  WHERE balance > 0 OR to_be_counted > 0 OR quarantined IS NOT NULL;
CREATE INDEX stock_ledger_of_lot ON stock_ledger (lot_id);

-- How many spent cells were ever put in the bin: asked for at each look at the stock.
CREATE TABLE spent_bin (id INTEGER PRIMARY KEY CHECK (id = 1), total INTEGER NOT NULL) STRICT;
INSERT INTO spent_bin (id, total) SELECT 1, coalesce(sum(delta), 0) FROM spent_ledger;
CREATE TRIGGER spent_ledger_fills_bin AFTER INSERT ON spent_ledger
BEGIN
  UPDATE spent_bin SET total = total + NEW.delta WHERE id = 1;
END;

-- Orders to a supplier, and what came of them.
CREATE TABLE stock_order (
  id TEXT PRIMARY KEY,
  supplier TEXT NOT NULL,
  lines TEXT NOT NULL,
  placed_at TEXT NOT NULL,
  due_at TEXT NOT NULL,
  -- The delivery note the supplier sends when it is due.
  note_number TEXT NOT NULL,
  note_lines TEXT NOT NULL,
  technician_id TEXT NOT NULL REFERENCES technician (id)
) STRICT;
CREATE TABLE delivery (
  id TEXT PRIMARY KEY,
  supplier TEXT NOT NULL,
  note_number TEXT NOT NULL,
  order_id TEXT REFERENCES stock_order (id),
  -- How it compared with what was ordered.
  wrong INTEGER NOT NULL DEFAULT 0,
  short INTEGER NOT NULL DEFAULT 0,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL,
  UNIQUE (supplier, note_number)
) STRICT;
CREATE INDEX delivery_of_order ON delivery (order_id);
CREATE TRIGGER delivery_never_changed BEFORE UPDATE ON delivery
BEGIN
  SELECT RAISE (ABORT, 'a delivery is never changed');
END;

-- Which cell each job fitted and which leaked: worked out from its entries in the transaction that writes them, like the
-- summary. Who carries a lot now, and how often a supplier's cells leak, are read from here.
CREATE TABLE cell_in_watch (
  job_id TEXT NOT NULL REFERENCES job (id),
  well TEXT NOT NULL,
  watch_id TEXT NOT NULL,
  lot_id TEXT,
  cell_code TEXT NOT NULL,
  supplier TEXT NOT NULL,
  lot_code TEXT NOT NULL,
  fitted_at TEXT NOT NULL,
  PRIMARY KEY (job_id, well)
) STRICT, WITHOUT ROWID;
CREATE INDEX cell_in_watch_of_lot ON cell_in_watch (supplier, lot_code);
CREATE INDEX cell_in_watch_of_watch ON cell_in_watch (watch_id, well, fitted_at);
CREATE TABLE cell_leaked (
  job_id TEXT NOT NULL REFERENCES job (id),
  supplier TEXT NOT NULL,
  lot_code TEXT NOT NULL,
  leaked_at TEXT NOT NULL
) STRICT;
CREATE INDEX cell_leaked_of_job ON cell_leaked (job_id);
CREATE INDEX cell_leaked_of_lot ON cell_leaked (supplier, lot_code);
CREATE TABLE supplier_count (
  supplier TEXT PRIMARY KEY,
  fitted INTEGER NOT NULL DEFAULT 0,
  leaked INTEGER NOT NULL DEFAULT 0
) STRICT, WITHOUT ROWID;
CREATE TRIGGER cell_in_watch_counted AFTER INSERT ON cell_in_watch WHEN NEW.supplier <> ''
BEGIN
  INSERT INTO supplier_count (supplier, fitted) VALUES (NEW.supplier, 1)
    ON CONFLICT (supplier) DO UPDATE SET fitted = fitted + 1;
END;
CREATE TRIGGER cell_in_watch_uncounted AFTER DELETE ON cell_in_watch WHEN OLD.supplier <> ''
BEGIN
  UPDATE supplier_count SET fitted = fitted - 1 WHERE supplier = OLD.supplier;
END;
CREATE TRIGGER cell_leaked_counted AFTER INSERT ON cell_leaked WHEN NEW.supplier <> ''
BEGIN
  INSERT INTO supplier_count (supplier, leaked) VALUES (NEW.supplier, 1)
    ON CONFLICT (supplier) DO UPDATE SET leaked = leaked + 1;
END;
CREATE TRIGGER cell_leaked_uncounted AFTER DELETE ON cell_leaked WHEN OLD.supplier <> ''
BEGIN
  UPDATE supplier_count SET leaked = leaked - 1 WHERE supplier = OLD.supplier;
END;

INSERT INTO cell_in_watch (job_id, well, watch_id, lot_id, cell_code, supplier, lot_code, fitted_at)
SELECT fitted.job_id, coalesce(fitted.well, 'main'), job.watch_id, json_extract(fitted.payload, '$.lotId'),
  json_extract(fitted.payload, '$.cellCode'), json_extract(fitted.payload, '$.supplier'),
  json_extract(fitted.payload, '$.lotCode'), fitted.occurred_at
FROM entry AS fitted JOIN job ON job.id = fitted.job_id
WHERE fitted.kind = 'cell.fitted'
  AND fitted.sequence = (
    SELECT max(last.sequence) FROM entry AS last
    WHERE last.job_id = fitted.job_id AND last.kind = 'cell.fitted'
      AND coalesce(last.well, 'main') = coalesce(fitted.well, 'main')
      AND NOT EXISTS (SELECT 1 FROM entry AS undone WHERE undone.job_id = last.job_id AND undone.withdraws = last.id)
  );
INSERT INTO cell_leaked (job_id, supplier, lot_code, leaked_at)
SELECT job_id, json_extract(payload, '$.supplier'), json_extract(payload, '$.lotCode'), occurred_at
FROM entry AS leak
WHERE kind = 'check.leakage' AND json_extract(payload, '$.lotCode') <> ''
  AND NOT EXISTS (
    SELECT 1 FROM entry AS undone
    WHERE undone.job_id = leak.job_id
      AND (undone.withdraws = leak.id OR EXISTS (SELECT 1 FROM json_each(undone.supersedes) WHERE value = leak.id))
  );

-- A day that was closed: every loose cell of it was asked after.
CREATE TABLE day_close (
  day TEXT PRIMARY KEY,
  bin INTEGER NOT NULL,
  words TEXT NOT NULL,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;
CREATE TRIGGER day_close_never_changed BEFORE UPDATE ON day_close
BEGIN
  SELECT RAISE (ABORT, 'a day that was closed is never changed');
END;
