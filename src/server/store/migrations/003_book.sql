-- The catalogue, the shop and its policy. Every revision is kept; the newest counts.
CREATE TABLE catalogue_record (
  revision INTEGER PRIMARY KEY AUTOINCREMENT,
  kind TEXT NOT NULL CHECK (kind IN ('cell', 'maker', 'calibre', 'caseType')),
  record_id TEXT NOT NULL,
  body TEXT NOT NULL CHECK (json_valid(body)),
  recorded_at TEXT NOT NULL
) STRICT;

CREATE INDEX catalogue_record_of ON catalogue_record (kind, record_id, revision);

CREATE TABLE policy_revision (
  revision INTEGER PRIMARY KEY AUTOINCREMENT,
  body TEXT NOT NULL CHECK (json_valid(body)),
  recorded_at TEXT NOT NULL
) STRICT;

CREATE TABLE shop (
  only INTEGER PRIMARY KEY CHECK (only = 1),
  name TEXT NOT NULL,
  place TEXT NOT NULL,
  zone TEXT NOT NULL
) STRICT;
