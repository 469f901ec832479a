-- Files that a hold of a folder has taken hold of: they stay held wherever they go.
CREATE TABLE held_line (hold INTEGER NOT NULL, line INTEGER NOT NULL, PRIMARY KEY (hold, line)) WITHOUT ROWID;

-- What undoing an action kept after all, so that the undo can be taken back.
CREATE TABLE kept_after_all (
    journal INTEGER NOT NULL,
    line INTEGER NOT NULL,
    number INTEGER NOT NULL,
    reason TEXT NOT NULL,
    rule TEXT NOT NULL,
    PRIMARY KEY (journal, line, number)) WITHOUT ROWID;

-- Files that were moved aside in a folder, under a name of ours, and were not looked at yet after that. Not logged.
CREATE TABLE moved_aside (
    name TEXT PRIMARY KEY,
    place INTEGER NOT NULL,
    path TEXT NOT NULL) WITHOUT ROWID;

-- The first programs that wrote version 7 did not have this table.
CREATE TABLE IF NOT EXISTS duty (name TEXT PRIMARY KEY, since INTEGER NOT NULL, trouble TEXT NOT NULL) WITHOUT ROWID;
