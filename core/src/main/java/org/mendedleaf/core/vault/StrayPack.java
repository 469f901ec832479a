package org.mendedleaf.core.vault;

import java.io.IOException;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** A pack of which the catalogue does not know: whether anything in it is only there. */
final class StrayPack {

    private final PackReader reader;
    private final long pack;
    private final Map<Long, ChunkPlace> places;
    private final List<Long> packs;

    /**
     * A pack that is not known.
     *
     * @param places where the catalogue has chunks, by id
     * @param packs all that are there
     */
    StrayPack(PackReader reader, long pack, Map<Long, ChunkPlace> places, List<Long> packs) {
        this.reader = reader;
        this.pack = pack;
        this.places = places;
        this.packs = packs;
    }

    /** Whether each record of it can be read, and is in another pack too or a chunk of which the catalogue knows nothing. */
    boolean isElsewhereToo() throws IOException {
        Map<Long, byte[]> commits = new HashMap<>();
        boolean[] all = {true};
        new PackWalk(reader, pack, Collections.emptyNavigableMap()).run(new PackWalk.Taker() {
            @Override
            public void sound(PackRecord head, byte[] bytes) {
                if (head.type() == PackFormat.COMMIT) {
                    commits.put(head.id(), head.digest());
                } else if (head.type() == PackFormat.CHUNK) {
                    ChunkPlace place = places.get(head.id());
                    all[0] &= place == null || place.pack() != pack && Arrays.equals(place.digest(), head.digest());
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
                new PackWalk(reader, other, Collections.emptyNavigableMap()).run(new PackWalk.Taker() {
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
