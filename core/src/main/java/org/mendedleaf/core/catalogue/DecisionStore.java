package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.List;
import org.mendedleaf.core.line.Decision;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/** Decisions about findings, in the catalogue. */
public final class DecisionStore {

    private final Sql sql;

    private DecisionStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees them. */
    public static DecisionStore of(Reading reading) {
        return new DecisionStore(reading.sql());
    }

    /** What was decided in a place, the latest first. */
    public List<Decision> decisions(Place place) throws IOException {
        return decisions(place.id());
    }

    /** What was decided in the place with this id; 0 for what is about the vault itself. The latest first. */
    public List<Decision> decisions(long place) throws IOException {
        return sql.list(
                "SELECT place, finding, what, at, who, reason, journal FROM decision WHERE place = ? ORDER BY at DESC",
                r -> new Decision(
                        r.getLong(1),
                        r.getString(2),
                        Decision.What.valueOf(r.getString(3)),
                        Moment.instant(r.getLong(4)),
                        r.getString(5),
                        r.getString(6),
                        r.getLong(7)),
                place);
    }

    /** What is fine in a place, the latest first. */
    public List<Decision.Fine> fine(Place place) throws IOException {
        return sql.list(
                "SELECT id, place, kind, line, at, who, reason FROM fine WHERE place = ? ORDER BY id DESC",
                r -> new Decision.Fine(
                        r.getLong(1),
                        r.getLong(2),
                        r.getString(3),
                        r.getLong(4),
                        Moment.instant(r.getLong(5)),
                        r.getString(6),
                        r.getString(7)),
                place.id());
    }

    /** Notes a decision; an earlier one about the same finding gives way. */
    public static void decide(WriteSession session, Decision d) throws IOException {
        session.apply(
                Op.DECISION,
                d.place(),
                d.finding(),
                d.what().name(),
                Moment.micros(d.at()),
                d.who(),
                d.reason(),
                d.journal());
    }

    /** Takes a decision back. */
    public static void takeBack(WriteSession session, long place, String finding) throws IOException {
        session.apply(Op.DECISION_ENDS, place, finding);
    }

    /** Notes that something is fine from now on; returns its id. */
    public static long fine(WriteSession session, Decision.Fine f) throws IOException {
        long id = session.nextId(WriteSession.Table.FINE);
        session.apply(Op.FINE, id, f.place(), f.kind(), f.line(), Moment.micros(f.at()), f.who(), f.reason());
        return id;
    }

    /** Something is not fine any more. */
    public static void notFine(WriteSession session, long id) throws IOException {
        session.apply(Op.FINE_ENDS, id);
    }
}
