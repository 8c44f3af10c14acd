-- A watch is asked for all its visits.
CREATE INDEX job_of_watch ON job (watch_id);
