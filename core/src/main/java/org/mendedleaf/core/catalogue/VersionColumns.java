package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.time.Moment;

/**
 * All versions of a vault in columns, for what has to look at every one of them: verdicts, space, what-if. Row {@code i} of
 * each column is one version; versions of a line stand together, by ascending numbers, and lines by ascending ids. About 18
 * bytes a version, 4 a chunk and 50 a line, so that 20 million versions stay within a gigabyte with what is computed of them:
 * what can be said from another column has none of its own.
 *
 * <p>A picture of one moment as the catalogue holds it. What the rules of places make of it is the work of those who extend it.
 */
public class VersionColumns {

    /** Somebody wrote a note on it. */
    public static final byte NOTED = 1;
    /** A draft. */
    public static final byte DRAFT = 2;
    /** The content is not in the vault: other systems hold it, or it is gone. */
    public static final byte ELSEWHERE = 4;
    /** It was let go and waits for the end of its grace. */
    public static final byte WAITING = 8;
    /** It was there when the place was first looked at. */
    public static final byte FOUND = 64;
    /** The last one of its line. */
    static final byte LAST = (byte) 128;

    private final long commit;
    private final List<Place> places;
    private final List<Snapshot> snapshots;
    private final long[] lineIds;
    private final int[] firstOf;
    private final long[] linePlaces;
    private final long[] lineFolders;
    private final TextColumn lineNames;
    private final long[] lineRemoved;

    /** Nothing where the versions of each line are numbered 1, 2, 3 and so on. */
    private final int @Nullable [] numbers;

    private final long[] saved;
    private final SizeColumn sizes;
    private final byte[] flags;

    /** Nothing where no snapshot holds any. */
    private final int @Nullable [] snapshotOf;

    private final byte[] recipes;

    /** Of each version the only chunk that it has, turned over; or where its recipe is: the length, and its runs. */
    private final int[] recipeOf;

    private final int[] chunkBytes;
    private final Map<Long, Folder> folders;
    private final Map<Long, Set<Long>> heldLines;
    private final int @Nullable [] majors;

    /** The line that was asked for last: who goes through all rows finds the next one there. */
    private int lastLine;

    /**
     * A folder.
     *
     * @param id in the vault
     * @param parent id; 0 for that of a place
     * @param place id
     * @param path from the place's root
     */
    public record Folder(long id, long parent, long place, String path) {}

    /** The columns of a reader; with the id of a line those of that line only, which say nothing of chunks; 0 for all. */
    protected VersionColumns(Reading reading, long only) throws IOException {
        this(new VersionColumnsLoader(reading.sql(), reading.places(), only, only == 0));
    }

    /** The columns as a session sees them, all or of one line, with what chunks they have or without. */
    protected VersionColumns(WriteSession session, long only, boolean chunks) throws IOException {
        this(new VersionColumnsLoader(session.sql(), new PlaceQuery(session.sql()).all(), only, chunks));
    }

    private VersionColumns(VersionColumnsLoader l) {
        commit = l.commit;
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
        sizes = l.sizes;
        flags = l.flags;
        snapshotOf = l.snapshotOf;
        recipes = l.recipes;
        recipeOf = l.recipeOf;
        chunkBytes = l.chunkBytes;
        folders = l.folders;
        heldLines = l.heldLines;
        majors = l.majors;
    }

    /** Whether nothing was committed to the vault since these columns were read. */
    public final boolean isAsOf(WriteSession session) throws IOException {
        return session.lastCommit() == commit;
    }

    /** Marks a version. */
    protected final void mark(int row, byte flag) {
        flags[row] |= flag;
    }

    /** Takes a mark from a version. */
    protected final void unmark(int row, byte flag) {
        flags[row] &= (byte) ~flag;
    }

    /** The published number of a version, or the one that a draft goes before; the number itself where nothing else was chosen. */
    public final int major(int row) {
        return majors == null ? number(row) : majors[row];
    }

    /** Whether the hold of a folder with this id has taken hold of a file, wherever that is now. */
    public final boolean isHeldBy(long hold, int line) {
        Set<Long> lines = heldLines.get(hold);
        return lines != null && lines.contains(lineIds[line]);
    }

    /** Whether it says which chunks versions have. */
    public final boolean hasChunks() {
        return chunkBytes.length > 1;
    }

    /** Number of versions. */
    public final int size() {
        return saved.length;
    }

    /** Number of lines. */
    public final int lines() {
        return lineIds.length;
    }

    /** The places of the vault. */
    public final List<Place> places() {
        return places;
    }

    /** The standing snapshots. */
    public final List<Snapshot> snapshots() {
        return snapshots;
    }

    /** Row of the first version of a line; that of {@code lines()} is the number of rows. */
    public final int first(int line) {
        return firstOf[line];
    }

    /** What a line is called in the catalogue, by its place among the lines here. */
    public final long lineId(int line) {
        return lineIds[line];
    }

    /** Row of a line by its id; negative when there is none. */
    public final int lineRow(long id) {
        return Arrays.binarySearch(lineIds, id);
    }

    /** Id of the place of a line. */
    public final long place(int line) {
        return linePlaces[line];
    }

    /** The folder in which a line is, or was last. */
    public final Folder folder(int line) {
        return folderById(lineFolders[line]);
    }

    /** A folder that a line is in, or was; refuses an id that no folder of the vault has. */
    public final Folder folderById(long id) {
        Folder found = folders.get(id);
        if (found == null) {
            throw new IllegalArgumentException("expected the id of a folder, got " + id);
        }
        return found;
    }

    /** The name of a line's file, now or last. */
    public final String name(int line) {
        return lineNames.get(line);
    }

    /** The path of a line's file, from the place's root. */
    public final String path(int line) {
        return RelativePath.child(folder(line).path(), lineNames.get(line));
    }

    /** When a line's file was removed, microseconds; 0 while it is there. */
    public final long removed(int line) {
        return lineRemoved[line];
    }

    /** Line of a row. */
    public final int lineOf(int row) {
        int near = lastLine;
        if (isIn(near, row)) {
            return near;
        }
        int line = isIn(near + 1, row) ? near + 1 : search(row);
        lastLine = line;
        return line;
    }

    private boolean isIn(int line, int row) {
        return line + 1 < firstOf.length && firstOf[line] <= row && row < firstOf[line + 1];
    }

    private int search(int row) {
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
    public final int row(long lineId, int number) {
        return row(lineIds, firstOf, numbers, lineId, number);
    }

    static int row(long[] lineIds, int[] firstOf, int @Nullable [] numbers, long lineId, int number) {
        int line = Arrays.binarySearch(lineIds, lineId);
        if (line < 0) {
            return -1;
        }
        if (numbers != null) {
            return Math.max(-1, Arrays.binarySearch(numbers, firstOf[line], firstOf[line + 1], number));
        }
        return number > 0 && number <= firstOf[line + 1] - firstOf[line] ? firstOf[line] + number - 1 : -1;
    }

    /** Number of a version on its line. */
    public final int number(int row) {
        return numbers == null ? row - firstOf[lineOf(row)] + 1 : numbers[row];
    }

    /** When it was saved, microseconds. */
    public final long saved(int row) {
        return saved[row];
    }

    /** When something else became current, or the file was removed, microseconds; {@link Moment#OPEN} while it is current. */
    public final long replaced(int row) {
        if ((flags[row] & LAST) == 0) {
            return saved[row + 1];
        }
        long removed = lineRemoved[lineOf(row)];
        return removed == 0 ? Moment.OPEN : removed;
    }

    /** Bytes of its content. */
    public final long bytes(int row) {
        return sizes.get(row);
    }

    /** Whether this is so of a version. */
    public final boolean is(int row, byte flag) {
        return (flags[row] & flag) != 0;
    }

    /** Whether its content is in the vault and was not let go. */
    public final boolean stays(int row) {
        return (flags[row] & (ELSEWHERE | WAITING)) == 0;
    }

    /** Which of the snapshots holds it, the newest one; -1 for none. */
    public final int snapshot(int row) {
        return snapshotOf == null ? -1 : snapshotOf[row];
    }

    /** The largest id of a chunk. */
    public final int chunks() {
        return chunkBytes.length - 1;
    }

    /** Stored bytes of a chunk; 0 when there is none. */
    public final int chunkBytes(int chunk) {
        return chunkBytes[chunk];
    }

    /** Takes the ids of chunks. */
    @FunctionalInterface
    public interface ChunkTaker {
        void take(int chunk);
    }

    /** The chunks of a version in order; one that stands in it twice is given twice. */
    public final void chunks(int row, ChunkTaker taker) {
        if (recipeOf[row] < 0) {
            taker.take(~recipeOf[row]);
            return;
        }
        for (RecipeRuns runs = RecipeRuns.at(recipes, recipeOf[row]); runs.next(); ) {
            for (int i = 0; i < runs.count(); i++) {
                taker.take(runs.first() + i);
            }
        }
    }

    /** The chunks of a version, each once, in any order. */
    public final void distinctChunks(int row, ChunkTaker taker) {
        if (recipeOf[row] < 0) {
            taker.take(~recipeOf[row]);
            return;
        }
        RecipeRuns runs = RecipeRuns.at(recipes, recipeOf[row]);
        if (!runs.next()) {
            return;
        }
        int first = runs.first();
        int count = runs.count();
        if (!runs.next()) {
            for (int i = 0; i < count; i++) {
                taker.take(first + i);
            }
            return;
        }
        // Runs by their beginnings: what one shares with those before it was given.
        long[] all = {(long) first << 32 | count, 0, 0, 0};
        int n = 1;
        do {
            all = n == all.length ? Arrays.copyOf(all, n * 2) : all;
            all[n++] = (long) runs.first() << 32 | runs.count();
        } while (runs.next());
        Arrays.sort(all, 0, n);
        int given = 0;
        for (int i = 0; i < n; i++) {
            int end = (int) (all[i] >>> 32) + (int) all[i];
            for (int chunk = Math.max(given, (int) (all[i] >>> 32)); chunk < end; chunk++) {
                taker.take(chunk);
            }
            given = Math.max(given, end);
        }
    }
}
