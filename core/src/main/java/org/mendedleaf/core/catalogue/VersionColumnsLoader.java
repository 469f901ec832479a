package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.VaultException;

/** Reads {@link VersionColumns} from the catalogue. */
final class VersionColumnsLoader {
    private final Sql sql;
    final List<Place> places;
    final long only;
    final List<Snapshot> snapshots = new ArrayList<>();
    final Map<Long, VersionColumns.Folder> folders = new HashMap<>();
    final Map<Long, Set<Long>> heldLines = new HashMap<>();
    final long[] lineIds;
    final int[] firstOf;
    final long[] linePlaces;
    final long[] lineFolders;
    final String[] lineNames;
    final long[] lineRemoved;
    final int[] numbers;
    final long[] saved;
    final long[] replaced;
    final long[] sizes;
    final byte[] flags;
    final int[] snapshotOf;
    byte[] recipes;
    int @Nullable [] majors;
    final int[] recipeAt;
    final int[] chunkBytes;

    /** @param only id of the only line; 0 for all */
    VersionColumnsLoader(Sql sql, List<Place> places, long only) throws IOException {
        this.sql = sql;
        this.places = places;
        this.only = only;
        int lines = (int) sql.number("SELECT count(*) FROM line" + where("id"));
        int versions = (int) sql.number("SELECT count(*) FROM version" + where("line"));
        lineIds = new long[lines];
        firstOf = new int[lines + 1];
        linePlaces = new long[lines];
        lineFolders = new long[lines];
        lineNames = new String[lines];
        lineRemoved = new long[lines];
        numbers = new int[versions];
        saved = new long[versions];
        replaced = new long[versions];
        sizes = new long[versions];
        flags = new byte[versions];
        snapshotOf = new int[versions];
        Arrays.fill(snapshotOf, -1);
        recipes = new byte[Math.max(1024, versions * 6)];
        recipeAt = new int[versions + 1];
        chunkBytes = new int[only == 0 ? (int) sql.number("SELECT coalesce(max(id), 0) FROM chunk") + 1 : 1];
        try {
            if (only == 0) {
                loadChunks();
            }
            loadFolders();
            loadHeldLines();
            loadLines();
            loadVersions();
        } catch (SQLException e) {
            throw Catalogue.translate(sql.vault(), e);
        }
        markWaiting();
        new SnapshotMarks(sql, this).run();
        loadEditions();
    }

    private String where(String column) {
        return only == 0 ? "" : " WHERE " + column + " = " + only;
    }

    private void loadChunks() throws SQLException, VaultException {
        each("SELECT id, clen FROM chunk", r -> chunkBytes[r.getInt(1)] = r.getInt(2));
    }

    private interface Each {
        void row(ResultSet r) throws SQLException, VaultException;
    }

    private void each(String query, Each each) throws SQLException, VaultException {
        try (PreparedStatement ask = sql.connection().prepareStatement(query);
                ResultSet rows = ask.executeQuery()) {
            while (rows.next()) {
                each.row(rows);
            }
        }
    }

    private void loadFolders() throws SQLException, VaultException {
        String inside = only == 0
                ? ""
                : " WHERE id IN (WITH RECURSIVE up(id) AS (SELECT n.folder FROM line l JOIN node n ON n.id = l.node"
                        + " WHERE l.id = " + only + " UNION SELECT f.parent FROM folder f JOIN up ON f.id = up.id)"
                        + " SELECT id FROM up)";
        each("SELECT id, parent, place, name FROM folder" + inside + " ORDER BY id", r -> {
            long parent = r.getLong(2);
            VersionColumns.Folder above = folders.get(parent);
            String path = above == null ? "" : RelativePath.child(above.path(), r.getString(4));
            folders.put(r.getLong(1), new VersionColumns.Folder(r.getLong(1), parent, r.getLong(3), path));
        });
    }

    /** Which files the holds of folders have taken hold of. */
    private void loadHeldLines() throws SQLException, VaultException {
        each(
                "SELECT hold, line FROM held_line" + where("line"),
                r -> heldLines
                        .computeIfAbsent(r.getLong(1), h -> new HashSet<>())
                        .add(r.getLong(2)));
    }

    private void loadLines() throws SQLException, VaultException {
        int[] at = {0};
        each(
                "SELECT l.id, l.place, l.removed, n.folder, n.name FROM line l JOIN node n ON n.id = l.node"
                        + where("l.id") + " ORDER BY l.id",
                r -> {
                    int i = at[0]++;
                    lineIds[i] = r.getLong(1);
                    linePlaces[i] = r.getLong(2);
                    lineRemoved[i] = r.getLong(3);
                    lineFolders[i] = r.getLong(4);
                    lineNames[i] = r.getString(5);
                });
    }

    private void loadVersions() throws SQLException, VaultException {
        int[] at = {0};
        int[] line = {0};
        int[] end = {0};
        each(
                "SELECT line, number, saved, size, note <> '', origin, recipe FROM version" + where("line")
                        + " ORDER BY line, number",
                r -> {
                    int i = at[0]++;
                    long id = r.getLong(1);
                    while (lineIds[line[0]] != id) {
                        firstOf[++line[0]] = i;
                    }
                    numbers[i] = r.getInt(2);
                    saved[i] = r.getLong(3);
                    sizes[i] = r.getLong(4);
                    flags[i] = (byte) ((r.getInt(5) != 0 ? VersionColumns.NOTED : 0)
                            | (r.getInt(6) == Origin.FOUND.code() ? VersionColumns.FOUND : 0));
                    byte[] recipe = Recipe.listed(r.getBytes(7));
                    if (recipe.length == 1 && recipe[0] == 3) {
                        flags[i] |= VersionColumns.ELSEWHERE;
                    } else {
                        if (end[0] + recipe.length > recipes.length) {
                            recipes = Arrays.copyOf(recipes, Math.max(recipes.length * 2, end[0] + recipe.length));
                        }
                        System.arraycopy(recipe, 0, recipes, end[0], recipe.length);
                        end[0] += recipe.length;
                    }
                    recipeAt[i + 1] = end[0];
                });
        while (line[0] < lineIds.length) {
            firstOf[++line[0]] = numbers.length;
        }
        for (int l = 0; l < lineIds.length; l++) {
            for (int i = firstOf[l]; i < firstOf[l + 1]; i++) {
                boolean last = i + 1 == firstOf[l + 1];
                replaced[i] = !last ? saved[i + 1] : lineRemoved[l] == 0 ? Moment.OPEN : lineRemoved[l];
            }
        }
    }

    int row(long line, int number) {
        int l = Arrays.binarySearch(lineIds, line);
        int at = l < 0 ? -1 : Arrays.binarySearch(numbers, firstOf[l], firstOf[l + 1], number);
        return Math.max(at, -1);
    }

    private void markWaiting() throws IOException {
        sql.list("SELECT line, number FROM let_go WHERE gone = 0" + (only == 0 ? "" : " AND line = " + only), r -> {
            int at = row(r.getLong(1), r.getInt(2));
            if (at >= 0) {
                flags[at] |= VersionColumns.WAITING;
            }
            return at;
        });
    }

    private void loadEditions() throws IOException {
        sql.list("SELECT line, number, major, minor FROM edition" + where("line"), r -> {
            int at = row(r.getLong(1), r.getInt(2));
            if (at >= 0) {
                flags[at] |= r.getInt(4) > 0 ? VersionColumns.DRAFT : 0;
                majors = majors == null ? numbers.clone() : majors;
                majors[at] = r.getInt(3);
            }
            return at;
        });
    }
}
