-- When each watch that was handed over is due again, as its record says, and whether its owner was reminded: worked out anew
-- with every entry of the job.
CREATE TABLE next_visit (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  watch_id TEXT NOT NULL,
  due_on TEXT NOT NULL,
  reminded INTEGER NOT NULL CHECK (reminded IN (0, 1))
) STRICT;
CREATE INDEX next_visit_to_remind ON next_visit (due_on) WHERE reminded = 0;

INSERT INTO next_visit (job_id, watch_id, due_on, reminded)
SELECT job.id, job.watch_id, json_extract(signed.payload, '$.statement.nextVisitOn'), 0
FROM job JOIN job_summary ON job_summary.job_id = job.id
  JOIN entry AS signed ON signed.sequence = (
    SELECT max(last.sequence) FROM entry AS last WHERE last.job_id = job.id AND last.kind = 'handback.signed'
  )
WHERE json_extract(job_summary.summary, '$.signedBy') IS NOT NULL
  AND json_extract(job_summary.summary, '$.collected')
  AND json_extract(signed.payload, '$.statement.nextVisitOn') IS NOT NULL;
