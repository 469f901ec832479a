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

class ZipSeamsTest {

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

    @Test
    void largeMembersHaveSeamsAndSmallOnesHaveNone() throws IOException {
        byte[] zip = zip(20_000, 300, 50_000);
        long[] seams = ZipSeams.of(zip, zip.length);
        assertThat(seams).hasSize(3);
        assertThat(seams).isSorted();
        for (long seam : seams) {
            assertThat(zip[(int) seam]).isEqualTo((byte) 'P');
            assertThat(zip[(int) seam + 1]).isEqualTo((byte) 'K');
        }
    }

    @Property
    void garbageGivesNoErrorAndOnlySeamsWithinIt(@ForAll byte[] garbage) {
        for (long seam : ZipSeams.of(garbage, garbage.length)) {
            assertThat(seam).isBetween(1L, (long) garbage.length);
        }
    }

    @Test
    void aBrokenDirectoryGivesWhatWasReadable() throws IOException {
        byte[] zip = zip(20_000, 30_000);
        for (int i = zip.length - 120; i < zip.length; i++) {
            byte[] broken = zip.clone();
            broken[i] ^= 0x55;
            for (long seam : ZipSeams.of(broken, broken.length)) {
                assertThat(seam).isBetween(1L, (long) broken.length);
            }
        }
    }
}
