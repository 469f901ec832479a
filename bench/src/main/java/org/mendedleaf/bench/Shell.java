package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Runs a command of the system and measures it. */
final class Shell {

    private static final Pattern TIME = Pattern.compile("(\\d+)m([\\d.]+)s");
    private static final Pattern PEAK = Pattern.compile("(?m)^VmHWM:\\s*(\\d+) kB");
    private static final long LOOK_MILLIS = 20;

    private Shell() {}

    /** Seconds that a shell command takes, from start to end. */
    static double seconds(Path folder, String command) throws IOException, InterruptedException {
        return measure(folder, command).wall();
    }

    /** What a shell command takes. */
    static Measured measure(Path folder, String command) throws IOException, InterruptedException {
        return measure(folder, List.of("sh", "-c", command), 0);
    }

    /** Seconds that a Java program of this project takes, its own start included. */
    static double java(Path folder, String main, String... arguments) throws IOException, InterruptedException {
        return measureJava(folder, main, arguments).wall();
    }

    /** What a Java program of this project takes, its own start included. */
    static Measured measureJava(Path folder, String main, String... arguments)
            throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:+IgnoreUnrecognizedVMOptions",
                "--enable-native-access=ALL-UNNAMED",
                "--sun-misc-unsafe-memory-access=allow",
                "-XX:+UseSerialGC",
                "-XX:-UsePerfData",
                "-Xmn160m",
                "-XX:FreqInlineSize=35",
                "-XX:MaxInlineLevel=5",
                "-Xmx1g"));
        if (Runtime.version().feature() < 24) {
            command.remove("--sun-misc-unsafe-memory-access=allow");
        }
        String archive = System.getProperty("bench.archive", "");
        if (!archive.isEmpty()) {
            command.add("-XX:SharedArchiveFile=" + archive);
        }
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), main));
        command.addAll(List.of(arguments));
        return measure(folder, command, 0);
    }

    /**
     * What a command takes.
     *
     * @param most the greatest exit code with which it did what it should
     */
    static Measured measure(Path folder, List<String> command, int most) throws IOException, InterruptedException {
        Path times = Files.createTempFile("times", ".txt");
        try {
            // A shell tells what its children took, all of them.
            List<String> timed = new ArrayList<>(
                    List.of("sh", "-c", "\"$@\"; code=$?; times >\"$0\"; exit $code", times.toString()));
            timed.addAll(command);
            ProcessBuilder builder = new ProcessBuilder(timed)
                    .directory(folder.toFile())
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .redirectError(ProcessBuilder.Redirect.DISCARD);
            builder.environment().put("MENDED_LEAF_HOME", folder.resolve("home").toString());
            builder.environment().put("LC_ALL", "C.UTF-8");
            long start = System.nanoTime();
            Process process = builder.start();
            double memory = 0;
            while (!process.waitFor(LOOK_MILLIS, TimeUnit.MILLISECONDS)) {
                memory = Math.max(memory, peak(process));
            }
            double wall = (System.nanoTime() - start) / 1e9;
            if (process.exitValue() > most) {
                throw new IOException("exit code " + process.exitValue() + " of " + command);
            }
            return new Measured(wall, processor(Files.readString(times)), memory);
        } finally {
            Files.deleteIfExists(times);
        }
    }

    /** The second line is about the children: user and system time. */
    private static double processor(String times) {
        Matcher each = TIME.matcher(times.substring(times.indexOf('\n') + 1));
        double sum = 0;
        while (each.find()) {
            sum += Integer.parseInt(each.group(1)) * 60 + Double.parseDouble(each.group(2));
        }
        return sum;
    }

    /** The most that one of its children held so far, MB. */
    private static double peak(Process process) {
        return process.descendants()
                .mapToDouble(p -> {
                    try {
                        Matcher m = PEAK.matcher(Files.readString(Path.of("/proc/" + p.pid() + "/status")));
                        return m.find() ? Long.parseLong(m.group(1)) / 1000.0 : 0;
                    } catch (IOException e) {
                        // It has ended, or the system has no such file.
                        return 0;
                    }
                })
                .max()
                .orElse(0);
    }
}
