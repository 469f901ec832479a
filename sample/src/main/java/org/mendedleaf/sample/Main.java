package org.mendedleaf.sample;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Comparator;
import java.util.stream.Stream;
import org.mendedleaf.core.settings.UserSettings;

/** Makes the sample office, unless it is there: {@code Main FOLDER [--fresh]}; {@code Main FOLDER --addresses} looks where
 * its stand-ins are now. */
public final class Main {

    private Main() {}

    /** Makes it; with {@code --fresh}, what an earlier run made is taken away first. */
    public static void main(String[] arguments) throws IOException {
        if (arguments.length == 0) {
            throw new IllegalArgumentException("expected the folder of the sample office");
        }
        System.setProperty("java.awt.headless", "true");
        Path folder = Path.of(arguments[0]).toAbsolutePath();
        if (arguments.length > 1 && arguments[1].equals("--addresses")) {
            SampleSystems.readdress(Office.outside(folder), UserSettings.open(Office.settings(folder)));
            return;
        }
        boolean fresh = arguments.length > 1 && arguments[1].equals("--fresh");
        boolean whole = Files.exists(Office.settings(folder).resolve("settings.json"))
                && Files.isDirectory(Office.outside(folder));
        if (whole && !fresh) {
            return;
        }
        // Whatever is there is one of our own that was not finished, or is to be made anew.
        for (Path part : new Path[] {
            Office.desk(folder),
            Office.contracts(folder),
            Office.arrivals(folder),
            Office.vault(folder),
            Office.settings(folder),
            Office.outside(folder)
        }) {
            delete(part);
        }
        Office.make(folder, Clock.systemUTC());
    }

    private static void delete(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(path);
                }
            }
        }
    }
}
