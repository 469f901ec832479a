-- Indexes for what would go through all versions, chunks or lines of a large vault. No table changes.
CREATE INDEX IF NOT EXISTS chunk_pack ON chunk (pack);
CREATE INDEX IF NOT EXISTS line_place ON line (place, removed);
CREATE INDEX IF NOT EXISTS capture_place ON capture (place);
CREATE INDEX IF NOT EXISTS journal_place ON journal (place);

-- Versions by the beginning of their digest, and by that of their SHA-256 where it is another one and known.
CREATE INDEX IF NOT EXISTS version_digest ON version (substr(digest, 1, 4));
CREATE INDEX IF NOT EXISTS version_plain ON version (substr(sha256, 1, 4)) WHERE sha256 IS NOT NULL AND sha256 <> digest;

-- Versions by who saved them.
CREATE INDEX IF NOT EXISTS version_who ON version (who) WHERE who <> '';
