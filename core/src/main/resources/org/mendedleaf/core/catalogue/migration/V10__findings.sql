-- What people decided about findings: set aside with a reason, or mended by an action.
CREATE TABLE decision (
    place INTEGER NOT NULL,
    finding TEXT NOT NULL,
    what TEXT NOT NULL,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    reason TEXT NOT NULL,
    journal INTEGER NOT NULL,
    PRIMARY KEY (place, finding)) WITHOUT ROWID;

-- What is fine here from now on: a kind of finding for a file, or, with line 0, for a whole place.
CREATE TABLE fine (
    id INTEGER PRIMARY KEY,
    place INTEGER NOT NULL,
    kind TEXT NOT NULL,
    line INTEGER NOT NULL,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    reason TEXT NOT NULL);

-- Each entry of the journal with a digest of it and of the link before it, so that what is changed afterwards shows.
CREATE TABLE journal_link (journal INTEGER PRIMARY KEY, digest BLOB NOT NULL);
