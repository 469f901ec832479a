package org.mendedleaf.core.disk;

import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;

/**
 * Where a user's own folders are, by the environment: {@code HOME} before what Java takes from the account, since people, test
 * benches and services set it to live elsewhere; and the folders of the XDG Base Directory Specification 0.8, which says that
 * a path that is not absolute counts as not set.
 */
public final class UserFolders {

    private static final boolean WINDOWS =
            System.getProperty("os.name").toLowerCase(Locale.ROOT).startsWith("windows");

    private UserFolders() {}

    /** The home of the user who runs this program. */
    public static Path home() {
        return home(System.getenv());
    }

    /** The home by this environment; that of the account where it names none. */
    public static Path home(Map<String, String> environment) {
        Path account = Path.of(System.getProperty("user.home"));
        return WINDOWS ? account : absolute(environment, "HOME", account);
    }

    /** Where programs keep their settings by this environment. */
    public static Path settings(Map<String, String> environment) {
        return absolute(environment, "XDG_CONFIG_HOME", home(environment).resolve(".config"));
    }

    /** Where programs keep what they can make again by this environment. */
    public static Path cache(Map<String, String> environment) {
        String os = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        Path usual = home(environment).resolve(".cache");
        if (WINDOWS) {
            usual = absolute(environment, "LOCALAPPDATA", usual);
        } else if (os.startsWith("mac")) {
            usual = home(environment).resolve("Library").resolve("Caches");
        }
        return absolute(environment, "XDG_CACHE_HOME", usual);
    }

    private static Path absolute(Map<String, String> environment, String name, Path otherwise) {
        try {
            Path given = Path.of(environment.getOrDefault(name, ""));
            return given.isAbsolute() ? given : otherwise;
        } catch (InvalidPathException e) {
            return otherwise;
        }
    }
}
