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

PRAGMA user_version = 3;
