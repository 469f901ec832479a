-- Which files the last commits changed, so that who follows the vault need not go through all of a folder. Each commit has a
-- row at least: line 0 when it changed no file, -1 when it changed too many to name or let some go. Number: of a
-- version that came or was renamed or removed, 0 when there was none. Not logged; the oldest are taken away.
CREATE TABLE IF NOT EXISTS recent_change (
    seq INTEGER NOT NULL, line INTEGER NOT NULL, number INTEGER NOT NULL, PRIMARY KEY (seq, line, number)) WITHOUT ROWID;
