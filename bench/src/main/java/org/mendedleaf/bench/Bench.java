package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.unfold.Unfolding;

/**
 * Measures, each against its baseline in the same run and in turns, medians of so many rounds.
 *
 * <pre>{@code
 * Bench FOLDER [SCALE]     SCALE 1 is 1.1 GB and 100,000 files, 0.1 a tenth of it
 * }</pre>
 */
public final class Bench {

    private static final String CLI = "org.mendedleaf.cli.Main";
    /** A program that has just begun is still being compiled. */
    private static final int SAVES_OF_A_BEGINNING = 300;

    private static final int SAVES = 500;
    private static final int ROUNDS = 3;

    private final Path folder;
    private final double scale;
    private final Table table = new Table();

    private Bench(Path folder, double scale) {
        this.folder = folder;
        this.scale = scale;
    }

    /** Runs all. */
    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createDirectories(Path.of(arguments[0])).toRealPath();
        Bench bench = new Bench(folder, arguments.length > 1 ? Double.parseDouble(arguments[1]) : 1);
        Table.head();
        if (arguments.length > 2 && arguments[2].equals("intake")) {
            new IntakeBench(folder.resolve("intake"), bench.scale, bench.table).run();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("mend")) {
            new MendBench(folder.resolve("mend"), bench.scale, bench.table).run();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("retention")) {
            new RetentionBench(folder.resolve("retention"), (int) (1000 * bench.scale), bench.table).run();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("look")) {
            new LookBench(folder.resolve("look"), bench.scale, bench.table).run();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("find")) {
            new LookBench(Files.createDirectories(folder.resolve("find")), bench.scale, bench.table).finding();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("hostile")) {
            HostileBench hostile = new HostileBench(folder, bench.table);
            hostile.run();
            hostile.guard();
            hostile.large();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("unfold")) {
            new UnfoldBench(folder.resolve("unfold"), bench.table).run();
            new OldVersionsBench(folder.resolve("old"), (int) (1000 * bench.scale), bench.table).run();
            return;
        }
        if (arguments.length > 2 && arguments[2].equals("bulk")) {
            bench.bulk("small", (int) (20_000 * bench.scale), 1.5, 1);
            bench.bulk("large", 8, 1.2, 1);
            bench.edits();
            return;
        }
        boolean momentsOnly = arguments.length > 2 && arguments[2].equals("moments");
        if (!momentsOnly) {
            new SystemsBench(folder.resolve("systems"), bench.scale, bench.table).run();
        }
        if (arguments.length > 2 && arguments[2].equals("systems")) {
            return;
        }
        if (momentsOnly) {
            bench.looks();
            new Moments(folder.resolve("moments"), (int) (1000 * bench.scale), bench.table).run();
            return;
        }
        bench.bulk("small", (int) (20_000 * bench.scale), 1.5, 1);
        bench.bulk("large", 8, 1.2, 1);
        bench.edits();
        new UnfoldBench(folder.resolve("unfold"), bench.table).run();
        new OldVersionsBench(folder.resolve("old"), (int) (1000 * bench.scale), bench.table).run();
        new LookBench(folder.resolve("look"), bench.scale, bench.table).run();
        new MendBench(folder.resolve("mend"), bench.scale, bench.table).run();
        bench.binary();
        bench.looks();
        new Moments(folder.resolve("moments"), (int) (1000 * bench.scale), bench.table).run();
        new IntakeBench(folder.resolve("intake"), bench.scale, bench.table).run();
        new RetentionBench(folder.resolve("retention"), (int) (1000 * bench.scale), bench.table).run();
    }

    private void delete(String name) throws IOException {
        Path path = folder.resolve(name);
        if (Files.exists(path)) {
            try (Stream<Path> all = Files.walk(path)) {
                for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(each);
                }
            }
        }
    }

    /** First capture, stored bytes, full check and restore of a heap of files, each in processes of their own. */
    private void bulk(String name, int files, double captureTarget, double restoreTarget) throws Exception {
        long bytes = (long) (1_100_000_000L * scale);
        Path data = folder.resolve(name);
        if (name.equals("small")) {
            Corpus.office(data, files, bytes / 2);
        } else {
            Corpus.large(data, files, bytes);
        }
        String what = name.equals("small") ? files + " files" : files + " large files";
        Measured[] ours = new Measured[ROUNDS];
        Measured[] plain = new Measured[ROUNDS];
        Measured[] kept = new Measured[ROUNDS];
        String pack = "tar cf - " + name + " | zstd -3 -T2 -q -o all.tar.zst";
        for (int i = 0; i < ROUNDS; i++) {
            delete("vault");
            delete("home");
            plain[i] = packed(pack);
            kept[i] = packed(
                    pack + " && sync all.tar.zst && find " + name + " -type f -print0 | xargs -0 sha256sum > all.sums");
            ours[i] = Shell.measureJava(folder, CLI, "protect", name, "--vault", "vault", "--every", "hand");
        }
        table.processes("first capture, " + what, "`tar \\| zstd -3 -T2`", ours, plain, captureTarget);
        table.processes("the same", "`tar \\| zstd -3 -T2; sync; sha256sum`", ours, kept, 1);
        double stored = size(folder.resolve("vault/packs"));
        table.ratio(
                "stored bytes, " + what,
                "the `.tar.zst`",
                stored / 1e6,
                Files.size(folder.resolve("all.tar.zst")) / 1e6,
                "MB",
                1.06);
        for (int i = 0; i < ROUNDS; i++) {
            plain[i] = Shell.measure(folder, "cat vault/packs/* > /dev/null");
            kept[i] = Shell.measure(folder, "zstd -dc -q all.tar.zst | sha256sum");
            ours[i] = Shell.measureJava(folder, CLI, "check", "--full", "--vault", "vault");
        }
        table.processes("full check, " + what, "`cat` of the packs", ours, plain, 2);
        table.processes("the same", "`zstd -dc \\| sha256sum`", ours, kept, 0);
        // The same files in two archives, one for each processor.
        Shell.measure(
                folder,
                "find " + name + " -type f | sort > list && split -n l/2 list list. && for i in aa ab; do"
                        + " tar cf - -T list.$i | zstd -3 -T2 -q -f -o half.$i; done");
        for (int i = 0; i < ROUNDS; i++) {
            kept[i] = Shell.measure(
                    folder,
                    "zstd -dc -q half.aa | sha256sum > sum.aa & zstd -dc -q half.ab | sha256sum > sum.ab & wait");
            ours[i] = Shell.measureJava(folder, CLI, "check", "--deep", "--vault", "vault");
        }
        table.processes("`check --deep`, " + what, "`zstd -dc \\| sha256sum` of two halves at once", ours, kept, 1.2);
        String now = Instant.now().plusSeconds(0).toString();
        Measured[] copied = new Measured[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            delete("out");
            plain[i] = Shell.measure(folder, "mkdir out && zstd -dc -q all.tar.zst | tar xf - -C out");
            delete("out");
            kept[i] = Shell.measure(
                    folder,
                    "mkdir out && zstd -dc -q all.tar.zst | tar xf - -C out && sync -f out && cd out"
                            + " && sha256sum --quiet -c ../all.sums");
            delete("out");
            copied[i] = Shell.measure(folder, "cp -r " + name + " out");
            delete("out");
            delete("back");
            ours[i] = Shell.measureJava(folder, CLI, "restore", name, "--at", now, "--to", "back", "--vault", "vault");
        }
        table.processes("restore, verified, " + what, "`zstd -dc \\| tar x`", ours, plain, 0);
        table.processes("the same", "`zstd -dc \\| tar x; sync; sha256sum -c`", ours, kept, restoreTarget);
        table.processes("the same", "`cp -r`", ours, copied, 0);
        delete("out");
        delete("back");
        delete(name);
        delete("vault");
        delete("home");
    }

    private Measured packed(String command) throws Exception {
        Files.deleteIfExists(folder.resolve("all.tar.zst"));
        return Shell.measure(folder, command);
    }

    private static long size(Path path) throws IOException {
        try (Stream<Path> all = Files.walk(path)) {
            return all.filter(Files::isRegularFile)
                    .mapToLong(p -> p.toFile().length())
                    .sum();
        }
    }

    private interface Edit {
        byte[] version(int number) throws IOException;
    }

    private double growth(String name, int versions, Edit edit, boolean overFull) throws IOException {
        Path desk = Files.createDirectories(folder.resolve(name));
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve(name + "-vault"), "bench", Duration.ZERO)) {
            Clock clock = Clock.system(ZoneOffset.UTC);
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
            Capture capture = new Capture(vault, place, clock, (p, o) -> o);
            long full = 0;
            long first = 0;
            for (int i = 0; i <= versions; i++) {
                byte[] content = edit.version(i);
                full += content.length;
                Files.write(desk.resolve("file"), content);
                Files.setLastModifiedTime(
                        desk.resolve("file"), FileTime.from(Instant.now().minusSeconds(1000 - i)));
                capture.run(CaptureScope.WHOLE, Progress.NONE);
                if (i == 0) {
                    first = size(vault.folder().packs());
                }
            }
            Unfolding.atOnce(vault, clock).run(Progress.NONE);
            new Reclaim(vault, clock).run(Progress.NONE);
            long stored = size(vault.folder().packs());
            return overFull ? (double) stored / full : (double) (stored - first) / versions;
        } finally {
            delete(name);
            delete(name + "-vault");
        }
    }

    private void edits() throws IOException {
        Random random = new Random(21);
        byte[][] pictures = new byte[8][];
        for (int i = 0; i < pictures.length; i++) {
            pictures[i] = Corpus.noise(random, 150_000);
        }
        byte[] text = Corpus.text(random, 200_000);
        double images = growth("images", 10, n -> Corpus.document(edited(text, n), pictures), true);
        byte[] longText = Corpus.text(random, 1_500_000);
        double texts = growth("texts", 10, n -> Corpus.document(edited(longText, n), new byte[0][]), true);
        table.ratio("ten small edits, image-heavy document: stored", "full copies", images, 1, "", 0.18);
        table.ratio("ten small edits, text-heavy document: stored", "full copies", texts, 1, "", 0.12);
    }

    /** A sentence more, somewhere, for each edit. */
    private static byte[] edited(byte[] text, int edits) {
        byte[] now = text;
        for (int i = 1; i <= edits; i++) {
            byte[] sentence = ("a sentence that was put in as number " + i + ". ")
                    .getBytes(java.nio.charset.StandardCharsets.US_ASCII);
            int at = (int) ((long) text.length * (i * 37 % 100) / 100);
            byte[] next = new byte[now.length + sentence.length];
            System.arraycopy(now, 0, next, 0, at);
            System.arraycopy(sentence, 0, next, at, sentence.length);
            System.arraycopy(now, at, next, at + sentence.length, now.length - at);
            now = next;
        }
        return now;
    }

    private void binary() throws IOException {
        Random random = new Random(31);
        byte[] content = Corpus.noise(random, (int) (200_000_000 * Math.min(1, scale * 2)));
        double each = growth(
                "binary",
                5,
                n -> {
                    if (n > 0) {
                        for (int i = 0; i < 10; i++) {
                            int at = random.nextInt(content.length - 100);
                            System.arraycopy(Corpus.noise(random, 100), 0, content, at, 100);
                        }
                    }
                    return content;
                },
                false);
        table.absolute("200 MB binary, ten edits of 100 bytes in place: stored a save", each / 1000, "kB", 600);
    }

    /** From the end of the quiet time until it is known, as the program does it that hears of changes. */
    private void oneSave(OpenVault vault, Place place, Path desk, int files) throws IOException {
        java.lang.management.OperatingSystemMXBean system =
                java.lang.management.ManagementFactory.getOperatingSystemMXBean();
        double[] wall = new double[SAVES];
        double[] processor = new double[SAVES];
        for (int i = 0; i < wall.length; i++) {
            Path file = desk.resolve("d0001/file000101.txt");
            Files.writeString(file, "saved for the " + i + ". time");
            Files.setLastModifiedTime(file, FileTime.from(Instant.now().plusSeconds(i)));
            long before = ((com.sun.management.OperatingSystemMXBean) system).getProcessCpuTime();
            long start = System.nanoTime();
            new Capture(vault, place, Clock.system(ZoneOffset.UTC), (p, o) -> o)
                    .run(new CaptureScope.Folders(java.util.Set.of("d0001")), Progress.NONE);
            wall[i] = (System.nanoTime() - start) / 1e6;
            processor[i] = (((com.sun.management.OperatingSystemMXBean) system).getProcessCpuTime() - before) / 1e6;
        }
        table.absolute(
                "one save among " + files + " files, until it is known",
                Table.median(Arrays.copyOfRange(wall, SAVES_OF_A_BEGINNING, SAVES)),
                "ms",
                50);
        // The system counts it in steps of ten milliseconds.
        double each =
                Arrays.stream(processor, SAVES_OF_A_BEGINNING, SAVES).average().orElseThrow();
        table.absolute("the same, processor time", each, "ms", 10);
    }

    private void looks() throws Exception {
        int files = (int) (100_000 * scale);
        Path desk = Files.createDirectories(folder.resolve("many"));
        Corpus.many(desk, files);
        Shell.java(folder, CLI, "protect", "many", "--vault", "vault", "--every", "hand");
        double[] resident = new double[ROUNDS * 2];
        double[] cold = new double[ROUNDS * 2];
        double[] find = new double[ROUNDS * 2];
        double[] beyond = new double[ROUNDS * 5];
        try (OpenVault vault = OpenVault.open(folder.resolve("vault"), "bench", Duration.ofSeconds(5))) {
            Place place;
            try (Reading reading = vault.read()) {
                place = reading.places().get(0);
            }
            Capture capture = new Capture(vault, place, Clock.system(ZoneOffset.UTC), (p, o) -> o);
            for (int i = 0; i < 5; i++) {
                capture.run(CaptureScope.WHOLE, Progress.NONE);
            }
            for (int i = 0; i < resident.length; i++) {
                find[i] = Shell.seconds(folder, "find many -printf '%s %T@ %i %p\\n' > /dev/null");
                long start = System.nanoTime();
                capture.run(CaptureScope.WHOLE, Progress.NONE);
                resident[i] = (System.nanoTime() - start) / 1e9;
                cold[i] = Shell.java(folder, CLI, "capture", "many", "--vault", "vault");
            }
            oneSave(vault, place, desk, files);
            Snapshots snapshots =
                    new Snapshots(new WorkContext(vault, place, Clock.system(ZoneOffset.UTC), (p, o) -> o, "bench"));
            // In turns, each against the look beside it.
            for (int i = 0; i < beyond.length; i++) {
                long start = System.nanoTime();
                capture.run(CaptureScope.WHOLE, Progress.NONE);
                long between = System.nanoTime();
                snapshots.take("", "", Progress.NONE);
                beyond[i] = (System.nanoTime() - between - (between - start)) / 1e6;
            }
        }
        table.ratio(
                "look at " + files + " unchanged files, resident",
                "`find -printf`",
                Table.median(resident),
                Table.median(find),
                "s",
                0.6);
        table.ratio("the same, cold process", "`find -printf`", Table.median(cold), Table.median(find), "s", 3.5);
        table.absolute("snapshot of " + files + " unchanged files, beyond the look", Table.median(beyond), "ms", 20);
        System.out.println("<!-- find: " + Arrays.toString(find) + " -->");
        delete("many");
        delete("vault");
        delete("home");
    }
}
