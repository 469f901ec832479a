package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/** Whole folders at a moment, and what differs between two: each one statement over the spans. */
final class TreeQuery {

    /** A folder and all below it, with their paths. Parameters: its id, its path. */
    private static final String INSIDE = "WITH RECURSIVE inside(id, path) AS (SELECT ?1, ?2 UNION ALL"
            + " SELECT f.id, CASE i.path WHEN '' THEN f.name ELSE i.path || '/' || f.name END"
            + " FROM folder f JOIN inside i ON f.parent = i.id) ";

    private static final String PATH = "CASE i.path WHEN '' THEN n.name ELSE i.path || '/' || n.name END";

    private final Sql sql;

    TreeQuery(Sql sql) {
        this.sql = sql;
    }

    /** All of it, unless somebody asks to stop; each file counts as done. */
    TreeAt at(long folder, String path, long at, Progress progress, UnaryOperator<Version> same) throws IOException {
        TreeMap<String, Version> files = new TreeMap<>();
        List<TreeAt.Folder> folders = new ArrayList<>();
        Repeats repeats = new Repeats();
        sql.until(
                INSIDE + "SELECT " + PATH + ", s.kind, s.mtime, s.mode, v.line, v.number, v.saved, v.captured, v.who,"
                        + " v.origin, v.source, v.size, v.digest, v.sha256, v.recipe, v.note FROM inside i"
                        + " JOIN span s ON s.folder = i.id AND s.valid_to > ?3 AND s.valid_from <= ?3"
                        + " JOIN node n ON n.id = s.node"
                        + " LEFT JOIN version v ON v.line = n.line AND v.number = s.number",
                r -> {
                    String where = r.getString(1);
                    if (EntryKind.of(r.getInt(2)) == EntryKind.FOLDER) {
                        folders.add(new TreeAt.Folder(where, r.getLong(3), r.getInt(4)));
                    } else {
                        files.put(where, same.apply(version(r, where, repeats)));
                        progress.advance(1, 0);
                    }
                    return progress.isCancelled();
                },
                folder,
                path,
                at);
        progress.stopIfCancelled();
        folders.sort(Comparator.comparing(TreeAt.Folder::path));
        return new TreeAt(files, folders);
    }

    private static Version version(java.sql.ResultSet r, String path, Repeats repeats)
            throws java.sql.SQLException, org.mendedleaf.core.vault.VaultException {
        byte[] sha256 = r.getBytes(14);
        return new Version(
                r.getLong(5),
                r.getInt(6),
                Moment.instant(r.getLong(7)),
                repeats.moment(r.getLong(8)),
                repeats.text(r.getString(9)),
                Origin.of(r.getInt(10)),
                r.getInt(11),
                new FileState(
                        EntryKind.of(r.getInt(2)),
                        r.getLong(12),
                        r.getLong(3),
                        r.getInt(4),
                        Digest.of(r.getBytes(13)),
                        sha256 == null ? Optional.empty() : Optional.of(Digest.of(sha256)),
                        Recipe.decode(r.getBytes(15))),
                repeats.text(r.getString(16)),
                path);
    }

    /** Spans that hold one of two moments and not the other; nothing else of the folder is looked up. */
    Difference difference(long folder, String path, long from, long to) throws IOException {
        String columns = INSIDE + "SELECT " + PATH
                + ", s.kind, n.line, s.number, s.size, s.mtime, s.mode, v.digest FROM inside i"
                + " JOIN span s ON s.folder = i.id AND s.valid_to > ?3 AND ";
        String joins = " JOIN node n ON n.id = s.node LEFT JOIN version v ON v.line = n.line AND v.number = s.number";
        return new Difference(
                sql.list(
                        columns + "s.valid_to <= ?4 AND s.valid_from <= ?3" + joins,
                        TreeQuery::at,
                        folder,
                        path,
                        from,
                        to),
                sql.list(
                        columns + "s.valid_from > ?4 AND s.valid_from <= ?3" + joins,
                        TreeQuery::at,
                        folder,
                        path,
                        to,
                        from));
    }

    private static Difference.At at(java.sql.ResultSet r) throws java.sql.SQLException {
        byte[] digest = r.getBytes(8);
        return new Difference.At(
                r.getString(1),
                EntryKind.of(r.getInt(2)),
                r.getLong(3),
                r.getInt(4),
                r.getLong(5),
                r.getLong(6),
                r.getInt(7),
                digest == null ? null : Digest.of(digest));
    }
}
