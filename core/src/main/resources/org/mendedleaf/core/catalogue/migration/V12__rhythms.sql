-- Daily and weekly rhythms, and folders that are paused or protected no longer: the tables are the same, but a program that does
-- not know these would go on capturing what was paused, so it has to refuse.

-- Who changed which setting of a place, and when; values as the command line has them, empty when there was none.
CREATE TABLE setting_change (
    id INTEGER PRIMARY KEY,
    place INTEGER NOT NULL,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    name TEXT NOT NULL,
    was TEXT NOT NULL,
    became TEXT NOT NULL);
