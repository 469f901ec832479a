-- What was under a name before, without going through all that was in its folder. What is there now is found by its key, so
-- that a first capture has nothing to add here.
CREATE INDEX IF NOT EXISTS span_ended ON span (node, valid_to) WHERE valid_to < 9223372036854775807;
