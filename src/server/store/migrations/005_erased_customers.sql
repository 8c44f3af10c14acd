-- Erasing a customer empties the person and keeps the row, so that the technical record stays whole.
ALTER TABLE customer ADD COLUMN erased_at TEXT;
ALTER TABLE customer ADD COLUMN erased_by TEXT REFERENCES technician (id);
CREATE INDEX visit_of_customer ON visit (customer_id);
CREATE INDEX job_of_visit ON job (visit_id);
