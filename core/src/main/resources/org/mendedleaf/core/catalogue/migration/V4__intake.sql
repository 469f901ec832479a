-- Putting in revisions: how places are worked with, drafts and check-out, comments, what is said of files.

-- Settings of protected folders, by name; members and their roles.
CREATE TABLE rule (place INTEGER NOT NULL, name TEXT NOT NULL, value TEXT NOT NULL, PRIMARY KEY (place, name)) WITHOUT ROWID;
CREATE TABLE member (place INTEGER NOT NULL, who TEXT NOT NULL, role TEXT NOT NULL, PRIMARY KEY (place, who)) WITHOUT ROWID;

-- What a version is called where that is not its number: MAJOR when published, MAJOR.MINOR as a draft.
CREATE TABLE edition (
    line INTEGER NOT NULL, number INTEGER NOT NULL, major INTEGER NOT NULL, minor INTEGER NOT NULL,
    PRIMARY KEY (line, number)) WITHOUT ROWID;

-- Who has a file checked out. Number: of the version that was current then.
CREATE TABLE checkout (line INTEGER PRIMARY KEY, who TEXT NOT NULL, since INTEGER NOT NULL, number INTEGER NOT NULL);

-- What people say of versions, beside the one note; and what notes were before they were changed.
CREATE TABLE comment (
    id INTEGER PRIMARY KEY, line INTEGER NOT NULL, number INTEGER NOT NULL, at INTEGER NOT NULL, who TEXT NOT NULL,
    words TEXT NOT NULL);
CREATE INDEX comment_line ON comment (line);
CREATE INDEX version_noted ON version (line, number) WHERE note <> '';
CREATE TABLE noted (
    journal INTEGER NOT NULL, line INTEGER NOT NULL, number INTEGER NOT NULL, before TEXT NOT NULL,
    PRIMARY KEY (journal, line, number)) WITHOUT ROWID;

-- What a file is filed under, and who may see it.
CREATE TABLE card (line INTEGER PRIMARY KEY, category TEXT NOT NULL, visibility TEXT NOT NULL);

-- What looks wrong. Settled: when somebody had seen to it, 0 before.
CREATE TABLE finding (
    id INTEGER PRIMARY KEY, place INTEGER NOT NULL, line INTEGER NOT NULL, number INTEGER NOT NULL, kind TEXT NOT NULL,
    at INTEGER NOT NULL, who TEXT NOT NULL, detail TEXT NOT NULL, settled INTEGER NOT NULL);
CREATE INDEX finding_open ON finding (place) WHERE settled = 0;

-- Files that were removed from where they were, outside of any place, once their content was a version.
CREATE TABLE taken (
    journal INTEGER NOT NULL, path TEXT NOT NULL, line INTEGER NOT NULL, number INTEGER NOT NULL,
    PRIMARY KEY (journal, path)) WITHOUT ROWID;
