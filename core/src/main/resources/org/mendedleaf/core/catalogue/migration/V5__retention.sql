-- What is kept and for how long: rules, holds, and what was let go.

-- The rules, as the document in which they were written (see docs/retention.md); the newest counts.
CREATE TABLE ruleset (id INTEGER PRIMARY KEY, at INTEGER NOT NULL, who TEXT NOT NULL, document TEXT NOT NULL);

-- What nothing takes away. Kind: VERSION, LINE, FOLDER, SNAPSHOT. Path: of a folder. Until: 0 for no end.
-- Lifted: when somebody lifted it, 0 while it stands.
CREATE TABLE hold (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, kind TEXT NOT NULL, line INTEGER NOT NULL, number INTEGER NOT NULL,
    path TEXT NOT NULL, snapshot INTEGER NOT NULL, reason TEXT NOT NULL, who TEXT NOT NULL, at INTEGER NOT NULL,
    until INTEGER NOT NULL, lifted INTEGER NOT NULL);

-- Versions that were let go, by a rule or by somebody. Until they are due they can be taken back. Gone: when their
-- content went, 0 while they wait.
CREATE TABLE let_go (
    line INTEGER NOT NULL, number INTEGER NOT NULL, journal INTEGER NOT NULL, at INTEGER NOT NULL, due INTEGER NOT NULL,
    who TEXT NOT NULL, reason TEXT NOT NULL, rule TEXT NOT NULL, gone INTEGER NOT NULL,
    PRIMARY KEY (line, number)) WITHOUT ROWID;
CREATE INDEX let_go_waiting ON let_go (due) WHERE gone = 0;
CREATE INDEX let_go_journal ON let_go (journal);
