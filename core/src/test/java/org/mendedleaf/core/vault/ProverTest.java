package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import com.github.luben.zstd.Zstd;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What proves many records one after another says of each what is said of it alone. */
class ProverTest {

    private static PackReader.Checked record(byte[] content, byte[] stored, byte encoding, int length) {
        byte[] bytes = new byte[(int) PackFormat.recordLength(stored.length)];
        System.arraycopy(stored, 0, bytes, PackFormat.RECORD_HEAD, stored.length);
        byte[] digest = Digest.sha256().digest(content);
        return new PackReader.Checked(
                new PackRecord(64, PackFormat.CHUNK, encoding, stored.length, length, 1, digest), bytes);
    }

    @Test
    void itSaysTheSameOfEachWhateverCameBefore() {
        Random random = new Random(4);
        int proved = 0;
        int tries = 600;
        try (Prover prover = new Prover()) {
            for (int i = 0; i < tries; i++) {
                byte[] content = random.nextBoolean()
                        ? Documents.text(i, random.nextInt(2_000))
                        : Documents.noise(i, random.nextInt(20_000));
                boolean raw = random.nextBoolean();
                byte[] stored = raw ? content.clone() : Zstd.compress(content, 3);
                int length = content.length;
                switch (random.nextInt(4)) {
                    case 0 -> stored = Arrays.copyOf(stored, random.nextInt(stored.length + 1));
                    case 1 -> length = Math.max(0, length + random.nextInt(5) - 2);
                    case 2 -> {
                        if (stored.length > 0) {
                            stored[random.nextInt(stored.length)] ^= (byte) (1 << random.nextInt(8));
                        }
                    }
                    default -> {
                        // Sound.
                    }
                }
                PackReader.Checked record = record(content, stored, raw ? PackFormat.RAW : PackFormat.ZSTD, length);
                boolean says = prover.isProved(record);
                assertThat(says).as("record %s", i).isEqualTo(record.isProved());
                proved += says ? 1 : 0;
            }
        }
        assertThat(proved).isBetween(tries / 8, tries * 7 / 8);
    }

    @Test
    void oneThatIsLongerThanAllThatAreKeptIsProvedToo() {
        byte[] content = new byte[(8 << 20) + 1];
        Arrays.fill(content, (byte) 7);
        PackReader.Checked record = record(content, Zstd.compress(content, 3), PackFormat.ZSTD, content.length);
        try (Prover prover = new Prover()) {
            assertThat(prover.isProved(record)).isTrue();
        }
    }
}
