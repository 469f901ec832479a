package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.time.Moment;

/** What was let go, in the catalogue. */
public final class PendingDeletionStore {

    private static final String COLUMNS = "SELECT line, number, journal, at, due, who, reason, rule, gone FROM let_go";

    private final Sql sql;

    private PendingDeletionStore(Sql sql) {
        this.sql = sql;
    }

    /** As a reader sees it. */
    public static PendingDeletionStore of(Reading reading) {
        return new PendingDeletionStore(reading.sql());
    }

    /** As a session sees it. */
    public static PendingDeletionStore of(WriteSession session) {
        return new PendingDeletionStore(session.sql());
    }

    private static PendingDeletion row(java.sql.ResultSet r) throws java.sql.SQLException {
        long gone = r.getLong(9);
        return new PendingDeletion(
                r.getLong(1),
                r.getInt(2),
                r.getLong(3),
                Moment.instant(r.getLong(4)),
                Moment.instant(r.getLong(5)),
                r.getString(6),
                r.getString(7),
                r.getString(8),
                gone == 0 ? Optional.empty() : Optional.of(Moment.instant(gone)));
    }

    /** What was let go of one line, by number. */
    public Map<Integer, PendingDeletion> of(long line) throws IOException {
        Map<Integer, PendingDeletion> all = new HashMap<>();
        sql.list(COLUMNS + " WHERE line = ?", PendingDeletionStore::row, line).forEach(l -> all.put(l.number(), l));
        return all;
    }

    /** What has gone. */
    public List<PendingDeletion> gone() throws IOException {
        return sql.list(COLUMNS + " WHERE gone <> 0", PendingDeletionStore::row);
    }

    /** What waits for the end of its grace, that which is due first before the others. */
    public List<PendingDeletion> waiting() throws IOException {
        return sql.list(COLUMNS + " WHERE gone = 0 ORDER BY due, line, number", PendingDeletionStore::row);
    }

    /** Whether the grace of something has ended. */
    public boolean isAnyDue(Instant now) throws IOException {
        return sql.number(
                        "SELECT count(*) FROM (SELECT 1 FROM let_go WHERE gone = 0 AND due <= ? LIMIT 1)",
                        Moment.micros(now))
                > 0;
    }

    /** Some of that whose grace has ended. */
    public List<PendingDeletion> due(Instant now, int most) throws IOException {
        return sql.list(
                COLUMNS + " WHERE gone = 0 AND due <= ? ORDER BY due, line, number LIMIT ?",
                PendingDeletionStore::row,
                Moment.micros(now),
                most);
    }

    /** Some of that which rules let go and whose grace ends by then, the first before the others. */
    public List<PendingDeletion> dueByRule(Instant until, int most) throws IOException {
        return sql.list(
                COLUMNS + " WHERE gone = 0 AND rule <> '' AND due <= ? ORDER BY due, line, number LIMIT ?",
                PendingDeletionStore::row,
                Moment.micros(until),
                most);
    }

    /** How many versions, and of how many files. */
    public record Sum(int versions, int files) {}

    /** How much rules let go whose grace ends by then. */
    public Sum sumByRule(Instant until) throws IOException {
        return sql.list(
                        "SELECT count(*), count(DISTINCT line) FROM let_go WHERE gone = 0 AND rule <> '' AND due <= ?",
                        r -> new Sum(r.getInt(1), r.getInt(2)),
                        Moment.micros(until))
                .get(0);
    }

    /** Whether a version was let go and waits. */
    public boolean isWaiting(long line, int number) throws IOException {
        return sql.number("SELECT count(*) FROM let_go WHERE line = ? AND number = ? AND gone = 0", line, number) > 0;
    }

    /** Ids of the places in which something waits. */
    public Set<Long> placesWaiting() throws IOException {
        return new HashSet<>(sql.list(
                "SELECT DISTINCT l.place FROM let_go g JOIN line l ON l.id = g.line WHERE g.gone = 0",
                r -> r.getLong(1)));
    }

    /** What was let go by one action. */
    public List<PendingDeletion> by(long journal) throws IOException {
        return sql.list(COLUMNS + " WHERE journal = ? ORDER BY line, number", PendingDeletionStore::row, journal);
    }

    /** A number that is kept beside the rows; 0 before it was set. */
    public long note(String name) throws IOException {
        return sql.number("SELECT value FROM counter WHERE name = ?", name);
    }

    /** Whether the content of something that somebody erased went after this moment. */
    public boolean erasedSince(Instant moment) throws IOException {
        return sql.number(
                        "SELECT count(*) FROM let_go WHERE rule = '' AND reason = 'ERASED' AND gone > ?",
                        Moment.micros(moment))
                > 0;
    }

    /** Lets a version go; one that is gone, or waits already, stays as it is. */
    public static void put(WriteSession session, PendingDeletion l) throws IOException {
        session.apply(
                Op.LET_GO,
                l.line(),
                l.number(),
                l.journal(),
                Moment.micros(l.at()),
                Moment.micros(l.due()),
                l.who(),
                l.reason(),
                l.rule());
    }

    /**
     * Keeps after all what one action let go and still waits.
     *
     * @param undo action that does so; it can be taken back by {@link #again}
     */
    public static void back(WriteSession session, long journal, long undo) throws IOException {
        for (PendingDeletion l : of(session).by(journal)) {
            if (l.gone().isEmpty()) {
                session.apply(
                        Op.KEPT_AFTER_ALL,
                        undo,
                        l.line(),
                        l.number(),
                        l.reason(),
                        l.rule(),
                        Moment.micros(l.due()) - Moment.micros(l.at()));
            }
        }
        session.apply(Op.LET_GO_BACK, journal);
    }

    /**
     * Lets go again what undoing an action kept after all, with the same time of grace from now on. What was let go by another
     * action meanwhile stays with that.
     *
     * @return how many versions
     */
    public static int again(WriteSession session, long undo, long journal, Instant now, String who) throws IOException {
        record Kept(long line, int number, String reason, String rule, long grace) {}
        int n = 0;
        for (Kept k : session.sql()
                .list(
                        "SELECT line, number, reason, rule, grace FROM kept_after_all k WHERE journal = ?"
                                + " AND NOT EXISTS (SELECT 1 FROM let_go g WHERE g.line = k.line AND g.number = k.number)",
                        r -> new Kept(r.getLong(1), r.getInt(2), r.getString(3), r.getString(4), r.getLong(5)),
                        undo)) {
            Instant due = Moment.instant(Moment.micros(now) + k.grace());
            put(
                    session,
                    new PendingDeletion(
                            k.line(), k.number(), journal, now, due, who, k.reason(), k.rule(), Optional.empty()));
            n++;
        }
        return n;
    }

    /** Keeps one version after all. */
    public static void back(WriteSession session, long line, int number) throws IOException {
        session.apply(Op.LET_GO_ONE_BACK, line, number);
    }

    /** Ends the grace of all that waits. */
    public static void dueNow(WriteSession session, Instant now) throws IOException {
        session.apply(Op.LET_GO_DUE, Moment.micros(now), Moment.micros(now));
    }

    /** Ends the grace of what one action let go; that of all others goes on. */
    public static void dueNow(WriteSession session, long journal, Instant now) throws IOException {
        session.apply(Op.LET_GO_OF_DUE, Moment.micros(now), journal);
    }

    /**
     * Takes the content of a version that waits out of its line: the version stays known, and its recipe says that the
     * content is not here.
     */
    public static void gone(WriteSession session, PendingDeletion l, Instant at) throws IOException {
        long size =
                session.sql().number("SELECT size FROM version WHERE line = ? AND number = ?", l.line(), l.number());
        session.apply(Op.VERSION_GONE, l.line(), l.number());
        session.apply(Op.LINE_SHRINKS, size, l.line());
        session.apply(Op.LET_GO_GONE, Moment.micros(at), l.line(), l.number());
        UnfoldQueue.done(session, l.line(), l.number());
    }
}
