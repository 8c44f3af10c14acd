-- How each device is reached, and the settings of each way: those of a stand-in stay while a real one is connected.
CREATE TABLE driver_settings (
  driver_id TEXT PRIMARY KEY,
  settings TEXT NOT NULL CHECK (json_valid(settings))
) STRICT;
INSERT INTO driver_settings (driver_id, settings) SELECT id || '-stand-in', settings FROM device;
ALTER TABLE device ADD COLUMN driver TEXT;
ALTER TABLE device DROP COLUMN settings;
