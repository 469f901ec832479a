package org.mendedleaf.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.document.Made.rows;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.UniqueBytes;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Made;
import org.mendedleaf.core.line.Line;

/** Versions are looked into and compared from the vault alone. */
class DocumentCacheTest {

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

    @Test
    void whatWasRemovedIsStillReadAndComparedAndReadOnce() throws IOException {
        p.save("fees.xlsx", Made.xlsx(rows("Kind,Kilos", "Bramley,736")));
        p.capture();
        p.save("fees.xlsx", Made.xlsx(rows("Kind,Kilos", "Bramley,763")));
        p.later(5);
        p.capture();
        Files.delete(p.path("fees.xlsx"));
        p.capture();
        Line line = p.line("fees.xlsx");
        try (Reading reading = p.vault().read()) {
            Document once =
                    DocumentCache.shared().document(reading, line.version(1).orElseThrow());
            assertThat(once).isInstanceOf(Document.Sheets.class);
            assertThat(DocumentCache.shared().document(reading, line.version(1).orElseThrow()))
                    .isSameAs(once);
            Comparison difference = DocumentCache.shared()
                    .between(
                            reading,
                            line.version(1).orElseThrow(),
                            line.version(2).orElseThrow());
            assertThat(difference.words()).isEqualTo("1 cell");
            assertThat(DocumentCache.shared()
                            .between(
                                    reading,
                                    line.version(1).orElseThrow(),
                                    line.version(1).orElseThrow()))
                    .isInstanceOf(Comparison.Equal.class);
        }
    }

    @Test
    void membersOfArchivesAreReadFromTheVault() throws IOException {
        p.save("x.zip", Made.zip(Map.of("inside.csv", "a,b\n1,2\n")));
        p.capture();
        try (Reading reading = p.vault().read()) {
            Document member = DocumentCache.shared()
                    .memberDocument(reading, p.line("x.zip").newest().orElseThrow(), "inside.csv");
            assertThat(member).isInstanceOf(Document.Sheets.class);
        }
    }

    @Test
    void theSidesOfAComparisonAreVersionsTheFolderAndFilesOfTheDisk() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two, not captured");
        assertThat(Side.live(p.place(), "a.txt").orElseThrow().content())
                .isEqualTo("two, not captured".getBytes(StandardCharsets.UTF_8));
        Files.delete(p.path("a.txt"));
        Files.createSymbolicLink(p.path("a.txt"), temp.resolve("elsewhere"));
        assertThat(Side.live(p.place(), "a.txt")).as("a link is not followed").isEmpty();
        assertThat(Side.live(p.place(), "none/b.txt")).isEmpty();
        assertThatThrownBy(() -> Side.disk(temp.resolve("nothing"))).hasMessageContaining("is not there");
        assertThatThrownBy(() -> Side.disk(temp)).hasMessageContaining("is no file");
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
            assertThat(UniqueBytes.storedBytes(r, p.line("a.bin").newest().orElseThrow()))
                    .isZero();
            assertThat(UniqueBytes.storedBytes(r, p.line("c.txt").newest().orElseThrow()))
                    .isEqualTo(5);
        }
    }
}
