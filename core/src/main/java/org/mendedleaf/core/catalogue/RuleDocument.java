package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.time.Moment;

/**
 * Retention rules as they were written, with who set them and when. What stands in the document is for whoever reads rules.
 *
 * @param text of the document
 */
public record RuleDocument(Instant at, String who, String text) {

    /** The document that counts now, as a reader sees it; empty before anybody set rules. */
    public static Optional<RuleDocument> newest(Reading reading) throws IOException {
        return newest(reading.sql());
    }

    /** The document that counts now, as a session sees it. */
    public static Optional<RuleDocument> newest(WriteSession session) throws IOException {
        return newest(session.sql());
    }

    /** The document that counted at a moment; empty when nobody had set rules by then. */
    public static Optional<RuleDocument> asOf(Reading reading, Instant moment) throws IOException {
        return reading.sql()
                .first(
                        "SELECT at, who, document FROM ruleset WHERE at <= ? ORDER BY id DESC LIMIT 1",
                        RuleDocument::row,
                        Moment.micros(moment));
    }

    private static RuleDocument row(java.sql.ResultSet r) throws java.sql.SQLException {
        return new RuleDocument(Moment.instant(r.getLong(1)), r.getString(2), r.getString(3));
    }

    private static Optional<RuleDocument> newest(Sql sql) throws IOException {
        return sql.first("SELECT at, who, document FROM ruleset ORDER BY id DESC LIMIT 1", RuleDocument::row);
    }

    /** Stores this as the document that counts from now on; the earlier ones stay. */
    public void store(WriteSession session) throws IOException {
        session.apply(Op.RULE_SET, session.nextId(WriteSession.Table.RULESET), Moment.micros(at), who, text);
    }
}
