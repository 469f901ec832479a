package org.mendedleaf.core.disk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;

class UserFoldersTest {

    private static final Path ACCOUNT = Path.of(System.getProperty("user.home"));

    @Test
    void theHomeIsTheOneOfTheEnvironmentAndElseThatOfTheAccount() {
        assertThat(UserFolders.home(Map.of("HOME", "/elsewhere"))).isEqualTo(Path.of("/elsewhere"));
        assertThat(UserFolders.home(Map.of())).isEqualTo(ACCOUNT);
    }

    @Test
    void aHomeThatIsEmptyRelativeOrNoPathCountsAsNotSet() {
        for (String bad : new String[] {"", "relative/home", "\0"}) {
            assertThat(UserFolders.home(Map.of("HOME", bad))).isEqualTo(ACCOUNT);
        }
    }

    @Test
    void settingsAndCacheAreBelowTheHomeUnlessTheyHaveFoldersOfTheirOwn() {
        Map<String, String> home = Map.of("HOME", "/elsewhere");
        assertThat(UserFolders.settings(home)).isEqualTo(Path.of("/elsewhere/.config"));
        assertThat(UserFolders.cache(home)).startsWithRaw(Path.of("/elsewhere"));
        Map<String, String> own = Map.of("HOME", "/elsewhere", "XDG_CONFIG_HOME", "/set", "XDG_CACHE_HOME", "/again");
        assertThat(UserFolders.settings(own)).isEqualTo(Path.of("/set"));
        assertThat(UserFolders.cache(own)).isEqualTo(Path.of("/again"));
    }
}
