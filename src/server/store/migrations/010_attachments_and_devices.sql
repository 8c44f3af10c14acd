-- Files that belong to entries, kept on disk by the SHA-256 of their bytes.
CREATE TABLE attachment (
  hash TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  content_type TEXT NOT NULL,
  bytes INTEGER NOT NULL,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;

-- How each outside device stands, and what a stand-in simulates.
CREATE TABLE device (
  id TEXT PRIMARY KEY,
  connected INTEGER NOT NULL,
  settings TEXT NOT NULL CHECK (json_valid(settings))
) STRICT;

-- What went out through a device: labels printed, messages sent. A message names its owner by id alone.
CREATE TABLE device_output (
  sequence INTEGER PRIMARY KEY AUTOINCREMENT,
  device_id TEXT NOT NULL,
  job_id TEXT NOT NULL REFERENCES job (id),
  words TEXT NOT NULL,
  technician_id TEXT NOT NULL REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;
