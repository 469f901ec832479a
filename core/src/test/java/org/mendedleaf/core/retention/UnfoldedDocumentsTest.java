package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.core.vault.Documents.document;
import static org.mendedleaf.core.vault.Documents.noise;
import static org.mendedleaf.core.vault.Documents.text;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.UniqueBytes;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.ZipArchive;
import org.mendedleaf.core.vault.ChunkPlace;

/** Documents that are stored unfolded, through everything that touches what is stored. */
class UnfoldedDocumentsTest {

    private static final int VERSIONS = 4;

    @TempDir
    Path temp;

    private final List<byte[]> documents = new ArrayList<>();

    @BeforeEach
    void write() throws IOException {
        byte[] picture = noise(1, 60_000);
        for (int i = 0; i < VERSIONS; i++) {
            documents.add(document(6, text(i / 2, 30_000), picture, i * 2));
        }
    }

    private TestPlace filled() throws IOException {
        TestPlace p = new TestPlace(temp);
        for (byte[] d : documents) {
            p.save("letter.odt", d);
            p.capture();
        }
        assertThat(p.unfold().versions()).isEqualTo(VERSIONS);
        assertThat(p.line("letter.odt").newest().orElseThrow().recipe().unfolded())
                .isPresent();
        return p;
    }

    private static Version version(TestPlace p, int number) throws IOException {
        return p.line("letter.odt").version(number).orElseThrow();
    }

    @Test
    void eachVersionIsRestoredInPlaceAndIntoAZip() throws Exception {
        try (TestPlace p = filled()) {
            for (int i = 0; i < VERSIONS; i++) {
                p.recovery()
                        .restore(
                                List.of(new RestoreItem(version(p, i + 1), "back/" + i + ".odt")),
                                Collision.REPLACE,
                                Progress.NONE);
                assertThat(p.path("back/" + i + ".odt")).hasBinaryContent(documents.get(i));
            }
            Path zip = temp.resolve("all.zip");
            RestoreItem asked = new RestoreItem(version(p, 2), "letter.odt");
            new ZipArchive(p.vault(), zip)
                    .restore(
                            RestoreRequest.restore(List.of(asked), Collisions.all(Collision.KEEP_BOTH), List.of()),
                            Progress.NONE);
            try (ZipFile all = new ZipFile(zip.toFile())) {
                assertThat(all.getInputStream(all.getEntry("letter.odt")).readAllBytes())
                        .isEqualTo(documents.get(1));
            }
        }
    }

    @Test
    void whatIsRestoredIsTheSameVersionAgainForTheNextCapture() throws IOException {
        try (TestPlace p = filled()) {
            p.recovery()
                    .restore(List.of(new RestoreItem(version(p, 1), "letter.odt")), Collision.REPLACE, Progress.NONE);
            int versions = p.line("letter.odt").versions().size();
            assertThat(p.line("letter.odt").newest().orElseThrow().digest())
                    .isEqualTo(version(p, 1).digest());
            p.capture();
            assertThat(p.line("letter.odt").versions()).hasSize(versions);
        }
    }

    @Test
    void roomIsCountedAsForAnyOtherChunks() throws IOException {
        try (TestPlace p = filled();
                Reading reading = p.vault().read()) {
            Set<Long> seen = new HashSet<>();
            long all = 0;
            for (int i = 1; i <= VERSIONS; i++) {
                for (ChunkPlace c : reading.contents().places(version(p, i).recipe())) {
                    all += seen.add(c.id()) ? c.storedBytes() : 0;
                }
            }
            assertThat(new SpaceTable(Histories.table(p)).sums().inUse()).isEqualTo(all);
            long only = 0;
            for (ChunkPlace c : reading.contents().places(version(p, 4).recipe())) {
                boolean shared = false;
                for (int i = 1; i < VERSIONS; i++) {
                    shared |= reading.contents().places(version(p, i).recipe()).stream()
                            .anyMatch(o -> o.id() == c.id());
                }
                only += shared ? 0 : c.storedBytes();
            }
            assertThat(UniqueBytes.storedBytes(reading, version(p, 4)))
                    .isEqualTo(only)
                    .isPositive();
        }
    }

    @Test
    void afterThinningTheRestIsMovedAndStaysWhole() throws IOException {
        try (TestPlace p = filled()) {
            new Thinning(p.vault(), p.clock(), "Ada")
                    .thin(
                            ThinPlan.of(
                                    Histories.judge(
                                            p,
                                            Histories.rules(Rule.keepAll("r", RuleScope.ALL)
                                                    .withCounts(1, 2))),
                                    new SpaceTable(Histories.table(p)),
                                    ThinPlan.Limits.RULES),
                            Progress.NONE);
            p.later(8 * 24 * 60);
            assertThat(new Reclaim(p.vault(), p.clock()).run(Progress.NONE).versions())
                    .isEqualTo(2);
            p.recovery().restore(List.of(new RestoreItem(version(p, 3), "back.odt")), Collision.REPLACE, Progress.NONE);
            assertThat(p.path("back.odt")).hasBinaryContent(documents.get(2));
            assertThat(p.check().isClean()).isTrue();
        }
    }

    @Test
    void theCatalogueIsRebuiltFromThePacks() throws IOException {
        filled().close();
        Files.delete(temp.resolve("vault/catalogue.db"));
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), Clock.systemUTC());
        try (TestPlace p = new TestPlace(temp)) {
            p.recovery().restore(List.of(new RestoreItem(version(p, 1), "back.odt")), Collision.REPLACE, Progress.NONE);
            assertThat(p.path("back.odt")).hasBinaryContent(documents.get(0));
        }
    }

    @Test
    void aFullCheckNamesAVersionWhoseRecipeIsNotItsOwn() throws Exception {
        TestPlace p = filled();
        assertThat(p.check().isClean()).isTrue();
        p.close();
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + temp.resolve("vault/catalogue.db"))) {
            db.createStatement()
                    .execute(
                            "UPDATE version SET recipe = (SELECT recipe FROM version WHERE number = 3) WHERE number = 1");
        }
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(1))) {
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
            assertThat(report.lost())
                    .extracting(l -> l.path() + " " + l.number() + " " + l.label())
                    .containsExactly("letter.odt 1 1");
        }
    }
}
