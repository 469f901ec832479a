-- Snapshots of protected folders: moments with a name. What they hold is what the spans say of that moment.
-- Erased: when somebody erased it, 0 while it stands. Schedule: 0 for one taken by hand. Hold: why, empty for none.
CREATE TABLE snapshot (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, path TEXT NOT NULL, at INTEGER NOT NULL, label TEXT NOT NULL,
    who TEXT NOT NULL, schedule INTEGER NOT NULL, hold TEXT NOT NULL, erased INTEGER NOT NULL);
CREATE INDEX snapshot_place ON snapshot (place, at);

-- When snapshots are taken by themselves: an RFC 5545 rule with its local start and zone. Keep: how many, 0 for all.
-- Handled: the last due moment that was seen to. Ended: when somebody ended it, 0 while it goes on.
CREATE TABLE schedule (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, path TEXT NOT NULL, label TEXT NOT NULL, rule TEXT NOT NULL,
    start TEXT NOT NULL, zone TEXT NOT NULL, keep INTEGER NOT NULL, missed TEXT NOT NULL, handled INTEGER NOT NULL,
    ended INTEGER NOT NULL);

-- What a folder held at some moments of a long history, packed into one value each, so that its old listings need not
-- go through all that came later. Kept for speed only; lost with the catalogue and made again.
CREATE TABLE packed (
    folder INTEGER NOT NULL, at INTEGER NOT NULL, entries BLOB NOT NULL, PRIMARY KEY (folder, at)) WITHOUT ROWID;

-- How many spans of a folder have ended since it was packed last, and at how many it is looked at again.
CREATE TABLE packed_due (folder INTEGER PRIMARY KEY, ended INTEGER NOT NULL, due INTEGER NOT NULL);
