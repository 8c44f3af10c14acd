-- Stock holds kits and gaskets beside cells, each by lot.
ALTER TABLE stock_lot RENAME COLUMN cell_code TO code;
ALTER TABLE stock_lot ADD COLUMN item TEXT NOT NULL DEFAULT 'cell' CHECK (item IN ('cell', 'kit', 'gasket'));

-- The bin of spent cells is emptied by a collector, against a receipt.
CREATE TABLE spent_collection (
  id TEXT PRIMARY KEY,
  count INTEGER NOT NULL CHECK (count > 0),
  weight_g REAL NOT NULL,
  collected_on TEXT NOT NULL,
  receipt TEXT NOT NULL,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;

CREATE TRIGGER spent_collection_never_changed BEFORE UPDATE ON spent_collection
BEGIN
  SELECT RAISE (ABORT, 'a collection is never changed');
END;
