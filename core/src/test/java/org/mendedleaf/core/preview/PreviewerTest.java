package org.mendedleaf.core.preview;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.line.OnlyHere;
import org.mendedleaf.core.line.Reading;

class PreviewerTest {

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Preview preview(String name, byte[] content) throws IOException {
        p.save(name, content);
        p.capture();
        Files.delete(p.path(name));
        try (Reading r = p.vault().read()) {
            return Previewer.preview(p.line(name).newest().orElseThrow(), r.contents());
        }
    }

    private Preview preview(String name, String content) throws IOException {
        return preview(name, content.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void textIsShownByLineFromTheVaultAlone() throws IOException {
        assertThat(preview("a.txt", "one\ntwo ä\n")).isEqualTo(new Preview.Text(List.of("one", "two ä"), false));
    }

    @Test
    void textInAnOldEncodingIsReadable() throws IOException {
        assertThat(preview("a.txt", "Äpfel".getBytes(StandardCharsets.ISO_8859_1)))
                .isEqualTo(new Preview.Text(List.of("Äpfel"), false));
        assertThat(preview("b.txt", "Äpfel".getBytes(StandardCharsets.UTF_16)))
                .isEqualTo(new Preview.Text(List.of("Äpfel"), false));
    }

    @Test
    void tablesAreShownAsAGridWithWhateverSeparator() throws IOException {
        assertThat(preview("a.csv", "k;v\n\"x;y\";1,5\n"))
                .isEqualTo(new Preview.Grid(List.of(List.of("k", "v"), List.of("x;y", "1,5")), false));
    }

    @Test
    void aPictureIsKnownByItsContentWhateverItIsCalled() throws IOException {
        byte[] png = Base64.getDecoder()
                .decode(
                        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");
        assertThat(preview("scan.dat", png)).isInstanceOf(Preview.Picture.class);
    }

    @Test
    void anythingElseIsShownAsFactsWithItsFirstBytes() throws IOException {
        assertThat(preview("a.bin", new byte[] {0, 1, 2, 'x'}))
                .isInstanceOfSatisfying(
                        Preview.Facts.class, f -> assertThat(f.hex().get(0)).startsWith("000000  00 01 02 78"));
    }

    @Test
    void anEmptyFileIsSaidToBeEmptyAndALongOneToBeCut() throws IOException {
        assertThat(preview("a.txt", "")).isEqualTo(new Preview.Empty());
        assertThat(preview("b.txt", "line\n".repeat(5000))).isInstanceOfSatisfying(Preview.Text.class, t -> {
            assertThat(t.cut()).isTrue();
            assertThat(t.lines()).hasSize(2000);
        });
    }

    @Test
    void onlyWhatNoOtherVersionNeedsIsHeldByOneAlone() throws IOException {
        byte[] noise = new byte[6000];
        new java.util.Random(3).nextBytes(noise);
        p.save("a.bin", noise);
        p.save("b.bin", noise);
        p.save("c.txt", "alone");
        p.capture();
        try (Reading r = p.vault().read()) {
            assertThat(OnlyHere.storedBytes(r, p.line("a.bin").newest().orElseThrow()))
                    .isZero();
            assertThat(OnlyHere.storedBytes(r, p.line("c.txt").newest().orElseThrow()))
                    .isEqualTo(5);
        }
    }
}
