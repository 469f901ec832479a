package org.mendedleaf.bench;

import java.io.IOException;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.mendedleaf.core.intake.Resemblance;

/**
 * Looks into files that are made to do harm as the guard does, in a process with little memory, and tells how long each kind took
 * at most.
 *
 * <pre>{@code
 * HostileGuard COUNT SEED
 * }</pre>
 */
public final class HostileGuard {

    private HostileGuard() {}

    /** Looks, and prints a row of a table for each kind. */
    public static void main(String[] arguments) throws IOException {
        int count = Integer.parseInt(arguments[0]);
        HostileFiles files = new HostileFiles(Long.parseLong(arguments[1]));
        Map<String, Double> most = new TreeMap<>();
        int late = 0;
        // The process for documents is warm when somebody puts something in.
        new Resemblance.Content("warm.odt", files.file(HostileFiles.kinds() - 1).content());
        for (int i = 0; i < count; i++) {
            HostileFiles.HostileFile file = files.file(i);
            long began = System.nanoTime();
            new Resemblance.Content(file.name(), file.content());
            double millis = (System.nanoTime() - began) / 1e6;
            most.merge(file.name(), millis, Math::max);
            late += millis > 2000 ? 1 : 0;
        }
        most.forEach((name, millis) -> System.out.printf(
                Locale.ROOT,
                "| the guard, %s, at most | - | %.0f ms | - | - | < 2000 ms | %s |%n",
                name,
                millis,
                millis < 2000 ? "met" : "missed"));
        System.out.printf(
                Locale.ROOT,
                "| the guard, %d files, of them later than 2 s | - | %d | - | - | 0 | %s |%n",
                count,
                late,
                late == 0 ? "met" : "missed");
        System.exit(0);
    }
}
