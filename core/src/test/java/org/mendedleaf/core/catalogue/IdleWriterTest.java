package org.mendedleaf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.vault.VaultException;

/** A session may have the connection of the one before: nothing else of it, and only while the catalogue is the same one. */
class IdleWriterTest {

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

    private Path catalogue() {
        return p.vault().folder().catalogue();
    }

    private void in(Path database, String statement) throws SQLException {
        try (Connection other = DriverManager.getConnection("jdbc:sqlite:" + database);
                var asked = other.createStatement()) {
            asked.execute(statement);
        }
    }

    private Sql ofOneSession() throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.note("noted", session.note("noted") + 1);
            session.commit();
            return session.sql();
        }
    }

    private long noted(OpenVault vault) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.note("noted");
        }
    }

    @Test
    void sessionsThatFollowEachOtherHaveOneConnectionAndTwoAtOnceAreStillRefused() throws IOException {
        Sql first = ofOneSession();
        assertThat(ofOneSession()).isSameAs(first);
        try (WriteSession one = p.vault().write()) {
            assertThat(one.sql()).isSameAs(first);
            assertThatThrownBy(() -> p.vault().write()).isInstanceOf(VaultException.Busy.class);
        }
        assertThat(noted(p.vault())).isEqualTo(2);
    }

    @Test
    void whatASessionDidNotCommitIsNotThereForTheNext() throws IOException {
        try (WriteSession session = p.vault().write()) {
            session.note("noted", 7);
        }
        assertThat(noted(p.vault())).isZero();
        ofOneSession();
        assertThat(noted(p.vault())).isEqualTo(1);
    }

    @Test
    void whatAnotherProgramWroteMeanwhileIsSeen() throws Exception {
        ofOneSession();
        try (OpenVault other = OpenVault.open(temp.resolve("vault"), "other", Duration.ofSeconds(5));
                WriteSession session = other.write()) {
            session.note("noted", 40);
            session.commit();
        }
        ofOneSession();
        assertThat(noted(p.vault())).isEqualTo(41);
    }

    @Test
    void aCatalogueThatWasMadeAnewIsWrittenToAndNotTheOneThatItReplaced() throws Exception {
        Sql before = ofOneSession();
        Path made = temp.resolve("made anew");
        in(catalogue(), "VACUUM INTO '" + made + "'");
        in(made, "UPDATE counter SET value = 100 WHERE name = 'noted'");
        in(made, "PRAGMA journal_mode = WAL");
        // As a rebuild puts the one before aside.
        for (String ending : List.of("-wal", "-shm")) {
            Files.move(Path.of(catalogue() + ending), Path.of(catalogue() + ".old" + ending));
        }
        Files.move(made, catalogue(), StandardCopyOption.REPLACE_EXISTING);
        assertThat(ofOneSession()).isNotSameAs(before);
        assertThat(noted(p.vault())).isEqualTo(101);
        try (OpenVault again = OpenVault.open(temp.resolve("vault"), "again", Duration.ofSeconds(5))) {
            assertThat(noted(again)).isEqualTo(101);
        }
    }

    @Test
    void aCatalogueThatANewerProgramBroughtUpToDateIsRefused() throws Exception {
        ofOneSession();
        in(catalogue(), "PRAGMA user_version = " + (Catalogue.VERSION + 1));
        assertThatThrownBy(() -> p.vault().write()).isInstanceOf(VaultException.TooNew.class);
        in(catalogue(), "PRAGMA user_version = " + Catalogue.VERSION);
        ofOneSession();
    }

    @Test
    void aSessionThatEndedBadlyLeavesNoConnection() throws IOException {
        Sql sql;
        try (WriteSession session = p.vault().write()) {
            sql = session.sql();
            session.sql().run("DROP TABLE chunk");
            assertThatThrownBy(() -> {
                        session.apply(Op.DENSITY, p.place().id(), 1L, 1);
                        session.sql().run("DROP TABLE counter");
                        session.commit();
                    })
                    .isInstanceOf(VaultException.class);
        }
        assertThat(ofOneSession()).isNotSameAs(sql);
        p.save("a.txt", "one");
        p.capture();
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void nothingIsKeptOpenOfAVaultThatIsClosed() throws IOException {
        ofOneSession();
        assertThat(Path.of(catalogue() + "-wal")).exists();
        p.close();
        assertThat(Path.of(catalogue() + "-wal")).doesNotExist();
    }
}
