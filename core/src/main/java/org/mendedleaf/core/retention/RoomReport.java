package org.mendedleaf.core.retention;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.mendedleaf.core.vault.VaultFolder;

/**
 * What a vault takes on its drive; the parts add up to all of it.
 *
 * @param inUse bytes of chunks that are needed by versions which are kept
 * @param waiting bytes of chunks that only versions need which wait for the end of their grace
 * @param unused bytes of chunks that nothing needs, until the next reclaim
 * @param bookkeeping bytes of the catalogue, and of what packs hold beside chunks
 * @param free bytes that are left on the drive
 */
public record RoomReport(long inUse, long waiting, long unused, long bookkeeping, long free) {

    /** Adds up. */
    public static RoomReport of(VaultFolder vault, RoomTable room) throws IOException {
        RoomTable.Sums sums = room.sums();
        long files = 0;
        try (Stream<Path> all = Files.walk(vault.root())) {
            for (Path p : all.toList()) {
                files += Files.isRegularFile(p) ? Files.size(p) : 0;
            }
        }
        return new RoomReport(
                sums.inUse(),
                sums.waiting(),
                sums.unused(),
                Math.max(0, files - sums.all()),
                Files.getFileStore(vault.root()).getUsableSpace());
    }

    /** Bytes of the whole vault. */
    public long all() {
        return inUse + waiting + unused + bookkeeping;
    }
}
