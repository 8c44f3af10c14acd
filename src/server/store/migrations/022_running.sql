-- What runs to be read again stands in each summary. Of jobs before this version: a proving run begun, and nothing since that
-- ended it, closed the watch anew or opened it again.
UPDATE job_summary
SET summary = json_set(summary, '$.running', coalesce((
  SELECT json_array(json_object(
    'entryId', began.id,
    'toSee', 'how it keeps time',
    'sinceUtc', began.occurred_at,
    'shows', json_extract(began.payload, '$.shows'),
    'watchForS', 60
  ))
  FROM entry AS began
  WHERE began.job_id = job_summary.job_id AND began.kind = 'set.run-began'
    AND NOT EXISTS (
      SELECT 1 FROM entry AS later
      WHERE later.job_id = began.job_id AND later.sequence > began.sequence
        AND (
          later.kind IN ('set.run-began', 'set.run-ended', 'seal.closed', 'open.back')
          OR later.withdraws = began.id
        )
    )
), json('[]')));
