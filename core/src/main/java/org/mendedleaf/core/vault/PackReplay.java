package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import org.mendedleaf.core.words.Words;

/**
 * Walks all packs and finds everything in them that is sound: chunks, and the change logs of commits, which in the order of
 * their numbers give a catalogue. A commit record that was copied when its pack was emptied may stand in two packs for a
 * while; it is given once.
 */
public final class PackReplay implements AutoCloseable {

    private final VaultFolder vault;
    private final PackReader reader;
    private final TreeMap<Long, CommitPlace> commits = new TreeMap<>();

    /** A replay of this vault. */
    public PackReplay(VaultFolder vault) {
        this(vault, new PackReader(vault));
    }

    PackReplay(VaultFolder vault, PackReader reader) {
        this.vault = vault;
        this.reader = reader;
    }

    /** Takes what the packs hold. */
    public interface Taker {
        /** A chunk whose record is sound. */
        void chunk(ChunkPlace place) throws IOException;

        /** A chunk that lies there as far as somebody knows, and whose record is not sound. */
        void lost(ChunkPlace place) throws IOException;

        /**
         * A pack was walked to its end.
         *
         * @param end bytes up to the last sound record, or the length of a sealed pack
         */
        void pack(long number, long end, boolean sealed) throws IOException;

        /** Something that cannot be read, as a message. */
        void damaged(String words);

        /** Bytes of a pack in which no record is sound. */
        default void stretch(long pack, long from, long to) throws IOException {}
    }

    private record CommitPlace(long pack, PackRecord head) {}

    /** Knows where chunks lie in a pack. */
    @FunctionalInterface
    public interface Places {
        PackChunks in(long pack) throws IOException;
    }

    /**
     * Walks all packs.
     *
     * @param known what somebody knows of chunks in them
     */
    public void walk(Places known, Taker taker) throws IOException {
        for (PackFiles.PackFile file : PackFiles.of(vault)) {
            file.words().ifPresent(taker::damaged);
            if (file.number() > 0 && file.state() != PackFiles.State.MISNAMED) {
                walk(file.number(), PackFormat.HEADER, known.in(file.number()), taker);
            }
        }
    }

    /** Walks one pack from a place on at which a record begins, or from its first one. */
    public void walk(long number, long from, Places known, Taker taker) throws IOException {
        walk(number, Math.max(PackFormat.HEADER, from), known.in(number), taker);
    }

    /** Finds the commits by the heads of records alone, for packs of which every record was read a moment ago. */
    public void findCommits() throws IOException {
        for (PackFiles.PackFile file : PackFiles.of(vault)) {
            if (file.number() > 0 && file.state() != PackFiles.State.MISNAMED) {
                try {
                    findCommits(file.number());
                } catch (VaultException.Damaged | NoSuchFileException e) {
                    // One that was emptied since it was listed took its commits along; whoever needs them looks again.
                    if (!isGone(e)) {
                        throw e;
                    }
                }
            }
        }
    }

    private static boolean isGone(IOException e) {
        return e instanceof NoSuchFileException || e.getCause() instanceof NoSuchFileException;
    }

    private void findCommits(long number) throws IOException {
        PackWalk.byHeads(reader, number).run(new PackWalk.Taker() {
            @Override
            public void sound(PackRecord head, byte[] bytes) {
                if (head.type() == PackFormat.COMMIT) {
                    commits.put(head.id(), new CommitPlace(number, head));
                }
            }

            @Override
            public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                // What stands there is none of ours, or of a writer that has just begun.
            }
        });
    }

    private void walk(long number, long from, PackChunks known, Taker taker) throws IOException {
        PackWalk walk = new PackWalk(reader, number, known);
        long[] end = {from};
        walk.run(from, walk.end().bytes(), new PackWalk.Taker() {
            @Override
            public void sound(PackRecord head, byte[] bytes) throws IOException {
                end[0] = head.end();
                if (head.type() == PackFormat.CHUNK) {
                    taker.chunk(head.place(number));
                } else if (head.type() == PackFormat.COMMIT) {
                    commits.put(head.id(), new CommitPlace(number, head));
                }
            }

            @Override
            public void damaged(long from, long to, Optional<ChunkPlace> chunk) throws IOException {
                taker.stretch(number, from, to);
                if (chunk.isPresent()) {
                    taker.lost(chunk.get());
                }
                taker.damaged(Words.of(
                        "vault.stretch.damaged",
                        vault.pack(number).getFileName(),
                        String.valueOf(from),
                        String.valueOf(to)));
            }
        });
        boolean sealed = walk.end().sealed();
        taker.pack(number, sealed ? walk.end().bytes() + PackFormat.TRAILER : end[0], sealed);
    }

    /** Numbers of the commits that were found, ascending. */
    public List<Long> commits() {
        return List.copyOf(commits.keySet());
    }

    /**
     * The change log of a commit that was found.
     *
     * @throws VaultException.Damaged when it is not what was written
     */
    public byte[] changeLog(long commit) throws IOException {
        try {
            return read(commit);
        } catch (VaultException.Damaged | NoSuchFileException e) {
            if (!isGone(e)) {
                throw e;
            }
            // Its pack was emptied since it was found: it is elsewhere by now.
            findCommits();
            return read(commit);
        }
    }

    private byte[] read(long commit) throws IOException {
        CommitPlace at = commits.get(commit);
        if (at == null) {
            throw new IllegalArgumentException("expected a commit that was found, got " + commit);
        }
        return reader.readChecked(at.pack(), at.head().offset(), at.head().end())
                .flatMap(PackReader.Checked::content)
                .filter(c -> Arrays.equals(Digest.sha256().digest(c), at.head().digest()))
                .orElseThrow(() -> new VaultException.Damaged(Words.of(
                        "vault.record.damaged",
                        vault.pack(at.pack()).getFileName(),
                        String.valueOf(at.head().offset()))));
    }

    /** Bytes of all change logs that were found. */
    public long changeLogBytes() {
        return commits.values().stream().mapToLong(c -> c.head().length()).sum();
    }

    /** What is said when packs are there and the catalogue is not. */
    public static String hint(VaultFolder vault) {
        return Words.of("catalogue.rebuildHint", vault.root());
    }

    @Override
    public void close() throws IOException {
        reader.close();
    }
}
