package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.intake.Evidence;
import org.mendedleaf.core.intake.Judgement;
import org.mendedleaf.core.intake.VersionBytes;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;

/**
 * How often the guard stops a real edit and lets a foreign content through, on generated pairs, by the real vault. Half of
 * the seeds set its limits; the others, given as SEED, are for the table that is published.
 *
 * <pre>{@code
 * GuardBench FOLDER [PAIRS] [SEED]
 * }</pre>
 */
public final class GuardBench {

    /** Files of a series stand in one folder, as invoices do. */
    private static final int SERIES = 5;

    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");

    private final Path folder;
    private final Prose prose;
    private final int pairs;
    private final Map<String, int[]> counts = new LinkedHashMap<>();

    private GuardBench(Path folder, int pairs, long seed) {
        this.folder = folder;
        this.pairs = pairs;
        this.prose = new Prose(new Random(seed));
    }

    /** Runs it and prints the table. */
    public static void main(String[] arguments) throws Exception {
        System.setProperty("java.awt.headless", "true");
        Path folder = Files.createDirectories(Path.of(arguments[0])).toRealPath();
        int pairs = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 100;
        long seed = arguments.length > 2 ? Long.parseLong(arguments[2]) : 2;
        new GuardBench(folder, pairs, seed).run();
    }

    private void run() throws IOException {
        for (Kind<?> kind : Kind.all(prose)) {
            kind(kind);
        }
        System.out.println("| kind | edits | through | stopped | stopped, % | foreign | caught | of these *unlikely* |"
                + " caught, % |");
        System.out.println("|---|---|---|---|---|---|---|---|---|");
        int[] sum = new int[5];
        for (Map.Entry<String, int[]> e : counts.entrySet()) {
            print(e.getKey(), e.getValue());
            for (int i = 0; i < sum.length; i++) {
                sum[i] += e.getValue()[i];
            }
        }
        print("**all**", sum);
    }

    /** Counts: edits through, edits stopped, foreign through, foreign to look at, foreign unlikely. */
    private static void print(String name, int[] n) {
        int edits = n[0] + n[1];
        int foreign = n[2] + n[3] + n[4];
        System.out.printf(
                Locale.ROOT,
                "| %s | %d | %d | %d | %.1f | %d | %d | %d | %.1f |%n",
                name,
                edits,
                n[0],
                n[1],
                100.0 * n[1] / edits,
                foreign,
                n[3] + n[4],
                n[4],
                100.0 * (n[3] + n[4]) / foreign);
    }

    private record Doc<T>(String path, T content, boolean series) {}

    private <T> void kind(Kind<T> kind) throws IOException {
        Path desk = Files.createDirectories(folder.resolve("desk " + kind.name.replaceAll("\\W+", "-")));
        Clock clock = Clock.fixed(NOW, ZoneOffset.UTC);
        int[] n = counts.computeIfAbsent(kind.name, k -> new int[5]);
        try (OpenVault vault = OpenVault.openOrCreate(
                folder.resolve("vault " + kind.name.replaceAll("\\W+", "-")), "bench", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
            List<Doc<T>> docs = documents(kind, desk);
            new Capture(vault, place, clock, (p, o) -> "bench").run(CaptureScope.WHOLE, Progress.NONE);
            Evidence evidence = new Evidence(vault, place, clock, VersionBytes.VAULT_ONLY);
            Path in = folder.resolve("incoming" + kind.ending);
            for (int i = 0; i < pairs; i++) {
                Doc<T> doc = docs.get(i % docs.size());
                Judgement edit = judge(evidence, in, kind.bytes(kind.edit(doc.content())), doc.path());
                if (!edit.isSame()) {
                    boolean through = edit.outcome() == Judgement.Outcome.SURE;
                    n[through ? 0 : 1]++;
                    if (!through && System.getenv("GUARD_DEBUG") != null) {
                        System.err.println(kind.name + " stopped: " + edit.reasons());
                    }
                }
                Judgement foreign = judge(evidence, in, kind.bytes(foreign(kind, docs, doc, i)), doc.path());
                n[
                        foreign.outcome() == Judgement.Outcome.SURE
                                ? 2
                                : foreign.outcome() == Judgement.Outcome.LOOK ? 3 : 4]++;
                if (foreign.outcome() == Judgement.Outcome.SURE && System.getenv("GUARD_DEBUG") != null) {
                    System.err.println(kind.name + " let through (" + i % 3 + "): " + foreign.reasons());
                }
            }
        }
    }

    /**
     * A third each: a new document, an edit of another file that is there, and one more of the same series. The first copy
     * of a form, whose others the guard has never seen, is no different from an edit; so there must be a series.
     */
    private <T> T foreign(Kind<T> kind, List<Doc<T>> docs, Doc<T> doc, int i) {
        return switch (i % 3) {
            case 0 -> kind.fresh();
            case 1 -> doc.series() ? kind.sibling(doc.content()) : kind.fresh();
            default -> {
                Doc<T> other = doc;
                while (other.path().equals(doc.path())) {
                    other = docs.get(prose.random().nextInt(docs.size()));
                }
                yield kind.edit(other.content());
            }
        };
    }

    private <T> List<Doc<T>> documents(Kind<T> kind, Path desk) throws IOException {
        List<Doc<T>> docs = new ArrayList<>();
        int count = Math.max(20, pairs / 2);
        while (docs.size() < count) {
            T first = kind.fresh();
            boolean series = docs.size() % 3 == 0;
            for (int k = 0; k < (series ? SERIES : 1); k++) {
                String path = "d" + docs.size() / 12 + "/" + (series ? "form " : "") + prose.name() + " " + docs.size()
                        + kind.ending;
                T content = k == 0 ? first : kind.sibling(first);
                Path file = desk.resolve(path);
                Files.createDirectories(file.getParent());
                Files.write(file, kind.bytes(content));
                Files.setLastModifiedTime(file, FileTime.from(NOW.minus(Duration.ofDays(2))));
                docs.add(new Doc<>(path, content, series));
            }
        }
        return docs;
    }

    private static Judgement judge(Evidence evidence, Path in, byte[] content, String path) throws IOException {
        Files.write(in, content);
        Files.setLastModifiedTime(in, FileTime.from(NOW.minusSeconds(System.nanoTime() % 86_400)));
        return evidence.judge(in, path);
    }
}
