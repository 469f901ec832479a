package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.ByteBuffer;
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
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.Varint;
import org.mendedleaf.core.vault.VaultException;

/** Reads {@link VersionColumns} from the catalogue. */
final class VersionColumnsLoader {
    private final Sql sql;
    final List<Place> places;
    final long only;
    final long commit;
    private final boolean chunks;
    final List<Snapshot> snapshots = new ArrayList<>();
    final Map<Long, VersionColumns.Folder> folders = new HashMap<>();
    final Map<Long, Set<Long>> heldLines = new HashMap<>();
    final long[] lineIds;
    final int[] firstOf;
    final long[] linePlaces;
    final long[] lineFolders;
    final TextColumn lineNames;
    final long[] lineRemoved;
    int @Nullable [] numbers;
    long[] saved;
    final SizeColumn sizes;
    byte[] flags;
    int @Nullable [] snapshotOf;
    byte[] recipes;
    private int recipesEnd;
    int @Nullable [] majors;
    int[] recipeOf;
    final int[] chunkBytes;

    /**
     * @param only id of the only line; 0 for all
     * @param chunks whether it is asked which chunks versions have
     */
    VersionColumnsLoader(Sql sql, List<Place> places, long only, boolean chunks) throws IOException {
        this.sql = sql;
        this.chunks = chunks;
        this.commit = new PackTables(sql).commit();
        this.places = places;
        this.only = only;
        int lines = (int) sql.number("SELECT count(*) FROM line" + where("id"));
        // Counting the versions themselves would go through all of them once more.
        int versions = (int) sql.number("SELECT coalesce(sum(versions), 0) FROM line" + where("id"));
        lineIds = new long[lines];
        firstOf = new int[lines + 1];
        linePlaces = new long[lines];
        lineFolders = new long[lines];
        lineNames = new TextColumn(lines);
        lineRemoved = new long[lines];
        saved = new long[versions];
        sizes = new SizeColumn(versions);
        flags = new byte[versions];
        recipes = new byte[Growth.of(0)];
        recipeOf = new int[chunks ? versions : 0];
        chunkBytes = new int[chunks ? (int) sql.number("SELECT coalesce(max(id), 0) FROM chunk") + 1 : 1];
        try {
            if (chunks) {
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
                    lineNames.add(r.getString(5));
                });
    }

    private void loadVersions() throws SQLException, VaultException {
        int[] at = {0};
        int[] line = {0};
        each(
                "SELECT line, number, saved, size, note <> '', origin, recipe FROM version" + where("line")
                        + " ORDER BY line, number",
                r -> {
                    int i = at[0]++;
                    reach(i);
                    long id = r.getLong(1);
                    while (lineIds[line[0]] != id) {
                        firstOf[++line[0]] = i;
                    }
                    number(i, r.getInt(2), firstOf[line[0]]);
                    saved[i] = r.getLong(3);
                    sizes.set(i, r.getLong(4));
                    flags[i] = (byte) ((r.getInt(5) != 0 ? VersionColumns.NOTED : 0)
                            | (r.getInt(6) == Origin.FOUND.code() ? VersionColumns.FOUND : 0));
                    byte[] recipe = Recipe.listed(r.getBytes(7));
                    if (Recipe.isElsewhere(recipe)) {
                        flags[i] |= VersionColumns.ELSEWHERE;
                    } else if (chunks) {
                        recipeOf[i] = keep(recipe);
                    }
                });
        while (line[0] < lineIds.length) {
            firstOf[++line[0]] = at[0];
        }
        cut(at[0]);
        for (int l = 0; l < lineIds.length; l++) {
            if (firstOf[l + 1] > firstOf[l]) {
                flags[firstOf[l + 1] - 1] |= VersionColumns.LAST;
            }
        }
    }

    /** Keeps a recipe as {@link VersionColumns} has them: most files are small, and have one chunk. */
    private int keep(byte[] recipe) {
        RecipeRuns runs = new RecipeRuns(recipe, 0, recipe.length);
        if (runs.next() && runs.count() == 1) {
            int only = runs.first();
            if (!runs.next()) {
                return ~only;
            }
        }
        ByteBuffer length = ByteBuffer.allocate(Integer.BYTES + 1);
        Varint.put(length, recipe.length);
        int at = recipesEnd;
        int end = at + length.position() + recipe.length;
        if (end > recipes.length) {
            recipes = Arrays.copyOf(recipes, Growth.of(end));
        }
        System.arraycopy(length.array(), 0, recipes, at, length.position());
        System.arraycopy(recipe, 0, recipes, at + length.position(), recipe.length);
        recipesEnd = end;
        return at;
    }

    /** Makes space for a row, where there are more than their lines say. */
    private void reach(int row) {
        if (row >= saved.length) {
            resize(Growth.of(row));
        }
    }

    private void cut(int rows) {
        if (rows < saved.length) {
            resize(rows);
        }
    }

    private void resize(int rows) {
        saved = Arrays.copyOf(saved, rows);
        flags = Arrays.copyOf(flags, rows);
        recipeOf = chunks ? Arrays.copyOf(recipeOf, rows) : recipeOf;
        numbers = numbers == null ? null : Arrays.copyOf(numbers, rows);
    }

    /** Numbers are kept from the first one on that does not follow from its place in its line. */
    private void number(int row, int number, int first) {
        if (numbers == null && number != row - first + 1) {
            numbers = new int[saved.length];
            for (int i = 0, line = 0; i < row; i++) {
                while (line + 1 < firstOf.length && firstOf[line + 1] <= i && firstOf[line + 1] > 0) {
                    line++;
                }
                numbers[i] = i - firstOf[line] + 1;
            }
        }
        if (numbers != null) {
            numbers[row] = number;
        }
    }

    int row(long line, int number) {
        return VersionColumns.row(lineIds, firstOf, numbers, line, number);
    }

    /** Notes that a snapshot holds a version; the newest of them counts. */
    void hold(int row, int snapshot) {
        if (snapshotOf == null) {
            snapshotOf = new int[saved.length];
            Arrays.fill(snapshotOf, -1);
        }
        snapshotOf[row] = Math.max(snapshotOf[row], snapshot);
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
                majors = majors == null ? numbers() : majors;
                majors[at] = r.getInt(3);
            }
            return at;
        });
    }

    /** The numbers of all versions. */
    private int[] numbers() {
        if (numbers != null) {
            return numbers.clone();
        }
        int[] all = new int[saved.length];
        for (int line = 0; line < lineIds.length; line++) {
            for (int i = firstOf[line]; i < firstOf[line + 1]; i++) {
                all[i] = i - firstOf[line] + 1;
            }
        }
        return all;
    }
}
