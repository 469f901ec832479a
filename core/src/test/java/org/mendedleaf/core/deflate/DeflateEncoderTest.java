package org.mendedleaf.core.deflate;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import java.util.zip.Deflater;
import java.util.zip.Inflater;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mendedleaf.core.deflate.DeflateSettings.Encoder;
import org.mendedleaf.core.vault.Digest;

public class DeflateEncoderTest {

    private final SettingsFinder finder = new SettingsFinder();

    /** Words, numbers, noise and long repetitions in turns. */
    public static byte[] content(long seed, int length) {
        Random random = new Random(seed);
        byte[] bytes = new byte[length + DeflateEncoder.PAD];
        int at = 0;
        while (at < length) {
            byte[] part;
            switch (random.nextInt(5)) {
                case 0 -> {
                    part = new byte[1 + random.nextInt(3000)];
                    random.nextBytes(part);
                }
                case 1 -> {
                    part = new byte[1 + random.nextInt(70_000)];
                    Arrays.fill(part, (byte) random.nextInt(256));
                }
                case 2 -> part = Arrays.copyOfRange(bytes, at / 2, at / 2 + Math.min(at / 2, 40_000));
                default -> {
                    StringBuilder text = new StringBuilder();
                    for (int i = random.nextInt(4000); i >= 0; i--) {
                        text.append("<w:p a=\"").append(Integer.toString(random.nextInt(2000), 36));
                        text.append(random.nextInt(6) == 0 ? "\"/>\n" : " ");
                    }
                    part = text.toString().getBytes(StandardCharsets.US_ASCII);
                }
            }
            int n = Math.min(part.length, length - at);
            System.arraycopy(part, 0, bytes, at, n);
            at += n;
        }
        return bytes;
    }

    static byte[] deflated(byte[] content, int length, int level) {
        Deflater deflater = new Deflater(level, true);
        try {
            deflater.setInput(content, 0, length);
            deflater.finish();
            byte[] out = new byte[length + length / 100 + 1000];
            int n = 0;
            while (!deflater.finished()) {
                n += deflater.deflate(out, n, out.length - n);
            }
            return Arrays.copyOf(out, n);
        } finally {
            deflater.end();
        }
    }

    @Property(tries = 80)
    void whatTheJdkDeflatesIsFoundAndGivenBackBitForBit(
            @ForAll long seed,
            @ForAll @IntRange(min = 0, max = 300_000) int length,
            @ForAll @IntRange(min = 1, max = 9) int level) {
        byte[] content = content(seed, length);
        byte[] bytes = deflated(content, length, level);
        byte[] again = new byte[bytes.length];
        assertThat(new DeflateEncoder().write(new DeflateSettings(level, Encoder.ZLIB), content, length, again))
                .isTrue();
        assertThat(again).isEqualTo(bytes);
        Optional<DeflateSettings> found = finder.find(content, length, bytes, 0, bytes.length);
        if (FirstBlock.of(bytes, 0, bytes.length).isPresent()) {
            Arrays.fill(again, (byte) 0);
            assertThat(new DeflateEncoder().write(found.orElseThrow(), content, length, again))
                    .isTrue();
            assertThat(again).isEqualTo(bytes);
        }
    }

    @Property(tries = 100)
    void oneWrongBitAnywhereIsNeverTakenForTheSame(@ForAll long seed, @ForAll @IntRange(min = 1, max = 9) int level) {
        byte[] content = content(seed, 20_000);
        byte[] bytes = deflated(content, 20_000, level);
        int bit = new Random(seed).nextInt(bytes.length * 8);
        bytes[bit / 8] ^= (byte) (1 << bit % 8);
        finder.find(content, 20_000, bytes, 0, bytes.length).ifPresent(s -> {
            byte[] again = new byte[bytes.length];
            assertThat(new DeflateEncoder().write(s, content, 20_000, again)).isTrue();
            assertThat(again).isEqualTo(bytes);
        });
    }

    @Property(tries = 200)
    void noiseInPlaceOfDeflatedBytesFindsNothingAndHurtsNobody(@ForAll byte[] noise) {
        byte[] content = content(3, 500);
        assertThat(finder.find(content, 500, noise, 0, noise.length)).isEmpty();
    }

    @Test
    void aResultOfAnotherLengthIsRefused() {
        byte[] content = content(1, 5000);
        byte[] bytes = deflated(content, 5000, 6);
        DeflateSettings usual = new DeflateSettings(6, Encoder.ZLIB);
        assertThat(new DeflateEncoder().write(usual, content, 5000, new byte[bytes.length - 1]))
                .isFalse();
        assertThat(new DeflateEncoder().write(usual, content, 5000, new byte[bytes.length + 1]))
                .isFalse();
    }

    @Property
    void settingsHaveTheirNumbers(@ForAll @IntRange(min = 1, max = 9) int level, @ForAll Encoder encoder) {
        DeflateSettings settings = new DeflateSettings(level, encoder);
        assertThat(DeflateSettings.of(settings.code())).contains(settings);
    }

    @ParameterizedTest
    @CsvSource({"0", "10", "96", "1000", "-1"})
    void aNumberOfNoSettingsIsRefused(long code) {
        assertThat(DeflateSettings.of(code)).isEmpty();
    }

    /**
     * What stands in vaults is given back for ever. These were taken on the day on which all documents of several programs
     * came back bit for bit, see docs/performance-history.md; they must never change.
     */
    @ParameterizedTest
    @CsvSource({
        "ZLIB, 1, 54715, 3d7c3534f3720b56",
        "ZLIB, 3, 53155, 1b6a5398aa841733",
        "ZLIB, 4, 51157, fdb371a41d79e68a",
        "ZLIB, 6, 50325, 42c87cf3a2d77671",
        "ZLIB, 9, 48926, 3b3efdc5091ff787",
        "ZLIB_LARGE, 1, 55691, 258913746ba395f4",
        "ZLIB_LARGE, 3, 53397, e34ebb7267789aa0",
        "ZLIB_LARGE, 4, 51684, a47d42b5daeef03b",
        "ZLIB_LARGE, 6, 50923, c1eb4d51ed87dfde",
        "ZLIB_LARGE, 9, 49320, 368971c2ebbcf8fc",
        "INFO_ZIP, 1, 54946, 9577e7d2e625f3ef",
        "INFO_ZIP, 3, 53190, f98b643c28d900df",
        "INFO_ZIP, 4, 51541, 66d26a3493637b14",
        "INFO_ZIP, 6, 50855, 146f4159012c0b42",
        "INFO_ZIP, 9, 48739, e724b4894931c7ed",
        "ZLIB_PIECES, 1, 54199, b36d8207f6d28f6d",
        "ZLIB_PIECES, 3, 52545, c010ab6ffff7043e",
        "ZLIB_PIECES, 4, 50660, 33a6a8cf39550478",
        "ZLIB_PIECES, 6, 49889, 6463e42b170d900c",
        "ZLIB_PIECES, 9, 48490, 24857bdfae454824"
    })
    void whatAnEncoderWritesNeverChanges(Encoder encoder, int level, int length, String digest) throws Exception {
        byte[] content = content(11, 400_000);
        byte[] bytes = new byte[length];
        DeflateSettings settings = new DeflateSettings(level, encoder);
        assertThat(new DeflateEncoder().write(settings, content, 400_000, bytes))
                .isTrue();
        assertThat(Digest.of(Digest.sha256().digest(bytes)).hex()).startsWith(digest);
        assertThat(finder.find(content, 400_000, bytes, 0, length)).contains(settings);
        Inflater inflater = new Inflater(true);
        byte[] inflated = new byte[400_000];
        inflater.setInput(bytes);
        assertThat(inflater.inflate(inflated)).isEqualTo(400_000);
        assertThat(inflated).isEqualTo(Arrays.copyOf(content, 400_000));
        inflater.end();
    }
}
