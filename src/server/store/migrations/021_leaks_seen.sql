-- What each job showed of the tightness of its watch, worked out anew with every entry of it.
CREATE TABLE leak_seen (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  case_code TEXT NOT NULL,
  back_kind TEXT NOT NULL,
  tested_at TEXT NOT NULL,
  leaked INTEGER NOT NULL CHECK (leaked IN (0, 1)),
  mended INTEGER NOT NULL CHECK (mended IN (0, 1)),
  seats TEXT NOT NULL CHECK (json_valid(seats)),
  ring_renewed INTEGER NOT NULL CHECK (ring_renewed IN (0, 1)),
  ring_age_years REAL,
  stiffness_um_per_bar REAL
) STRICT;

CREATE INDEX leak_seen_of_case ON leak_seen (case_code, tested_at);

-- Of jobs before this version: a leak seen is one, and a wet test without one shows the watch tight. What a dry test showed
-- without a record is not known.
INSERT INTO leak_seen (job_id, case_code, back_kind, tested_at, leaked, mended, seats, ring_renewed, ring_age_years)
SELECT
  test.job_id,
  coalesce((
    SELECT json_extract(watch.payload, '$.reference') FROM entry AS watch
    WHERE watch.job_id = test.job_id AND watch.kind = 'arrive.watch' ORDER BY watch.sequence DESC LIMIT 1
  ), ''),
  coalesce((
    SELECT json_extract(back.payload, '$.kind') FROM entry AS back
    WHERE back.job_id = test.job_id AND back.kind = 'open.back' ORDER BY back.sequence DESC LIMIT 1
  ), ''),
  min(test.occurred_at),
  max(json_extract(test.payload, '$.outcome') = 'leak seen'),
  0,
  '[]',
  coalesce((
    SELECT json_extract(ring.payload, '$.state') = 'renewed' FROM entry AS ring
    WHERE ring.job_id = test.job_id AND ring.kind = 'seal.gasket' ORDER BY ring.sequence DESC LIMIT 1
  ), 0),
  (
    SELECT json_extract(ring.payload, '$.ageYears') FROM entry AS ring
    WHERE ring.job_id = test.job_id AND ring.kind = 'seal.gasket' ORDER BY ring.sequence DESC LIMIT 1
  )
FROM entry AS test
WHERE test.kind = 'test.made'
  AND (
    json_extract(test.payload, '$.outcome') = 'leak seen'
    OR (json_extract(test.payload, '$.outcome') = 'no leak seen' AND json_extract(test.payload, '$.method') = 'wet')
  )
  AND NOT EXISTS (
    SELECT 1 FROM entry AS undone WHERE undone.job_id = test.job_id AND undone.withdraws = test.id
  )
GROUP BY test.job_id;
