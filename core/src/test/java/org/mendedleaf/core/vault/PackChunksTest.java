package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;

/** Where the chunks of a pack lie. */
class PackChunksTest {

    private static final long PACK = 7;

    private final Random random = new Random(20);

    private ChunkPlace chunk(long offset) {
        byte[] digest = new byte[Digest.LENGTH];
        random.nextBytes(digest);
        return new ChunkPlace(random.nextInt(100), PACK, offset, random.nextInt(100), random.nextInt(100), digest);
    }

    private static void assertSame(PackChunks chunks, Collection<ChunkPlace> expected) {
        List<ChunkPlace> all = new ArrayList<>();
        chunks.forEach(all::add);
        assertThat(all).usingRecursiveFieldByFieldElementComparator().containsExactlyElementsOf(expected);
        assertThat(chunks.size()).isEqualTo(expected.size());
    }

    @RepeatedTest(30)
    void theyAreWhatAMapByTheirOffsetsIs() {
        TreeMap<Long, ChunkPlace> map = new TreeMap<>();
        List<ChunkPlace> added = new ArrayList<>();
        boolean inOrder = random.nextBoolean();
        for (int i = random.nextInt(200); i > 0; i--) {
            ChunkPlace c = chunk(inOrder ? 1000L - i : random.nextInt(300));
            map.put(c.offset(), c);
            added.add(c);
        }
        PackChunks chunks = PackChunks.of(PACK, added);
        assertSame(chunks, map.values());
        for (long offset = -1; offset <= 1001; offset++) {
            Optional<ChunkPlace> there = chunks.at(offset);
            assertThat(there.isPresent()).isEqualTo(map.containsKey(offset));
            assertThat(there.map(c -> c.isSame(map.get(c.offset()))).orElse(true))
                    .isTrue();
            Long next = map.ceilingKey(offset);
            assertThat(chunks.next(offset)).isEqualTo(next == null ? Long.MAX_VALUE : next);
        }
        List<ChunkPlace> others = new ArrayList<>();
        TreeMap<Long, ChunkPlace> both = new TreeMap<>();
        for (int i = random.nextInt(50); i > 0; i--) {
            ChunkPlace c = chunk(random.nextInt(400));
            others.add(c);
            both.put(c.offset(), c);
        }
        both.putAll(map);
        assertSame(chunks.and(PackChunks.of(PACK, others)), both.values());
        assertSame(PackChunks.NONE.and(chunks), map.values());
        assertThat(chunks.sameAs(PackChunks.NONE.and(chunks))).isTrue();
    }

    @Test
    void oneThatDiffersInAnythingIsNotTheSame() {
        ChunkPlace c = chunk(64);
        byte[] other = c.digest().clone();
        other[31] ^= 1;
        List<ChunkPlace> differing = List.of(
                new ChunkPlace(c.id() + 1, PACK, 64, c.storedBytes(), c.length(), c.digest()),
                new ChunkPlace(c.id(), PACK, 65, c.storedBytes(), c.length(), c.digest()),
                new ChunkPlace(c.id(), PACK, 64, c.storedBytes() + 1, c.length(), c.digest()),
                new ChunkPlace(c.id(), PACK, 64, c.storedBytes(), c.length() + 1, c.digest()),
                new ChunkPlace(c.id(), PACK, 64, c.storedBytes(), c.length(), other));
        PackChunks one = PackChunks.of(PACK, List.of(c));
        assertThat(one.says(0, head(c))).isTrue();
        for (ChunkPlace d : differing) {
            assertThat(one.sameAs(PackChunks.of(PACK, List.of(d)))).isFalse();
            assertThat(one.says(0, head(d))).isFalse();
            assertThat(c.isSame(d)).isFalse();
        }
        assertThat(one.sameAs(PackChunks.of(PACK, List.of(c, chunk(99))))).isFalse();
    }

    private static PackRecord head(ChunkPlace c) {
        return new PackRecord(
                c.offset(), PackFormat.CHUNK, PackFormat.RAW, c.storedBytes(), c.length(), c.id(), c.digest());
    }

    @Test
    void nothingIsGivenBeyondTheLastAndNoDigestOfAnotherLength() {
        PackChunks one = PackChunks.of(PACK, List.of(chunk(64)));
        assertThatThrownBy(() -> one.place(1)).isInstanceOf(IndexOutOfBoundsException.class);
        assertThatThrownBy(() -> PackChunks.NONE.iterator().next()).isInstanceOf(NoSuchElementException.class);
        assertThatThrownBy(() -> new PackChunks.Builder(PACK).add(1, 64, 1, 1, new byte[31]))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
