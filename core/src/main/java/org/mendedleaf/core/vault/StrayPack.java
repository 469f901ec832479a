package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** A pack of which the catalogue does not know: whether anything in it is only there. */
final class StrayPack {

    /** Says where the catalogue has a chunk, by its id. */
    @FunctionalInterface
    interface Places {
        Optional<ChunkPlace> of(long chunk) throws IOException;
    }

    private final PackReader reader;
    private final long pack;
    private final Places places;
    private final List<Long> packs;

    /**
     * A pack that is not known.
     *
     * @param places where the catalogue has chunks
     * @param packs all that are there
     */
    StrayPack(PackReader reader, long pack, Places places, List<Long> packs) {
        this.reader = reader;
        this.pack = pack;
        this.places = places;
        this.packs = packs;
    }

    /** Whether each record of it can be read, and is in another pack too or a chunk of which the catalogue knows nothing. */
    boolean isElsewhereToo() throws IOException {
        Map<Long, byte[]> commits = new HashMap<>();
        boolean[] all = {true};
        new PackWalk(reader, pack, PackChunks.NONE).run(new PackWalk.Taker() {
            @Override
            public void sound(PackRecord head, byte[] bytes) throws IOException {
                if (head.type() == PackFormat.COMMIT) {
                    commits.put(head.id(), head.digest());
                } else if (all[0] && head.type() == PackFormat.CHUNK) {
                    all[0] = places.of(head.id())
                            .map(p -> p.pack() != pack && Arrays.equals(p.digest(), head.digest()))
                            .orElse(true);
                }
            }

            @Override
            public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                all[0] = false;
            }
        });
        return all[0] && inOthers(commits).containsAll(commits.keySet());
    }

    private Set<Long> inOthers(Map<Long, byte[]> commits) throws IOException {
        Set<Long> found = new HashSet<>();
        for (long other : packs) {
            if (other != pack && found.size() < commits.size()) {
                new PackWalk(reader, other, PackChunks.NONE).run(new PackWalk.Taker() {
                    @Override
                    public void sound(PackRecord head, byte[] bytes) {
                        if (head.type() == PackFormat.COMMIT && Arrays.equals(head.digest(), commits.get(head.id()))) {
                            found.add(head.id());
                        }
                    }

                    @Override
                    public void damaged(long from, long to, Optional<ChunkPlace> chunk) {
                        // What is damaged proves nothing.
                    }
                });
            }
        }
        return found;
    }
}
