package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.Child;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.find.FindIndex;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.findings.HealthStore;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.VaultFolder;

/** Databases beside the catalogue are made once, however many open them first, and never taken from under one another. */
class SideDatabaseTest {

    private static final int AT_ONCE = 6;

    @TempDir
    Path temp;

    private VaultFolder vault() throws Exception {
        OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))
                .close();
        return VaultFolder.open(temp.resolve("vault"));
    }

    /** Opens the same from many threads at one moment; all of them stay open until all are. */
    private static <D extends AutoCloseable> void together(Callable<D> open) throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);
        CyclicBarrier barrier = new CyclicBarrier(AT_ONCE);
        List<Future<D>> all = new ArrayList<>();
        for (int i = 0; i < AT_ONCE; i++) {
            all.add(threads.submit(() -> {
                barrier.await();
                return open.call();
            }));
        }
        threads.shutdown();
        for (Future<D> each : all) {
            each.get().close();
        }
    }

    private static long count(Path file, String sql) throws Exception {
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + file);
                var rows = db.createStatement().executeQuery(sql)) {
            return rows.getLong(1);
        }
    }

    @Test
    void manyThatOpenWhatIsNotThereMakeItOnce() throws Exception {
        VaultFolder vault = vault();
        for (int round = 0; round < 8; round++) {
            FindIndex.remove(vault);
            Files.deleteIfExists(vault.root().resolve("health.db"));
            Files.deleteIfExists(vault.root().resolve("health.db-wal"));
            Files.deleteIfExists(vault.root().resolve("health.db-shm"));
            together(() -> FindIndex.open(vault));
            together(() -> HealthStore.open(vault));
            assertThat(count(FindIndex.file(vault), "SELECT count(*) FROM complete"))
                    .isZero();
        }
    }

    @Test
    void manyThatFillItAtOnceWaitForEachOther() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            for (int i = 0; i < 30; i++) {
                p.save("a/file " + i + ".txt", "the orchard gate " + i);
            }
            p.capture();
            for (int round = 0; round < 4; round++) {
                FindIndex.remove(p.vault().folder());
                together(() -> {
                    new Indexer(p.vault(), false).run(Progress.NONE);
                    return () -> {};
                });
                assertThat(count(FindIndex.file(p.vault().folder()), "SELECT count(*) FROM content"))
                        .as("each content once")
                        .isEqualTo(30);
            }
        }
    }

    @Test
    void anIndexOfAnEarlierVersionIsBroughtUpOnce() throws Exception {
        VaultFolder vault = vault();
        for (int round = 0; round < 4; round++) {
            FindIndex.remove(vault);
            FindIndex.open(vault).close();
            try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + FindIndex.file(vault))) {
                for (String sql : List.of(
                        "DROP INDEX at_saved",
                        "DROP INDEX content_sha256",
                        "ALTER TABLE content DROP COLUMN sha256",
                        "DROP TABLE away",
                        "INSERT INTO off (place) VALUES (77)",
                        "PRAGMA user_version = 3")) {
                    db.createStatement().execute(sql);
                }
            }
            together(() -> FindIndex.open(vault));
            assertThat(count(FindIndex.file(vault), "SELECT place FROM off"))
                    .as("it was brought up, not begun anew")
                    .isEqualTo(77);
        }
    }

    @Test
    void oneThatWasLeftHalfMadeByAnEarlierProgramIsBegunAnew() throws Exception {
        VaultFolder vault = vault();
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + FindIndex.file(vault))) {
            db.createStatement().execute("CREATE TABLE content (id INTEGER PRIMARY KEY)");
        }
        FindIndex.open(vault).close();
        assertThat(FindIndex.openIfThere(vault)).hasValueSatisfying(index -> {
            try (index) {
                assertThat(index).isNotNull();
            } catch (java.io.IOException e) {
                throw new java.io.UncheckedIOException(e);
            }
        });
    }

    @Test
    void oneThatIsNoDatabaseIsBegunAnew() throws Exception {
        VaultFolder vault = vault();
        Files.writeString(
                FindIndex.file(vault), "this is no database, but long enough to be looked at as one".repeat(40));
        FindIndex.open(vault).close();
        assertThat(count(FindIndex.file(vault), "PRAGMA user_version")).isPositive();
    }

    /** Opens the index of a vault again and again. */
    static final class Opens {
        public static void main(String[] arguments) throws Exception {
            VaultFolder vault = VaultFolder.open(Path.of(arguments[0]).resolve("vault"));
            System.out.println("ready");
            System.in.read();
            for (int i = 0; i < 20; i++) {
                FindIndex.open(vault).close();
            }
        }
    }

    @Test
    void twoProcessesDoNotTakeItFromEachOther() throws Exception {
        vault();
        try (Child one = Child.start(Opens.class, temp);
                Child other = Child.start(Opens.class, temp)) {
            one.awaits("ready");
            other.awaits("ready");
            one.tell("go");
            other.tell("go");
            assertThat(one.end()).isZero();
            assertThat(other.end()).isZero();
        }
    }
}
