package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.mendedleaf.core.words.Words;

/** The end of the newest pack: what stands behind the last commit that the catalogue knows. */
final class PackTail {

    private final VaultFolder vault;

    PackTail(VaultFolder vault) {
        this.vault = vault;
    }

    /**
     * Looks at what a crash may have left behind the last commit. One commit record there was never acknowledged and may
     * be cut away; more than one says that the catalogue is older than the packs, and then nothing is touched. Records that
     * were copied there from another pack bring the commits along that the catalogue knows; those do not count. A pack that
     * the catalogue knows no longer was emptied, and its file is deleted.
     *
     * @param newest number of the pack that is written next
     * @param committed bytes of it that the catalogue knows; 0 when it is to be begun
     * @param lastCommit number of the last commit that the catalogue knows
     * @param known numbers of the packs that it knows
     */
    void cutBack(long newest, long committed, long lastCommit, Set<Long> known) throws IOException {
        int commits = 0;
        List<Long> unknown = new ArrayList<>();
        for (long number : vault.packNumbers()) {
            if (number > newest || (number == newest && committed == 0)) {
                commits += commitsBehind(number, PackFormat.HEADER, lastCommit);
                unknown.add(number);
            } else if (number < newest && !known.contains(number)) {
                commits += commitsBehind(number, PackFormat.HEADER, lastCommit);
                unknown.add(number);
            }
        }
        if (committed > 0) {
            if (!Files.exists(vault.pack(newest)) || Files.size(vault.pack(newest)) < committed) {
                throw new VaultException.Damaged(
                        Words.of("vault.pack.short", vault.pack(newest).getFileName()));
            }
            commits += commitsBehind(newest, committed, lastCommit);
        }
        if (commits > 1) {
            throw new VaultException.Damaged(Words.of("catalogue.older", vault.root()));
        }
        for (long number : unknown) {
            PackWriter.discard(vault, number);
        }
    }

    private int commitsBehind(long number, long from, long lastCommit) throws IOException {
        int commits = 0;
        try (PackReader reader = new PackReader(vault)) {
            long limit = reader.size(number);
            long at = from;
            while (at + PackFormat.RECORD_HEAD + PackFormat.RECORD_TAIL <= limit) {
                PackReader.Whole whole = reader.readWhole(number, at, limit, false);
                if (whole.head().type() == PackFormat.COMMIT && whole.head().id() > lastCommit) {
                    commits++;
                }
                at = whole.head().end();
            }
        } catch (VaultException.Damaged e) {
            // A torn record: here the crash happened, and what is behind it was never synced as a whole.
            return commits;
        }
        return commits;
    }

    /**
     * What is in a pack up to a point.
     *
     * @param chunks in the order of the pack
     * @param records of all types
     */
    record Contents(List<ChunkPlace> chunks, long records) {}

    /** Reads the heads of all records of a pack, from its header to {@code end}. */
    Contents chunksOf(long number, long end) throws IOException {
        List<ChunkPlace> chunks = new ArrayList<>();
        long records = 0;
        try (PackReader reader = new PackReader(vault)) {
            long at = PackFormat.HEADER;
            while (at < end) {
                PackRecord head = reader.readHead(number, at);
                if (head.type() == PackFormat.CHUNK) {
                    chunks.add(head.place(number));
                }
                records++;
                at = head.end();
            }
        }
        return new Contents(chunks, records);
    }
}
