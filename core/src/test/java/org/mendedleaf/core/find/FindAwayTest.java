package org.mendedleaf.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.Rig;
import org.mendedleaf.core.systems.SystemKind;

/** Versions that only another system holds are found by their words, once their content has been here. */
class FindAwayTest {

    @TempDir
    Path temp;

    private Rig rig;
    private Place drive;

    @BeforeEach
    void aLeaseOfTwoVersionsOfWhichADriveHoldsBoth() throws IOException {
        rig = new Rig(temp);
        drive = rig.place(SystemKind.BACKUP_DRIVE, "desk");
        rig.relate(rig.desk.place(), "", drive, "");
        saveAndBackUp("The rent is fourhundred.");
        saveAndBackUp("The rent is more.");
        index();
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private void saveAndBackUp(String text) throws IOException {
        rig.desk.save("lease.txt", text);
        rig.desk.capture();
        rig.later(Duration.ofMinutes(1));
        new BackupRun(rig.vault(), drive, rig.registry.system(drive), rig.clock()).run(Progress.NONE);
        rig.later(Duration.ofMinutes(1));
    }

    private void index() throws IOException {
        new Indexer(rig.vault(), false).run(Progress.NONE);
    }

    /** Where a word is found: places and numbers of the versions. */
    private List<String> found(String word) throws IOException {
        return new Finder(rig.vault(), "Ines")
                .find(Wanted.parse(word, false, Wanted.Narrow.NOT), 50).files().stream()
                        .filter(h -> !h.spans().isEmpty())
                        .map(h -> h.line().place().label() + " "
                                + h.spans().get(0).first().label() + "-"
                                + h.spans().get(0).last().label())
                        .sorted()
                        .toList();
    }

    private void letGoByARule(int number) throws IOException {
        try (WriteSession session = rig.vault().write()) {
            PendingDeletionStore.put(
                    session,
                    new PendingDeletion(
                            rig.desk.line("lease.txt").id(),
                            number,
                            0,
                            rig.now(),
                            rig.now(),
                            "Ines",
                            "THINNED",
                            "Daily",
                            Optional.empty()));
            session.commit();
        }
        new Reclaim(rig.vault(), rig.clock()).endGrace("Ines", Progress.NONE);
    }

    private boolean inFile(String word) throws IOException {
        for (String ending : List.of("", "-wal")) {
            Path file = FindIndex.file(rig.vault().folder()).resolveSibling("index.db" + ending);
            if (Files.exists(file)
                    && new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1).contains(word)) {
                return true;
            }
        }
        return false;
    }

    @Test
    void aVersionThatADriveHoldsToo() throws IOException {
        assertThat(found("fourhundred")).containsExactly("backup-drive:desk 1-1", "desk 1-1");
        assertThat(found("rent")).containsExactly("backup-drive:desk 1-2", "desk 1-2");
    }

    @Test
    void whatARuleLetGoHereIsStillFoundOnTheDrive() throws IOException {
        letGoByARule(1);
        assertThat(found("fourhundred")).containsExactly("backup-drive:desk 1-1");
        index();
        assertThat(found("fourhundred")).containsExactly("backup-drive:desk 1-1");
    }

    @Test
    void whatSomebodyErasedIsForgottenWhoeverElseHoldsIt() throws IOException {
        new Erasing(new WorkContext(rig.vault(), rig.desk.place(), rig.clock(), rig.desk.authors(), "Ines"))
                .erase(rig.desk.line("lease.txt").id(), Erasing.What.VERSION, 1, Progress.NONE);
        new Reclaim(rig.vault(), rig.clock()).endGrace("Ines", Progress.NONE);
        assertThat(found("fourhundred")).isEmpty();
        assertThat(inFile("fourhundred")).isFalse();
        index();
        assertThat(found("fourhundred")).isEmpty();
        assertThat(found("rent")).contains("desk 2-2");
    }

    @Test
    void whatTheDriveDropsWasTakenIntoTheVaultAndIsFound() throws IOException {
        letGoByARule(1);
        rig.erasing(drive).eraseSnapshot(rig.cuts(drive).get(0), Progress.NONE);
        new Mirror(rig.vault(), drive, rig.registry.system(drive), rig.clock()).run(Progress.NONE);
        index();
        // The vault took the content before the drive let it go, so it is found in the drive's line still.
        assertThat(found("fourhundred")).containsExactly("backup-drive:desk 1-1");
        assertThat(rig.line(drive, "lease.txt")
                        .version(1)
                        .orElseThrow()
                        .recipe()
                        .isElsewhere())
                .isFalse();
    }

    @Test
    void aDriveThatIsLeftOutIsNotSearched() throws IOException {
        try (Reading reading = rig.vault().read();
                FindIndex index = FindIndex.open(rig.vault().folder())) {
            index.off(drive, true, reading.lines().ids(drive));
        }
        index();
        assertThat(found("fourhundred")).containsExactly("desk 1-1");
        try (Reading reading = rig.vault().read();
                FindIndex index = FindIndex.open(rig.vault().folder())) {
            index.off(drive, false, reading.lines().ids(drive));
        }
        index();
        assertThat(found("fourhundred")).containsExactly("backup-drive:desk 1-1", "desk 1-1");
    }

    @Test
    void anIndexOfTheVersionBeforeIsTakenOverWithItsWords() throws IOException, java.sql.SQLException {
        Path file = FindIndex.file(rig.vault().folder());
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = db.createStatement()) {
            statement.execute("DROP INDEX content_sha256");
            statement.execute("ALTER TABLE content DROP COLUMN sha256");
            statement.execute("DROP TABLE away");
            statement.execute("PRAGMA user_version = 3");
        }
        assertThat(found("fourhundred")).as("its words are there at once").containsExactly("desk 1-1");
        assertThat(new Indexer(rig.vault(), false).run(Progress.NONE).added())
                .as("nothing is read again")
                .isZero();
        assertThat(found("fourhundred")).containsExactly("backup-drive:desk 1-1", "desk 1-1");
    }
}
