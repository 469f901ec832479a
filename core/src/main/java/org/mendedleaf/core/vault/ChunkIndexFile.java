package org.mendedleaf.core.vault;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.LongBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.Durable;

/**
 * What {@link ChunkIndex} knows of a large vault, on disk: the keys of its chunks in order, eight bytes each, so that neither
 * memory nor the begin of a session grows with the vault. Of every block of keys the first one is held in memory; a question
 * reads one block.
 *
 * <p>Kept for speed only: it can be taken away at any time and is made anew. Whoever uses it confirms what it says.
 *
 * <pre>
 * File = "MLCHUNKS", version, highest id, count,   each a long, big-endian
 *        key*,                                     ascending; see {@link #key}
 *        first key of each block                   of {@value #BLOCK} keys
 * </pre>
 */
final class ChunkIndexFile implements AutoCloseable {

    private static final String NAME = "chunks.index";
    private static final long MAGIC = 0x4d4c4348554e4b53L;
    private static final long VERSION = 1;
    private static final int HEAD = 32;
    private static final int BLOCK = 512;
    private static final int ID_BITS = 31;

    private final FileChannel file;
    private final long highest;
    private final int count;
    private final long[] firsts;
    private final ByteBuffer block = ByteBuffer.allocate(BLOCK * Long.BYTES);

    private ChunkIndexFile(FileChannel file, long highest, int count, long[] firsts) {
        this.file = file;
        this.highest = highest;
        this.count = count;
        this.firsts = firsts;
    }

    /** A chunk's first 32 bits of its digest, and its id: never 0, and never negative. Ids are from 1 to 2^31-1. */
    static long key(byte[] digest, long id) {
        return lowest(digest) | Math.toIntExact(id);
    }

    /** Below all keys of chunks whose digests begin so. */
    static long lowest(byte[] digest) {
        long prefix = 0;
        for (int i = 0; i < Integer.BYTES; i++) {
            prefix = prefix << 8 | (digest[i] & 0xff);
        }
        return prefix << ID_BITS;
    }

    /** The id in a key. */
    static long id(long key) {
        return key & Integer.MAX_VALUE;
    }

    /** Whether two keys are of digests that begin alike. */
    static boolean beginAlike(long one, long other) {
        return one >>> ID_BITS == other >>> ID_BITS;
    }

    private static Path path(VaultFolder vault) {
        return vault.root().resolve(NAME);
    }

    /** Takes the file away: it says something of chunks that may be there no longer. */
    static void remove(VaultFolder vault) throws IOException {
        Files.deleteIfExists(path(vault));
    }

    /** Opens what is there; nothing when there is none, or none that is whole. */
    static Optional<ChunkIndexFile> open(VaultFolder vault) throws IOException {
        FileChannel file;
        try {
            file = FileChannel.open(path(vault), StandardOpenOption.READ);
        } catch (NoSuchFileException e) {
            return Optional.empty();
        }
        boolean good = false;
        try {
            LongBuffer head = read(file, 0, HEAD / Long.BYTES);
            long count = head.get(3);
            boolean known = head.get(0) == MAGIC && head.get(1) == VERSION && count >= 0 && count <= Integer.MAX_VALUE;
            int blocks = known ? blocks((int) count) : 0;
            good = known && file.size() == HEAD + (count + blocks) * Long.BYTES;
            if (!good) {
                return Optional.empty();
            }
            long[] firsts = new long[blocks];
            read(file, HEAD + count * Long.BYTES, blocks).get(firsts);
            return Optional.of(new ChunkIndexFile(file, head.get(2), (int) count, firsts));
        } catch (EOFException e) {
            return Optional.empty();
        } finally {
            if (!good) {
                file.close();
            }
        }
    }

    private static int blocks(int count) {
        return (count + BLOCK - 1) / BLOCK;
    }

    private static LongBuffer read(FileChannel file, long at, int longs) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate(longs * Long.BYTES);
        fill(file, at, bytes);
        return bytes.asLongBuffer();
    }

    private static void fill(FileChannel file, long at, ByteBuffer bytes) throws IOException {
        long from = at;
        while (bytes.hasRemaining()) {
            int n = file.read(bytes, from);
            if (n < 0) {
                throw new EOFException("expected more of the index of chunks");
            }
            from += n;
        }
        bytes.flip();
    }

    /** All chunks of the vault up to this id are in it. */
    long highest() {
        return highest;
    }

    /** How many chunks are in it. */
    int count() {
        return count;
    }

    /** Looks at the keys of chunks whose digests begin as this one. */
    interface Look {
        /** Whether it is the one. */
        boolean at(long id) throws IOException;
    }

    /** The id of the first chunk, of those whose digests begin so, that is the one; -1 when none is. */
    long find(byte[] digest, Look look) throws IOException {
        long lowest = lowest(digest);
        int found = Arrays.binarySearch(firsts, lowest);
        // What is looked for may begin in the block before the one that begins above it.
        for (int b = Math.max(0, found < 0 ? -found - 2 : found); b < firsts.length; b++) {
            if (firsts[b] > lowest && !beginAlike(firsts[b], lowest)) {
                return -1;
            }
            block.clear().limit(Math.min(BLOCK, count - b * BLOCK) * Long.BYTES);
            fill(file, HEAD + (long) b * BLOCK * Long.BYTES, block);
            for (LongBuffer keys = block.asLongBuffer(); keys.hasRemaining(); ) {
                long key = keys.get();
                if (key > lowest) {
                    if (!beginAlike(key, lowest)) {
                        return -1;
                    }
                    if (look.at(id(key))) {
                        return id(key);
                    }
                }
            }
        }
        return -1;
    }

    /**
     * Writes the file anew, with more chunks. A kill leaves the old one or the new one.
     *
     * @param old what was there; it is closed
     * @param keys of the chunks that come in, ascending
     * @param highest id up to which all chunks are in it then
     */
    static ChunkIndexFile merge(VaultFolder vault, @Nullable ChunkIndexFile old, LongBuffer keys, long highest)
            throws IOException {
        Path beside = vault.root().resolve(NAME + ".new");
        Files.deleteIfExists(beside);
        vault.access().createFile(beside);
        try (FileChannel out = FileChannel.open(beside, StandardOpenOption.WRITE)) {
            Keys before = new Keys(old);
            Writing writing = new Writing(out);
            writing.at(HEAD);
            while (before.has() || keys.hasRemaining()) {
                boolean first = !keys.hasRemaining() || (before.has() && before.peek() <= keys.get(keys.position()));
                writing.key(first ? before.next() : keys.get());
            }
            writing.end(highest);
            out.force(true);
        } finally {
            if (old != null) {
                old.close();
            }
        }
        Files.move(beside, path(vault), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        Durable.forceFolder(vault.root());
        return open(vault).orElseThrow(() -> new EOFException("expected the index of chunks that was written"));
    }

    /** The keys of a file, in order. */
    private static final class Keys {
        private final @Nullable ChunkIndexFile file;
        private final ByteBuffer bytes = ByteBuffer.allocate(1 << 16).limit(0);
        private int left;
        private long at = HEAD;

        Keys(@Nullable ChunkIndexFile file) {
            this.file = file;
            this.left = file == null ? 0 : file.count;
        }

        boolean has() {
            return left > 0;
        }

        long peek() throws IOException {
            if (!bytes.hasRemaining() && file != null) {
                bytes.clear().limit((int) Math.min(bytes.capacity(), (long) left * Long.BYTES));
                fill(file.file, at, bytes);
                at += bytes.limit();
            }
            return bytes.getLong(bytes.position());
        }

        long next() throws IOException {
            long key = peek();
            bytes.position(bytes.position() + Long.BYTES);
            left--;
            return key;
        }
    }

    private static final class Writing {
        private final FileChannel out;
        private final ByteBuffer bytes = ByteBuffer.allocate(1 << 16);
        private long[] firsts = new long[64];
        private long last;
        private int count;

        Writing(FileChannel out) {
            this.out = out;
        }

        void at(long position) throws IOException {
            out.position(position);
        }

        /** One that was given before is not written twice. */
        void key(long key) throws IOException {
            if (key == last) {
                return;
            }
            last = key;
            if (count % BLOCK == 0) {
                int b = count / BLOCK;
                firsts = b == firsts.length ? Arrays.copyOf(firsts, b * 2) : firsts;
                firsts[b] = key;
            }
            count++;
            put(key);
        }

        private void put(long value) throws IOException {
            if (bytes.remaining() < Long.BYTES) {
                flush();
            }
            bytes.putLong(value);
        }

        private void flush() throws IOException {
            Durable.write(out, bytes.flip());
            bytes.clear();
        }

        void end(long highest) throws IOException {
            for (int b = 0; b < blocks(count); b++) {
                put(firsts[b]);
            }
            flush();
            out.position(0);
            put(MAGIC);
            put(VERSION);
            put(highest);
            put(count);
            flush();
        }
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}
