package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.compare.Comparison.ByteChanges;
import org.mendedleaf.core.compare.Comparison.Range;

/** Equal ranges of bytes are found wherever they are, and what is called equal is. */
class ByteCompareTest {

    private static byte[] noise(long seed, int size) {
        byte[] bytes = new byte[size];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private static byte[] join(byte[]... parts) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            all.writeBytes(part);
        }
        return all.toByteArray();
    }

    /** The ranges follow each other, cover the later content, and each equal one is what stands in the earlier. */
    private static void holds(byte[] a, byte[] b, ByteChanges c) {
        long at = 0;
        long equal = 0;
        for (Range r : c.ranges()) {
            assertThat(r.after()).isEqualTo(at);
            assertThat(r.length()).isPositive();
            if (r.isEqual()) {
                equal += r.length();
                int from = Math.toIntExact(r.before());
                int to = Math.toIntExact(r.after());
                int length = Math.toIntExact(r.length());
                assertThat(Arrays.copyOfRange(a, from, from + length))
                        .isEqualTo(Arrays.copyOfRange(b, to, to + length));
            }
            at += r.length();
        }
        assertThat(at).isEqualTo(b.length);
        assertThat(c.share()).isEqualTo(b.length == 0 ? 0 : (double) equal / b.length);
        assertThat(c.sizeChange()).isEqualTo(b.length - a.length);
    }

    @Property(tries = 60)
    void theLaterContentCanBeMadeFromTheEarlierAndWhatIsNew(
            @ForAll @IntRange(max = 3000) int size, @ForAll @IntRange(max = 6) int edits, @ForAll long seed) {
        Random random = new Random(seed);
        byte[] a = noise(seed, size);
        byte[] b = a.clone();
        for (int i = 0; i < edits && b.length > 0; i++) {
            int at = random.nextInt(b.length);
            int end = Math.min(b.length, at + random.nextInt(60));
            byte[] put = noise(seed + i, random.nextInt(60));
            b = join(Arrays.copyOf(b, at), put, Arrays.copyOfRange(b, end, b.length));
        }
        holds(a, b, ByteCompare.compare(a, b, ""));
    }

    @Test
    void whatWasPutInIsTheOnlyRangeThatIsNew() {
        byte[] a = noise(1, 20_000);
        byte[] put = noise(2, 700);
        byte[] b = join(Arrays.copyOf(a, 9001), put, Arrays.copyOfRange(a, 9001, a.length));
        ByteChanges c = ByteCompare.compare(a, b, "");
        holds(a, b, c);
        assertThat(c.ranges()).hasSize(3);
        assertThat(c.ranges().get(1)).isEqualTo(new Range(-1, 9001, 700));
        assertThat(c.words()).isEqualTo("96 % the same bytes, +700 B");
    }

    @Test
    void halvesThatChangedPlacesAreBothFound() {
        byte[] a = noise(3, 8000);
        byte[] b = join(Arrays.copyOfRange(a, 4000, 8000), Arrays.copyOf(a, 4000));
        ByteChanges c = ByteCompare.compare(a, b, "");
        holds(a, b, c);
        assertThat(c.share()).isEqualTo(1);
        assertThat(c.ranges()).extracting(Range::before).containsExactly(4000L, 0L);
    }

    @Test
    void nearlyAllIsNotCalledAll() {
        byte[] a = noise(4, 100_000);
        byte[] b = a.clone();
        b[50_000] ^= 1;
        assertThat(ByteCompare.compare(a, b, "").words()).isEqualTo("99 % the same bytes, same size");
    }

    @Test
    void ofNothingAndWithNothingInCommonThereIsNoShare() {
        byte[] some = noise(5, 4000);
        byte[] none = new byte[0];
        assertThat(ByteCompare.compare(none, none, "").ranges()).isEmpty();
        assertThat(ByteCompare.compare(some, none, "").share()).isZero();
        ByteChanges all = ByteCompare.compare(none, some, "");
        holds(none, some, all);
        assertThat(all.ranges()).containsExactly(new Range(-1, 0, 4000));
        assertThat(ByteCompare.compare(some, noise(6, 4000), "").share()).isZero();
    }

    @Test
    void contentsShorterThanABlockAreComparedToo() {
        byte[] a = {1, 2, 3};
        byte[] b = {1, 2, 3, 4};
        holds(a, b, ByteCompare.compare(a, b, ""));
    }

    @Test
    void whatBecameOfAnotherKindSaysOnlyThat() {
        ByteChanges c = ByteCompare.compare(noise(7, 100), noise(7, 100), "sheet, then letter");
        assertThat(c.words()).isEqualTo("sheet, then letter");
        assertThat(c.changes()).isEmpty();
    }

    /** Contents that repeat themselves have many blocks with one sum. */
    @Test
    void contentsThatRepeatThemselvesAreComparedAtOnce() {
        byte[] a = new byte[200_000];
        byte[] b = new byte[210_000];
        Arrays.fill(b, 100_000, 100_050, (byte) 9);
        holds(a, b, ByteCompare.compare(a, b, ""));
    }
}
