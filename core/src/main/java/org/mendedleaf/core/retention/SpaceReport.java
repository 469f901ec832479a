package org.mendedleaf.core.retention;

import java.io.IOException;
import java.nio.file.Files;
import org.mendedleaf.core.disk.FilesBelow;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What a vault takes on its drive; the parts add up to all of it.
 *
 * @param inUse bytes of chunks that are needed by versions which are kept
 * @param waiting bytes of chunks that only versions need which wait for the end of their grace
 * @param unused bytes of chunks that nothing needs, until the next reclaim
 * @param bookkeeping bytes of the catalogue, and of what packs hold beside chunks
 * @param free bytes that are left on the drive
 */
public record SpaceReport(long inUse, long waiting, long unused, long bookkeeping, long free) {

    /** Adds up. */
    public static SpaceReport of(VaultFolder vault, SpaceTable space) throws IOException {
        SpaceTable.Sums sums = space.sums();
        long files = FilesBelow.bytes(vault.root());
        return new SpaceReport(
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

    /** All of it in a sentence. */
    public String words() {
        return Words.of(
                "report.space",
                Formats.size(inUse),
                Formats.size(waiting),
                Formats.size(unused),
                Formats.size(bookkeeping),
                Formats.size(all()),
                Formats.size(free));
    }
}
