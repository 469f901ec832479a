package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/** Who has which file checked out. */
public final class CheckOutStore {

    private static final String COLUMNS = "SELECT c.line, c.who, c.since, c.number FROM checkout c";

    private final Sql sql;

    private CheckOutStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees it. */
    public static CheckOutStore of(Reading reading) {
        return new CheckOutStore(reading.sql());
    }

    /** As a session sees it. */
    public static CheckOutStore of(WriteSession session) {
        return new CheckOutStore(session.sql());
    }

    private static CheckOut row(java.sql.ResultSet r) throws java.sql.SQLException {
        return new CheckOut(r.getLong(1), r.getString(2), Moment.instant(r.getLong(3)), r.getInt(4));
    }

    /** Who has this file. */
    public Optional<CheckOut> get(long line) throws IOException {
        return sql.first(COLUMNS + " WHERE c.line = ?", CheckOutStore::row, line);
    }

    /** All that are out in a place, the longest out first. */
    public List<CheckOut> all(Place place) throws IOException {
        return sql.list(
                COLUMNS + " JOIN line l ON l.id = c.line WHERE l.place = ? ORDER BY c.since, c.line",
                CheckOutStore::row,
                place.id());
    }

    /** Notes that somebody has a file. */
    public static void put(WriteSession session, long line, String who, Instant since, int number) throws IOException {
        session.apply(Op.CHECK_OUT, line, who, Moment.micros(since), number);
    }

    /** Notes that nobody has it any more. */
    public static void end(WriteSession session, long line) throws IOException {
        session.apply(Op.CHECK_OUT_ENDS, line);
    }
}
