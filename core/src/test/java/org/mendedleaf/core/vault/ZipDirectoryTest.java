package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ZipDirectoryTest {

    private static byte[] zip(int... sizes) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Random random = new Random(5);
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < sizes.length; i++) {
                byte[] content = new byte[sizes[i]];
                random.nextBytes(content);
                zip.putNextEntry(new ZipEntry("member" + i));
                zip.write(content);
            }
        }
        return out.toByteArray();
    }

    private static long[] seams(byte[] bytes) throws IOException {
        return ZipDirectory.of(ByteSource.of(bytes, bytes.length)).seams();
    }

    @Test
    void largeMembersHaveSeamsAndSmallOnesHaveNone() throws IOException {
        byte[] zip = zip(20_000, 300, 50_000);
        long[] seams = seams(zip);
        assertThat(seams).hasSize(3);
        assertThat(seams).isSorted();
        for (long seam : seams) {
            assertThat(zip[(int) seam]).isEqualTo((byte) 'P');
            assertThat(zip[(int) seam + 1]).isEqualTo((byte) 'K');
        }
    }

    @Property
    void garbageGivesNoErrorAndOnlySeamsWithinIt(@ForAll byte[] garbage) throws IOException {
        for (long seam : seams(garbage)) {
            assertThat(seam).isBetween(1L, (long) garbage.length);
        }
    }

    @Test
    void aBrokenDirectoryGivesWhatWasReadable() throws IOException {
        byte[] zip = zip(20_000, 30_000);
        for (int i = zip.length - 120; i < zip.length; i++) {
            byte[] broken = zip.clone();
            broken[i] ^= 0x55;
            for (long seam : seams(broken)) {
                assertThat(seam).isBetween(1L, (long) broken.length);
            }
        }
    }
}
