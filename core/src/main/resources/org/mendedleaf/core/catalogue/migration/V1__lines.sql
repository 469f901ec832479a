-- The catalogue. Moments are microseconds since 1970-01-01 UTC, modified times nanoseconds since then.
-- What an open interval ends with: 9223372036854775807.

CREATE TABLE counter (name TEXT PRIMARY KEY, value INTEGER NOT NULL) WITHOUT ROWID;
INSERT INTO counter VALUES ('commit', 0);

-- The vault: packs, and where each chunk lies in them.
CREATE TABLE pack (id INTEGER PRIMARY KEY, sealed INTEGER NOT NULL, committed INTEGER NOT NULL);
CREATE TABLE chunk (
    id INTEGER PRIMARY KEY, hash BLOB NOT NULL, pack INTEGER NOT NULL, off INTEGER NOT NULL,
    clen INTEGER NOT NULL, len INTEGER NOT NULL);

-- What is protected, and how often it is looked at.
CREATE TABLE place (
    id INTEGER PRIMARY KEY, root TEXT NOT NULL, name TEXT NOT NULL, rhythm TEXT NOT NULL, minutes INTEGER NOT NULL,
    created INTEGER NOT NULL);
CREATE TABLE exclusion (place INTEGER NOT NULL, pattern TEXT NOT NULL, PRIMARY KEY (place, pattern)) WITHOUT ROWID;

-- Folders by path, and the names in them. A node is a name in a folder, and what it names: a line or a folder.
CREATE TABLE folder (id INTEGER PRIMARY KEY, place INTEGER NOT NULL, parent INTEGER NOT NULL, name TEXT NOT NULL);
CREATE INDEX folder_child ON folder (parent, name);
CREATE TABLE node (
    id INTEGER PRIMARY KEY, folder INTEGER NOT NULL, name TEXT NOT NULL, line INTEGER NOT NULL,
    child INTEGER NOT NULL);
CREATE INDEX node_name ON node (folder, name);

-- A file's line: its newest node, its counts, and whether it is removed (0 while it is there).
CREATE TABLE line (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, node INTEGER NOT NULL, last INTEGER NOT NULL,
    versions INTEGER NOT NULL, bytes INTEGER NOT NULL, removed INTEGER NOT NULL);
CREATE TABLE version (
    line INTEGER NOT NULL, number INTEGER NOT NULL, node INTEGER NOT NULL, saved INTEGER NOT NULL,
    captured INTEGER NOT NULL, who TEXT NOT NULL, origin INTEGER NOT NULL, source INTEGER NOT NULL,
    kind INTEGER NOT NULL, size INTEGER NOT NULL, mtime INTEGER NOT NULL, mode INTEGER NOT NULL,
    digest BLOB NOT NULL, sha256 BLOB, recipe BLOB NOT NULL, note TEXT NOT NULL,
    PRIMARY KEY (line, number)) WITHOUT ROWID;
CREATE TABLE event (
    id INTEGER PRIMARY KEY, line INTEGER NOT NULL, at INTEGER NOT NULL, kind INTEGER NOT NULL, who TEXT NOT NULL,
    origin_node INTEGER NOT NULL, target_node INTEGER NOT NULL, number INTEGER NOT NULL);
CREATE INDEX event_line ON event (line);

-- What a folder held, from when until when. The listing of a moment is one range of this.
CREATE TABLE span (
    folder INTEGER NOT NULL, valid_to INTEGER NOT NULL, node INTEGER NOT NULL, valid_from INTEGER NOT NULL,
    number INTEGER NOT NULL, kind INTEGER NOT NULL, size INTEGER NOT NULL, mtime INTEGER NOT NULL,
    mode INTEGER NOT NULL, PRIMARY KEY (folder, valid_to, node)) WITHOUT ROWID;

-- Changes per hour (hours since 1970), for the time ruler.
CREATE TABLE density (
    place INTEGER NOT NULL, hour INTEGER NOT NULL, changes INTEGER NOT NULL, PRIMARY KEY (place, hour)) WITHOUT ROWID;

-- Captures that changed something.
CREATE TABLE capture (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, started INTEGER NOT NULL, ended INTEGER NOT NULL,
    first INTEGER NOT NULL, changes INTEGER NOT NULL, bytes INTEGER NOT NULL);

-- What people did, with what is needed to undo it.
CREATE TABLE journal (
    id INTEGER PRIMARY KEY, at INTEGER NOT NULL, who TEXT NOT NULL, kind INTEGER NOT NULL, place INTEGER NOT NULL,
    undoes INTEGER NOT NULL);
CREATE TABLE journal_item (
    journal INTEGER NOT NULL, seq INTEGER NOT NULL, line INTEGER NOT NULL, folder INTEGER NOT NULL,
    name TEXT NOT NULL, before INTEGER NOT NULL, after INTEGER NOT NULL,
    PRIMARY KEY (journal, seq)) WITHOUT ROWID;

-- Kept for speed and for the status only; lost with the catalogue and made again by the next look.
CREATE TABLE scan (folder INTEGER PRIMARY KEY, looked INTEGER NOT NULL, entries BLOB NOT NULL);
CREATE TABLE look (
    place INTEGER PRIMARY KEY, looked INTEGER NOT NULL, good INTEGER NOT NULL, trouble TEXT NOT NULL);
CREATE TABLE skipped (
    folder INTEGER NOT NULL, name TEXT NOT NULL, place INTEGER NOT NULL, reason INTEGER NOT NULL,
    detail TEXT NOT NULL, since INTEGER NOT NULL, PRIMARY KEY (folder, name)) WITHOUT ROWID;
