package org.mendedleaf.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Random;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.compare.TwoMoments;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;

/** Listings of folders and trees at any moment of a long history: folders of 100 files, one of 200, 20 versions each. */
final class Moments {

    private static final int VERSIONS = 20;
    private static final Instant START = Instant.parse("2025-01-01T00:00:00Z");

    private final Path folder;
    private final int folders;
    private final Table table;

    Moments(Path folder, int folders, Table table) {
        this.folder = folder;
        this.folders = folders;
        this.table = table;
    }

    void run() throws IOException {
        Path desk = Files.createDirectories(folder.resolve("desk"));
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ZERO)) {
            Place place = fill(vault, desk);
            measure(vault, place);
        }
    }

    private static StoredContent content(Random random) {
        byte[] digest = new byte[32];
        random.nextBytes(digest);
        return new StoredContent(Recipe.EMPTY, random.nextInt(100_000), Digest.of(digest), null);
    }

    private static FileAttributes facts(Instant at) {
        return new FileAttributes(EntryKind.FILE, 0, at.toEpochMilli() * 1_000_000, 0b110_100_100, "bench");
    }

    private Place fill(OpenVault vault, Path desk) throws IOException {
        Random random = new Random(41);
        try (WriteSession session = vault.write()) {
            Place place = new PlaceWriter(session).protect(desk, "desk", PlaceChange.to(Rhythm.BY_HAND), START);
            LineWriter lines = new LineWriter(session);
            long top = lines.folder(place, "");
            for (int f = 0; f < folders; f++) {
                String name = "d%04d".formatted(f);
                lines.folderAppears(place, top, "", name, facts(START), START);
                long id = lines.folder(place, name);
                int files = f == 0 ? 200 : 100;
                for (int i = 0; i < files; i++) {
                    lines.newLine(place, id, "file%03d.txt".formatted(i), content(random), arrival(START));
                }
                for (int v = 1; v < VERSIONS; v++) {
                    for (LiveEntry live : lines.live(id)) {
                        Instant at = START.plus(Duration.ofHours(v * 400L + random.nextInt(399)));
                        lines.changed(place, live, content(random), arrival(at));
                    }
                }
                if (f % 20 == 0) {
                    session.commit();
                }
            }
            session.commit();
            return place;
        }
    }

    private static LineWriter.Arrival arrival(Instant at) {
        return new LineWriter.Arrival(facts(at), Origin.SAVED, 0, at, at, "");
    }

    private void measure(OpenVault vault, Place place) throws IOException {
        Random random = new Random(43);
        try (Reading reading = vault.read()) {
            double[] folderMillis = new double[400];
            for (int i = 0; i < folderMillis.length + 100; i++) {
                Instant at = START.plus(Duration.ofHours(random.nextInt(8000)));
                long start = System.nanoTime();
                int n = reading.folders().listing(place, "d0000", at, false).size();
                double millis = (System.nanoTime() - start) / 1e6;
                if (n != 200) {
                    throw new IOException("expected 200 entries, got " + n);
                }
                if (i >= 100) {
                    folderMillis[i - 100] = millis;
                }
            }
            Arrays.sort(folderMillis);
            table.absolute(
                    "folder of 200 files at any moment, " + folders * 100 + " x 20: p95",
                    folderMillis[(int) (folderMillis.length * 0.95)],
                    "ms",
                    5);
            table.absolute(
                    "whole tree at any moment, the slowest of nine",
                    slowest(at -> reading.folders().tree(place, "", at).size()),
                    "ms",
                    120);
            table.absolute(
                    "whole tree with its versions at any moment, the slowest of nine",
                    slowest(at ->
                            reading.folders().treeAt(place, "", at).files().size()),
                    "ms",
                    0);
            table.absolute(
                    "comparing a moment with now, the slowest of nine",
                    slowest(at -> TwoMoments.of(reading.folders().difference(place, "", at, Moment.FAR))
                            .changes()
                            .size()),
                    "ms",
                    0);
            table.absolute(
                    "comparing two moments a week apart, the slowest of nine",
                    slowest(at -> TwoMoments.of(
                                    reading.folders().difference(place, "", at, at.plus(Duration.ofDays(7))))
                            .changes()
                            .size()),
                    "ms",
                    0);
        }
    }

    private interface Question {
        int ask(Instant at) throws IOException;
    }

    /** Milliseconds of the slowest of nine moments over the whole history, each asked twice. */
    private static double slowest(Question question) throws IOException {
        double slowest = 0;
        for (int i = 0; i < 9; i++) {
            Instant at = START.plus(Duration.ofHours(8000L * i / 8));
            double best = Double.MAX_VALUE;
            for (int round = 0; round < 2; round++) {
                long start = System.nanoTime();
                question.ask(at);
                best = Math.min(best, (System.nanoTime() - start) / 1e6);
            }
            slowest = Math.max(slowest, best);
        }
        return slowest;
    }
}
