package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class ChunkerTest {

    private static List<byte[]> chunks(byte[] content) {
        List<byte[]> chunks = new ArrayList<>();
        int from = 0;
        while (from < content.length) {
            int to = Chunker.CONTENT.cut(content, from, content.length);
            chunks.add(java.util.Arrays.copyOfRange(content, from, to));
            from = to;
        }
        return chunks;
    }

    private static byte[] noise(int length, long seed) {
        byte[] content = new byte[length];
        new Random(seed).nextBytes(content);
        return content;
    }

    @Property(tries = 60)
    void chunksKeepTheirBoundsAndTheirOrder(@ForAll @IntRange(max = 1_000_000) int length, @ForAll long seed) {
        byte[] content = noise(length, seed);
        List<byte[]> chunks = chunks(content);
        int at = 0;
        for (int i = 0; i < chunks.size(); i++) {
            byte[] chunk = chunks.get(i);
            assertThat(chunk.length).isLessThanOrEqualTo(Chunker.CONTENT.max());
            if (i < chunks.size() - 1) {
                assertThat(chunk.length).isGreaterThan(Chunker.CONTENT.min());
            }
            assertThat(chunk).isEqualTo(java.util.Arrays.copyOfRange(content, at, at + chunk.length));
            at += chunk.length;
        }
        assertThat(at).isEqualTo(length);
    }

    @Test
    void chunksAreAbout32KiBOnAverage() {
        int length = 16 << 20;
        double average = (double) length / chunks(noise(length, 7)).size();
        assertThat(average).isBetween(28.0 * 1024, 40.0 * 1024);
    }

    @Test
    void anInsertionMovesOnlyTheCutsAroundIt() {
        byte[] before = noise(4 << 20, 3);
        byte[] after = new byte[before.length + 11];
        System.arraycopy(before, 0, after, 0, 1_000_000);
        System.arraycopy(before, 1_000_000, after, 1_000_011, before.length - 1_000_000);
        HashSet<Integer> known = new HashSet<>();
        chunks(before).forEach(c -> known.add(java.util.Arrays.hashCode(c)));
        long fresh = chunks(after).stream()
                .filter(c -> !known.contains(java.util.Arrays.hashCode(c)))
                .count();
        assertThat(fresh).isBetween(1L, 4L);
    }
}
