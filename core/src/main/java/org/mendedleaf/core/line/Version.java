package org.mendedleaf.core.line;

import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/**
 * One content of a file, as a point on its line.
 *
 * @param line the line it belongs to
 * @param number from 1, ascending, never used twice
 * @param saved when it was saved: its modified time, but never before the look that came before, nor after its capture
 * @param captured when it came into the vault
 * @param who saved it, as far as known
 * @param origin how it came here
 * @param source number of the version it was restored from; 0 when it was not
 * @param file its content, and what the file system said of it
 * @param note what somebody wrote about it; empty when nobody did
 * @param path of the file at that time, from the place's root, with slashes
 * @param edition whether it is a draft, and of what; elsewhere its number, whole
 * @param label what it is called, wherever somebody reads or types it: its edition, or what its system calls it
 */
public record Version(
        long line,
        int number,
        Instant saved,
        Instant captured,
        String who,
        Origin origin,
        int source,
        FileState file,
        String note,
        String path,
        Edition edition,
        String label)
        implements LinePoint {

    /** One that is called by its number. */
    public Version(
            long line,
            int number,
            Instant saved,
            Instant captured,
            String who,
            Origin origin,
            int source,
            FileState file,
            String note,
            String path) {
        this(
                line,
                number,
                saved,
                captured,
                who,
                origin,
                source,
                file,
                note,
                path,
                Edition.whole(number),
                label(number));
    }

    private static String label(int number) {
        return number == 0 ? "" : Edition.whole(number).label();
    }

    /**
     * This content as something to restore onto another line, where it has no number.
     *
     * @param onto id of that line
     * @param from where it comes from, as a message; becomes the note of the new version
     */
    public Version borrowed(long onto, String from) {
        return new Version(onto, 0, saved, captured, who, Origin.RESTORED, 0, file, from, path);
    }

    /** The same with the modified time and permissions that the file had at some moment. */
    public Version looking(long mtimeNanos, int mode) {
        return new Version(
                line,
                number,
                saved,
                captured,
                who,
                origin,
                source,
                file.with(mtimeNanos, mode),
                note,
                path,
                edition,
                label);
    }

    /** Whether the contents are known to be the same. */
    public boolean sameContent(Version other) {
        return file.sameContent(other.file);
    }

    @Override
    public Instant at() {
        return saved;
    }

    /** File or link. */
    public EntryKind kind() {
        return file.kind();
    }

    /** Bytes. */
    public long size() {
        return file.size();
    }

    /** Modified time of the file, nanoseconds since 1970. */
    public long mtimeNanos() {
        return file.mtimeNanos();
    }

    /** Permission bits, as in POSIX. */
    public int mode() {
        return file.mode();
    }

    /** Of the content, see {@code ContentDigest}. */
    public Digest digest() {
        return file.digest();
    }

    /** Plain SHA-256, when it was computed already. */
    public Optional<Digest> sha256() {
        return file.sha256();
    }

    /** Where the bytes are. */
    public Recipe recipe() {
        return file.recipe();
    }
}
