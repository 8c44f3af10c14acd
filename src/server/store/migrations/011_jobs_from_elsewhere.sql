-- A job that came as a file from another counter keeps the ticket it had there.
ALTER TABLE job ADD COLUMN came_as TEXT;
