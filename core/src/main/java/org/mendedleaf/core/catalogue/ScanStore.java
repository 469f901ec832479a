package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.time.Moment;

/** What capture remembers from look to look. None of it is needed to get a file back. */
public final class ScanStore {

    private ScanStore() {}

    /** What the last looks saw in the folders of a place, by the path of the folder. */
    public static Map<String, byte[]> known(Reading reading, Place place) throws IOException {
        record Raw(long id, long parent, String name, byte @org.jspecify.annotations.Nullable [] entries) {}
        List<Raw> rows = reading.sql()
                .list(
                        "SELECT f.id, f.parent, f.name, s.entries FROM folder f LEFT JOIN scan s ON s.folder = f.id"
                                + " WHERE f.place = ? ORDER BY f.id",
                        r -> new Raw(r.getLong(1), r.getLong(2), r.getString(3), r.getBytes(4)),
                        place.id());
        Map<Long, String> paths = new HashMap<>();
        Map<String, byte[]> known = new HashMap<>();
        for (Raw row : rows) {
            // A folder is made after the one above it, so that its path is known when its turn comes.
            String above = paths.getOrDefault(row.parent(), "");
            String path = row.parent() == 0 ? "" : RelativePath.child(above, row.name());
            paths.put(row.id(), path);
            byte[] entries = row.entries();
            if (entries != null) {
                known.put(path, entries);
            }
        }
        return known;
    }

    /** Remembers what a scan saw in a folder. */
    public static void put(WriteSession session, long folder, Instant looked, byte[] entries) throws IOException {
        session.applyUnlogged(
                "INSERT OR REPLACE INTO scan(folder, looked, entries) VALUES (?,?,?)",
                folder,
                Moment.micros(looked),
                entries);
    }

    /** Changes what the last scan is said to have seen in a folder. */
    public static void update(WriteSession session, long folder, byte[] entries) throws IOException {
        session.applyUnlogged("UPDATE scan SET entries = ? WHERE folder = ?", entries, folder);
    }

    /** What the last scan saw in one folder. */
    public static java.util.Optional<byte[]> entries(WriteSession session, long folder) throws IOException {
        return session.sql().first("SELECT entries FROM scan WHERE folder = ?", r -> r.getBytes(1), folder);
    }

    /** Notes one more thing that is not kept in a folder. */
    public static void addSkipped(WriteSession session, Place place, long folder, Skipped s) throws IOException {
        session.applyUnlogged(
                "INSERT OR REPLACE INTO skipped(folder, name, place, reason, detail, since) VALUES (?,?,?,?,?,?)",
                folder,
                RelativePath.name(s.path()),
                place.id(),
                s.reason().code(),
                s.detail(),
                Moment.micros(s.since()));
    }

    /** Forgets a folder that is gone. */
    public static void forget(WriteSession session, long folder) throws IOException {
        session.applyUnlogged("DELETE FROM scan WHERE folder = ?", folder);
        session.applyUnlogged("DELETE FROM skipped WHERE folder = ?", folder);
    }

    /** Notes what is not kept in a folder, in place of what was noted before. */
    public static void skipped(WriteSession session, Place place, long folder, List<Skipped> found, Instant now)
            throws IOException {
        Map<String, Long> since = new HashMap<>();
        session.sql()
                .list(
                        "SELECT name, since FROM skipped WHERE folder = ?",
                        r -> since.put(r.getString(1), r.getLong(2)),
                        folder);
        if (!since.isEmpty()) {
            session.applyUnlogged("DELETE FROM skipped WHERE folder = ?", folder);
        }
        for (Skipped s : found) {
            String name = RelativePath.name(s.path());
            session.applyUnlogged(
                    "INSERT OR REPLACE INTO skipped(folder, name, place, reason, detail, since) VALUES (?,?,?,?,?,?)",
                    folder,
                    name,
                    place.id(),
                    s.reason().code(),
                    s.detail(),
                    since.getOrDefault(name, Moment.micros(now)));
        }
    }

    /** When a place was last looked at as a whole, and when that last went to its end; zero moments when never. */
    public record Looked(Instant last, Instant good) {}

    /** When a place was last looked at. */
    public static Looked looked(WriteSession session, Place place) throws IOException {
        return session.sql()
                .first(
                        "SELECT looked, good FROM look WHERE place = ?",
                        r -> new Looked(Moment.instant(r.getLong(1)), Moment.instant(r.getLong(2))),
                        place.id())
                .orElse(new Looked(Instant.EPOCH, Instant.EPOCH));
    }

    /** Notes a look at a whole place; {@code trouble} is empty when it went to its end. */
    public static void looked(WriteSession session, Place place, Looked looked, String trouble) throws IOException {
        session.applyUnlogged(
                "INSERT OR REPLACE INTO look(place, looked, good, trouble) VALUES (?,?,?,?)",
                place.id(),
                Moment.micros(looked.last()),
                Moment.micros(looked.good()),
                trouble);
    }
}
