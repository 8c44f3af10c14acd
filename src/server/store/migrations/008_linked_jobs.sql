-- A job may follow another: the part for an interim closing, or a watch that came back.
ALTER TABLE job ADD COLUMN follows_job_id TEXT REFERENCES job (id);
ALTER TABLE job ADD COLUMN follows_why TEXT CHECK (follows_why IN ('interim closing', 'comeback'));
CREATE INDEX job_follows ON job (follows_job_id);
-- Entries name their files by content.
ALTER TABLE entry ADD COLUMN attachments TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(attachments));
