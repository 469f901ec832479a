package org.mendedleaf.core.line;

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
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.VaultException;

/**
 * All versions of a vault in columns, for what has to look at every one of them: verdicts, space, what-if. Row {@code i} of
 * each column is one version; versions of a line stand together, by ascending numbers, and lines by ascending ids. About 60
 * bytes a version.
 *
 * <p>A picture of one moment; it does not change.
 */
public final class VersionTable {

    /** Somebody wrote a note on it. */
    public static final byte NOTED = 1;
    /** A draft. */
    public static final byte DRAFT = 2;
    /** The content is not in the vault: other systems hold it, or it is gone. */
    public static final byte ELSEWHERE = 4;
    /** It was let go and waits for the end of its grace. */
    public static final byte WAITING = 8;
    /** It goes beyond the published versions that its place keeps. */
    public static final byte BEYOND_PUBLISHED = 16;
    /** It is a draft beyond those that its place keeps. */
    public static final byte BEYOND_DRAFTS = 32;
    /** It was there when the place was first looked at. */
    public static final byte FOUND = 64;

    private final List<Place> places;
    private final List<Snapshot> snapshots;
    private final long[] lineIds;
    private final int[] firstOf;
    private final long[] linePlaces;
    private final long[] lineFolders;
    private final String[] lineNames;
    private final long[] lineRemoved;
    private final int[] numbers;
    private final long[] saved;
    private final long[] replaced;
    private final long[] sizes;
    private final byte[] flags;
    private final int[] snapshotOf;
    private final byte[] recipes;
    private final int[] recipeAt;
    private final int[] chunkBytes;
    private final Map<Long, Folder> folders;
    private final Map<Long, Set<Long>> heldLines;

    /**
     * A folder.
     *
     * @param id in the vault
     * @param parent id; 0 for that of a place
     * @param place id
     * @param path from the place's root
     */
    public record Folder(long id, long parent, long place, String path) {}

    private VersionTable(Loader l) {
        places = List.copyOf(l.places);
        snapshots = List.copyOf(l.snapshots);
        lineIds = l.lineIds;
        firstOf = l.firstOf;
        linePlaces = l.linePlaces;
        lineFolders = l.lineFolders;
        lineNames = l.lineNames;
        lineRemoved = l.lineRemoved;
        numbers = l.numbers;
        saved = l.saved;
        replaced = l.replaced;
        sizes = l.sizes;
        flags = l.flags;
        snapshotOf = l.snapshotOf;
        recipes = l.recipes;
        recipeAt = l.recipeAt;
        chunkBytes = l.chunkBytes;
        folders = l.folders;
        heldLines = l.heldLines;
    }

    /** All versions as a reader sees them. */
    public static VersionTable of(Reading reading) throws IOException {
        return new VersionTable(new Loader(
                reading.sql(), reading.places(), p -> PlaceRules.of(reading, p).settings()));
    }

    /**
     * All versions as another system sees them: what it holds counts as there, though the vault may not have its bytes.
     *
     * @param held what the system holds
     */
    public static VersionTable of(Reading reading, List<Reading.HeldPoint> held) throws IOException {
        VersionTable table = of(reading);
        for (Reading.HeldPoint h : held) {
            int row = table.row(h.line(), h.number());
            if (row >= 0) {
                table.flags[row] &= ~ELSEWHERE;
            }
        }
        return table;
    }

    /** All versions as a session sees them. */
    public static VersionTable of(WriteSession session) throws IOException {
        return new VersionTable(new Loader(
                session.sql(),
                new PlaceQuery(session.sql()).all(),
                p -> PlaceRules.of(session, p).settings()));
    }

    /** The versions of one line only, as a reader sees them; its chunks are not counted. */
    public static VersionTable ofLine(Reading reading, long line) throws IOException {
        return new VersionTable(new Loader(
                reading.sql(), reading.places(), p -> PlaceRules.of(reading, p).settings(), line));
    }

    private interface Settings {
        PlaceSettings of(Place place) throws IOException;
    }

    /** Whether the hold of a folder with this id has taken hold of a file, wherever that is now. */
    public boolean isHeldBy(long hold, int line) {
        Set<Long> lines = heldLines.get(hold);
        return lines != null && lines.contains(lineIds[line]);
    }

    /** Whether it says which chunks versions have; that of one line does not. */
    public boolean hasChunks() {
        return chunkBytes.length > 1;
    }

    /** Number of versions. */
    public int size() {
        return numbers.length;
    }

    /** Number of lines. */
    public int lines() {
        return lineIds.length;
    }

    /** The places of the vault. */
    public List<Place> places() {
        return places;
    }

    /** The standing snapshots. */
    public List<Snapshot> snapshots() {
        return snapshots;
    }

    /** Row of the first version of a line; that of {@code lines()} is the number of rows. */
    public int first(int line) {
        return firstOf[line];
    }

    /** Id of a line. */
    public long lineId(int line) {
        return lineIds[line];
    }

    /** Row of a line by its id; negative when there is none. */
    public int lineRow(long id) {
        return Arrays.binarySearch(lineIds, id);
    }

    /** Id of the place of a line. */
    public long place(int line) {
        return linePlaces[line];
    }

    /** The folder in which a line is, or was last. */
    public Folder folder(int line) {
        return folderById(lineFolders[line]);
    }

    /** A folder by its id. */
    public Folder folderById(long id) {
        Folder found = folders.get(id);
        if (found == null) {
            throw new IllegalArgumentException("expected the id of a folder, got " + id);
        }
        return found;
    }

    /** The name of a line's file, now or last. */
    public String name(int line) {
        return lineNames[line];
    }

    /** The path of a line's file, from the place's root. */
    public String path(int line) {
        return RelativePath.child(folder(line).path(), lineNames[line]);
    }

    /** When a line's file was removed, microseconds; 0 while it is there. */
    public long removed(int line) {
        return lineRemoved[line];
    }

    /** Line of a row. */
    public int lineOf(int row) {
        int at = Arrays.binarySearch(firstOf, row);
        if (at < 0) {
            return -at - 2;
        }
        // Lines without versions begin where the next one begins.
        while (at + 1 < firstOf.length && firstOf[at + 1] == row) {
            at++;
        }
        return at;
    }

    /** Row of a version; -1 when there is none. */
    public int row(long lineId, int number) {
        int line = lineRow(lineId);
        if (line < 0) {
            return -1;
        }
        int at = Arrays.binarySearch(numbers, firstOf[line], firstOf[line + 1], number);
        return at < 0 ? -1 : at;
    }

    /** Number of a version on its line. */
    public int number(int row) {
        return numbers[row];
    }

    /** When it was saved, microseconds. */
    public long saved(int row) {
        return saved[row];
    }

    /** When something else became current, or the file was removed, microseconds; {@link Moment#OPEN} while it is current. */
    public long replaced(int row) {
        return replaced[row];
    }

    /** Bytes of its content. */
    public long bytes(int row) {
        return sizes[row];
    }

    /** Whether this is so of a version. */
    public boolean is(int row, byte flag) {
        return (flags[row] & flag) != 0;
    }

    /** Whether its content is in the vault and was not let go. */
    public boolean stays(int row) {
        return (flags[row] & (ELSEWHERE | WAITING)) == 0;
    }

    /** Which of the snapshots holds it, the newest one; -1 for none. */
    public int snapshot(int row) {
        return snapshotOf[row];
    }

    /** The largest id of a chunk. */
    public int chunks() {
        return chunkBytes.length - 1;
    }

    /** Stored bytes of a chunk; 0 when there is none. */
    public int chunkBytes(int chunk) {
        return chunkBytes[chunk];
    }

    /** Takes the ids of chunks. */
    @FunctionalInterface
    public interface ChunkTaker {
        void take(int chunk);
    }

    /** The chunks of a version in order; one that stands in it twice is given twice. */
    public void chunks(int row, ChunkTaker taker) {
        int at = recipeAt[row];
        int end = recipeAt[row + 1];
        long expected = 0;
        while (at < end) {
            long tag = 0;
            int shift = 0;
            byte b;
            do {
                b = recipes[at++];
                tag |= (b & 0x7fL) << shift;
                shift += 7;
            } while (b < 0);
            long zigzag = 0;
            shift = 0;
            do {
                b = recipes[at++];
                zigzag |= (b & 0x7fL) << shift;
                shift += 7;
            } while (b < 0);
            long first = expected + ((zigzag >>> 1) ^ -(zigzag & 1));
            int count = (int) (tag >>> 2);
            for (int i = 0; i < count; i++) {
                taker.take((int) (first + i));
            }
            expected = first + count;
        }
    }

    private static final class Loader {
        private final Sql sql;
        private final List<Place> places;
        private final long only;
        private final List<Snapshot> snapshots = new ArrayList<>();
        private final Map<Long, Folder> folders = new HashMap<>();
        private final Map<Long, Set<Long>> heldLines = new HashMap<>();
        private final long[] lineIds;
        private final int[] firstOf;
        private final long[] linePlaces;
        private final long[] lineFolders;
        private final String[] lineNames;
        private final long[] lineRemoved;
        private final int[] numbers;
        private final long[] saved;
        private final long[] replaced;
        private final long[] sizes;
        private final byte[] flags;
        private final int[] snapshotOf;
        private byte[] recipes;
        private final int[] recipeAt;
        private final int[] chunkBytes;

        Loader(Sql sql, List<Place> places, Settings settings) throws IOException {
            this(sql, places, settings, 0);
        }

        /** @param only id of the only line; 0 for all */
        Loader(Sql sql, List<Place> places, Settings settings, long only) throws IOException {
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
            markSnapshots();
            markEditions(settings);
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
                Folder above = folders.get(parent);
                String path = above == null ? "" : RelativePath.child(above.path(), r.getString(4));
                folders.put(r.getLong(1), new Folder(r.getLong(1), parent, r.getLong(3), path));
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
                        flags[i] = (byte)
                                ((r.getInt(5) != 0 ? NOTED : 0) | (r.getInt(6) == Origin.FOUND.code() ? FOUND : 0));
                        byte[] recipe = Recipe.listed(r.getBytes(7));
                        if (recipe.length == 1 && recipe[0] == 3) {
                            flags[i] |= ELSEWHERE;
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

        private int row(long line, int number) {
            int l = Arrays.binarySearch(lineIds, line);
            int at = l < 0 ? -1 : Arrays.binarySearch(numbers, firstOf[l], firstOf[l + 1], number);
            return Math.max(at, -1);
        }

        private void markWaiting() throws IOException {
            sql.list("SELECT line, number FROM let_go WHERE gone = 0" + (only == 0 ? "" : " AND line = " + only), r -> {
                int at = row(r.getLong(1), r.getInt(2));
                if (at >= 0) {
                    flags[at] |= WAITING;
                }
                return at;
            });
        }

        /** A version is held by a snapshot when it was current at its moment, in a folder that the snapshot covers. */
        private void markSnapshots() throws IOException {
            for (Place place : places) {
                if (place.isOutside()) {
                    continue;
                }
                List<Snapshot> standing = new SnapshotStore(sql).standing(place);
                if (!standing.isEmpty()) {
                    markSnapshots(place, standing);
                }
            }
        }

        private void markSnapshots(Place place, List<Snapshot> standing) throws IOException {
            int base = snapshots.size();
            snapshots.addAll(standing);
            long[] moments =
                    standing.stream().mapToLong(s -> Moment.micros(s.at())).toArray();
            boolean whole = standing.stream().allMatch(s -> s.path().isEmpty());
            String all = "SELECT s.folder, n.line, s.number, s.valid_from, s.valid_to FROM folder f"
                    + " JOIN span s ON s.folder = f.id JOIN node n ON n.id = s.node"
                    + " WHERE f.place = ? AND s.kind <> 3";
            String ofOne = "SELECT s.folder, n.line, s.number, s.valid_from, s.valid_to FROM node n"
                    + " JOIN folder f ON f.id = n.folder JOIN span s ON s.folder = n.folder AND s.node = n.id"
                    + " WHERE f.place = ? AND n.id IN (SELECT node FROM version WHERE line = " + only
                    + " UNION SELECT target_node FROM event WHERE line = " + only + ")";
            sql.list(
                    only == 0 ? all : ofOne,
                    r -> {
                        long from = r.getLong(4);
                        long to = r.getLong(5);
                        // Moments ascend: the newest one before the end is looked at first.
                        int k = Arrays.binarySearch(moments, to);
                        for (k = (k < 0 ? -k - 1 : k) - 1; k >= 0 && moments[k] >= from; k--) {
                            Folder folder = folders.get(r.getLong(1));
                            if (folder != null
                                    && (whole || covers(standing.get(k).path(), folder.path()))) {
                                int at = row(r.getLong(2), r.getInt(3));
                                if (at >= 0) {
                                    snapshotOf[at] = Math.max(snapshotOf[at], base + k);
                                }
                                break;
                            }
                        }
                        return 0;
                    },
                    place.id());
        }

        private static boolean covers(String scope, String folder) {
            return scope.isEmpty() || folder.equals(scope) || folder.startsWith(scope + "/");
        }

        private void markEditions(Settings settings) throws IOException {
            Set<Long> limited = new HashSet<>();
            Map<Long, PlaceSettings> all = new HashMap<>();
            for (Place place : places) {
                if (!place.isOutside()) {
                    PlaceSettings s = settings.of(place);
                    all.put(place.id(), s);
                    if (s.number(Setting.KEEP_VERSIONS) > 0 || s.number(Setting.KEEP_DRAFTS_OF) > 0) {
                        limited.add(place.id());
                    }
                }
            }
            int[] major = limited.isEmpty() ? new int[0] : numbers.clone();
            sql.list("SELECT line, number, major, minor FROM edition" + where("line"), r -> {
                int at = row(r.getLong(1), r.getInt(2));
                if (at >= 0) {
                    flags[at] |= r.getInt(4) > 0 ? DRAFT : 0;
                    if (major.length > 0) {
                        major[at] = r.getInt(3);
                    }
                }
                return at;
            });
            for (int l = 0; l < lineIds.length; l++) {
                if (limited.contains(linePlaces[l])) {
                    PlaceSettings s = all.get(linePlaces[l]);
                    if (s != null) {
                        beyond(s, l, major);
                    }
                }
            }
        }

        /** As {@code PublishedKeep} says it for one line. */
        private void beyond(PlaceSettings s, int line, int[] major) {
            long keep = s.number(Setting.KEEP_VERSIONS);
            long draftsOf = s.get(Setting.NUMBERING).equals("drafts") ? s.number(Setting.KEEP_DRAFTS_OF) : 0;
            int published = 0;
            int last = 0;
            for (int i = firstOf[line]; i < firstOf[line + 1]; i++) {
                if ((flags[i] & DRAFT) == 0) {
                    published++;
                    last = Math.max(last, major[i]);
                }
            }
            long over = keep > 0 ? published - keep : 0;
            for (int i = firstOf[line]; i + 1 < firstOf[line + 1]; i++) {
                boolean draft = (flags[i] & DRAFT) != 0;
                if (!draft && over-- > 0) {
                    flags[i] |= BEYOND_PUBLISHED;
                } else if (draft && draftsOf > 0 && major[i] < last - draftsOf) {
                    flags[i] |= BEYOND_DRAFTS;
                }
            }
        }
    }
}
