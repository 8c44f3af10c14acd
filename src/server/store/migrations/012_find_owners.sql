-- Letter triples of owners, so that finding one does not read them all.
CREATE VIRTUAL TABLE customer_find USING fts5 (customer_id UNINDEXED, text, tokenize = 'trigram remove_diacritics 1');

INSERT INTO customer_find (customer_id, text)
SELECT id, lower(name || ' ' || replace(phone, ' ', '') || ' ' || email) FROM customer WHERE erased_at IS NULL;
