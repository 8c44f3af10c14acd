-- Cells by lot. The ledger is append-only and a lot never goes below zero.
CREATE TABLE stock_lot (
  id TEXT PRIMARY KEY,
  cell_code TEXT NOT NULL,
  supplier TEXT NOT NULL,
  lot_code TEXT NOT NULL,
  made_on TEXT,
  best_before TEXT,
  price_minor INTEGER NOT NULL,
  balance INTEGER NOT NULL DEFAULT 0 CHECK (balance >= 0),
  to_be_counted INTEGER NOT NULL DEFAULT 0,
  UNIQUE (supplier, lot_code, cell_code)
) STRICT;

CREATE TABLE stock_ledger (
  sequence INTEGER PRIMARY KEY AUTOINCREMENT,
  lot_id TEXT NOT NULL REFERENCES stock_lot (id),
  delta INTEGER NOT NULL CHECK (delta <> 0),
  reason TEXT NOT NULL,
  -- The fact the line belongs to, and the entry that caused it; both null at goods-in.
  fact_id TEXT REFERENCES entry (id),
  cause_id TEXT REFERENCES entry (id),
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;

CREATE INDEX stock_ledger_of_fact ON stock_ledger (fact_id);

CREATE TRIGGER stock_ledger_moves_balance AFTER INSERT ON stock_ledger
BEGIN
  UPDATE stock_lot SET balance = balance + NEW.delta WHERE id = NEW.lot_id;
END;

CREATE TRIGGER stock_ledger_never_changed BEFORE UPDATE ON stock_ledger
BEGIN
  SELECT RAISE (ABORT, 'a ledger line is never changed');
END;

CREATE TRIGGER stock_ledger_never_deleted BEFORE DELETE ON stock_ledger
BEGIN
  SELECT RAISE (ABORT, 'a ledger line is never deleted');
END;

-- Spent cells, taped, waiting in the bin for collection.
CREATE TABLE spent_ledger (
  sequence INTEGER PRIMARY KEY AUTOINCREMENT,
  fact_id TEXT NOT NULL REFERENCES entry (id),
  cause_id TEXT NOT NULL REFERENCES entry (id),
  delta INTEGER NOT NULL CHECK (delta <> 0),
  recorded_at TEXT NOT NULL
) STRICT;

CREATE INDEX spent_ledger_of_fact ON spent_ledger (fact_id);
