package org.mendedleaf.bench;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestoreItem;

/**
 * Another process saves into files, by writing and by replacing them, while this one restores or removes those very files:
 * every content that was saved must be in a version or in the folder afterwards.
 *
 * <pre>{@code
 * RacedSaves [SAVES] [SEED]
 * }</pre>
 */
public final class RacedSaves {

    private static final int FILES = 10;
    private static final int ROUNDS_PER_VAULT = 50;

    private final Random random;

    private RacedSaves(long seed) {
        random = new Random(seed);
    }

    /** Runs; with {@code saver FOLDER} it is the process that saves. */
    public static void main(String[] arguments) throws Exception {
        if (arguments.length > 1 && arguments[0].equals("saver")) {
            saver(Path.of(arguments[1]));
            return;
        }
        int saves = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 30_000;
        RacedSaves run = new RacedSaves(arguments.length > 1 ? Long.parseLong(arguments[1]) : 11);
        int done = 0;
        while (done < saves) {
            Path folder = Files.createTempDirectory("mended-leaf-raced");
            int rounds = Math.min(ROUNDS_PER_VAULT, (saves - done + FILES - 1) / FILES);
            List<String> lost = run.inOneVault(folder, rounds);
            done += rounds * FILES;
            if (!lost.isEmpty()) {
                System.out.println("lost of " + done + ": " + lost + "; kept for a look: " + folder);
                System.exit(1);
            }
            if (done % 1000 == 0 || done >= saves) {
                System.out.println(done + " saves while their files were replaced or removed, none lost");
            }
            delete(folder);
        }
    }

    private static void delete(Path folder) throws IOException {
        try (var all = Files.walk(folder)) {
            for (Path path : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }

    /** Reads "SAVE path content how delay" and says "SAVED" when it is done. */
    private static void saver(Path folder) throws IOException {
        try (BufferedReader in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8))) {
            System.out.println("READY");
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                String[] words = line.split(" ", -1);
                LockSupport.parkNanos(TimeUnit.MICROSECONDS.toNanos(Long.parseLong(words[3])));
                Path file = folder.resolve("desk").resolve(words[0]);
                if (words[2].equals("write")) {
                    try (OutputStream out = Files.newOutputStream(file)) {
                        out.write(words[1].substring(0, 3).getBytes(StandardCharsets.UTF_8));
                        out.write(words[1].substring(3).getBytes(StandardCharsets.UTF_8));
                    }
                } else {
                    Path beside = folder.resolve("beside");
                    Files.writeString(beside, words[1]);
                    Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE);
                }
                System.out.println("SAVED");
            }
        }
    }

    private List<String> inOneVault(Path folder, int rounds) throws Exception {
        Clock clock = Clock.system(ZoneOffset.UTC);
        Authors authors = (path, owner) -> owner;
        Path desk = Files.createDirectories(folder.resolve("desk")).toRealPath();
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-cp",
                        System.getProperty("java.class.path"),
                        RacedSaves.class.getName(),
                        "saver",
                        folder.toString())
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "raced saves", Duration.ofSeconds(5));
                BufferedReader said = process.inputReader(StandardCharsets.UTF_8);
                PrintWriter saver = new PrintWriter(process.getOutputStream(), true, StandardCharsets.UTF_8)) {
            said.readLine();
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
            Map<String, String> all = new HashMap<>();
            for (int round = 0; round < rounds; round++) {
                List<RestoreItem> requested = prepare(vault, place, desk, clock, authors, round);
                for (int f = 0; f < FILES; f++) {
                    String content = "save-" + round + "-" + f + "-" + random.nextInt(1000);
                    all.put(content, "file" + f);
                    saver.println("file" + f + " " + content + " " + (random.nextBoolean() ? "write" : "replace") + " "
                            + random.nextInt(2500));
                }
                Recovery recovery = new Recovery(new WorkContext(vault, place, clock, authors, "Tomas"));
                if (random.nextInt(4) == 0) {
                    recovery.remove(requested.stream().map(RestoreItem::target).toList());
                } else {
                    recovery.restore(requested, Collision.REPLACE, Progress.NONE);
                }
                for (int f = 0; f < FILES; f++) {
                    said.readLine();
                }
                new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
            }
            return lost(vault, place, desk, clock, authors, all);
        } finally {
            process.destroy();
        }
    }

    /** Each file gets a second version that the restore replaces by the first. */
    private List<RestoreItem> prepare(OpenVault vault, Place place, Path desk, Clock clock, Authors authors, int round)
            throws IOException {
        for (int f = 0; f < FILES; f++) {
            Files.writeString(desk.resolve("file" + f), "before round " + round + " in " + f);
        }
        new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
        List<RestoreItem> requested = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (int f = 0; f < FILES; f++) {
                Line line = reading.line(place, "file" + f).orElseThrow();
                requested.add(new RestoreItem(line.version(1).orElseThrow(), "file" + f));
            }
        }
        return requested;
    }

    private List<String> lost(
            OpenVault vault, Place place, Path desk, Clock clock, Authors authors, Map<String, String> all)
            throws Exception {
        // What is still aside is looked at by the next capture.
        for (int i = 0; i < 100 && isAside(desk); i++) {
            Thread.sleep(100);
            new Capture(vault, place, clock, authors).run(CaptureScope.WHOLE, Progress.NONE);
        }
        Set<String> found = new HashSet<>();
        try (Reading reading = vault.read()) {
            for (int f = 0; f < FILES; f++) {
                Line line = reading.line(place, "file" + f).orElseThrow();
                for (Version v : line.versions()) {
                    found.add(new String(reading.contents().head(v.recipe(), 1000), StandardCharsets.UTF_8));
                }
            }
        }
        List<String> lost = new ArrayList<>(all.keySet());
        lost.removeAll(found);
        VaultCheck.Report report = new VaultCheck(vault).run(true, Progress.NONE);
        lost.addAll(report.damages());
        return lost;
    }

    private static boolean isAside(Path desk) throws IOException {
        try (var files = Files.list(desk)) {
            return files.anyMatch(f -> String.valueOf(f.getFileName()).startsWith("."));
        }
    }
}
