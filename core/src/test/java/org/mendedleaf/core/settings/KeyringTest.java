package org.mendedleaf.core.settings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Endpoint;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemException;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.standins.StandIns;

/** Tokens are in the keyring where there is one, and in the settings where there is none or it takes none. */
class KeyringTest {

    @TempDir
    Path temp;

    private final Map<String, String> kept = new HashMap<>();
    private boolean takes = true;
    private boolean locked;
    private StandIns outside;

    private final Keyring keyring = new Keyring() {
        @Override
        public boolean keep(String account, String secret) {
            return takes && kept.put(account, secret) == null;
        }

        @Override
        public Optional<String> get(String account) throws IOException {
            if (locked) {
                throw new IOException("locked");
            }
            return Optional.ofNullable(kept.get(account));
        }

        @Override
        public void forget(String account) {
            kept.remove(account);
        }
    };

    @BeforeEach
    void start() throws IOException {
        outside = new StandIns(temp.resolve("outside"), "ines");
    }

    @AfterEach
    void end() throws IOException {
        outside.close();
    }

    private UserSettings settings() throws IOException {
        return UserSettings.open(temp.resolve("home"), keyring);
    }

    private String file() throws IOException {
        return Files.readString(temp.resolve("home/settings.json"));
    }

    private SystemRegistry registry(UserSettings settings) {
        return new SystemRegistry(settings, Systems.OPENER, Clock.systemUTC(), Retry.DEFAULT);
    }

    private Connection connect(UserSettings settings, SystemRegistry registry, String token) throws IOException {
        try (OpenVault vault = OpenVault.openOrCreate(temp.resolve("vault"), "test", Duration.ofSeconds(5))) {
            return new SystemConnector(settings, registry, Clock.systemUTC())
                    .connect("Archive", null, new Endpoint(outside.objects().address(), token), vault, Retry.DEFAULT);
        }
    }

    @Test
    void theKeyringHasTheTokenAndTheSettingsDoNot() throws IOException {
        String token = outside.objects().token("ines");
        UserSettings settings = settings();
        Connection connection = connect(settings, registry(settings), token);
        assertThat(connection.token()).isEmpty();
        assertThat(kept).containsOnly(Map.entry(connection.keyring(), token));
        assertThat(file()).contains("Archive").doesNotContain(token);
        UserSettings later = settings();
        assertThat(registry(later).system("Archive").state()).isNotNull();
        assertThat(later.disconnect("Archive")).isTrue();
        assertThat(kept).isEmpty();
    }

    @Test
    void aKeyringThatIsLockedIsSaidAndAskedAgain() throws IOException {
        UserSettings settings = settings();
        SystemRegistry before = registry(settings);
        connect(settings, before, outside.objects().token("ines"));
        SystemRegistry registry = registry(settings());
        locked = true;
        assertThatThrownBy(() -> registry.system("Archive"))
                .isInstanceOf(SystemException.Refused.class)
                .hasMessageContaining("Unlock the keyring");
        locked = false;
        assertThat(registry.system("Archive").state()).isNotNull();
        kept.clear();
        assertThatThrownBy(() -> registry(settings()).system("Archive"))
                .as("somebody took it out")
                .hasMessageContaining("connect Archive again");
    }

    @Test
    void whoeverConnectsAgainIsBelievedByProgramsThatGoOn() throws IOException {
        UserSettings settings = settings();
        SystemRegistry registry = registry(settings);
        connect(settings, registry, outside.objects().token("ines"));
        Object first = registry.system("Archive");
        assertThat(registry.system("Archive")).isSameAs(first);
        connect(settings, registry, outside.objects().token("tomas"));
        assertThat(registry.system("Archive")).isNotSameAs(first);
        assertThat(kept.values()).containsOnly(outside.objects().token("tomas"));
    }

    @Test
    void whereTheKeyringTakesNothingTheTokenIsInTheSettings() throws IOException {
        takes = false;
        String token = outside.objects().token("ines");
        UserSettings settings = settings();
        assertThat(connect(settings, registry(settings), token).token()).isEqualTo(token);
        assertThat(registry(settings()).system("Archive").state()).isNotNull();
        assertThat(Files.getPosixFilePermissions(temp.resolve("home/settings.json")))
                .hasSize(2);
    }

    @Test
    void settingsThatCanBeTakenAlongHaveTheirTokensInThem() {
        assertThat(Keyring.of(Map.of("MENDED_LEAF_HOME", "/media/stick"))).isSameAs(Keyring.NONE);
        assertThat(Keyring.of(Map.of())).isNotSameAs(Keyring.NONE);
    }
}
