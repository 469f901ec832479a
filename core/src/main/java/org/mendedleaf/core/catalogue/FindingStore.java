package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.time.Moment;

/** Findings in the catalogue. */
public final class FindingStore {

    private static final String COLUMNS = "SELECT id, place, line, number, kind, at, who, detail, settled FROM finding";

    private final Sql sql;

    private FindingStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees them. */
    public static FindingStore of(Reading reading) {
        return new FindingStore(reading.sql());
    }

    /** As a session sees them. */
    public static FindingStore of(WriteSession session) {
        return new FindingStore(session.sql());
    }

    private static StoredFinding row(java.sql.ResultSet r) throws java.sql.SQLException {
        return new StoredFinding(
                r.getLong(1),
                r.getLong(2),
                r.getLong(3),
                r.getInt(4),
                StoredFinding.Kind.valueOf(r.getString(5)),
                Moment.instant(r.getLong(6)),
                r.getString(7),
                r.getString(8),
                r.getLong(9) != 0);
    }

    /** What nobody has seen to yet, newest first. */
    public List<StoredFinding> open(Place place) throws IOException {
        return sql.list(
                COLUMNS + " WHERE place = ? AND settled = 0 ORDER BY at DESC, id DESC", FindingStore::row, place.id());
    }

    /** What nobody has seen to yet of one file, newest first. */
    public List<StoredFinding> open(Line line) throws IOException {
        return open(line.place()).stream().filter(f -> f.line() == line.id()).toList();
    }

    /** A finding by its id. */
    public Optional<StoredFinding> get(long id) throws IOException {
        return sql.first(COLUMNS + " WHERE id = ?", FindingStore::row, id);
    }

    static void add(WriteSession session, StoredFinding finding) throws IOException {
        put(session, finding, session.nextId(WriteSession.Table.FINDING));
    }

    /** Notes that somebody saw to it. */
    public static void settle(WriteSession session, StoredFinding finding) throws IOException {
        put(session, finding.settle(), finding.id());
    }

    private static void put(WriteSession session, StoredFinding f, long id) throws IOException {
        session.apply(
                Op.FINDING,
                id,
                f.place(),
                f.line(),
                f.number(),
                f.kind().name(),
                Moment.micros(f.at()),
                f.who(),
                f.detail(),
                f.settled() ? 1 : 0);
    }
}
