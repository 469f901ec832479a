package org.mendedleaf.core.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class UserSettingsTest {

    @TempDir
    Path temp;

    @Test
    void theEnvironmentMovesTheSettings() {
        assertThat(UserSettings.defaultFolder(Map.of("MENDED_LEAF_HOME", "/somewhere")))
                .hasToString("/somewhere");
        assertThat(UserSettings.defaultFolder(Map.of("XDG_CONFIG_HOME", "/config")))
                .hasToString("/config/mended-leaf");
        assertThat(UserSettings.defaultFolder(Map.of())).endsWithRaw(Path.of(".config/mended-leaf"));
        assertThat(UserSettings.defaultFolder(Map.of("HOME", "/elsewhere")))
                .hasToString("/elsewhere/.config/mended-leaf");
        assertThat(UserSettings.defaultFolder(Map.of("HOME", "/elsewhere", "XDG_CONFIG_HOME", "not/absolute")))
                .hasToString("/elsewhere/.config/mended-leaf");
    }

    @Test
    void whatWasSetIsThereTheNextTime() throws IOException {
        UserSettings home = UserSettings.open(temp.resolve("new"));
        assertThat(home.vaults()).isEmpty();
        home.addVault(Path.of("/v"));
        home.addVault(Path.of("/v"));
        home.who("Ines");
        home.remember("theme", "dark");
        home.save();
        UserSettings again = UserSettings.open(temp.resolve("new"));
        assertThat(again.vaults()).containsExactly(Path.of("/v"));
        assertThat(again.who()).isEqualTo("Ines");
        assertThat(again.remembered("theme")).isEqualTo("dark");
        assertThat(again.remembered("nothing")).isEmpty();
    }

    @Test
    void nobodyElseMayReadTheSettingsAlsoThoseOfAnEarlierVersion() throws IOException {
        assumeTrue(Files.getFileStore(temp).supportsFileAttributeView("posix"));
        Path folder = temp.resolve("settings");
        UserSettings.open(folder).who("Ines");
        assertThat(permissions(folder)).isEqualTo("rwx------");
        assertThat(permissions(folder.resolve("settings.json"))).isEqualTo("rw-------");
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
        Files.setPosixFilePermissions(folder.resolve("settings.json"), PosixFilePermissions.fromString("rw-r--r--"));
        UserSettings.open(folder).who("Tomas");
        assertThat(permissions(folder)).isEqualTo("rwx------");
        assertThat(permissions(folder.resolve("settings.json"))).isEqualTo("rw-------");
    }

    private static String permissions(Path path) throws IOException {
        return PosixFilePermissions.toString(Files.getPosixFilePermissions(path));
    }

    @Test
    void anOfficeThatStandsStillGoesOnFromItsToday() throws IOException {
        Instant today = Instant.parse("2026-11-20T09:45:00Z");
        Instant begun = Instant.parse("2027-03-01T00:00:00Z");
        UserSettings home = UserSettings.open(temp);
        home.setToday(today, begun, ZoneId.of("Europe/Brussels"));
        Clock clock = UserSettings.open(temp).clock(Clock.fixed(begun.plusSeconds(60), ZoneOffset.UTC));
        assertThat(clock.instant()).isEqualTo(today.plusSeconds(60));
        assertThat(clock.getZone()).isEqualTo(ZoneId.of("Europe/Brussels"));
    }

    @Test
    void settingsThatCannotBeReadAreSaidAndNotOverwritten() throws IOException {
        Files.writeString(temp.resolve("settings.json"), "{ torn");
        assertThatThrownBy(() -> UserSettings.open(temp))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("settings.json");
        assertThat(temp.resolve("settings.json")).hasContent("{ torn");
    }
}
