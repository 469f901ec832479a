package org.mendedleaf.core.service;

import java.io.File;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** How this program is started again, as another process, and how commands of the system are run. */
public final class Programs {

    /** In the environment of the script that starts this program: it starts the service again when that dies. */
    static final String RESTART = "MENDED_LEAF_RESTART=yes";

    private static final long MOST_SECONDS = 20;
    private static final boolean WINDOWS = File.separatorChar == '\\';

    private Programs() {}

    /** What starts the command line: the script that this program was started by, or Java with the same classes. */
    static List<String> commandLine() {
        String launcher = System.getProperty("mendedleaf.launcher", "");
        return launcher.isEmpty() ? java("-Xmx512m", "org.mendedleaf.cli.Main") : List.of(launcher);
    }

    /** What starts the window: the same, or the starter that a package brings. */
    public static List<String> window() {
        String launcher = System.getProperty("mendedleaf.launcher", "");
        String packaged = System.getProperty("jpackage.app-path", "");
        if (!launcher.isEmpty() || !packaged.isEmpty()) {
            return List.of(launcher.isEmpty() ? packaged : launcher);
        }
        return java("-Xmx1g", "org.mendedleaf.desktop.shell.Launch");
    }

    private static List<String> java(String memory, String name) {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        return List.of(java, memory, "-cp", System.getProperty("java.class.path"), name);
    }

    /** Settings that are not in their usual place have to be named to what a session starts. */
    static List<String> withSettings(Path settings, Map<String, String> environment, List<String> command) {
        if (environment.getOrDefault("MENDED_LEAF_HOME", "").isEmpty() || WINDOWS) {
            return command;
        }
        List<String> words = new ArrayList<>(List.of("/usr/bin/env", "MENDED_LEAF_HOME=" + settings));
        words.addAll(command);
        return words;
    }

    /** The same, started again by its script when it dies, where the system does not do so. */
    static List<String> restarted(List<String> command) {
        if (WINDOWS) {
            return command;
        }
        List<String> words = new ArrayList<>(List.of("/usr/bin/env", RESTART));
        words.addAll(command);
        return words;
    }

    /** Starts a program that outlives this one, and the terminal that started it. */
    public static void spawn(List<String> command) throws IOException {
        List<String> words = new ArrayList<>();
        if (Files.isExecutable(Path.of("/usr/bin/setsid"))) {
            words.add("/usr/bin/setsid");
        }
        words.addAll(command);
        new ProcessBuilder(words)
                .redirectInput(ProcessBuilder.Redirect.from(new File(WINDOWS ? "NUL" : "/dev/null")))
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
    }

    /** Runs a command to its end, 20 seconds at most (then 124), and returns its exit code; 127 where there is no such command. */
    static int run(List<String> words) throws IOException {
        Process process;
        try {
            process = new ProcessBuilder(words)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
        } catch (IOException e) {
            return 127;
        }
        try {
            if (!process.waitFor(MOST_SECONDS, TimeUnit.SECONDS)) {
                process.destroyForcibly();
                return 124;
            }
            return process.exitValue();
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
    }
}
