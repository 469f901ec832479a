package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.time.Moment;

/** Holds in the catalogue. */
public final class HoldStore {

    private static final String COLUMNS =
            "SELECT id, place, kind, line, number, path, snapshot, reason, who, at, until, lifted" + " FROM hold";

    private final Sql sql;

    private HoldStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees them. */
    public static HoldStore of(Reading reading) {
        return new HoldStore(reading.sql());
    }

    /** As a session sees them. */
    public static HoldStore of(WriteSession session) {
        return new HoldStore(session.sql());
    }

    private static Hold row(java.sql.ResultSet r) throws java.sql.SQLException {
        long until = r.getLong(11);
        long lifted = r.getLong(12);
        return new Hold(
                r.getLong(1),
                r.getLong(2),
                Hold.Kind.valueOf(r.getString(3)),
                r.getLong(4),
                r.getInt(5),
                r.getString(6),
                r.getLong(7),
                r.getString(8),
                r.getString(9),
                Moment.instant(r.getLong(10)),
                until == 0 ? Optional.empty() : Optional.of(Moment.instant(until)),
                lifted == 0 ? Optional.empty() : Optional.of(Moment.instant(lifted)));
    }

    /** All that nobody lifted, ended or not, oldest first. */
    public List<Hold> standing() throws IOException {
        return sql.list(COLUMNS + " WHERE lifted = 0 ORDER BY id", HoldStore::row);
    }

    /** All that held at a moment, oldest first. */
    public List<Hold> asOf(Instant moment) throws IOException {
        long at = Moment.micros(moment);
        return sql.list(
                COLUMNS + " WHERE at <= ?1 AND (lifted = 0 OR lifted > ?1) AND (until = 0 OR until > ?1) ORDER BY id",
                HoldStore::row,
                at);
    }

    /** A hold by its id. */
    public Optional<Hold> get(long id) throws IOException {
        return sql.first(COLUMNS + " WHERE id = ?", HoldStore::row, id);
    }

    /** Stores a hold; one with the id 0 is new. Returns it with its id. */
    public static Hold put(WriteSession session, Hold hold) throws IOException {
        Hold h = hold.id() == 0 ? hold.withId(session.nextId(WriteSession.Table.HOLD)) : hold;
        session.apply(
                Op.HOLD,
                h.id(),
                h.place(),
                h.kind().name(),
                h.line(),
                h.number(),
                h.path(),
                h.snapshot(),
                h.reason(),
                h.who(),
                Moment.micros(h.at()),
                h.until().map(Moment::micros).orElse(0L),
                h.lifted().map(Moment::micros).orElse(0L));
        if (hold.id() == 0) {
            HeldLines.begin(session, h);
        }
        return h;
    }
}
