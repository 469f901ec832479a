package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import com.github.luben.zstd.Zstd;
import java.util.Arrays;
import org.junit.jupiter.api.Test;

class ChunkPackerTest {

    private static ChunkPacker.Packed pack(byte[] bytes) {
        try (ChunkPacker packer = new ChunkPacker(ChunkPacker.LEVEL)) {
            ChunkPacker.Packed p = packer.pack(bytes, 0, bytes.length);
            byte[] stored = Arrays.copyOfRange(p.bytes(), p.from(), p.from() + p.storedBytes());
            byte[] back = p.encoding() == PackFormat.ZSTD ? Zstd.decompress(stored, bytes.length) : stored;
            assertThat(back).isEqualTo(bytes);
            return p;
        }
    }

    @Test
    void whatIsRandomIsStoredAsItIs() {
        for (int length : new int[] {1, 100, 8191, 8192, 30_000, 131_072}) {
            assertThat(pack(Documents.noise(length, length)).encoding())
                    .as("%s bytes", length)
                    .isEqualTo(PackFormat.RAW);
        }
    }

    @Test
    void textIsCompressedAndSoIsNoiseWithSomeTextInIt() {
        byte[] text = Arrays.copyOf(Documents.text(1, 9000), 40_000);
        assertThat(pack(text).storedBytes()).isLessThan(20_000);
        for (int at = 0; at < 7; at++) {
            byte[] mixed = Documents.noise(3, 40_000);
            System.arraycopy(text, 0, mixed, at * 5000, 5000);
            assertThat(pack(mixed).storedBytes()).as("text at %s", at * 5000).isLessThan(38_800);
        }
    }

    @Test
    void zerosAreCompressed() {
        assertThat(pack(new byte[131_072]).storedBytes()).isLessThan(100);
    }
}
