package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.Intake;
import org.mendedleaf.core.intake.IntakePlan;
import org.mendedleaf.core.intake.IntakeRow;
import org.mendedleaf.core.intake.LineIndex;
import org.mendedleaf.core.intake.Matcher;
import org.mendedleaf.core.intake.NameTaken;
import org.mendedleaf.core.intake.VersionBytes;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.vault.Digest;

/**
 * Matching many incoming files against many lines: most are edits under decorated names, some are there already, some are
 * new. By name and content alone, and whole with reading, digests and the guard's word on each.
 */
final class IntakeBench {

    private static final int ROUNDS = 3;
    private static final int A_FOLDER = 100;
    private static final String[] DECORATIONS = {"%s (1)", "%s final", "Copy of %s", "%s v2", "%s 2026-05-04", "%s"};

    private final Path folder;
    private final int lines;
    private final int incoming;
    private final Table table;
    private final Prose prose = new Prose(new Random(5));

    IntakeBench(Path folder, double scale, Table table) {
        this.folder = folder;
        this.lines = (int) (100_000 * scale);
        this.incoming = (int) (2_000 * scale);
        this.table = table;
    }

    void run() throws IOException, InterruptedException {
        Path desk = folder.resolve("desk");
        Path in = Files.createDirectories(folder.resolve("in"));
        fill(desk, in);
        Clock clock = Clock.system(ZoneOffset.UTC);
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk.toRealPath(), Rhythm.BY_HAND, List.of(), clock, "Ines");
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            matching(vault, place, in);
            planning(vault, place, clock, in);
        }
    }

    private static String name(int i) {
        return "Paper of case %06d".formatted(i);
    }

    private String text(int paragraphs) {
        return String.join("\n\n", prose.paragraphs(paragraphs, 1));
    }

    private void fill(Path desk, Path in) throws IOException {
        int every = lines / incoming;
        for (int i = 0; i < lines; i++) {
            Path each = Files.createDirectories(desk.resolve("Folder %04d".formatted(i / A_FOLDER)));
            String text = text(8);
            Files.writeString(each.resolve(name(i) + ".md"), text);
            if (i % every == 0) {
                int k = i / every;
                String decorated = DECORATIONS[k % DECORATIONS.length].formatted(name(i));
                String content = k % 10 == 0 ? text : text + "\n\n" + text(1);
                boolean fresh = k % 10 == 1;
                Files.writeString(in.resolve((fresh ? "Something else " + k : decorated) + ".md"), content);
            }
        }
    }

    /** In memory: an index of all lines against a scan of all names for each file. */
    private void matching(OpenVault vault, Place place, Path in) throws IOException {
        List<Matcher.Incoming> files = new ArrayList<>();
        try (var all = Files.list(in)) {
            for (Path file : all.sorted().toList()) {
                byte[] none = new byte[32];
                none[0] = (byte) files.size();
                none[1] = (byte) (files.size() >> 8);
                files.add(new Matcher.Incoming(
                        file,
                        String.valueOf(file.getFileName()),
                        Files.size(file),
                        Files.getLastModifiedTime(file).toInstant(),
                        Digest.of(none)));
            }
        }
        double[] ours = new double[ROUNDS];
        double[] theirs = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            try (Reading reading = vault.read()) {
                Matcher.match(files, LineIndex.of(reading, place), "");
            }
            ours[i] = (System.nanoTime() - start) / 1e9;
            start = System.nanoTime();
            scan(vault, place, files);
            theirs[i] = (System.nanoTime() - start) / 1e9;
        }
        table.ratio(
                incoming + " names matched against " + lines + " lines, with reading the lines",
                "scan of all names for each",
                Table.median(ours),
                Table.median(theirs),
                "s",
                0);
    }

    /** What anybody would write first: for each file, look at every name whether it begins alike. */
    private static void scan(OpenVault vault, Place place, List<Matcher.Incoming> files) throws IOException {
        List<String> names = new ArrayList<>();
        try (Reading reading = vault.read()) {
            reading.folders()
                    .liveFiles(place)
                    .forEach(f -> names.add(
                            f.path().substring(f.path().lastIndexOf('/') + 1).toLowerCase(Locale.ROOT)));
        }
        int found = 0;
        for (Matcher.Incoming in : files) {
            String name = in.relative().toLowerCase(Locale.ROOT);
            for (String each : names) {
                if (name.contains(each.substring(0, each.length() - 3))) {
                    found++;
                }
            }
        }
        if (found == 0) {
            throw new IllegalStateException("the scan finds nothing");
        }
    }

    private void planning(OpenVault vault, Place place, Clock clock, Path in) throws IOException, InterruptedException {
        double[] ours = new double[ROUNDS];
        double[] theirs = new double[ROUNDS];
        IntakePlan plan = null;
        for (int i = 0; i < ROUNDS; i++) {
            theirs[i] = Shell.seconds(folder, "sha256sum in/* > /dev/null");
            long start = System.nanoTime();
            Evidence evidence = new Evidence(vault, place, clock, VersionBytes.VAULT_ONLY);
            plan = new Intake(vault, place, evidence).plan(List.of(in), "", NameTaken.VERSION, Progress.NONE);
            ours[i] = (System.nanoTime() - start) / 1e9;
        }
        table.ratio(
                "the same whole: read, matched, compared by the guard (" + counts(plan) + ")",
                "`sha256sum` of what comes in",
                Table.median(ours),
                Table.median(theirs),
                "s",
                0);
    }

    private static String counts(@org.jspecify.annotations.Nullable IntakePlan plan) {
        List<String> all = new ArrayList<>();
        for (IntakeRow.Fate fate : IntakeRow.Fate.values()) {
            long n = plan == null ? 0 : plan.count(fate);
            if (n > 0) {
                all.add(n + " " + fate.name().toLowerCase(Locale.ROOT).replace('_', ' '));
            }
        }
        return String.join(", ", all);
    }
}
