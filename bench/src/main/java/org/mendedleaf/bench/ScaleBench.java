package org.mendedleaf.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.find.FindIndex;
import org.mendedleaf.core.find.Finder;
import org.mendedleaf.core.find.Indexer;
import org.mendedleaf.core.find.Wanted;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.retention.Level;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.Rule;
import org.mendedleaf.core.retention.RuleScope;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.Term;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.retention.WhatIf;
import org.mendedleaf.core.snapshots.Snapshots;

/**
 * One vault of a million files and twenty million versions, see {@link ScaleOffice}: what people ask for, with its time and with
 * the most memory that is in use. To be run with a heap of a gigabyte.
 *
 * <pre>{@code
 * ScaleBench FOLDER [FILES [looks | prune]]      a vault that is in the folder is used as it is
 * }</pre>
 */
public final class ScaleBench {

    private static final Instant NOW = ScaleOffice.START.plus(Duration.ofDays(340));
    private static final Calendar CALENDAR = new Calendar(ZoneId.of("Europe/Vienna"), DayOfWeek.MONDAY);

    private final Path folder;
    private final Random random = new Random(5);
    private final Steps steps = new Steps();

    private ScaleBench(Path folder) {
        this.folder = folder;
    }

    /** Measures. */
    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createDirectories(Path.of(arguments[0])).toRealPath();
        int files = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 1_000_000;
        ScaleBench bench = new ScaleBench(folder);
        if (!Files.exists(folder.resolve("vault"))) {
            new ScaleOffice(folder, files).make();
        }
        bench.steps.head();
        bench.run(List.of(arguments));
    }

    private Instant moment() {
        return ScaleOffice.START.plus(Duration.ofMinutes(random.nextInt(ScaleOffice.HOURS * 60)));
    }

    private String someFolder() {
        return ScaleOffice.folderName(random.nextInt(ScaleOffice.FILES_OF_PLACE / ScaleOffice.FILES_OF_FOLDER));
    }

    private String someFile() {
        return someFolder() + "/" + ScaleOffice.fileName(random.nextInt(ScaleOffice.FILES_OF_FOLDER));
    }

    private void run(List<String> arguments) throws Exception {
        OpenVault[] opened = new OpenVault[1];
        steps.once("opening, with the start of what it needs", 0, () -> {
            opened[0] = OpenVault.open(folder.resolve("vault"), "bench", Duration.ofSeconds(5));
            try (Reading reading = opened[0].read()) {
                reading.places();
            }
        });
        steps.once("opening, once this program has opened a vault", 100, () -> {
            try (OpenVault again = OpenVault.open(folder.resolve("vault"), "bench", Duration.ofSeconds(5));
                    Reading reading = again.read()) {
                reading.places();
            }
        });
        try (OpenVault vault = opened[0]) {
            if (arguments.contains("prune")) {
                prune(vault);
                return;
            }
            looks(vault);
            if (arguments.contains("looks")) {
                return;
            }
            work(vault);
            retention(vault);
        }
    }

    private void looks(OpenVault vault) throws Exception {
        try (Reading reading = vault.read()) {
            List<Place> places = reading.places().stream()
                    .filter(p -> p.name().startsWith("place"))
                    .toList();
            steps.often("listing of a folder at a moment, with what was removed", 100, () -> {
                Place place = places.get(random.nextInt(places.size()));
                reading.folders().listing(place, someFolder(), moment(), true);
            });
            steps.often("tree of a place of " + ScaleOffice.FILES_OF_PLACE + " files at a moment", 100, () -> {
                Place place = places.get(random.nextInt(places.size()));
                reading.folders().tree(place, "", moment());
            });
            steps.often("line of a file, with what keeps each version", 100, () -> {
                Place place = places.get(random.nextInt(places.size()));
                Line line = reading.line(place, someFile()).orElseThrow();
                LineVerdicts.of(reading, line.id(), NOW, CALENDAR);
            });
            steps.often("ruler of a place: a year by hours, and the changes beside a moment", 100, () -> {
                Place place = places.get(random.nextInt(places.size()));
                long hour = ScaleOffice.START.getEpochSecond() / 3600;
                reading.changes().density(place, hour, hour + ScaleOffice.HOURS);
                reading.changes().changeBefore(place, someFolder(), moment());
                reading.changes().changeAfter(place, someFolder(), moment());
            });
            steps.often("how a place stands, last change, first capture", 100, () -> {
                Place place = places.get(random.nextInt(places.size()));
                reading.state(place);
                reading.changes().firstCapture(place);
                reading.changes().lastSave(place);
            });
            steps.often("versions with a content, by its digest", 100, () -> {
                Place place = places.get(random.nextInt(places.size()));
                Line line = reading.line(place, someFile()).orElseThrow();
                reading.content().versions(line.version(3).orElseThrow().digest());
            });
            steps.once("sums over the vault", 1000, reading::space);
            steps.once("state of the vault, as keepers ask for it", 20, reading::state);
        }
        find(vault);
    }

    /** Names alone: the words of twenty million versions are not made here. */
    private void find(OpenVault vault) throws Exception {
        Path desk = Files.createDirectories(folder.resolve("rare")).toRealPath();
        Files.writeString(desk.resolve("lease of the mill.txt"), "a text");
        Place rare = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), Clock.fixed(NOW, ZoneOffset.UTC), "Ines");
        new Capture(vault, rare, Clock.fixed(NOW, ZoneOffset.UTC), (path, owner) -> "Ines")
                .run(CaptureScope.WHOLE, Progress.NONE);
        Finder finder = new Finder(vault, "Ines");
        steps.once("find by a name, without the index", 0, () -> finder.find(wanted("file17"), 20));
        steps.once("all names into their index", 0, () -> new Indexer(vault, false).run(new NamesOnly()));
        System.out.printf("| they take %d KB | | | | |%n", Files.size(FindIndex.file(vault.folder())) / 1024);
        steps.once("find by a name, first time", 0, () -> finder.find(wanted("file17"), 20));
        steps.often("find by a name that one file has", 100, () -> finder.find(wanted("lease of mill"), 20));
        steps.once("find by a name that ten thousand files have", 1000, () -> finder.find(wanted("file18"), 20));
        steps.once("find by a person", 1000, () -> finder.find(wanted("Jonas"), 20));
    }

    private static Wanted wanted(String typed) {
        return Wanted.parse(typed, true, Wanted.Narrow.NOT);
    }

    /** Stops when names are in and words would begin. */
    private static final class NamesOnly implements Progress {
        private int steps;

        @Override
        public void begin(String step, long files, long bytes) {
            steps++;
        }

        @Override
        public boolean isCancelled() {
            return steps > 1;
        }
    }

    private void work(OpenVault vault) throws Exception {
        Path desk = Files.createDirectories(folder.resolve("live")).toRealPath();
        for (int f = 0; f < 50; f++) {
            Path in = Files.createDirectories(desk.resolve(ScaleOffice.folderName(f)));
            for (int i = 0; i < 100; i++) {
                Files.writeString(
                        in.resolve(ScaleOffice.fileName(i)), "first text of " + f + "/" + i + random.nextLong());
            }
        }
        Clock clock = Clock.system(ZoneOffset.UTC);
        Place place = Protect.place(vault, desk, Rhythm.BY_HAND, List.of(), clock, "Ines");
        Capture capture = new Capture(vault, place, clock, (p, o) -> o);
        steps.once("first capture of 5,000 more files", 0, () -> capture.run(CaptureScope.WHOLE, Progress.NONE));
        steps.once("look at 5,000 unchanged files", 0, () -> capture.run(CaptureScope.WHOLE, Progress.NONE));
        int[] saves = {0};
        steps.often("one save, until it is known", 100, () -> {
            String in = someFolder();
            Path file = desk.resolve(in).resolve(ScaleOffice.fileName(random.nextInt(ScaleOffice.FILES_OF_FOLDER)));
            Files.writeString(file, "saved for the " + saves[0]++ + ". time " + random.nextLong());
            Files.setLastModifiedTime(file, FileTime.from(Instant.now().plusSeconds(saves[0])));
            capture.run(new CaptureScope.Folders(Set.of(in)), Progress.NONE);
        });
        Snapshots snapshots = new Snapshots(new WorkContext(vault, place, clock, (p, o) -> o, "bench"));
        steps.once("snapshot of a place", 0, () -> snapshots.take("", "", Progress.NONE));
    }

    private static RuleSet rules() {
        Rule office = Rule.keepAll("office", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(30)))
                .withLast(Level.DAILY, Optional.of(Term.days(90)))
                .withLast(Level.WEEKLY, Optional.of(new Term(26, Term.Unit.WEEKS)))
                .withLast(Level.MONTHLY, Optional.of(new Term(2, Term.Unit.YEARS)))
                .withCounts(2, 0);
        Rule sheets = office.withScope("sheets", new RuleScope(List.of(), List.of(), List.of("*.ods"), Set.of()));
        return new RuleSet(List.of(office, sheets), Term.days(7), false);
    }

    private void retention(OpenVault vault) throws Exception {
        VersionTable[] loaded = new VersionTable[1];
        steps.once("all versions read into columns", 0, () -> {
            try (Reading reading = vault.read()) {
                loaded[0] = VersionTable.of(reading);
            }
        });
        VersionTable table = loaded[0];
        RuleSet rules = rules();
        Verdicts[] verdicts = new Verdicts[2];
        steps.once("verdicts by the rules that count", 0, () -> {
            verdicts[0] = Verdicts.of(table, List.of(), RuleSet.NONE, NOW, CALENDAR);
        });
        steps.once("verdicts, two rules, five levels", 0, () -> {
            verdicts[1] = Verdicts.of(table, List.of(), rules, NOW, CALENDAR);
        });
        SpaceTable[] space = new SpaceTable[1];
        steps.once("uses of all chunks", 0, () -> space[0] = new SpaceTable(table));
        WhatIf.Side side = WhatIf.side(verdicts[0], space[0], NOW);
        steps.once(
                "what-if redrawn",
                0,
                () -> WhatIf.of(verdicts[0], side, Verdicts.of(table, List.of(), rules, NOW, CALENDAR), space[0], NOW));
        steps.once("what would go by the rules", 0, () -> ThinPlan.of(verdicts[1], space[0], ThinPlan.Limits.RULES));
        space[0] = null;
        steps.once("forecast of a year", 0, () -> Forecast.of(verdicts[1], NOW, Forecast.Asked.asItIs(1L << 40)));
        verdicts[0] = null;
        verdicts[1] = null;
        steps.once("space of every place, folder and file", 0, () -> SpaceTree.of(table, NOW));
    }

    /** Half of all versions go: planned, let go, and given back. */
    private void prune(OpenVault vault) throws Exception {
        Clock clock = Clock.fixed(NOW, ZoneOffset.UTC);
        ThinPlan[] plan = new ThinPlan[1];
        steps.once("plan to let half of all versions go", 0, () -> {
            try (Reading reading = vault.read()) {
                VersionTable table = VersionTable.of(reading);
                Verdicts v = Verdicts.of(table, HoldStore.of(reading).standing(), RuleSet.NONE, NOW, CALENDAR);
                plan[0] = ThinPlan.of(
                        v,
                        new SpaceTable(table),
                        new ThinPlan.Limits(
                                0, "", Set.of(), ScaleOffice.VERSIONS / 2, Optional.empty(), Optional.empty(), false));
            }
        });
        System.out.println("<!-- " + plan[0].words() + " -->");
        steps.once("letting them go", 0, () -> new Thinning(vault, clock, "bench").thin(plan[0], Progress.NONE));
        long freed = plan[0].freedBytes();
        plan[0] = null;
        Reclaim.Done[] done = new Reclaim.Done[1];
        steps.once("giving their space back", 0, () -> {
            done[0] = new Reclaim(vault, clock).endGrace("Ines", Progress.NONE);
        });
        System.out.println("<!-- " + done[0].versions() + " versions, " + done[0].packs() + " packs, "
                + done[0].freedBytes() / 1_000_000 + " MB; planned " + freed / 1_000_000 + " MB -->");
    }
}
