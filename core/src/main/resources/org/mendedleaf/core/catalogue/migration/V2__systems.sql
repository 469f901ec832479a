-- Places in other systems: what they hold of which line.

-- A file there by the system's own key, the line it is on, and by what to see that it did not change.
CREATE TABLE outside_file (
    place INTEGER NOT NULL, key TEXT NOT NULL, line INTEGER NOT NULL, tag TEXT NOT NULL,
    PRIMARY KEY (place, key)) WITHOUT ROWID;

-- Versions that a system keeps file by file. Expires: when it forgets by its own rules, 0 when it does not say.
CREATE TABLE holding (
    line INTEGER NOT NULL, number INTEGER NOT NULL, point TEXT NOT NULL, label TEXT NOT NULL, expires INTEGER NOT NULL,
    PRIMARY KEY (line, number, point)) WITHOUT ROWID;

-- Snapshots and backup runs. Each holds the versions that were current at its moment.
CREATE TABLE cut (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, key TEXT NOT NULL, at INTEGER NOT NULL, label TEXT NOT NULL,
    expires INTEGER NOT NULL);
CREATE UNIQUE INDEX cut_key ON cut (place, key);

-- Folders that are declared to be the same files.
CREATE TABLE relation (
    place INTEGER NOT NULL, path TEXT NOT NULL, other INTEGER NOT NULL, other_path TEXT NOT NULL,
    PRIMARY KEY (place, path, other, other_path)) WITHOUT ROWID;

-- Contents of other systems by their SHA-256 (origins from 5 on are those of other systems).
CREATE INDEX version_outside ON version (sha256) WHERE origin >= 5;

-- What a system said of a place when it was last looked at. Not logged; the next look brings it again.
CREATE TABLE outside_place (place INTEGER PRIMARY KEY, facts TEXT NOT NULL);
