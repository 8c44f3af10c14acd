-- What a look at the server's health writes, to know that it can.
CREATE TABLE health (
  only INTEGER PRIMARY KEY CHECK (only = 1),
  written_at TEXT NOT NULL
) STRICT;
