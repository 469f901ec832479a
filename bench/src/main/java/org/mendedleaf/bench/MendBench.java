package org.mendedleaf.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import javax.imageio.ImageIO;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.check.VaultCheck;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Detectors;
import org.mendedleaf.core.findings.History;
import org.mendedleaf.core.findings.SavedVersion;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.vault.Digest;

/** Health, findings, full checks and copies of the vault, each beside general tools on the same bytes in the same run. */
final class MendBench {

    private static final int ROUNDS = 3;

    private final Path folder;
    private final double scale;
    private final Table table;

    MendBench(Path folder, double scale, Table table) {
        this.folder = folder;
        this.scale = scale;
        this.table = table;
    }

    private interface Work {
        void run() throws Exception;
    }

    private static double once(Work work) throws Exception {
        long began = System.nanoTime();
        work.run();
        return (System.nanoTime() - began) / 1e9;
    }

    void run() throws Exception {
        Files.createDirectories(folder);
        health();
        detectors((int) (1_000_000 * scale));
        vault();
    }

    private void health() throws Exception {
        Random random = new Random(5);
        byte[] text = Corpus.text(random, 40_000);
        health("text of 40 kB", "a.txt", text);
        health("office document of 90 kB", "a.odt", Corpus.document(text, new byte[][] {Corpus.noise(random, 80_000)}));
        health("picture of 400 x 300", "a.png", picture(random));
        health("data of 100 kB", "a.bin", Corpus.noise(random, 100_000));
    }

    private static byte[] picture(Random random) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(Photographs.photograph(400, 300, random), "png", out);
        return out.toByteArray();
    }

    private static Health good() throws IOException {
        try (DocumentProcess process = new DocumentProcess(Duration.ofSeconds(60), 512)) {
            return process.health("a.txt", "some words".getBytes(StandardCharsets.UTF_8));
        }
    }

    private void health(String what, String name, byte[] content) throws Exception {
        try (DocumentProcess process = new DocumentProcess(Duration.ofSeconds(60), 512)) {
            process.health(name, content);
            int times = 200;
            double all = once(() -> {
                for (int i = 0; i < times; i++) {
                    content[content.length - 1] ^= (byte) i;
                    process.health(name, content);
                }
            });
            table.absolute("health of a " + what, times / all, "a second", 0);
        }
    }

    /** A year of saves, a hundred files with as many versions each for each ten thousand. */
    private void detectors(int saves) throws Exception {
        int lines = Math.max(10, saves / 100);
        Random random = new Random(9);
        Instant begin = Instant.parse("2026-01-01T08:00:00Z");
        List<SavedVersion> all = new ArrayList<>(saves);
        int[] numbers = new int[lines];
        long[] sizes = new long[lines];
        Arrays.fill(sizes, 20_000);
        Optional<Health> good = Optional.of(good());
        Optional<Resemblance> alike = Optional.of(new Resemblance(95, false, -1));
        for (int i = 0; i < saves; i++) {
            int line = random.nextInt(lines);
            int number = ++numbers[line];
            long before = sizes[line];
            sizes[line] += random.nextInt(200) - 80;
            String path = "folder " + line % 97 + "/file " + line + (line % 3 == 0 ? ".ods" : ".odt");
            all.add(new SavedVersion(
                    line + 1,
                    number,
                    number - 1,
                    path,
                    path,
                    begin.plusSeconds((long) (i * (300.0 * 86_400 / saves))),
                    "Person " + line % 7,
                    sizes[line],
                    number == 1 ? 0 : before,
                    Digest.of(Digest.sha256().digest((line + " " + number).getBytes(StandardCharsets.UTF_8))),
                    false,
                    false,
                    good,
                    number == 1 ? Optional.empty() : alike));
        }
        int[] found = {0};
        double ours = once(
                () -> found[0] = Detectors.find(new History(1, all, List.of())).size());
        List<SavedVersion> sorted = new ArrayList<>(all);
        double theirs = once(() ->
                sorted.sort(java.util.Comparator.comparing(SavedVersion::path).thenComparing(SavedVersion::at)));
        table.ratio(
                String.format(Locale.ROOT, "all detectors over %,d saves", saves),
                "sorting them by name and time",
                ours,
                theirs,
                "s",
                0);
    }

    private void vault() throws Exception {
        Path desk = Files.createDirectories(folder.resolve("desk"));
        long bytes = (long) (400_000_000 * scale);
        Corpus.office(desk.resolve("files"), (int) (7000 * scale) + 10, bytes);
        Clock clock = Clock.system(ZoneOffset.UTC);
        Path root = folder.resolve("vault");
        try (OpenVault vault = OpenVault.openOrCreate(root, "bench", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk.toRealPath(), Rhythm.BY_HAND, List.of(), clock, "Ines");
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            check(vault);
            copy(vault, place, desk, clock);
        }
    }

    private void check(OpenVault vault) throws Exception {
        double[] ours = new double[ROUNDS];
        double[] read = new double[ROUNDS];
        double[] proved = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            read[i] = Shell.seconds(folder, "cat vault/packs/* > /dev/null");
            proved[i] = Shell.seconds(folder, "cat vault/packs/* | sha256sum > /dev/null");
            ours[i] = once(() -> new VaultCheck(vault).run(true, Progress.NONE));
        }
        double check = Table.median(ours);
        table.ratio("full check, in this process", "`cat` of the packs", check, Table.median(read), "s", 0);
        table.ratio("the same", "`cat` of the packs into `sha256sum`", check, Table.median(proved), "s", 0);
    }

    private void copy(OpenVault vault, Place place, Path desk, Clock clock) throws Exception {
        Copies copies = new Copies(vault, clock, "Ines");
        double theirs = Shell.seconds(folder, "mkdir plain && cp -r vault/packs plain/ && sync -f plain");
        double proved = Shell.seconds(
                folder,
                "mkdir proved && cp -r vault/packs proved/ && sync -f proved && cmp vault/packs/00000001.pack"
                        + " proved/packs/00000001.pack && cat proved/packs/* | sha256sum > /dev/null");
        VaultCopy copy = copies.add(folder.resolve("copy")).copy();
        double ours = once(() -> copies.run(copy, Progress.NONE));
        table.ratio("first copy of the vault, read back", "`cp; sync` of its packs", ours, theirs, "s", 0);
        table.ratio("the same", "`cp; sync; sha256sum` of its packs", ours, proved, "s", 0);
        double[] steps = new double[ROUNDS];
        double[] again = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            Files.write(desk.resolve("new " + i), Corpus.noise(new Random(i), 300_000));
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            steps[i] = once(() -> copies.run(copy, Progress.NONE));
            again[i] = Shell.seconds(folder, "cp vault/packs/$(ls vault/packs | tail -1) plain/ && sync -f plain");
        }
        table.ratio(
                "bringing the copy in step after a save of 300 kB",
                "`cp; sync` of the newest pack",
                Table.median(steps),
                Table.median(again),
                "s",
                0);
    }
}
