-- People, watches and the logbook. Entries are facts: written once, never changed.
CREATE TABLE technician (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  initials TEXT NOT NULL,
  created_at TEXT NOT NULL
) STRICT;

-- Personal data stands alone, so that it can be erased without touching the technical record.
CREATE TABLE customer (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  phone TEXT NOT NULL,
  email TEXT NOT NULL,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE watch (
  id TEXT PRIMARY KEY,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE visit (
  id TEXT PRIMARY KEY,
  customer_id TEXT NOT NULL REFERENCES customer (id),
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE job (
  id TEXT PRIMARY KEY,
  number INTEGER NOT NULL UNIQUE,
  ticket TEXT NOT NULL UNIQUE,
  visit_id TEXT NOT NULL REFERENCES visit (id),
  watch_id TEXT NOT NULL REFERENCES watch (id),
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE entry (
  sequence INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  job_id TEXT NOT NULL REFERENCES job (id),
  kind TEXT NOT NULL,
  payload_version INTEGER NOT NULL,
  payload TEXT NOT NULL CHECK (json_valid(payload)),
  occurred_at TEXT NOT NULL,
  recorded_at TEXT NOT NULL,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  bench TEXT NOT NULL,
  well TEXT,
  supersedes TEXT NOT NULL CHECK (json_valid(supersedes)),
  withdraws TEXT
) STRICT;

CREATE INDEX entry_of_job ON entry (job_id, sequence);

CREATE TRIGGER entry_never_changed BEFORE UPDATE ON entry
BEGIN
  SELECT RAISE (ABORT, 'an entry is never changed');
END;

CREATE TRIGGER entry_never_deleted BEFORE DELETE ON entry
BEGIN
  SELECT RAISE (ABORT, 'an entry is never deleted');
END;

-- What the rack shows of a job: worked out from its entries in the transaction that writes them.
CREATE TABLE job_summary (
  job_id TEXT PRIMARY KEY REFERENCES job (id),
  on_rack INTEGER NOT NULL,
  promised_at TEXT,
  search TEXT NOT NULL,
  summary TEXT NOT NULL CHECK (json_valid(summary))
) STRICT;

CREATE INDEX job_summary_on_rack ON job_summary (on_rack, promised_at);
