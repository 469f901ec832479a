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
import java.util.List;
import java.util.Random;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.unfold.Unfolding;
import org.mendedleaf.sample.OpenDocument;

/**
 * What it costs to bring back a folder of documents as it was some versions ago, where those are stored unfolded and have to be
 * deflated again: the same in two vaults, of which one has them as they came.
 */
final class OldVersionsBench {

    private static final int VERSIONS = 4;
    private static final int ROUNDS = 5;

    private final Path folder;
    private final int files;
    private final Table table;

    OldVersionsBench(Path folder, int files, Table table) {
        this.folder = folder;
        this.files = files;
        this.table = table;
    }

    private static final class Office implements AutoCloseable {
        private final OpenVault vault;
        private final Place place;
        private final Clock clock = Clock.system(ZoneOffset.UTC);

        Office(Path vault, Path desk) throws IOException {
            this.vault = OpenVault.openOrCreate(vault, "bench", Duration.ZERO);
            this.place = Protect.place(this.vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
        }

        void capture() throws IOException {
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
        }

        /** Brings all files back as they were in a version, beside what is there now; seconds. */
        double restore(int number, String into) throws IOException {
            List<RestoreItem> wanted = new ArrayList<>();
            try (Reading reading = vault.read()) {
                for (long id : reading.lines().ids(place)) {
                    Line line = reading.line(id).orElseThrow();
                    Version version = line.version(number).orElse(null);
                    if (version != null && line.path().startsWith("Letters/")) {
                        wanted.add(new RestoreItem(version, into + "/" + line.name()));
                    }
                }
            }
            long start = System.nanoTime();
            var result = new Recovery(new WorkContext(vault, place, clock, (p, o) -> o, "bench"))
                    .restore(RestoreRequest.restore(wanted, Collisions.all(Collision.REPLACE)), Progress.NONE);
            double seconds = (System.nanoTime() - start) / 1e9;
            long failed = result.items().stream()
                    .filter(i -> i.outcome() == RestoreResult.Outcome.FAILED)
                    .count();
            if (failed > 0 || wanted.isEmpty()) {
                throw new IOException("expected everything back, got " + failed + " failures of " + wanted.size());
            }
            return seconds;
        }

        @Override
        public void close() throws IOException {
            vault.close();
        }
    }

    void run() throws IOException, InterruptedException {
        Prose prose = new Prose(new Random(43));
        List<List<String>> documents = new ArrayList<>();
        for (int i = 0; i < files; i++) {
            documents.add(prose.paragraphs(60, 1));
        }
        Path plainDesk = folder.resolve("plain");
        Path foldedDesk = folder.resolve("folded");
        Path plain = Files.createDirectories(plainDesk.resolve("Letters"));
        Path folded = Files.createDirectories(foldedDesk.resolve("Letters"));
        try (Office asTheyCame = new Office(folder.resolve("vault-plain"), plainDesk);
                Office unfolded = new Office(folder.resolve("vault-folded"), foldedDesk)) {
            for (int v = 0; v < VERSIONS; v++) {
                for (int i = 0; i < files; i++) {
                    List<String> document = documents.get(i);
                    document.set(v * 7, document.get(v * 7) + " " + prose.sentence(6, 12));
                    byte[] bytes = OpenDocument.text(document);
                    write(plain.resolve("letter %04d.odt".formatted(i)), bytes, v);
                    write(folded.resolve("letter %04d.odt".formatted(i)), bytes, v);
                }
                asTheyCame.capture();
                unfolded.capture();
            }
            Unfolding.atOnce(unfolded.vault, unfolded.clock).run(Progress.NONE);
            new Reclaim(unfolded.vault, unfolded.clock).run(Progress.NONE);
            double[] ours = new double[ROUNDS];
            double[] theirs = new double[ROUNDS];
            for (int r = 0; r < ROUNDS; r++) {
                theirs[r] = asTheyCame.restore(2, "then" + r);
                ours[r] = unfolded.restore(2, "then" + r);
            }
            table.ratio(
                    "%d documents as they were two versions ago: restored, unfolded".formatted(files),
                    "the same, stored as they came",
                    Table.median(ours),
                    Table.median(theirs),
                    "s",
                    0);
        } finally {
            Shell.seconds(folder, "rm -rf vault-plain vault-folded plain folded");
        }
    }

    private static void write(Path file, byte[] bytes, int version) throws IOException {
        Files.write(file, bytes);
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(1000 - version)));
    }
}
