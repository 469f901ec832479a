package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Map;
import java.util.TreeMap;
import org.mendedleaf.core.words.Words;

/**
 * Walks all packs and gives out chunks, and then change logs in the order of their commits: enough for a new catalogue. A
 * commit record that was copied when its pack was emptied may stand in two packs for a while; it is given once.
 */
public final class PackReplay {

    private final VaultFolder vault;

    /** A replay of this vault. */
    public PackReplay(VaultFolder vault) {
        this.vault = vault;
    }

    /** Takes what the packs hold: first all chunks and packs, then all commits. */
    public interface Taker {
        /** A chunk whose record is sound. */
        void chunk(ChunkPlace place) throws IOException;

        /** The chunks so far belong to commits that are whole. */
        void chunksCommitted() throws IOException;

        /** The change log of a commit, in the order of their numbers; all chunks came before. */
        void commit(long number, byte[] changeLog) throws IOException;

        /**
         * A pack was walked to its end.
         *
         * @param end bytes up to the last commit, or the length of a sealed pack
         */
        void pack(long number, long end, boolean sealed) throws IOException;

        /** A record that cannot be read; what is behind it is tried further when the pack is sealed. */
        void damaged(String words);
    }

    /** Walks. */
    public void run(Taker taker) throws IOException {
        TreeMap<Long, CommitPlace> commits = new TreeMap<>();
        try (PackReader reader = new PackReader(vault)) {
            for (long number : vault.packNumbers()) {
                PackFormat.checkHeader(reader.readHeader(number), vault.pack(number), vault.id(), number);
                walk(reader, number, taker, commits);
            }
            for (Map.Entry<Long, CommitPlace> c : commits.entrySet()) {
                CommitPlace at = c.getValue();
                taker.commit(
                        c.getKey(),
                        reader.readWhole(at.pack(), at.offset(), at.end(), false)
                                .content());
            }
        }
    }

    private record CommitPlace(long pack, long offset, long end) {}

    private void walk(PackReader reader, long number, Taker taker, Map<Long, CommitPlace> commits) throws IOException {
        long size = reader.size(number);
        boolean sealed = isSealed(reader, number, size);
        long end = sealed ? size - PackFormat.TRAILER : size;
        long at = PackFormat.HEADER;
        long lastCommit = at;
        while (at < end) {
            try {
                PackReader.Whole whole = reader.readWhole(number, at, end, false);
                PackRecord head = whole.head();
                at = head.end();
                if (head.type() == PackFormat.CHUNK) {
                    taker.chunk(head.place(number));
                } else if (head.type() == PackFormat.COMMIT) {
                    commits.put(head.id(), new CommitPlace(number, head.offset(), head.end()));
                    taker.chunksCommitted();
                    lastCommit = at;
                }
            } catch (VaultException.Damaged e) {
                long next = sealed ? after(reader, number, at, end) : end;
                if (sealed) {
                    taker.damaged(e.words());
                }
                at = next;
            }
        }
        taker.pack(number, sealed ? size : lastCommit, sealed);
    }

    /** The next record behind a damaged one, as far as the lengths in its head still lead to a sound record. */
    private static long after(PackReader reader, long number, long at, long end) throws IOException {
        try {
            long next = reader.readHead(number, at).end();
            if (next < end) {
                reader.readHead(number, next);
            }
            return Math.min(next, end);
        } catch (VaultException.Damaged e) {
            return end;
        }
    }

    private boolean isSealed(PackReader reader, long number, long size) throws IOException {
        if (size < PackFormat.HEADER + PackFormat.TRAILER) {
            return false;
        }
        ByteBuffer tail = ByteBuffer.allocate(PackFormat.TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        reader.readFully(number, tail, size - PackFormat.TRAILER);
        return PackFormat.isTrailer(tail);
    }

    /** What is said when packs are there and the catalogue is not. */
    public static String hint(VaultFolder vault) {
        return Words.of("catalogue.rebuildHint", vault.root());
    }
}
