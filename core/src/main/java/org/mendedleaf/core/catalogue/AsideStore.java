package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.List;
import org.mendedleaf.core.line.Place;

/**
 * Files that were moved aside in a folder, under a name of ours, so that others could take their names. They stand here until
 * they were looked at once more and removed. None of it is logged: it is about files and not about the past.
 */
public final class AsideStore {

    private AsideStore() {}

    /**
     * One of them.
     *
     * @param name that it has now, in its folder
     * @param path that it had, from the place's root
     */
    public record Aside(String name, String path) {}

    /** Notes that a file may be moved aside from now on. */
    public static void put(WriteSession session, Place place, Aside aside) throws IOException {
        session.applyUnlogged(
                "INSERT OR REPLACE INTO moved_aside(name, place, path) VALUES (?,?,?)",
                aside.name(),
                place.id(),
                aside.path());
    }

    /** Notes that it is there no longer. */
    public static void forget(WriteSession session, String name) throws IOException {
        session.applyUnlogged("DELETE FROM moved_aside WHERE name = ?", name);
    }

    /** All in a place. */
    public static List<Aside> of(WriteSession session, Place place) throws IOException {
        return session.sql()
                .list(
                        "SELECT name, path FROM moved_aside WHERE place = ? ORDER BY path, name",
                        r -> new Aside(r.getString(1), r.getString(2)),
                        place.id());
    }
}
