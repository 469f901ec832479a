package org.mendedleaf.core.vault;

import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.words.Words;

/**
 * Decides where the next record of a vault goes. It is appended to the newest pack when that is ours, unsealed, and ends
 * just where the catalogue says; otherwise a new pack is begun, and what is there is left as it is. Nothing is ever cut off
 * or written over: bytes that the catalogue does not know may be what a crash left, and may as well be all that is left of
 * something.
 *
 * <p>One whole commit that the catalogue does not know comes from a crash between the pack and the catalogue, and is
 * carried over. More than one say that the catalogue is older than the packs, and then nothing is done.
 */
final class PackOpening {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(PackOpening.class);

    private final VaultFolder vault;
    private final Known known;

    /**
     * What the catalogue knows.
     *
     * @param packs each with how many bytes are committed, by number
     * @param sealed which of them are sealed
     * @param commit number of the last commit
     * @param chunk highest id of a chunk
     * @param looked packs that it does not know and that were looked at before, each with its length then
     */
    record Known(NavigableMap<Long, Long> packs, Set<Long> sealed, long commit, long chunk, Map<Long, Long> looked) {}

    /**
     * A commit that the catalogue does not know yet.
     *
     * @param chunks that came with it
     * @param end of its record in the pack
     */
    record Ahead(long number, long pack, long end, byte[] changeLog, List<ChunkPlace> chunks) {}

    /**
     * What was decided.
     *
     * @param pack number of the pack that is written next
     * @param from where the next record goes; 0 when the pack is to be begun
     * @param chunk highest id of a chunk that must not be used again
     * @param ahead the commit to carry over
     * @param looked packs that the catalogue does not know and that hold nothing new, each with its length
     */
    record Decided(long pack, long from, long chunk, Optional<Ahead> ahead, Map<Long, Long> looked) {}

    PackOpening(VaultFolder vault, Known known) {
        this.vault = vault;
        this.known = known;
    }

    /**
     * Looks and decides.
     *
     * @throws VaultException.Damaged when the catalogue is older than the packs
     */
    Decided decide() throws IOException {
        TreeMap<Long, Long> files = new TreeMap<>();
        for (long number : vault.packNumbers()) {
            files.put(number, Files.size(vault.pack(number)));
        }
        long newest = known.packs().isEmpty() ? 0 : known.packs().lastKey();
        long committed = known.packs().getOrDefault(newest, 0L);
        boolean open = newest > 0 && !known.sealed().contains(newest);
        List<Ahead> ahead = new ArrayList<>();
        long chunk = known.chunk();
        Map<Long, Long> looked = new TreeMap<>();
        try (PackReader reader = new PackReader(vault)) {
            for (Map.Entry<Long, Long> file : files.entrySet()) {
                long number = file.getKey();
                boolean isKnown = known.packs().containsKey(number);
                long from = !isKnown ? PackFormat.HEADER : number == newest && open ? committed : file.getValue();
                boolean seen = !isKnown && file.getValue().equals(known.looked().get(number));
                if (!seen && from < file.getValue() && mayBeOurs(number)) {
                    Behind behind = new Behind(reader, number);
                    behind.walk(from, file.getValue());
                    ahead.addAll(behind.ahead);
                    chunk = Math.max(chunk, behind.chunk);
                }
                if (!isKnown) {
                    looked.put(number, file.getValue());
                }
            }
        }
        Optional<Ahead> one = oneAhead(ahead);
        if (one.isPresent()) {
            looked.remove(one.get().pack());
            newest = one.get().pack();
            committed = one.get().end();
            open = true;
        }
        long length = files.getOrDefault(newest, 0L);
        boolean goOn = open && length == committed && (committed > PackFormat.HEADER || length > 0) && isOurs(newest);
        boolean beginAgain = open && committed <= PackFormat.HEADER && length <= PackFormat.HEADER;
        long highest = Math.max(newest, files.isEmpty() ? 0 : files.lastKey());
        return new Decided(
                goOn || beginAgain ? newest : unused(files, highest), goOn ? committed : 0, chunk, one, looked);
    }

    /** The number of a pack that is to be begun; one that was begun and never got anything is taken again. */
    private long unused(NavigableMap<Long, Long> files, long highest) {
        boolean empty =
                !known.packs().containsKey(highest) && files.getOrDefault(highest, Long.MAX_VALUE) <= PackFormat.HEADER;
        return empty && highest > 0 ? highest : highest + 1;
    }

    private Optional<Ahead> oneAhead(List<Ahead> ahead) throws VaultException.Damaged {
        if (ahead.isEmpty()) {
            return Optional.empty();
        }
        Ahead first = Collections.min(ahead, Comparator.comparingLong(Ahead::number));
        if (ahead.size() > 1 || first.number() != known.commit() + 1) {
            throw new VaultException.Damaged(Words.of("catalogue.older", vault.root()));
        }
        return Optional.of(first);
    }

    private PackFiles.State state(long number) throws IOException {
        PackFiles.PackFile file = PackFiles.look(vault, vault.pack(number));
        file.words().ifPresent(w -> log.warn("not written to: {}", w));
        return file.state();
    }

    private boolean isOurs(long number) throws IOException {
        return state(number) == PackFiles.State.SOUND;
    }

    /** Where only the header is damaged, records may be sound. */
    private boolean mayBeOurs(long number) throws IOException {
        PackFiles.State state = state(number);
        return state == PackFiles.State.SOUND || state == PackFiles.State.HEADER_DAMAGED;
    }

    /** What stands behind the last commit that the catalogue knows. */
    private final class Behind implements PackWalk.Taker {
        private final PackWalk walk;
        private final long number;
        private final List<Ahead> ahead = new ArrayList<>();
        private final List<ChunkPlace> chunks = new ArrayList<>();
        private long chunk;

        Behind(PackReader reader, long number) throws IOException {
            this.number = number;
            this.walk = new PackWalk(reader, number, PackChunks.NONE);
        }

        void walk(long from, long to) throws IOException {
            walk.run(from, Math.min(to, walk.end().bytes()), this);
        }

        @Override
        public void sound(PackRecord head, byte[] bytes) {
            if (head.type() == PackFormat.CHUNK) {
                chunks.add(head.place(number));
                chunk = Math.max(chunk, head.id());
            } else if (head.type() == PackFormat.COMMIT && head.id() > known.commit()) {
                byte[] changes = new PackReader.Checked(head, bytes).content().orElse(new byte[0]);
                ahead.add(new Ahead(head.id(), number, head.end(), changes, List.copyOf(chunks)));
            }
        }

        @Override
        public void damaged(long from, long to, Optional<ChunkPlace> at) {
            // Here the crash happened, or something else did: what is sound behind it counts all the same.
        }
    }
}
