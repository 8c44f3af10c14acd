-- The other counter an entry was recorded at, where it came in a file; none for what was recorded here.
ALTER TABLE entry ADD COLUMN counter TEXT;
