package org.mendedleaf.core.line;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Folders and names of the catalogue: from paths to ids and back. */
final class Names {

    private final Sql sql;
    private final Map<Long, String> paths = new HashMap<>();
    private final Map<String, Long> ids = new HashMap<>();

    Names(Sql sql) {
        this.sql = sql;
    }

    /** The id of a folder, if it was ever seen. */
    Optional<Long> folder(long place, String path) throws IOException {
        String key = place + ":" + path;
        Long known = ids.get(key);
        if (known != null) {
            return Optional.of(known);
        }
        Optional<Long> id = path.isEmpty()
                ? child(0, Long.toString(place))
                : inside(place, RelativePath.parent(path), RelativePath.name(path));
        id.ifPresent(i -> ids.put(key, i));
        return id;
    }

    private Optional<Long> inside(long place, String parent, String name) throws IOException {
        Optional<Long> id = folder(place, parent);
        return id.isPresent() ? child(id.get(), name) : Optional.empty();
    }

    private Optional<Long> child(long parent, String name) throws IOException {
        return sql.first("SELECT id FROM folder WHERE parent = ? AND name = ?", r -> r.getLong(1), parent, name);
    }

    /** The id of a folder, made when it is new, with all above it. */
    long folderForWriting(WriteSession session, long place, String path) throws IOException {
        Optional<Long> known = folder(place, path);
        if (known.isPresent()) {
            return known.get();
        }
        long parent = path.isEmpty() ? 0 : folderForWriting(session, place, RelativePath.parent(path));
        String name = path.isEmpty() ? Long.toString(place) : RelativePath.name(path);
        long id = session.nextId(WriteSession.Table.FOLDER);
        session.apply(Op.FOLDER, id, place, parent, name);
        ids.put(place + ":" + path, id);
        return id;
    }

    private record Step(long parent, String name) {}

    /** The path of a folder, from its place's root. */
    String path(long folder) throws IOException {
        String known = paths.get(folder);
        if (known != null) {
            return known;
        }
        Step step = sql.first(
                        "SELECT parent, name FROM folder WHERE id = ?",
                        r -> new Step(r.getLong(1), r.getString(2)),
                        folder)
                .orElseThrow(() -> new IllegalArgumentException("expected the id of a folder, got " + folder));
        String path = step.parent() == 0 ? "" : RelativePath.child(path(step.parent()), step.name());
        paths.put(folder, path);
        return path;
    }

    /** The path of a node, from its place's root. */
    String nodePath(long node) throws IOException {
        Step step = sql.first(
                        "SELECT folder, name FROM node WHERE id = ?", r -> new Step(r.getLong(1), r.getString(2)), node)
                .orElseThrow(() -> new IllegalArgumentException("expected the id of a node, got " + node));
        return RelativePath.child(path(step.parent()), step.name());
    }
}
