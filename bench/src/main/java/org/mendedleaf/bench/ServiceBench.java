package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.service.ServiceChannel;

/**
 * The background service over many files: what it costs when nothing happens, the most memory it had, and how long a save takes until its
 * version is there. Beside it a Java process that does nothing, in the same minutes.
 */
public final class ServiceBench {

    private static final int SAVES = 20;
    private static final long TICKS_PER_SECOND = 100;

    private ServiceBench() {}

    /** Measures: {@code WORK PROGRAM FILES SECONDS}. */
    public static void main(String[] arguments) throws Exception {
        Path work = Path.of(arguments[0]);
        Path program = Path.of(arguments[1]);
        int files = Integer.parseInt(arguments[2]);
        int seconds = Integer.parseInt(arguments[3]);
        Path settings = work.resolve("settings");
        Path desk = Files.createDirectories(work.resolve("desk"));
        for (int i = 0; i < files; i++) {
            Path folder = desk.resolve("folder " + i / 100);
            if (i % 100 == 0) {
                Files.createDirectories(folder);
            }
            Files.writeString(folder.resolve("file " + i + ".txt"), "what stands in file " + i);
        }
        run(
                settings,
                program,
                "protect",
                desk.toString(),
                "--vault",
                work.resolve("vault").toString());
        run(settings, program, "service", "start");
        long process =
                ServiceChannel.status(settings).orElseThrow().path("process").asLong();
        Process nothing = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:+UseSerialGC",
                        "-XX:-UsePerfData",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Nothing.class.getName())
                .start();
        try {
            waitUntilQuiet(process);
            long before = ticks(process);
            long beside = ticks(nothing.pid());
            Thread.sleep(Duration.ofSeconds(seconds).toMillis());
            double share = 100.0 * (ticks(process) - before) / TICKS_PER_SECOND / seconds;
            double other = 100.0 * (ticks(nothing.pid()) - beside) / TICKS_PER_SECOND / seconds;
            double idleMemory = megabytes(process, "VmRSS");
            double[] times = new double[SAVES];
            long saving = ticks(process);
            for (int i = 0; i < SAVES; i++) {
                times[i] = save(work.resolve("vault"), desk, i);
            }
            double each = (ticks(process) - saving) * 1000.0 / TICKS_PER_SECOND / SAVES;
            System.out.printf(
                    Locale.ROOT,
                    "| the service over %d files | now | a Java that does nothing | bound |%n|---|---|---|---|%n",
                    files);
            System.out.printf(
                    Locale.ROOT,
                    "| idle, share of a core over %d s | %.2f %% | %.2f %% | < 0.2 %% |%n",
                    seconds,
                    share,
                    other);
            System.out.printf(
                    Locale.ROOT,
                    "| memory when idle, and the most | %.0f, %.0f MB | %.0f MB | < 150 MB |%n",
                    idleMemory,
                    megabytes(process, "VmHWM"),
                    megabytes(nothing.pid(), "VmRSS"));
            System.out.printf(
                    Locale.ROOT,
                    "| from a save until its version is there, median of %d | %.2f s (2 s of them are the quiet time) | | |%n",
                    SAVES,
                    Table.median(times));
            System.out.printf(Locale.ROOT, "| processor time of a save | %.0f ms | | |%n", each);
        } finally {
            nothing.destroy();
            run(settings, program, "service", "stop");
            ProcessHandle.of(process).ifPresent(p -> p.onExit().join());
        }
    }

    /** A process to compare with. */
    static final class Nothing {
        private Nothing() {}

        public static void main(String[] arguments) throws InterruptedException {
            Thread.sleep(Long.MAX_VALUE);
        }
    }

    private static void run(Path settings, Path program, String... arguments) throws Exception {
        List<String> command = new ArrayList<>(List.of(program.toString()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command);
        builder.environment().putAll(Map.of("MENDED_LEAF_HOME", settings.toString()));
        Process process = builder.redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        if (process.waitFor() != 0) {
            throw new IllegalStateException(String.join(" ", command) + " ended with " + process.exitValue());
        }
    }

    /** The first scan, the index of words and what else comes first is over when ten seconds cost next to nothing. */
    private static void waitUntilQuiet(long process) throws Exception {
        Thread.sleep(60_000);
        for (int i = 0; i < 60; i++) {
            long before = ticks(process);
            Thread.sleep(10_000);
            if (ticks(process) - before <= 5) {
                return;
            }
        }
        System.err.println("It did not come to rest.");
    }

    private static double save(Path vault, Path desk, int i) throws Exception {
        Path file = desk.resolve("folder " + i).resolve("file " + i * 100 + ".txt");
        String path = "folder " + i + "/file " + i * 100 + ".txt";
        Files.writeString(file, "saved over, " + i + " at " + System.nanoTime());
        long saved = System.nanoTime();
        try (OpenVault open = OpenVault.open(vault, "bench", Duration.ofSeconds(5))) {
            while (versions(open, path) < 2) {
                Thread.sleep(10);
                if (System.nanoTime() - saved > 60_000_000_000L) {
                    throw new IllegalStateException("not captured within a minute: " + path);
                }
            }
        }
        return (System.nanoTime() - saved) / 1e9;
    }

    private static int versions(OpenVault vault, String path) throws IOException {
        try (Reading reading = vault.read()) {
            Place place = reading.places().get(0);
            return reading.line(place, path).map(l -> l.versions().size()).orElse(0);
        }
    }

    private static long ticks(long process) throws IOException {
        String stat = Files.readString(Path.of("/proc", String.valueOf(process), "stat"));
        String[] fields = stat.substring(stat.lastIndexOf(')') + 2).split(" ");
        return Long.parseLong(fields[11]) + Long.parseLong(fields[12]);
    }

    private static double megabytes(long process, String what) throws IOException {
        return Files.readAllLines(Path.of("/proc", String.valueOf(process), "status")).stream()
                .filter(l -> l.startsWith(what + ":"))
                .mapToDouble(l -> Double.parseDouble(l.replaceAll("\\D", "")) / 1000)
                .findFirst()
                .orElse(0);
    }
}
