-- Letter triples of what a job is found by, so that finding does not read every job. Row by the job's number.
CREATE VIRTUAL TABLE job_find USING fts5 (text, content = '', contentless_delete = 1, tokenize = 'trigram remove_diacritics 1');

-- How many jobs hold a triple.
CREATE VIRTUAL TABLE job_find_triple USING fts5vocab ('job_find', 'row');

INSERT INTO job_find (rowid, text)
SELECT job.number, job_summary.search FROM job_summary JOIN job ON job.id = job_summary.job_id;
