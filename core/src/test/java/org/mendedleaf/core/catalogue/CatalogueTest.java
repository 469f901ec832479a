package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;

class CatalogueTest {

    @TempDir
    Path temp;

    private Path vault() {
        return temp.resolve("vault");
    }

    private OpenVault open() throws IOException {
        return OpenVault.open(vault(), "test", Duration.ZERO);
    }

    private void fill() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            p.save("a.txt", "two");
            p.capture();
        }
    }

    @Test
    void aCatalogueOfANewerVersionIsRefusedInWords() throws Exception {
        fill();
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + vault().resolve("catalogue.db"))) {
            db.createStatement().execute("PRAGMA user_version = 99");
        }
        assertThatThrownBy(this::open).isInstanceOf(VaultException.TooNew.class).hasMessageContaining("newer version");
    }

    @Test
    void whereThereWasNoOldCatalogueNoneIsSaidToBeKept() throws Exception {
        fill();
        for (String ending : List.of("", "-wal", "-shm")) {
            Files.deleteIfExists(vault().resolve("catalogue.db" + ending));
        }
        Rebuild.Report report = Rebuild.run(vault(), "test", Duration.ZERO, java.time.Clock.systemUTC());
        assertThat(report.aside()).isEmpty();
        assertThat(report.words()).startsWith("A new catalogue was made").endsWith("There was no old one.");
    }

    @Test
    void aDamagedCatalogueIsSaidAndMadeAnewFromThePacks() throws Exception {
        fill();
        Files.writeString(vault().resolve("catalogue.db"), "this is no database, it only stands where one was");
        Files.deleteIfExists(vault().resolve("catalogue.db-wal"));
        assertThatThrownBy(this::open)
                .isInstanceOf(VaultException.Damaged.class)
                .hasMessageContaining("--rebuild");
        Rebuild.Report report =
                Rebuild.run(vault(), "test", Duration.ZERO, java.time.Clock.fixed(Instant.EPOCH, ZoneOffset.UTC));
        assertThat(report.aside()).hasValueSatisfying(old -> {
            assertThat(old).hasContent("this is no database, it only stands where one was");
            assertThat(report.words()).endsWith("the old one is " + old.getFileName() + ", beside it.");
        });
        try (OpenVault vault = open();
                Reading r = vault.read()) {
            Line line = r.line(r.places().get(0), "a.txt").orElseThrow();
            assertThat(line.versions()).hasSize(2);
        }
        try (TestPlace again = new TestPlace(temp)) {
            again.later(100);
            again.save("a.txt", "three");
            again.capture();
            assertThat(again.line("a.txt").versions()).hasSize(3);
            assertThat(again.check().isClean()).isTrue();
        }
    }

    /** Brings a vault back to what an earlier version of the program made: without what came since, empty as it is. */
    private void makeOld(int version) throws Exception {
        try (OpenVault vault = OpenVault.openOrCreate(vault(), "test", Duration.ZERO)) {
            assertThat(vault.folder().catalogue()).exists();
        }
        Files.delete(vault().resolve("catalogue.db"));
        Files.deleteIfExists(vault().resolve("catalogue.db-wal"));
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + vault().resolve("catalogue.db"))) {
            Migrations.run(db, version);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 12, 13, 14, 15})
    void aVaultOfEachEarlierVersionOpensAndItsCatalogueIsKeptUntilThen(int version) throws Exception {
        makeOld(version);
        try (OpenVault vault = open();
                Reading r = vault.read()) {
            assertThat(r.places()).isEmpty();
        }
        try (Connection before =
                DriverManager.getConnection("jdbc:sqlite:" + vault().resolve("catalogue.db.version-" + version))) {
            assertThat(Catalogue.version(before)).isEqualTo(version);
        }
        fill();
        try (OpenVault vault = open()) {
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).isClean()).isTrue();
        }
    }

    @Test
    void theDescriptionOfTheFormatSaysWhichVersionTheTablesHave() throws Exception {
        assertThat(Files.readString(Path.of("../docs/vault-format.md")))
                .contains("`PRAGMA user_version` is " + Catalogue.VERSION + ";");
    }

    @Test
    void twoThatOpenAnOldVaultAtOnceBothGetTheNewTables() throws Exception {
        makeOld(4);
        ExecutorService both = Executors.newFixedThreadPool(2);
        try {
            List<Future<Integer>> open = new ArrayList<>();
            for (int i = 0; i < 2; i++) {
                open.add(both.submit(() -> {
                    try (Connection c = Catalogue.openForReading(VaultFolder.open(vault()))) {
                        return Catalogue.version(c);
                    }
                }));
            }
            for (Future<Integer> version : open) {
                assertThat(version.get()).isEqualTo(Catalogue.VERSION);
            }
        } finally {
            both.shutdown();
        }
    }

    @Test
    void aMissingCatalogueIsNotTakenForAnEmptyVault() throws Exception {
        fill();
        Files.delete(vault().resolve("catalogue.db"));
        assertThatThrownBy(this::open)
                .isInstanceOf(VaultException.Damaged.class)
                .hasMessageContaining("--rebuild");
    }

    @Test
    void anOldCopyOfTheCatalogueIsNotBelieved() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.txt", "one");
            p.capture();
            p.vault().close();
        }
        Files.copy(vault().resolve("catalogue.db"), temp.resolve("old copy"));
        try (TestPlace p = new TestPlace(temp)) {
            p.later(50);
            p.save("a.txt", "two");
            p.capture();
            p.save("a.txt", "three");
            p.capture();
        }
        byte[] pack = Files.readAllBytes(vault().resolve("packs/00000001.pack"));
        Files.copy(temp.resolve("old copy"), vault().resolve("catalogue.db"), StandardCopyOption.REPLACE_EXISTING);
        Files.deleteIfExists(vault().resolve("catalogue.db-wal"));
        try (OpenVault vault = open()) {
            assertThatThrownBy(vault::write)
                    .isInstanceOf(VaultException.Damaged.class)
                    .hasMessageContaining("older than its packs");
        }
        assertThat(vault().resolve("packs/00000001.pack")).hasBinaryContent(pack);
    }

    @Test
    void folderAndVaultMayNotLieInOneAnother() throws IOException {
        Path desk = Files.createDirectories(temp.resolve("desk"));
        assertThatThrownBy(() -> org.mendedleaf.core.capture.Protect.check(desk, desk.resolve("vault"), List.of()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("lies in the folder");
        fill();
        Path inside = Files.createDirectories(vault().resolve("packs/deep"));
        assertThatThrownBy(() -> org.mendedleaf.core.capture.Protect.check(inside, vault(), List.of()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("lies in the vault");
        Path link = Files.createSymbolicLink(temp.resolve("link"), desk);
        assertThatThrownBy(() -> org.mendedleaf.core.capture.Protect.check(desk, link.resolve("v"), List.of()))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void aFolderInAProtectedOneIsNotProtectedTwice() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            Path sub = Files.createDirectories(p.path("sub"));
            assertThatThrownBy(() -> org.mendedleaf.core.capture.Protect.place(
                            p.vault(), sub, Rhythm.ON_SAVE, List.of(), p.clock(), "Ines"))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("protected already");
        }
    }
}
