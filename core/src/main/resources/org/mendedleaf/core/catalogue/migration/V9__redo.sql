-- How long the grace was of what undoing an action kept after all, microseconds.
ALTER TABLE kept_after_all ADD COLUMN grace INTEGER NOT NULL DEFAULT 0;
