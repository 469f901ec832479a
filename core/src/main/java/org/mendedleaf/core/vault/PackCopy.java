package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.jobs.Progress;

/**
 * Writes what a vault has got in its packs into a copy of it, byte for byte: packs are only ever appended to, so that what is
 * new is what stands behind the part that the copy has already. What a run that was cut short left is read, not written again.
 */
public final class PackCopy implements AutoCloseable {

    private static final int BLOCK = 1 << 20;

    /** So many bytes before the end of what both have are compared before anything is put behind them. */
    private static final int TAIL = 64;

    private final VaultFolder from;
    private final VaultFolder to;
    private final PackReader written;
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(BLOCK);

    /** Copies from one vault into a copy of it. */
    public PackCopy(VaultFolder from, VaultFolder to) {
        this.from = from;
        this.to = to;
        this.written = new PackReader(to);
    }

    /** How the end of what a copy has of a pack compares with the vault. */
    public enum Tail {
        /** They are the same. */
        SAME,
        /** What the copy has is damaged, or gone: it has to be copied anew. */
        COPY_DAMAGED,
        /** What the vault has is damaged. */
        VAULT_DAMAGED,
        /** Both are sound, and say different things: they went different ways. */
        DIFFERENT
    }

    /** Compares the end of what the copy has of a pack, {@code known} bytes of it. */
    public Tail tail(long number, long known) throws IOException {
        if (!Files.exists(to.pack(number)) || Files.size(to.pack(number)) < known) {
            return Tail.COPY_DAMAGED;
        }
        if (Arrays.equals(last(from, number, known), last(to, number, known))) {
            return Tail.SAME;
        }
        if (!isSound(to, number, known)) {
            return Tail.COPY_DAMAGED;
        }
        return isSound(from, number, known) ? Tail.DIFFERENT : Tail.VAULT_DAMAGED;
    }

    private static byte[] last(VaultFolder vault, long number, long end) throws IOException {
        int length = (int) Math.min(TAIL, end);
        ByteBuffer bytes = ByteBuffer.allocate(length);
        try (FileChannel channel = FileChannel.open(vault.pack(number), StandardOpenOption.READ)) {
            long at = end - length;
            while (bytes.hasRemaining()) {
                int n = channel.read(bytes, at + bytes.position());
                if (n < 0) {
                    break;
                }
            }
        }
        return Arrays.copyOf(bytes.array(), bytes.position());
    }

    /** Whether the last record before {@code end}, or the trailer there, is sound. */
    private static boolean isSound(VaultFolder vault, long number, long end) throws IOException {
        long[] last = {0};
        try (PackReader reader = new PackReader(vault)) {
            PackWalk walk = new PackWalk(reader, number, PackChunks.NONE);
            long until = Math.min(end, walk.end().bytes());
            walk.run(PackFormat.HEADER, until, new PackWalk.Taker() {
                @Override
                public void sound(PackRecord head, byte[] bytes) {
                    last[0] = head.end();
                }

                @Override
                public void damaged(long begin, long behind, Optional<ChunkPlace> chunk) {
                    // Only the last one counts.
                }
            });
            return last[0] == until && (until == end || walk.end().sealed());
        } catch (VaultException.Damaged e) {
            return false;
        }
    }

    /**
     * Brings a pack up to a length, durably.
     *
     * @param known bytes of it that the copy has for certain; 0 for none
     * @param until bytes of it that are committed
     * @return how many bytes were written; -1 when the work was cancelled
     * @throws java.nio.file.NoSuchFileException when the vault does not have the pack any more
     */
    public long bring(long number, long known, long until, Progress progress) throws IOException {
        try (FileChannel source = FileChannel.open(from.pack(number), StandardOpenOption.READ)) {
            to.access().createFile(to.pack(number));
            try (FileChannel target =
                    FileChannel.open(to.pack(number), StandardOpenOption.READ, StandardOpenOption.WRITE)) {
                long at = left(number, known, Math.min(until, target.size()));
                progress.advance(0, at - known);
                long begun = at;
                while (at < until) {
                    if (progress.isCancelled()) {
                        return -1;
                    }
                    buffer.clear().limit((int) Math.min(BLOCK, until - at));
                    int n = source.read(buffer, at);
                    if (n < 0) {
                        break;
                    }
                    buffer.flip();
                    long place = at;
                    while (buffer.hasRemaining()) {
                        place += target.write(buffer, place);
                    }
                    at += n;
                    progress.advance(0, n);
                }
                // What stands behind it was never committed.
                if (target.size() > until) {
                    target.truncate(until);
                }
                target.force(true);
                return at - begun;
            }
        }
    }

    /** Where to go on: behind what an earlier run wrote and is sound. */
    private long left(long number, long known, long there) throws IOException {
        if (known == 0 && there > PackFormat.HEADER && !isHeader(number)) {
            return 0;
        }
        long at = Math.max(known, Math.min(there, PackFormat.HEADER));
        while (at < there) {
            Optional<PackReader.Checked> record = written.readChecked(number, at, there);
            if (record.isEmpty()) {
                break;
            }
            at = record.get().head().end();
        }
        return at <= PackFormat.HEADER && known == 0 ? 0 : at;
    }

    private boolean isHeader(long number) throws IOException {
        try (FileChannel target = FileChannel.open(to.pack(number), StandardOpenOption.READ)) {
            PackFormat.checkHeader(PackFiles.start(target), to.pack(number), to.id(), number);
            return true;
        } catch (VaultException.Damaged e) {
            return false;
        }
    }

    /** Whether the same bytes stand at the same place in both. */
    public boolean isSame(long number, long begin, long behind) throws IOException {
        try (FileChannel one = FileChannel.open(from.pack(number), StandardOpenOption.READ);
                FileChannel other = FileChannel.open(to.pack(number), StandardOpenOption.READ)) {
            ByteBuffer a = ByteBuffer.allocate(BLOCK);
            ByteBuffer b = ByteBuffer.allocate(BLOCK);
            for (long at = begin; at < behind; at += BLOCK) {
                int length = (int) Math.min(BLOCK, behind - at);
                if (!fill(one, a.clear().limit(length), at)
                        .equals(fill(other, b.clear().limit(length), at))) {
                    return false;
                }
            }
            return true;
        }
    }

    private static ByteBuffer fill(FileChannel channel, ByteBuffer into, long at) throws IOException {
        while (into.hasRemaining() && channel.read(into, at + into.position()) >= 0) {
            // Until it is full or the file ends.
        }
        return into.flip();
    }

    /** Takes packs away that the vault has not any more: nothing in them is needed, and some of it may have been erased. */
    public void discard(Set<Long> numbers) throws IOException {
        for (long number : numbers) {
            PackWriter.discard(to, number);
        }
        if (!numbers.isEmpty()) {
            Durable.forceFolder(to.packs());
        }
    }

    @Override
    public void close() throws IOException {
        written.close();
    }
}
