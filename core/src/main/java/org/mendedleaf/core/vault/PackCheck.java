package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.NoSuchFileException;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.words.Words;

/** Reads a pack and compares it with what the catalogue says of it. Changes nothing. */
public final class PackCheck {

    /** A pack of so many bytes holds nothing yet. */
    public static final long EMPTY = PackFormat.HEADER;

    private final VaultFolder vault;
    private final PackReader reader;

    /** A check of packs of this vault, through this reader. */
    public PackCheck(VaultFolder vault, PackReader reader) {
        this.vault = vault;
        this.reader = reader;
    }

    /**
     * What the catalogue says of one pack.
     *
     * @param number of the pack
     * @param sealed whether it has its index and trailer
     * @param committed bytes of it that are committed; for a sealed pack its length
     * @param chunks the chunks it holds; asked for when they are needed, since those of all packs are many
     */
    public record Expected(long number, boolean sealed, long committed, Chunks chunks) {

        /** Finds the chunks that a pack holds, always the same. */
        @FunctionalInterface
        public interface Chunks {
            PackChunks find() throws IOException;
        }
    }

    /** The quick part: the pack is there, is ours, and is long enough. */
    public List<Damage> quick(Expected pack) throws IOException {
        List<Damage> found = new ArrayList<>();
        try (FileChannel channel = FileChannel.open(vault.pack(pack.number()), StandardOpenOption.READ)) {
            PackFormat.checkHeader(PackFiles.start(channel), vault.pack(pack.number()), vault.id(), pack.number());
            long size = reader.size(pack.number());
            if (size < pack.committed() || (pack.sealed() && size != pack.committed())) {
                Set<Long> lost = new HashSet<>();
                for (ChunkPlace c : pack.chunks().find()) {
                    if (c.offset() + PackFormat.recordLength(c.storedBytes()) > size) {
                        lost.add(c.id());
                    }
                }
                found.add(damage(pack, Words.of("check.length", name(pack), size, pack.committed()), lost));
            }
            if (pack.sealed() && size == pack.committed()) {
                checkTrailer(pack, found);
            }
        } catch (NoSuchFileException e) {
            found.add(damage(pack, Words.of("vault.pack.missing", name(pack)), allOf(pack)));
        } catch (VaultException.Damaged e) {
            found.add(damage(pack, e.words(), readable(pack) ? Set.of() : allOf(pack)));
        }
        return found;
    }

    /** Whether the pack can be found all the same: under another name, or with its header damaged. */
    private boolean readable(Expected pack) throws IOException {
        try {
            return reader.size(pack.number()) >= 0;
        } catch (VaultException.Damaged e) {
            return false;
        }
    }

    private static Set<Long> allOf(Expected pack) throws IOException {
        Set<Long> all = new HashSet<>();
        pack.chunks().find().forEach(c -> all.add(c.id()));
        return all;
    }

    private Damage damage(Expected pack, String words, Set<Long> chunks) {
        return new Damage(pack.number(), words, chunks);
    }

    private String name(Expected pack) {
        return vault.pack(pack.number()).getFileName().toString();
    }

    private ByteBuffer trailer(Expected pack) throws IOException {
        ByteBuffer tail = ByteBuffer.allocate(PackFormat.TRAILER).order(ByteOrder.LITTLE_ENDIAN);
        reader.readFully(pack.number(), tail, pack.committed() - PackFormat.TRAILER);
        return tail;
    }

    private void checkTrailer(Expected pack, List<Damage> found) throws IOException {
        if (!PackFormat.isTrailer(trailer(pack))) {
            found.add(damage(pack, Words.of("check.trailer", name(pack)), Set.of()));
        }
    }

    /** Told after each record: its bytes in the pack. */
    @FunctionalInterface
    public interface Progress {
        void read(long bytes) throws IOException;
    }

    /**
     * Every byte: all of {@link #quick}, each record with its CRC, what its head says, and the index.
     *
     * @param deep whether each chunk is decoded too, and its digest computed, on two threads
     */
    public List<Damage> full(Expected pack, boolean deep, Progress progress) throws IOException {
        List<Damage> found = quick(pack);
        PackChunks chunks = pack.chunks().find();
        List<ChunkPlace> missed = new ArrayList<>();
        try (Proofs proofs = new Proofs()) {
            PackWalk walk =
                    deep ? new PackWalk(reader, pack.number(), chunks) : PackWalk.byCrc(reader, pack.number(), chunks);
            long size = Math.min(reader.size(pack.number()), pack.committed());
            long end = pack.sealed() ? Math.max(PackFormat.HEADER, size - PackFormat.TRAILER) : size;
            Full full = new Full(pack, chunks, found, deep, proofs, progress);
            walk.run(PackFormat.HEADER, end, full);
            missed.addAll(full.missed());
            for (PackRecord wrong : proofs.end()) {
                String words = Words.of("vault.record.damaged", name(pack), String.valueOf(wrong.offset()));
                int known = chunks.indexOf(wrong.offset());
                // Its CRC is right, so reading would give it out: it is lost whatever that says.
                found.add(damage(pack, words, known < 0 ? Set.of() : Set.of(chunks.id(known))));
            }
        } catch (VaultException.Damaged e) {
            // Said already: the pack is not there.
            return found;
        }
        for (ChunkPlace m : missed) {
            found.add(lost(pack, m, Words.of("vault.record.damaged", name(pack), String.valueOf(m.offset()))));
        }
        return found;
    }

    /** Compares what is found in a pack with what the catalogue says. */
    private final class Full implements PackWalk.Taker {
        private final Expected pack;
        private final PackChunks chunks;
        private final List<Damage> found;
        private final boolean deep;
        private final Proofs proofs;
        private final Progress progress;
        private final PackChunks.Builder inPack;
        private final List<ChunkPlace> missed = new ArrayList<>();
        private int next;
        private long records;

        Full(Expected pack, PackChunks chunks, List<Damage> found, boolean deep, Proofs proofs, Progress progress) {
            this.pack = pack;
            this.chunks = chunks;
            this.inPack = new PackChunks.Builder(pack.number());
            this.found = found;
            this.deep = deep;
            this.proofs = proofs;
            this.progress = progress;
        }

        /** Index of the chunk that lies there, negative when none does; the walk goes front to back, and so do they. */
        private int known(long offset) {
            while (next < chunks.size() && chunks.offset(next) < offset) {
                missed.add(chunks.place(next++));
            }
            return next < chunks.size() && chunks.offset(next) == offset ? next++ : -1;
        }

        /** Chunks that are known and where no record was found to begin, once all is read. */
        List<ChunkPlace> missed() {
            while (next < chunks.size()) {
                missed.add(chunks.place(next++));
            }
            return missed;
        }

        /** One that no commit took up was never finished: it takes space and harms nobody. */
        private void compare(PackRecord head, int known) {
            if (known >= 0 && !chunks.says(known, head)) {
                String words = Words.of("check.differs", name(pack), String.valueOf(head.offset()));
                found.add(damage(pack, words, Set.of(chunks.id(known))));
            }
        }

        @Override
        public void sound(PackRecord head, byte[] bytes) throws IOException {
            int known = known(head.offset());
            if (deep) {
                proofs.prove(new PackReader.Checked(head, bytes));
            }
            if (head.type() == PackFormat.CHUNK) {
                compare(head, known);
                inPack.add(head.id(), head.offset(), head.storedBytes(), head.length(), head.digest());
            } else if (head.type() == PackFormat.INDEX) {
                PackReader.Checked index = deep
                        ? new PackReader.Checked(head, bytes)
                        : reader.require(pack.number(), head.offset(), head.end());
                checkIndex(pack, index, head.offset(), inPack.build(), records, found);
            }
            records++;
            progress.read(head.end() - head.offset());
        }

        @Override
        public void damaged(long from, long to, Optional<ChunkPlace> chunk) throws IOException {
            String words = Words.of("vault.stretch.damaged", name(pack), String.valueOf(from), String.valueOf(to));
            int known = known(from);
            found.add(known < 0 ? damage(pack, words, Set.of()) : lost(pack, chunks.place(known), words));
            if (known >= 0) {
                inPack.add(chunks.place(known));
            }
            records++;
            progress.read(to - from);
        }
    }

    /** A chunk whose record is not sound: lost, unless its digest proves that its content is there all the same. */
    private Damage lost(Expected pack, ChunkPlace chunk, String words) throws IOException {
        try {
            reader.read(chunk);
            return damage(pack, words, Set.of());
        } catch (VaultException.Damaged e) {
            return damage(pack, words, Set.of(chunk.id()));
        }
    }

    private void checkIndex(
            Expected pack, PackReader.Checked index, long offset, PackChunks chunks, long records, List<Damage> found)
            throws IOException {
        ByteBuffer tail = trailer(pack);
        PackChunks entries = PackFormat.readIndex(index.content().orElse(new byte[0]), pack.number());
        boolean same = tail.getLong(0) == offset && tail.getLong(8) == records && entries.sameAs(chunks);
        if (!same) {
            found.add(damage(pack, Words.of("check.index", name(pack)), Set.of()));
        }
    }
}
