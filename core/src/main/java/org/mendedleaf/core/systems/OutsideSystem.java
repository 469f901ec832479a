package org.mendedleaf.core.systems;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Another system that keeps files. What one cannot do it answers with {@link SystemException.Unable}; what it can is in
 * its kind's {@link Capability capabilities}.
 *
 * <p>Every call may be repeated: reads are resumed where the connection dropped, and what changes something carries a
 * key by which the system knows a repetition, or is of a kind that does no harm when it is done twice.
 *
 * <p>Safe for use by several threads.
 */
public interface OutsideSystem {

    /** What kind of system it is. */
    SystemKind kind();

    /**
     * How it stands.
     *
     * @param clock what its clock shows
     * @param usedBytes space taken; -1 when it does not tell
     * @param totalBytes all the space; -1 when it does not tell, 0 when there is no limit
     */
    record State(Instant clock, long usedBytes, long totalBytes) {}

    /** How it stands now. */
    State state() throws IOException;

    /**
     * A place in the system.
     *
     * @param name of the place
     * @param settings how it is set
     * @param usedBytes space it takes; -1 when the system does not tell
     * @param totalBytes space it may take; -1 when the system does not tell, 0 when there is no limit
     * @param role what we may do there
     * @param unfinished when a backup run began that did not come to its end
     */
    record OutsidePlace(
            String name,
            PlaceSettings settings,
            long usedBytes,
            long totalBytes,
            Role role,
            Optional<Instant> unfinished) {}

    /** The places that we may see there, with what it says of each; asked anew each time. */
    List<OutsidePlace> places() throws IOException;

    /** Makes a place. */
    void create(String place, PlaceSettings settings) throws IOException;

    /** Changes the settings of a place. */
    void configure(String place, PlaceSettings settings) throws IOException;

    /**
     * A version or a removal that the system keeps of a file.
     *
     * @param id in the system
     * @param removal whether it says that the file was removed
     * @param label what people call it there; may be empty
     * @param expires when the system will forget it, as far as it says
     */
    record Point(
            String id,
            boolean removal,
            Instant at,
            String who,
            long size,
            Instant modified,
            Digest sha256,
            String label,
            String note,
            Optional<Instant> expires) {}

    /**
     * A file with its points.
     *
     * @param key by which it stays the same under another name
     * @param path where it is, or was last
     * @param tag by which it is seen that nothing changed
     * @param points oldest first; empty when the tag is the one that was known
     * @param out who has it checked out
     */
    record File(String key, String path, String tag, Optional<List<Point>> points, Optional<Out> out) {
        /** One that nobody has checked out. */
        public File(String key, String path, String tag, Optional<List<Point>> points) {
            this(key, path, tag, points, Optional.empty());
        }
    }

    /** Who has a file checked out, and since when. */
    record Out(String who, Instant since) {}

    /**
     * Hands out all files of a place with their points, those removed too; of systems that keep versions file by file.
     *
     * @param known tags by key, of files whose points need not be told again
     */
    default void files(String place, Map<String, String> known, Consumer<File> each) throws IOException {
        throw unable();
    }

    /** The snapshots or backup runs of a place, oldest first; of systems that keep cuts. */
    default List<RemoteSnapshot> cuts(String place) throws IOException {
        throw unable();
    }

    /** What a backup run does not hold though it was there, by path, and why; empty for other systems. */
    default Map<String, String> skipped(String place, String cut) throws IOException {
        return Map.of();
    }

    /**
     * A file in a cut.
     *
     * @param sha256 when the system knows it
     * @param tag by which to see that it is the same; for systems that know no digest
     */
    record InTree(String path, long size, Instant modified, String who, Optional<Digest> sha256, String tag) {}

    /** What a cut holds, by {@link RemoteSnapshot#LIVE} what is there now. */
    default List<InTree> tree(String place, String cut) throws IOException {
        throw unable();
    }

    /**
     * Reads a content, resumed as often as the connection drops, and checked against its digest.
     *
     * @param point id of a version, key of a cut, or {@link RemoteSnapshot#LIVE}
     * @param sha256 what it must be; when not given, what the system says it is
     */
    void read(String place, String path, String point, Optional<Digest> sha256, OutputStream out) throws IOException;

    /** Bytes that can be opened again for another try. */
    interface Bytes {
        /** How many there are. */
        long size() throws IOException;

        /** Opens them from their beginning. */
        InputStream open() throws IOException;
    }

    /**
     * Something to put in.
     *
     * @param note that shall stand at the version; empty for none
     * @param key the same for each repetition, and for nothing else
     * @param replaces what it may replace
     */
    record Put(String path, Bytes bytes, Digest sha256, Instant modified, String note, String key, Before replaces) {

        /** One that replaces whatever is there. */
        public Put(String path, Bytes bytes, Digest sha256, Instant modified, String note, String key) {
            this(path, bytes, sha256, modified, note, key, Before.ANYTHING);
        }
    }

    /**
     * What a file has to be for it to be replaced or removed: as it was when it was seen last. A system that keeps no versions
     * would otherwise forget what a colleague saved meanwhile.
     *
     * @param expected what is asked for
     * @param tag that was told of the file; empty when none was
     * @param sha256 of its content, when it is known
     */
    record Before(Expected expected, String tag, Optional<Digest> sha256) {

        /** What is asked for. */
        public enum Expected {
            /** Nothing. */
            ANYTHING,
            /** That there is no file. */
            NOTHING,
            /** That it is this one. */
            THIS
        }

        /** It may be anything: what is replaced is kept by the system. */
        public static final Before ANYTHING = new Before(Expected.ANYTHING, "", Optional.empty());

        /** There may be none. */
        public static final Before NOTHING = new Before(Expected.NOTHING, "", Optional.empty());

        /** It must be this one. */
        public static Before of(String tag, Optional<Digest> sha256) {
            return new Before(Expected.THIS, tag, sha256);
        }
    }

    /** Puts a content in. Returns the id of the version, or the empty text when the system keeps none. */
    default String put(String place, Put put) throws IOException {
        throw unable();
    }

    /** Removes a file. */
    default void remove(String place, String path, String key) throws IOException {
        throw unable();
    }

    /**
     * Removes a file if it is as it was seen last.
     *
     * @throws SystemException.Conflict when it is not
     */
    default void remove(String place, String path, Before before, String key) throws IOException {
        remove(place, path, key);
    }

    /** Takes a removal away again. */
    default void bringBack(String place, String path, String key) throws IOException {
        throw unable();
    }

    /** Erases a version. */
    default void erase(String place, String path, String point, String key) throws IOException {
        throw unable();
    }

    /** Changes the note of a version. */
    default void note(String place, String path, String point, String note) throws IOException {
        throw unable();
    }

    /**
     * Makes the newest draft of a file the next published version.
     *
     * @param point id of that draft
     * @param note that shall stand at it; empty leaves what stands there
     */
    default void publish(String place, String path, String point, String note, String key) throws IOException {
        throw unable();
    }

    /** Ways of ending what is checked out. */
    enum CheckOutEnd {
        /** Who has it hands it back. */
        CHECK_IN,
        /** It is given up, or ended by an owner. */
        GIVE_UP
    }

    /** Takes a file to work on it alone. */
    default void checkOut(String place, String path, String key) throws IOException {
        throw unable();
    }

    /** Ends a check-out: handed back with what was done, given up, or ended for somebody else. */
    default void endCheckOut(String place, String path, CheckOutEnd end, String key) throws IOException {
        throw unable();
    }

    /** Takes a snapshot. */
    default RemoteSnapshot snapshot(String place, String label, String key) throws IOException {
        throw unable();
    }

    /** Erases a snapshot or a backup run. */
    default void eraseCut(String place, String cut) throws IOException {
        throw unable();
    }

    /**
     * Takes back a file from a cut within the system itself, with no bytes going over the connection.
     *
     * @return whether the system can; when not, the caller fetches and puts in
     */
    default boolean takeBack(String place, String cut, String path, String key) throws IOException {
        return false;
    }

    /** The side of a backup drive that takes runs. */
    default BackupTarget target() throws IOException {
        throw unable();
    }

    private SystemException.Unable unable() {
        return new SystemException.Unable(Words.of("system.unable", Words.of("system.kind." + kind().text())));
    }
}
