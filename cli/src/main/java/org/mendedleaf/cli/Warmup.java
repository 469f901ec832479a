package org.mendedleaf.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.Map;
import java.util.stream.Stream;
import org.mendedleaf.core.settings.Keyring;

/** Runs the common commands once on a throw-away folder, so that their classes can be put into one archive. */
final class Warmup {

    private Warmup() {}

    /** Runs them. */
    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createTempDirectory("mended-leaf-warmup");
        try {
            Path docs = Files.createDirectory(folder.resolve("docs"));
            Files.writeString(docs.resolve("a.txt"), "one\n");
            Map<String, String> home =
                    Map.of("MENDED_LEAF_HOME", folder.resolve("home").toString());
            String file = docs.resolve("a.txt").toString();
            run(
                    home,
                    "protect",
                    docs.toString(),
                    "--vault",
                    folder.resolve("vault").toString());
            Files.writeString(docs.resolve("a.txt"), "two\n\n");
            run(home, "capture");
            run(home, "list", docs.toString(), "--removed", "--json");
            run(home, "list", docs.toString());
            run(home, "line", file);
            run(home, "restore", file, "--version", "1");
            run(home, "status");
            run(home, "--help");
            // What is there where the settings are in their usual place.
            Keyring.of(Map.of());
        } finally {
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(path);
                }
            }
        }
    }

    private static void run(Map<String, String> environment, String... arguments) {
        PrintWriter nowhere = new PrintWriter(new StringWriter());
        Main.run(arguments, environment, Clock.system(ZoneId.of("Europe/Vienna")), nowhere, nowhere);
    }
}
