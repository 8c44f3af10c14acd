-- Which movement a job had and what was read on it: worked out from its entries in the transaction that writes them,
-- like the summary. What this shop saw before, and its own history with a calibre, are read from here.
CREATE TABLE movement_seen (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  -- Null: not in the book.
  calibre_id TEXT,
  revision TEXT,
  code TEXT NOT NULL,
  case_code TEXT NOT NULL,
  seen_at TEXT NOT NULL,
  current_ua REAL,
  rate_s_per_day REAL,
  leaked INTEGER NOT NULL DEFAULT 0,
  -- The finding of a diagnosis; empty where there was none.
  cause TEXT NOT NULL DEFAULT ''
) STRICT, WITHOUT ROWID;

CREATE INDEX movement_seen_of_calibre ON movement_seen (calibre_id, seen_at);

INSERT INTO movement_seen (job_id, calibre_id, revision, code, case_code, seen_at, current_ua, rate_s_per_day, leaked, cause)
SELECT
  named.job_id,
  json_extract(named.payload, '$.calibreId'),
  NULL,
  json_extract(named.payload, '$.code'),
  coalesce((
    SELECT json_extract(watch.payload, '$.reference') FROM entry AS watch
    WHERE watch.job_id = named.job_id AND watch.kind = 'arrive.watch' ORDER BY watch.sequence DESC LIMIT 1
  ), ''),
  named.occurred_at,
  (
    SELECT json_extract(reading.payload, '$.value') FROM entry AS reading
    WHERE reading.job_id = named.job_id AND reading.kind = 'check.reading'
      AND json_extract(reading.payload, '$.measure') = 'currentUA'
    ORDER BY reading.sequence DESC LIMIT 1
  ),
  (
    SELECT json_extract(reading.payload, '$.value') FROM entry AS reading
    WHERE reading.job_id = named.job_id AND reading.kind = 'check.reading'
      AND json_extract(reading.payload, '$.measure') = 'rateSPerDay'
    ORDER BY reading.sequence DESC LIMIT 1
  ),
  EXISTS (SELECT 1 FROM entry AS leak WHERE leak.job_id = named.job_id AND leak.kind = 'check.leakage'),
  coalesce((
    SELECT json_extract(finding.payload, '$.cause') FROM entry AS finding
    WHERE finding.job_id = named.job_id AND finding.kind = 'check.diagnosis' ORDER BY finding.sequence DESC LIMIT 1
  ), '')
FROM entry AS named
WHERE named.kind = 'identify.movement'
  AND named.sequence = (
    SELECT max(last.sequence) FROM entry AS last
    WHERE last.job_id = named.job_id AND last.kind = 'identify.movement'
  )
  AND NOT EXISTS (
    SELECT 1 FROM entry AS undone WHERE undone.job_id = named.job_id AND undone.withdraws = named.id
  );
