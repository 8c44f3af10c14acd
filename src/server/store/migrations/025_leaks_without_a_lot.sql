-- A leak whose supplier is known counts against that supplier, also where nobody knows the lot. Of older logbooks: leaks that
-- stand, by the rule of 015.
INSERT INTO cell_leaked (job_id, supplier, lot_code, leaked_at)
SELECT job_id, json_extract(payload, '$.supplier'), '', occurred_at
FROM entry AS leak
WHERE kind = 'check.leakage' AND json_extract(payload, '$.lotCode') = '' AND json_extract(payload, '$.supplier') <> ''
  AND NOT EXISTS (
    SELECT 1 FROM entry AS undone
    WHERE undone.job_id = leak.job_id
      AND (undone.withdraws = leak.id OR EXISTS (SELECT 1 FROM json_each(undone.supersedes) WHERE value = leak.id))
  );
