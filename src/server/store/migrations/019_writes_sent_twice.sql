-- What was written under an id its sender gave, so that the same sent again is known for it, and another body is told.
-- Of the body only its SHA-256 is kept: it may name a person.
CREATE TABLE written_once (
  id TEXT PRIMARY KEY,
  kind TEXT NOT NULL,
  body_hash TEXT NOT NULL,
  recorded_at TEXT NOT NULL
) STRICT;
