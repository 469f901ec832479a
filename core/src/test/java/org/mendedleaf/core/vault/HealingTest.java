package org.mendedleaf.core.vault;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Version;

/** A chunk that is known to be damaged is stored anew by the next content that has it, and whoever needs it is whole again. */
class HealingTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private String content;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        byte[] noise = new byte[3000];
        new Random(5).nextBytes(noise);
        content = java.util.Base64.getEncoder().encodeToString(noise);
    }

    private String text(String path, int number) throws IOException {
        try (Reading r = p.vault().read()) {
            Version v = p.line(path).version(number).orElseThrow();
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            r.contents().copy(v.recipe(), Channels.newChannel(out));
            return out.toString(StandardCharsets.UTF_8);
        }
    }

    private void damage(String path, int number) throws IOException {
        Flip.in(p.vault(), p.line(path).version(number).orElseThrow());
    }

    @Test
    void anIntactLiveFileIsStoredAnewAndItsVersionIsWholeAgain() throws Exception {
        p.save("a.txt", content);
        p.capture();
        p.save("other.txt", "other");
        p.capture();
        damage("a.txt", 1);
        assertThat(p.check().lost()).hasSize(1);
        assertThat(p.capture().points()).as("nothing changed in the folder").isZero();
        assertThat(text("a.txt", 1)).isEqualTo(content);
        assertThat(p.check().lost()).isEmpty();
    }

    @Test
    void aNewFileWithTheSameContentHealsAVersionOfAnother() throws Exception {
        p.save("a.txt", content);
        p.capture();
        p.save("a.txt", "saved over");
        p.capture();
        damage("a.txt", 1);
        assertThat(p.check().lost()).hasSize(1);
        p.save("copy.txt", content);
        p.capture();
        assertThat(text("copy.txt", 1)).isEqualTo(content);
        assertThat(text("a.txt", 1)).isEqualTo(content);
        assertThat(p.check().lost()).isEmpty();
    }

    @Test
    void aPackThatIsGoneIsNoPlaceToReferTo() throws Exception {
        p.save("a.txt", content);
        p.capture();
        Files.delete(p.vault().folder().pack(1));
        p.vault().closeIdle();
        p.save("copy.txt", content);
        p.capture();
        assertThat(text("copy.txt", 1)).isEqualTo(content);
        assertThat(text("a.txt", 1)).isEqualTo(content);
    }

    @Test
    void aRecordOfWhichOnlyTheHeadIsDamagedStillGivesItsContent() throws Exception {
        p.save("a.txt", content);
        p.capture();
        try (Reading r = p.vault().read()) {
            ChunkPlace chunk = r.contents()
                    .places(p.line("a.txt").version(1).orElseThrow().recipe())
                    .get(0);
            Path pack = p.vault().folder().pack(chunk.pack());
            byte[] sound = Files.readAllBytes(pack);
            List<Integer> headAndCrc = java.util.stream.IntStream.concat(
                            java.util.stream.IntStream.range(0, PackFormat.RECORD_HEAD),
                            java.util.stream.IntStream.range(0, PackFormat.RECORD_TAIL)
                                    .map(i -> PackFormat.RECORD_HEAD + chunk.storedBytes() + i))
                    .boxed()
                    .toList();
            for (int at : headAndCrc) {
                byte[] bytes = sound.clone();
                bytes[(int) chunk.offset() + at] ^= 0x41;
                Files.write(pack, bytes);
                p.vault().closeIdle();
                assertThat(text("a.txt", 1)).as("byte %s", at).isEqualTo(content);
            }
            assertThat(p.check().lost()).isEmpty();
            assertThat(p.check().damages()).isNotEmpty();
        }
    }
}
