package org.mendedleaf.core.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.LongStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.Child;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.Op;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.VaultException;

/** What a check sees: the catalogue as well as the packs, and one state of both while others go on. */
class VaultCheckTest {

    @TempDir
    static Path template;

    @TempDir
    Path temp;

    @BeforeAll
    static void fill() throws Exception {
        Random random = new Random(4);
        try (TestPlace p = new TestPlace(template, "*.tmp")) {
            for (int i = 0; i < 8; i++) {
                p.save("a/file " + random.nextInt(3) + ".txt", "version " + i);
                p.save("b/other.txt", "other " + i);
                p.capture();
            }
            Files.move(p.path("b/other.txt"), p.path("b/renamed.txt"));
            Files.delete(p.path("a/file 1.txt"));
            p.capture();
            new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                    .take("", "before", Progress.NONE);
            try (WriteSession session = p.vault().write()) {
                Place place = p.place();
                session.apply(Op.RULE, place.id(), "numbering", "whole");
                session.apply(Op.MEMBER, place.id(), "Tomas", "editor");
                session.apply(Op.COMMENT, 1, 1, 1, Moment.micros(p.now()), "Ines", "looks right");
                session.apply(Op.HOLD, 1, place.id(), "LINE", 1, 0, "", 0, "audit", "Ines", 5, 0, 0);
                session.commit();
            }
        }
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + template.resolve("vault/catalogue.db"))) {
            db.createStatement().execute("PRAGMA wal_checkpoint(TRUNCATE)");
        }
    }

    static LongStream seeds() {
        return Tries.seeds(40);
    }

    private Path copy() throws IOException {
        try (var all = Files.walk(template)) {
            for (Path from : all.toList()) {
                Path to = temp.resolve(template.relativize(from).toString());
                if (Files.isDirectory(from)) {
                    Files.createDirectories(to);
                } else {
                    Files.copy(from, to, StandardCopyOption.REPLACE_EXISTING);
                }
            }
        }
        return temp.resolve("vault/catalogue.db");
    }

    /** All rows that mean something, by table. */
    private static Map<String, List<String>> meaning(Path catalogue) throws SQLException {
        Map<String, List<String>> all = new TreeMap<>();
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + catalogue)) {
            List<String> tables = new ArrayList<>(Logged.TABLES);
            tables.addAll(List.of("chunk", "pack", "packed"));
            for (String table : tables) {
                List<String> rows = new ArrayList<>();
                try (ResultSet r = db.createStatement().executeQuery("SELECT * FROM " + table)) {
                    int columns = r.getMetaData().getColumnCount();
                    while (r.next()) {
                        StringBuilder row = new StringBuilder();
                        for (int i = 1; i <= columns; i++) {
                            Object value = r.getObject(i);
                            row.append(value instanceof byte[] b ? java.util.Arrays.toString(b) : value)
                                    .append('|');
                        }
                        rows.add(row.toString());
                    }
                }
                rows.sort(null);
                all.put(table, rows);
            }
        }
        return all;
    }

    private boolean isSaid() throws IOException {
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            return !new VaultCheck(vault).run(true, Progress.NONE).isClean();
        } catch (VaultException e) {
            return true;
        }
    }

    @Test
    void aSoundCatalogueAgreesWithItsLogs() throws Exception {
        copy();
        assertThat(isSaid()).isFalse();
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void aByteThatChangesWhatTheCatalogueSaysIsFound(long seed) throws Exception {
        Path catalogue = copy();
        Map<String, List<String>> before = meaning(catalogue);
        byte[] sound = Files.readAllBytes(catalogue);
        Random random = new Random(seed);
        for (int i = 0; i < 6; i++) {
            byte[] flipped = sound.clone();
            int at = random.nextInt(sound.length);
            flipped[at] ^= (byte) (1 << random.nextInt(8));
            Files.write(catalogue, flipped);
            boolean changed;
            try {
                changed = !meaning(catalogue).equals(before);
            } catch (SQLException e) {
                changed = true;
            }
            deleteLog();
            if (changed) {
                assertThat(isSaid()).as("byte %s", at).isTrue();
            }
            deleteLog();
        }
    }

    private void deleteLog() throws IOException {
        Files.deleteIfExists(temp.resolve("vault/catalogue.db-wal"));
        Files.deleteIfExists(temp.resolve("vault/catalogue.db-shm"));
    }

    @Test
    void aRowThatIsLostFromAnyTableIsFound() throws Exception {
        for (String table : Logged.TABLES) {
            Path catalogue = copy();
            try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + catalogue)) {
                int gone;
                try (ResultSet one = db.createStatement().executeQuery("SELECT count(*) FROM " + table)) {
                    gone = one.getInt(1);
                }
                if (gone == 0) {
                    continue;
                }
                db.createStatement().execute("DELETE FROM " + table);
            }
            assertThat(isSaid()).as("rows of " + table).isTrue();
        }
    }

    @Test
    void aCatalogueThatNoLongerTellsItsLastCommitIsSaidToBeDamaged() throws Exception {
        Path catalogue = copy();
        long page;
        long size;
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + catalogue)) {
            page = db.createStatement()
                    .executeQuery("SELECT rootpage FROM sqlite_master WHERE name = 'counter'")
                    .getLong(1);
            size = db.createStatement().executeQuery("PRAGMA page_size").getLong(1);
        }
        deleteLog();
        byte[] bytes = Files.readAllBytes(catalogue);
        java.util.Arrays.fill(bytes, (int) ((page - 1) * size), (int) (page * size), (byte) 0);
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            try (java.nio.channels.FileChannel file =
                    java.nio.channels.FileChannel.open(catalogue, java.nio.file.StandardOpenOption.WRITE)) {
                file.write(java.nio.ByteBuffer.wrap(bytes, (int) ((page - 1) * size), (int) size), (page - 1) * size);
            }
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
            assertThat(report.damages()).isNotEmpty();
            assertThat(report.depth()).isEqualTo(VaultCheck.Depth.DEEP);
        }
    }

    @Test
    void aCheckThatIsStoppedEndsAllItBegan() throws Exception {
        copy();
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.until(() -> true));
            assertThat(report.cancelled()).isTrue();
            assertThat(report.damages())
                    .as("what was not looked at is not damaged")
                    .isEmpty();
        }
        assertThat(Thread.getAllStackTraces().keySet())
                .extracting(Thread::getName)
                .doesNotContain("check of change logs");
    }

    @Test
    void aPackOfWhichTheCatalogueDoesNotKnowIsNamed() throws Exception {
        copy();
        Files.copy(temp.resolve("vault/packs/00000001.pack"), temp.resolve("vault/packs/00000007.pack"));
        Files.writeString(temp.resolve("vault/packs/notes.txt"), "not a pack");
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            assertThat(new VaultCheck(vault).run(false, Progress.NONE).damages())
                    .anyMatch(d -> d.contains("00000007.pack"))
                    .anyMatch(d -> d.contains("notes.txt"));
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 40})
    void aPackThatAnotherProcessBeginsJustNowIsNoDamage(int written) throws Exception {
        copy();
        byte[] header = Files.readAllBytes(temp.resolve("vault/packs/00000001.pack"));
        Files.write(temp.resolve("vault/packs/00000007.pack"), java.util.Arrays.copyOf(header, written));
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            assertThat(new VaultCheck(vault).run(true, Progress.NONE).damages()).isEmpty();
        }
    }

    @Test
    void aPackThatIsKnownAndCutOffWithinItsHeaderIsDamage() throws Exception {
        copy();
        Path pack = temp.resolve("vault/packs/00000001.pack");
        Files.write(pack, java.util.Arrays.copyOf(Files.readAllBytes(pack), 10));
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ZERO)) {
            assertThat(new VaultCheck(vault).run(false, Progress.NONE).isClean())
                    .isFalse();
        }
    }

    /** Captures, erases and gives space back, again and again. */
    static final class Busy {
        public static void main(String[] arguments) throws Exception {
            try (TestPlace p = new TestPlace(Path.of(arguments[0]))) {
                p.later(10_000);
                Random random = new Random(3);
                for (int i = 0; System.in.available() == 0; i++) {
                    byte[] noise = new byte[40_000];
                    random.nextBytes(noise);
                    p.save("busy " + i % 5 + ".bin", noise);
                    p.capture();
                    if (i % 4 == 3) {
                        long line = p.line("busy " + i % 5 + ".bin").id();
                        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                                .erase(line, Erasing.What.OLDER, 0, Progress.NONE);
                        new Reclaim(p.vault(), p.clock()).endGrace("Ada", Progress.NONE);
                    }
                    System.out.println("round");
                }
            }
        }
    }

    @Test
    void aCheckSeesOneStateWhileAnotherProcessCapturesAndEmptiesPacks() throws Exception {
        copy();
        try (Child busy = Child.start(Busy.class, temp);
                OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            busy.awaits("round");
            for (int i = 0; i < 25; i++) {
                assertThat(new VaultCheck(vault).run(true, Progress.NONE).damages())
                        .as("check %s", i)
                        .isEmpty();
            }
            busy.tell("enough");
            assertThat(busy.end()).isZero();
        }
    }
}
