-- From here on packs may be of version 2 of their format, which a program that does not know it must not write to.

-- Chunks that cannot be read. The next content that has one stores it anew, under its id. Not logged; a check finds them.
CREATE TABLE damaged (chunk INTEGER PRIMARY KEY, since INTEGER NOT NULL);

-- Packs that were emptied and whose files may still be there after a crash. Not logged.
CREATE TABLE emptied (pack INTEGER PRIMARY KEY);

-- What is done again and again and fails at this time. Since: its first failure in a row. Not logged.
CREATE TABLE duty (name TEXT PRIMARY KEY, since INTEGER NOT NULL, trouble TEXT NOT NULL) WITHOUT ROWID;

-- Packed listings have a checksum now; they are made again.
DELETE FROM packed;
UPDATE packed_due SET ended = max(ended, due);

-- The highest moment at which anything begins or ended.
INSERT OR REPLACE INTO counter(name, value)
    SELECT 'highest-moment', max(coalesce(max(valid_from), 0), coalesce(max(nullif(valid_to, 9223372036854775807)), 0)) FROM span;

-- The highest id of a chunk that was ever given, whatever became of it.
INSERT OR REPLACE INTO counter(name, value) SELECT 'chunk', coalesce(max(id), 0) FROM chunk;
