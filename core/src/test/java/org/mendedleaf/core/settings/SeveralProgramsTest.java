package org.mendedleaf.core.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.Child;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.SystemKind;

/** The window, the command line and other programs of a person have the same settings at once. */
class SeveralProgramsTest {

    @TempDir
    Path temp;

    private Connection connection(String name, String token) {
        return new Connection(name, SystemKind.LIBRARY, "http://127.0.0.1:1", token, temp.resolve("vault"));
    }

    @Test
    void whatTheCommandLineAddedStaysWhenTheWindowThatWasOpenSaves() throws IOException {
        UserSettings window = UserSettings.open(temp);
        UserSettings commandLine = UserSettings.open(temp);
        commandLine.addVault(Path.of("/v"));
        commandLine.address("Ana", "ana@office.example");
        window.remember("theme", "dark");
        window.save();
        UserSettings after = UserSettings.open(temp);
        assertThat(after.vaults()).containsExactly(Path.of("/v"));
        assertThat(after.address("Ana")).isEqualTo("ana@office.example");
        assertThat(after.remembered("theme")).isEqualTo("dark");
        assertThat(window.vaults()).as("known to the window too").containsExactly(Path.of("/v"));
    }

    @Test
    void vaultsThatTwoProgramsAddedAreBothThere() throws IOException {
        UserSettings one = UserSettings.open(temp);
        one.addVault(Path.of("/first"));
        UserSettings other = UserSettings.open(temp);
        one.addVault(Path.of("/one"));
        other.addVault(Path.of("/other"));
        assertThat(UserSettings.open(temp).vaults())
                .containsExactly(Path.of("/first"), Path.of("/one"), Path.of("/other"));
    }

    @Test
    void whatOneForgotDoesNotComeBackByTheOther() throws IOException {
        UserSettings window = UserSettings.open(temp);
        window.connect(connection("Library", "one"));
        window.connect(connection("Archive", "one"));
        window.address("Ana", "ana@office.example");
        UserSettings commandLine = UserSettings.open(temp);
        commandLine.disconnect("Archive");
        commandLine.address("Ana", "");
        window.remember("theme", "dark");
        window.save();
        UserSettings after = UserSettings.open(temp);
        assertThat(after.connections()).extracting(Connection::name).containsExactly("Library");
        assertThat(after.addresses()).isEmpty();
    }

    @Test
    void ofTheSameEntryTheLastOneToSaveCounts() throws IOException {
        UserSettings one = UserSettings.open(temp);
        one.connect(connection("Library", "old"));
        UserSettings other = UserSettings.open(temp);
        one.connect(connection("Library", "from one"));
        other.connect(connection("Library", "from the other"));
        UserSettings after = UserSettings.open(temp);
        assertThat(after.connections()).hasSize(1);
        assertThat(after.connection("Library").orElseThrow().token()).isEqualTo("from the other");
    }

    @Test
    void settingsThatWereHarmedMeanwhileAreNotWrittenOver() throws IOException {
        UserSettings window = UserSettings.open(temp);
        window.who("Ines");
        Files.writeString(temp.resolve("settings.json"), "{ half of");
        assertThatThrownBy(() -> window.who("Tomas"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("settings.json");
        assertThat(temp.resolve("settings.json")).hasContent("{ half of");
    }

    @Test
    void twelveThatSaveAtOnceLoseNothing() throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(12);
        try {
            CountDownLatch together = new CountDownLatch(12);
            List<Future<?>> all = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                UserSettings own = UserSettings.open(temp);
                String name = "Person " + i;
                all.add(threads.submit(() -> {
                    together.countDown();
                    together.await();
                    own.address(name, "somebody@office.example");
                    return null;
                }));
            }
            for (Future<?> one : all) {
                one.get();
            }
        } finally {
            threads.shutdown();
        }
        assertThat(UserSettings.open(temp).addresses()).hasSize(12);
    }

    /** Adds people, each by settings of its own. */
    static final class Adds {
        public static void main(String[] arguments) throws IOException {
            System.out.println("ready");
            System.in.read();
            for (int i = 0; i < 20; i++) {
                UserSettings.open(Path.of(arguments[0])).address(arguments[1] + i, "somebody@office.example");
            }
        }
    }

    @Test
    void processesThatSaveAtOnceLoseNothing() throws Exception {
        try (Child one = Child.start(Adds.class, temp, "one");
                Child other = Child.start(Adds.class, temp, "other")) {
            assertThat(one.says()).isEqualTo("ready");
            assertThat(other.says()).isEqualTo("ready");
            one.tell("go");
            other.tell("go");
            assertThat(one.end()).isZero();
            assertThat(other.end()).isZero();
        }
        assertThat(UserSettings.open(temp).addresses()).hasSize(40);
    }
}
