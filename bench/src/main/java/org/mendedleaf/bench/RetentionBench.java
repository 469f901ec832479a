package org.mendedleaf.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.LiveEntry;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PlaceWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileAttributes;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceChange;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.retention.Level;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.retention.WhatIf;
import org.mendedleaf.core.vault.ContentWorker;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;

/** Verdicts, exact space, what-if and forecast on 100,000 files of 20 versions, and giving space back. */
final class RetentionBench {

    private static final int VERSIONS = 20;
    private static final int ROUNDS = 5;
    private static final Instant START = Instant.parse("2025-01-01T00:00:00Z");
    private static final Instant NOW = START.plus(Duration.ofDays(340));
    private static final Calendar CALENDAR = new Calendar(ZoneId.of("Europe/Vienna"), DayOfWeek.MONDAY);

    private final Path folder;
    private final int folders;
    private final Table table;

    RetentionBench(Path folder, int folders, Table table) {
        this.folder = folder;
        this.folders = folders;
        this.table = table;
    }

    void run() throws IOException, InterruptedException {
        Path desk = Files.createDirectories(folder.resolve("desk"));
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ZERO)) {
            fill(vault, desk);
            measure(vault);
        }
        reclaim();
    }

    private static FileAttributes facts(Instant at) {
        return new FileAttributes(EntryKind.FILE, 0, at.toEpochMilli() * 1_000_000, 0b110_100_100, "bench");
    }

    private static LineWriter.Arrival arrival(Instant at) {
        return new LineWriter.Arrival(facts(at), Origin.SAVED, 0, at, at, "");
    }

    /** Each version is a chunk that its file's versions share, and one or two that few others have. */
    private void fill(OpenVault vault, Path desk) throws IOException {
        Random random = new Random(47);
        try (WriteSession session = vault.write();
                ContentWorker worker = new ContentWorker(session.chunks())) {
            Place place = new PlaceWriter(session).protect(desk, "desk", PlaceChange.to(Rhythm.BY_HAND), START);
            LineWriter lines = new LineWriter(session);
            List<Long> chunks = new ArrayList<>();
            byte[] bytes = new byte[64];
            for (int i = 0; i < folders * 300; i++) {
                random.nextBytes(bytes);
                chunks.add(worker.store(Channels.newChannel(new ByteArrayInputStream(bytes)), n -> {})
                        .recipe()
                        .runs()
                        .get(0)
                        .first());
            }
            session.commit();
            long top = lines.folder(place, "");
            for (int f = 0; f < folders; f++) {
                String name = "d%04d".formatted(f);
                lines.folderAppears(place, top, "", name, facts(START), START);
                long id = lines.folder(place, name);
                for (int i = 0; i < 100; i++) {
                    String file = "file%03d.%s".formatted(i, i % 3 == 0 ? "ods" : "txt");
                    lines.newLine(place, id, file, content(random, chunks, f * 100 + i), arrival(START));
                }
                for (int v = 1; v < VERSIONS; v++) {
                    for (LiveEntry live : lines.live(id)) {
                        Instant at = START.plus(Duration.ofHours(v * 400L + random.nextInt(399)));
                        int own = f * 100 + Integer.parseInt(live.name().substring(4, 7));
                        lines.changed(place, live, content(random, chunks, own), arrival(at));
                    }
                }
                if (f % 20 == 0) {
                    session.commit();
                }
            }
            session.commit();
        }
    }

    private static StoredContent content(Random random, List<Long> chunks, int own) {
        byte[] digest = new byte[32];
        random.nextBytes(digest);
        Recipe.Builder recipe = new Recipe.Builder();
        recipe.add(chunks.get(own));
        for (int i = 0; i < 1 + random.nextInt(2); i++) {
            recipe.add(chunks.get(random.nextInt(chunks.size())));
        }
        return new StoredContent(
                recipe.build(), random.nextInt(100_000), org.mendedleaf.core.vault.Digest.of(digest), null);
    }

    private interface Step {
        void run() throws IOException;
    }

    private static double millis(Step step) throws IOException {
        double[] all = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            step.run();
            all[i] = (System.nanoTime() - start) / 1e6;
        }
        return Table.median(all);
    }

    private void measure(OpenVault vault) throws IOException {
        VersionTable[] loaded = new VersionTable[1];
        String size = folders * 100 + " x " + VERSIONS;
        try (Reading reading = vault.read()) {
            table.absolute(
                    "all versions read into columns, " + size,
                    millis(() -> loaded[0] = VersionTable.of(reading)),
                    "ms",
                    0);
        }
        VersionTable t = loaded[0];
        Rule office = Rule.keepAll("office", org.mendedleaf.core.retention.RuleScope.ALL)
                .withEverything(Optional.of(Term.days(30)))
                .withLast(Level.DAILY, Optional.of(Term.days(90)))
                .withLast(Level.WEEKLY, Optional.of(new Term(26, Term.Unit.WEEKS)))
                .withLast(Level.MONTHLY, Optional.of(new Term(2, Term.Unit.YEARS)))
                .withCounts(2, 0);
        Rule sheets = office.withScope(
                "sheets",
                new org.mendedleaf.core.retention.RuleScope(List.of(), List.of(), List.of("*.ods"), Set.of()));
        RuleSet rules = new RuleSet(List.of(office, sheets), Term.days(7), false);
        table.absolute(
                "verdicts, " + size + ", two rules, five levels",
                millis(() -> Verdicts.of(t, List.of(), rules, NOW, CALENDAR)),
                "ms",
                1000);
        Verdicts now = Verdicts.of(t, List.of(), RuleSet.NONE, NOW, CALENDAR);
        SpaceTable[] space = new SpaceTable[1];
        table.absolute("uses of all chunks counted", millis(() -> space[0] = new SpaceTable(t)), "ms", 0);
        BitSet some = new BitSet();
        Random random = new Random(3);
        while (some.cardinality() < t.size() / 40) {
            some.set(random.nextInt(t.size()));
        }
        table.ratio(
                "bytes freed by dropping " + some.cardinality() + " versions",
                "naive recount",
                millis(() -> space[0].freedBy(some)),
                millis(() -> naive(t, some)),
                "ms",
                0);
        table.absolute("the same against its target", millis(() -> space[0].freedBy(some)), "ms", 250);
        WhatIf.Side side = WhatIf.side(now, space[0], NOW);
        table.absolute(
                "what-if redrawn: verdicts of proposed rules, and compared with those that count",
                millis(() -> WhatIf.of(now, side, Verdicts.of(t, List.of(), rules, NOW, CALENDAR), space[0], NOW)),
                "ms",
                1000);
        table.absolute("space of every place, folder and file", millis(() -> SpaceTree.of(t, NOW)), "ms", 0);
        Verdicts then = Verdicts.of(t, List.of(), rules, NOW, CALENDAR);
        table.absolute(
                "forecast of a year", millis(() -> Forecast.of(then, NOW, Forecast.Asked.asItIs(1L << 40))), "ms", 0);
    }

    private static long naive(VersionTable t, BitSet going) {
        Set<Integer> before = new HashSet<>();
        Set<Integer> after = new HashSet<>();
        for (int row = 0; row < t.size(); row++) {
            boolean stays = !going.get(row);
            t.chunks(row, chunk -> {
                before.add(chunk);
                if (stays) {
                    after.add(chunk);
                }
            });
        }
        before.removeAll(after);
        return before.stream().mapToLong(t::chunkBytes).sum();
    }

    /** Half of what packs hold is let go; what is left is moved together. Against reading the same packs. */
    private void reclaim() throws IOException, InterruptedException {
        Path desk = Files.createDirectories(folder.resolve("files")).toRealPath();
        int files = Math.max(4, folders * 24 / 100);
        Random random = new Random(9);
        byte[] content = new byte[1_000_000];
        Clock clock = Clock.system(ZoneOffset.UTC);
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault2"), "bench", Duration.ZERO)) {
            Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
            for (int round = 0; round < 2; round++) {
                for (int i = 0; i < files; i++) {
                    random.nextBytes(content);
                    Files.write(desk.resolve("file" + i), content);
                }
                new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            }
            long packs = size(vault.folder().packs());
            double cat = cat(vault.folder().packs());
            ThinPlan plan;
            try (Reading reading = vault.read()) {
                VersionTable t = VersionTable.of(reading);
                Verdicts v = Verdicts.of(t, List.of(), RuleSet.NONE, clock.instant(), CALENDAR);
                plan = ThinPlan.of(
                        v,
                        new SpaceTable(t),
                        new ThinPlan.Limits(0, "", Set.of(), 1, Optional.empty(), Optional.empty(), false));
            }
            new Thinning(vault, clock, "bench").thin(plan, Progress.NONE);
            long start = System.nanoTime();
            Reclaim.Done done = new Reclaim(vault, clock).endGrace("Ada", Progress.NONE);
            double ours = (System.nanoTime() - start) / 1e6;
            table.ratio(
                    "half of packs of " + packs / 1_000_000 + " MB given back",
                    "cat of the same packs",
                    ours,
                    cat,
                    "ms",
                    0);
            table.ratio(
                    "bytes given back",
                    "bytes that nothing else needed",
                    (double) done.freedBytes(),
                    (double) plan.freedBytes(),
                    "B",
                    0);
        }
    }

    private static long size(Path packs) throws IOException {
        try (Stream<Path> all = Files.list(packs)) {
            return all.mapToLong(p -> p.toFile().length()).sum();
        }
    }

    private static double cat(Path packs) throws IOException, InterruptedException {
        long start = System.nanoTime();
        Process p = new ProcessBuilder("sh", "-c", "cat \"$0\"/*.pack > /dev/null", packs.toString())
                .inheritIO()
                .start();
        if (p.waitFor() != 0) {
            throw new IOException("cat failed");
        }
        return (System.nanoTime() - start) / 1e6;
    }
}
