package org.mendedleaf.core.catalogue;

import org.mendedleaf.core.line.EntryKind;

/**
 * What the catalogue holds as present under a name.
 *
 * @param folder id of the folder
 * @param name in the folder
 * @param node id of the name
 * @param line the file's line; 0 for a folder
 * @param child id of the folder; 0 for a file
 * @param number of the current version; 0 for a folder
 * @param kind file, link or folder
 * @param size bytes
 * @param mtimeNanos modified time, nanoseconds since 1970
 * @param mode permission bits
 * @param from since when this is so, microseconds
 */
public record LiveEntry(
        long folder,
        String name,
        long node,
        long line,
        long child,
        int number,
        EntryKind kind,
        long size,
        long mtimeNanos,
        int mode,
        long from) {

    static final String COLUMNS =
            "s.folder, n.name, s.node, n.line, n.child, s.number, s.kind, s.size, s.mtime, s.mode, s.valid_from";

    /**
     * The one under a name. Parameters: the open end, the folder, the name. The names come first, and the join is not turned round: all that
     * is there in the folder would be gone through otherwise.
     */
    static final String BY_NAME = "SELECT " + COLUMNS
            + " FROM node n CROSS JOIN span s ON s.folder = n.folder AND s.node = n.id AND s.valid_to = ?"
            + " WHERE n.folder = ? AND n.name = ?";

    static LiveEntry of(java.sql.ResultSet row) throws java.sql.SQLException {
        return new LiveEntry(
                row.getLong(1),
                row.getString(2),
                row.getLong(3),
                row.getLong(4),
                row.getLong(5),
                row.getInt(6),
                EntryKind.of(row.getInt(7)),
                row.getLong(8),
                row.getLong(9),
                row.getInt(10),
                row.getLong(11));
    }
}
