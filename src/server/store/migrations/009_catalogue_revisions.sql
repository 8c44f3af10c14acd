-- The book holds gaskets too, every revision says who wrote it, and a record may be taken out of the book.
CREATE TABLE catalogue_record_next (
  revision INTEGER PRIMARY KEY AUTOINCREMENT,
  kind TEXT NOT NULL CHECK (kind IN ('cell', 'maker', 'calibre', 'caseType', 'gasket')),
  record_id TEXT NOT NULL,
  body TEXT NOT NULL CHECK (json_valid(body)),
  removed INTEGER NOT NULL DEFAULT 0,
  technician_id TEXT REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;

INSERT INTO catalogue_record_next (revision, kind, record_id, body, recorded_at)
SELECT revision, kind, record_id, body, recorded_at FROM catalogue_record;

DROP TABLE catalogue_record;
ALTER TABLE catalogue_record_next RENAME TO catalogue_record;
CREATE INDEX catalogue_record_of ON catalogue_record (kind, record_id, revision);

ALTER TABLE policy_revision ADD COLUMN technician_id TEXT REFERENCES technician (id);
