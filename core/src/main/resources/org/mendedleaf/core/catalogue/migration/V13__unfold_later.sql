-- Documents are captured as they come and unfolded afterwards. The tables are not logged; what they say can be found out anew.

-- Versions that are stored as they are and can perhaps be unfolded. State 0: to be looked at; 1: unfolding it alone would save
-- nothing; 2: the only version of its line, which is looked at when it was left alone for a while.
CREATE TABLE to_unfold (
    line INTEGER NOT NULL, number INTEGER NOT NULL, state INTEGER NOT NULL, PRIMARY KEY (line, number)) WITHOUT ROWID;
CREATE INDEX to_unfold_state ON to_unfold (state, line) WHERE state <> 1;

-- Some of the chunks that the documents of state 1 would have: who has the same ones is much like them.
CREATE TABLE unfold_sketch (hash INTEGER PRIMARY KEY, line INTEGER NOT NULL, number INTEGER NOT NULL);
CREATE INDEX unfold_sketch_of ON unfold_sketch (line, number);

-- SHA-256 of a recipe that a version had before it was unfolded: who still goes by it finds the version.
CREATE TABLE replaced_recipe (
    digest BLOB PRIMARY KEY, line INTEGER NOT NULL, number INTEGER NOT NULL, at INTEGER NOT NULL) WITHOUT ROWID;

INSERT INTO to_unfold
    SELECT v.line, v.number, CASE WHEN l.versions > 1 THEN 0 ELSE 2 END FROM version v JOIN line l ON l.id = v.line
        WHERE v.kind = 1 AND v.size >= 512 AND length(v.recipe) > 1 AND substr(v.recipe, 1, 1) <> X'02';
