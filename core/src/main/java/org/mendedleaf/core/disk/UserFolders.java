package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
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

    /**
     * A folder of the user by what it is for, as the desktop names it (xdg-user-dirs); the usual one where it names none.
     *
     * @param what such as {@code DOCUMENTS}
     * @param usual its name in the home
     */
    public static Path named(Map<String, String> environment, String what, String usual) {
        Path user = home(environment);
        Path names = settings(environment).resolve("user-dirs.dirs");
        try {
            for (String line : Files.exists(names) ? Files.readAllLines(names) : List.<String>of()) {
                if (line.startsWith("XDG_" + what + "_DIR=")) {
                    String value = line.substring(line.indexOf('=') + 1)
                            .replace("\"", "")
                            .strip();
                    return Path.of(value.replace("$HOME", user.toString()));
                }
            }
        } catch (IOException | InvalidPathException e) {
            org.slf4j.LoggerFactory.getLogger(UserFolders.class).debug("{} cannot be read", names, e);
        }
        return user.resolve(usual);
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
