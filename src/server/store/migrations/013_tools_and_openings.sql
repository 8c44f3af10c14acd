-- The book holds the shop's tools too; which kinds there are is the program's business, not the table's.
CREATE TABLE catalogue_record_next (
  revision INTEGER PRIMARY KEY AUTOINCREMENT,
  kind TEXT NOT NULL CHECK (kind <> ''),
  record_id TEXT NOT NULL,
  body TEXT NOT NULL CHECK (json_valid(body)),
  removed INTEGER NOT NULL DEFAULT 0,
  technician_id TEXT REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;

INSERT INTO catalogue_record_next (revision, kind, record_id, body, removed, technician_id, recorded_at)
SELECT revision, kind, record_id, body, removed, technician_id, recorded_at FROM catalogue_record;

DROP TABLE catalogue_record;
ALTER TABLE catalogue_record_next RENAME TO catalogue_record;
CREATE INDEX catalogue_record_of ON catalogue_record (kind, record_id, revision);

-- What opened a job's watch, and whether it was referred for want of an opener: worked out from its entries in the
-- transaction that writes them, like the summary.
CREATE TABLE tool_use (
  job_id TEXT NOT NULL REFERENCES job (id),
  tool_id TEXT NOT NULL,
  used_at TEXT NOT NULL,
  PRIMARY KEY (job_id, tool_id)
) STRICT, WITHOUT ROWID;

CREATE INDEX tool_use_of_tool ON tool_use (tool_id, used_at);

CREATE TABLE opener_wanted (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  wanted_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;

INSERT INTO opener_wanted (job_id, wanted_at)
SELECT decided.job_id, max(decided.occurred_at) FROM entry AS decided
WHERE decided.kind = 'arrive.decision'
  AND json_extract(decided.payload, '$.reason') = 'no suitable opener'
  AND NOT EXISTS (
    SELECT 1 FROM entry AS later
    WHERE later.job_id = decided.job_id AND later.sequence > decided.sequence
      AND (later.withdraws = decided.id OR later.kind = 'arrive.decision')
  )
GROUP BY decided.job_id;
