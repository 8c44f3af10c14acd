-- An owner's details as each hand wrote them, in order; which stand is worked out. Erasing a person empties them.
CREATE TABLE customer_revision (
  sequence INTEGER PRIMARY KEY AUTOINCREMENT,
  id TEXT NOT NULL UNIQUE,
  customer_id TEXT NOT NULL REFERENCES customer (id),
  name TEXT NOT NULL,
  phone TEXT NOT NULL,
  email TEXT NOT NULL,
  supersedes TEXT NOT NULL CHECK (json_valid(supersedes)),
  technician_id TEXT REFERENCES technician (id),
  recorded_at TEXT NOT NULL
) STRICT;

CREATE INDEX customer_revision_of ON customer_revision (customer_id, sequence);

INSERT INTO customer_revision (id, customer_id, name, phone, email, supersedes, recorded_at)
SELECT id, id, name, phone, email, '[]', created_at FROM customer;
