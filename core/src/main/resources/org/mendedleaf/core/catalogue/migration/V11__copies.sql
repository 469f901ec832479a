-- Copies of the vault: folders that are kept in step with it. One that has ended is kept in step no longer.
CREATE TABLE vault_copy (
    id INTEGER PRIMARY KEY,
    folder TEXT NOT NULL,
    at INTEGER NOT NULL,
    who TEXT NOT NULL,
    ended INTEGER NOT NULL,
    ended_by TEXT NOT NULL);

-- How each of them stands, as far as it was seen. Not logged.
CREATE TABLE copy_state (
    copy INTEGER PRIMARY KEY,
    tried INTEGER NOT NULL,
    good INTEGER NOT NULL,
    commits INTEGER NOT NULL,
    bytes INTEGER NOT NULL,
    packs TEXT NOT NULL,
    checked INTEGER NOT NULL,
    trouble TEXT NOT NULL);

-- Packs of which every byte was read and is sound, and when: a check that was cut short goes on behind them. Not logged.
CREATE TABLE sound_pack (pack INTEGER PRIMARY KEY, bytes INTEGER NOT NULL, at INTEGER NOT NULL);

-- How actions ended: what they took in microseconds, how many files failed, and a chain of digests over their files.
CREATE TABLE journal_end (
    id INTEGER PRIMARY KEY,
    journal INTEGER NOT NULL,
    took INTEGER NOT NULL,
    failed INTEGER NOT NULL,
    content BLOB NOT NULL,
    digest BLOB NOT NULL);
CREATE INDEX journal_end_journal ON journal_end (journal);
