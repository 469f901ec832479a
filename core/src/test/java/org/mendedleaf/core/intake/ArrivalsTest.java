package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.settings.UserSettings;

class ArrivalsTest {

    @TempDir
    Path temp;

    private void came(String name, int seconds) throws IOException {
        Path file = temp.resolve(name);
        Files.writeString(file, name);
        // Ahead of the clock, so that when the file system saw it decides nothing.
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().plusSeconds(1000 + seconds)));
    }

    @Test
    void likelyOnesComeFirstAndThenTheNewest() throws IOException {
        came("a.txt", 1);
        came("plan (1).odt", 2);
        came("b.txt", 3);
        came("plan v2.odt", 4);
        came("unfinished.part", 5);
        came(".hidden", 6);
        Files.createDirectory(temp.resolve("folder"));
        List<Path> folders = List.of(temp, temp.resolve("nowhere"));
        assertThat(Arrivals.look(folders, "Plan.odt", 10, Instant.now()))
                .extracting(Arrivals.Arrival::name)
                .containsExactly("plan v2.odt", "plan (1).odt", "b.txt", "a.txt");
        assertThat(Arrivals.look(folders, "", 2, Instant.now()))
                .extracting(Arrivals.Arrival::name)
                .containsExactly("plan v2.odt", "b.txt");
    }

    @Test
    void theFoldersThatAreLookedIntoAreRemembered() throws IOException {
        UserSettings home = UserSettings.open(temp.resolve("home"));
        assertThat(home.arrivals()).hasSize(1);
        home.arrivals(List.of(temp, temp.resolve("x")));
        assertThat(UserSettings.open(temp.resolve("home")).arrivals()).containsExactly(temp, temp.resolve("x"));
        home.arrivals(List.of());
        assertThat(home.arrivals()).hasSize(1);
    }

    @Test
    void whoWorksHereAndTheAddressesOfPeopleAreRemembered() throws IOException {
        UserSettings home = UserSettings.open(temp.resolve("home"));
        home.who("Ines");
        home.workAs("Tomas");
        assertThat(UserSettings.open(temp.resolve("home")).who()).isEqualTo("Tomas");
        assertThat(home.person()).isEqualTo("Ines");
        home.workAs("Ines");
        assertThat(home.who()).isEqualTo("Ines");
        home.address("Tomas", "t@orchard.example");
        assertThat(home.address("Tomas")).isEqualTo("t@orchard.example");
        home.address("Tomas", "");
        assertThat(home.addresses()).isEmpty();
    }
}
