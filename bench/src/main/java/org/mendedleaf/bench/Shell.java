package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** Runs a command of the system and measures it. */
final class Shell {

    private Shell() {}

    /** Seconds that a shell command takes, from start to end. */
    static double seconds(Path folder, String command) throws IOException, InterruptedException {
        long start = System.nanoTime();
        run(folder, List.of("sh", "-c", command));
        return (System.nanoTime() - start) / 1e9;
    }

    /** Seconds that a Java program of this project takes, its own start included. */
    static double java(Path folder, String main, String... arguments) throws IOException, InterruptedException {
        List<String> command = new java.util.ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:+IgnoreUnrecognizedVMOptions",
                "--enable-native-access=ALL-UNNAMED",
                "--sun-misc-unsafe-memory-access=allow",
                "-XX:+UseSerialGC",
                "-Xmn160m",
                "-Xmx512m"));
        if (Runtime.version().feature() < 24) {
            command.remove("--sun-misc-unsafe-memory-access=allow");
        }
        String archive = System.getProperty("bench.archive", "");
        if (!archive.isEmpty()) {
            command.add("-XX:SharedArchiveFile=" + archive);
        }
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), main));
        command.addAll(List.of(arguments));
        long start = System.nanoTime();
        run(folder, command);
        return (System.nanoTime() - start) / 1e9;
    }

    private static void run(Path folder, List<String> command) throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD);
        builder.environment().put("MENDED_LEAF_HOME", folder.resolve("home").toString());
        builder.environment().put("LC_ALL", "C.UTF-8");
        int code = builder.start().waitFor();
        if (code != 0) {
            throw new IOException("exit code " + code + " of " + command);
        }
    }
}
