package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;

/** Folders and names of the catalogue: from paths to ids and back, however deep. */
public final class PathIds {

    /** So many levels are followed; a catalogue in which more are said to be is damaged. */
    private static final int DEEPEST = 100_000;

    private final Sql sql;
    private final Map<Long, String> paths = new HashMap<>();
    private final Map<Child, Long> ids = new HashMap<>();

    /** A folder by its name in the one above; a place's own folder by the place's id in 0. */
    private record Child(long parent, String name) {
        /** By hand: what a record has by itself is put together at the first use, which a short command waits for. */
        @Override
        public int hashCode() {
            return 31 * Long.hashCode(parent) + name.hashCode();
        }

        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Child c && parent == c.parent && name.equals(c.name);
        }
    }

    public PathIds(Sql sql) {
        this.sql = sql;
    }

    private static List<String> steps(String path) {
        return RelativePath.names(path);
    }

    /** The id of a folder, if it was ever seen. */
    Optional<Long> folder(long place, String path) throws IOException {
        Optional<Long> at = child(new Child(0, Long.toString(place)));
        for (String name : steps(path)) {
            if (at.isEmpty()) {
                return at;
            }
            at = child(new Child(at.get(), name));
        }
        return at;
    }

    private Optional<Long> child(Child child) throws IOException {
        Long known = ids.get(child);
        if (known != null) {
            return Optional.of(known);
        }
        Optional<Long> id = sql.first(
                "SELECT id FROM folder WHERE parent = ? AND name = ?", r -> r.getLong(1), child.parent(), child.name());
        id.ifPresent(i -> ids.put(child, i));
        return id;
    }

    /** The id of a folder, made when it is new, with all above it. */
    long folderForWriting(WriteSession session, long place, String path) throws IOException {
        long at = childForWriting(session, place, new Child(0, Long.toString(place)));
        for (String name : steps(path)) {
            at = childForWriting(session, place, new Child(at, name));
        }
        return at;
    }

    private long childForWriting(WriteSession session, long place, Child child) throws IOException {
        Optional<Long> known = child(child);
        if (known.isPresent()) {
            return known.get();
        }
        long id = session.nextId(WriteSession.Table.FOLDER);
        session.apply(Op.FOLDER, id, place, child.parent(), child.name());
        ids.put(child, id);
        return id;
    }

    private record Step(long parent, String name) {}

    /** The path of a folder, from its place's root. */
    String path(long folder) throws IOException {
        Deque<String> below = new ArrayDeque<>();
        long at = folder;
        String path = paths.get(at);
        while (path == null) {
            Step step = step("SELECT parent, name FROM folder WHERE id = ?", at, "folder");
            if (step.parent() == 0) {
                path = "";
            } else if (below.size() > DEEPEST) {
                throw new IllegalArgumentException("expected a folder below a place, got " + folder);
            } else {
                below.push(step.name());
                at = step.parent();
                path = paths.get(at);
            }
        }
        StringBuilder whole = new StringBuilder(path);
        below.forEach(name -> whole.append(whole.isEmpty() ? "" : "/").append(name));
        paths.put(folder, whole.toString());
        return whole.toString();
    }

    private Step step(String ask, long id, String what) throws IOException {
        return sql.first(ask, r -> new Step(r.getLong(1), r.getString(2)), id)
                .orElseThrow(() -> new IllegalArgumentException("expected the id of a " + what + ", got " + id));
    }

    /** The path of a node, from its place's root. */
    public String nodePath(long node) throws IOException {
        Step step = step("SELECT folder, name FROM node WHERE id = ?", node, "node");
        return RelativePath.child(path(step.parent()), step.name());
    }
}
