package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mendedleaf.core.disk.Durable;

/**
 * Makes a damaged pack whole with what the same pack of a copy, or of the vault that it is a copy of, still has: both hold the
 * same bytes at the same places. Every record that is sound in one of them is sound in what comes out; the damaged pack is
 * replaced at once and whole, and nothing sound in it is given up.
 */
public final class PackHealing {

    private static final int BLOCK = 1 << 20;
    private static final String HEALING = ".pack.healing";

    private PackHealing() {}

    /**
     * Heals one pack. Whoever writes to the vault is kept out by the caller.
     *
     * @param until bytes of it that are committed
     * @param sealed whether it ends with its index and trailer
     * @return bytes of records that are sound now and were not before; 0 when the other has nothing to give
     */
    public static long heal(VaultFolder vault, VaultFolder other, long number, long until, boolean sealed)
            throws IOException {
        if (!Files.exists(other.pack(number))) {
            return 0;
        }
        NavigableMap<Long, Integer> ours = sound(vault, number, until);
        NavigableMap<Long, Integer> theirs = sound(other, number, until);
        theirs.keySet().removeAll(ours.keySet());
        boolean header = !hasHeader(vault, number) && hasHeader(other, number);
        boolean trailer = sealed && !hasTrailer(vault, number, until) && hasTrailer(other, number, until);
        if (theirs.isEmpty() && !header && !trailer) {
            return 0;
        }
        long healed = 0;
        Path healing = vault.root().resolve("%08d%s".formatted(number, HEALING));
        Files.deleteIfExists(healing);
        vault.access().createFile(healing);
        try (FileChannel give = FileChannel.open(other.pack(number), StandardOpenOption.READ);
                FileChannel out = FileChannel.open(healing, StandardOpenOption.WRITE)) {
            if (Files.exists(vault.pack(number))) {
                try (FileChannel own = FileChannel.open(vault.pack(number), StandardOpenOption.READ)) {
                    copy(own, out, 0, Math.max(until, own.size()));
                }
            }
            if (header) {
                copy(give, out, 0, PackFormat.HEADER);
            }
            for (var record : theirs.entrySet()) {
                copy(give, out, record.getKey(), record.getKey() + record.getValue());
                healed += record.getValue();
            }
            if (trailer) {
                copy(give, out, until - PackFormat.TRAILER, until);
            }
            out.force(true);
        }
        Files.move(healing, vault.pack(number), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        Durable.forceFolder(vault.packs());
        return healed + (header ? PackFormat.HEADER : 0) + (trailer ? PackFormat.TRAILER : 0);
    }

    /** Takes away what a healing that was cut short left: the pack that it was about is as it was. */
    public static void tidy(VaultFolder vault) throws IOException {
        List<Path> left;
        try (Stream<Path> files = Files.list(vault.root())) {
            left = files.filter(f -> f.toString().endsWith(HEALING)).toList();
        }
        for (Path file : left) {
            Files.deleteIfExists(file);
        }
    }

    /** Offsets and lengths of the records that are sound and hold what their digest says. */
    private static NavigableMap<Long, Integer> sound(VaultFolder vault, long number, long until) throws IOException {
        TreeMap<Long, Integer> found = new TreeMap<>();
        if (!Files.exists(vault.pack(number))) {
            return found;
        }
        try (PackReader reader = new PackReader(vault)) {
            PackWalk walk = new PackWalk(reader, number, PackChunks.NONE);
            long end = Math.min(until, walk.end().bytes());
            walk.run(PackFormat.HEADER, end, new PackWalk.Taker() {
                @Override
                public void sound(PackRecord head, byte[] bytes) {
                    if (new PackReader.Checked(head, bytes).isProved()) {
                        found.put(head.offset(), bytes.length);
                    }
                }

                @Override
                public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                    // That is what is to be healed.
                }
            });
        } catch (VaultException.Damaged e) {
            // Nothing in it can be read.
            return found;
        }
        return found;
    }

    private static boolean hasHeader(VaultFolder vault, long number) throws IOException {
        if (!Files.exists(vault.pack(number))) {
            return false;
        }
        try (FileChannel channel = FileChannel.open(vault.pack(number), StandardOpenOption.READ)) {
            PackFormat.checkHeader(PackFiles.start(channel), vault.pack(number), vault.id(), number);
            return true;
        } catch (VaultException.Damaged e) {
            return false;
        }
    }

    private static boolean hasTrailer(VaultFolder vault, long number, long until) throws IOException {
        if (!Files.exists(vault.pack(number)) || Files.size(vault.pack(number)) < until) {
            return false;
        }
        ByteBuffer tail = ByteBuffer.allocate(PackFormat.TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        try (FileChannel channel = FileChannel.open(vault.pack(number), StandardOpenOption.READ)) {
            long at = until - PackFormat.TRAILER;
            while (tail.hasRemaining() && channel.read(tail, at + tail.position()) >= 0) {
                // Until it is full.
            }
        }
        return PackFormat.isTrailer(tail.flip());
    }

    /** Copies a stretch to the same place; what the source has not is left out. */
    private static void copy(FileChannel source, FileChannel target, long from, long to) throws IOException {
        ByteBuffer buffer = ByteBuffer.allocate(BLOCK);
        long at = from;
        while (at < to) {
            buffer.clear().limit((int) Math.min(BLOCK, to - at));
            int n = source.read(buffer, at);
            if (n < 0) {
                return;
            }
            buffer.flip();
            long place = at;
            while (buffer.hasRemaining()) {
                place += target.write(buffer, place);
            }
            at += n;
        }
    }
}
