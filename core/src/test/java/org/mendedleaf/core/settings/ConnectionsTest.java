package org.mendedleaf.core.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.SystemKind;

class ConnectionsTest {

    @TempDir
    Path temp;

    private Connection connection(String name, String token) {
        return new Connection(name, SystemKind.LIBRARY, "http://127.0.0.1:1", token, temp.resolve("vault"));
    }

    @Test
    void aConnectionIsRememberedAndCanBeChangedAndForgotten() throws IOException {
        UserSettings home = UserSettings.open(temp);
        home.connect(connection("Library", "one"));
        home.connect(connection("Archive", "x"));
        home.connect(connection("Library", "two"));
        UserSettings again = UserSettings.open(temp);
        assertThat(again.connections()).extracting(Connection::name).containsExactly("Archive", "Library");
        assertThat(again.connection("Library").orElseThrow().token()).isEqualTo("two");
        assertThat(again.disconnect("Library")).isTrue();
        assertThat(again.disconnect("Library")).isFalse();
        assertThat(UserSettings.open(temp).connections()).hasSize(1);
    }

    @Test
    void tokensAreReadByNobodyElseAndStandInNoLog() throws IOException {
        UserSettings home = UserSettings.open(temp);
        home.connect(connection("Library", "secret-token"));
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(temp.resolve("settings.json"))))
                .isEqualTo("rw-------");
        assertThat(connection("Library", "secret-token").toString()).doesNotContain("secret-token");
    }

    @Test
    void aNameThatCouldNotBeWrittenInAPathIsRefused() {
        for (String name : new String[] {"", " ", "a:b", "a/b"}) {
            assertThatThrownBy(() -> connection(name, "")).isInstanceOf(IllegalArgumentException.class);
        }
    }
}
