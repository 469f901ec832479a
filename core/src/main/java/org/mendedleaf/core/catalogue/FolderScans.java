package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Place;

/** What the last scan saw in the folders of a place, by their paths. */
public interface FolderScans {

    /** What it saw in a folder; null when it saw none under this path. */
    byte @Nullable [] entries(String path) throws IOException;

    /** Whether it saw a folder under this path. */
    boolean isKnown(String path) throws IOException;

    /** No scan saw anything. */
    static FolderScans none() {
        return of(Map.of());
    }

    /** Of all folders, at once; safe for several threads. */
    static FolderScans of(Map<String, byte[]> all) {
        return new FolderScans() {
            @Override
            public byte @Nullable [] entries(String path) {
                return all.get(path);
            }

            @Override
            public boolean isKnown(String path) {
                return all.containsKey(path);
            }
        };
    }

    /** Of those that are asked for, while the view is held: for looking at a few of very many. One thread at a time. */
    static FolderScans asked(Reading reading, Place place) {
        return new Asked(reading.sql(), place);
    }

    /** Asks the catalogue for each folder, and for the names of those in it. */
    final class Asked implements FolderScans {
        private final Sql sql;
        private final PathIds ids;
        private final Place place;
        private final Map<String, Set<String>> below = new HashMap<>();

        private Asked(Sql sql, Place place) {
            this.sql = sql;
            this.ids = new PathIds(sql);
            this.place = place;
        }

        private long id(String path) throws IOException {
            return ids.folder(place.id(), path).orElse(0L);
        }

        @Override
        public byte @Nullable [] entries(String path) throws IOException {
            return sql.first("SELECT entries FROM scan WHERE folder = ?", r -> r.getBytes(1), id(path))
                    .orElse(null);
        }

        @Override
        public boolean isKnown(String path) throws IOException {
            if (path.isEmpty()) {
                return entries(path) != null;
            }
            String above = RelativePath.parent(path);
            Set<String> names = below.get(above);
            if (names == null) {
                names = new HashSet<>(sql.list(
                        "SELECT f.name FROM folder f JOIN scan s ON s.folder = f.id WHERE f.parent = ?",
                        r -> r.getString(1),
                        id(above)));
                below.put(above, names);
            }
            return names.contains(RelativePath.name(path));
        }
    }
}
