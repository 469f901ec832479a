package org.mendedleaf.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.Collisions;
import org.mendedleaf.core.recovery.FolderRestore;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.Selection;

/**
 * One place of very many files, all of which somebody ticks and plans to recover: time and memory, to be run with the heap of the window, a
 * gigabyte.
 *
 * <pre>{@code
 * ChoiceBench FOLDER [FILES]      a vault that is in the folder is used as it is
 * }</pre>
 */
public final class ChoiceBench {

    private static final int IN_ONE = 100_000;
    private static final int IN_FOLDER = 200;

    private final Path folder;
    private final int files;
    private final Steps steps = new Steps();

    private ChoiceBench(Path folder, int files) {
        this.folder = folder;
        this.files = files;
    }

    /** Measures. */
    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createDirectories(Path.of(arguments[0])).toRealPath();
        int files = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 1_000_000;
        new ChoiceBench(folder, files).run();
    }

    /** A tenth of the files, no more than a hundred thousand, are in one folder. */
    private List<String> make(Path root) throws Exception {
        List<String> ofOne = new ArrayList<>();
        Path one = Files.createDirectories(root.resolve("one"));
        int inOne = Math.min(IN_ONE, files / 10);
        for (int i = 0; i < inOne; i++) {
            ofOne.add("one/report " + i + ".txt");
            write(one.resolve("report " + i + ".txt"), i);
        }
        for (int i = inOne; i < files; i++) {
            Path in = root.resolve("desk " + i / IN_FOLDER / 50).resolve("folder " + i / IN_FOLDER);
            if (i == inOne || i % IN_FOLDER == 0) {
                Files.createDirectories(in);
            }
            write(in.resolve("letter " + i + ".txt"), i);
        }
        return ofOne;
    }

    private static void write(Path file, int number) throws Exception {
        if (!Files.exists(file)) {
            Files.writeString(file, "text " + number);
        }
    }

    private void run() throws Exception {
        Path root = Files.createDirectories(folder.resolve("files"));
        List<String> ofOne = make(root);
        steps.head();
        Clock clock = Clock.system(ZoneOffset.UTC);
        boolean there = Files.exists(folder.resolve("vault"));
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ofSeconds(5))) {
            if (!there) {
                Place made = Protect.place(vault, root, Rhythm.BY_HAND, List.of(), clock, "Ines");
                steps.once(
                        "first capture of " + files + " small files",
                        0,
                        () -> new Capture(vault, made, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE));
            }
            Place place;
            try (Reading reading = vault.read()) {
                place = reading.places().get(0);
            }
            Recovery recovery = new Recovery(new WorkContext(vault, place, clock, (p, o) -> o, "bench"));
            choose(vault, place, "each of " + ofOne.size() + " files of one folder", ofOne, recovery);
            choose(vault, place, "all of " + files + " files", List.of(""), recovery);
            removedAndBack(vault, place, ofOne, recovery);
        }
    }

    private void choose(OpenVault vault, Place place, String name, List<String> paths, Recovery recovery)
            throws Exception {
        Selection selection = new Selection(paths, Instant.now());
        RestoreRequest[] request = new RestoreRequest[1];
        RestorePlan[] plan = new RestorePlan[1];
        steps.once(name + ": ticked, their sum", 0, () -> {
            try (Reading reading = vault.read()) {
                request[0] = selection.request(reading, place, false, Collisions.all(Collision.REPLACE), Progress.NONE);
            }
        });
        steps.once(name + ": the plan, back where they are as they are", 0, () -> plan[0] = recovery.plan(request[0]));
        said(plan[0], RestorePlan.Step.UNCHANGED);
        plan[0] = null;
        FolderRestore other = new FolderRestore(vault, folder.resolve("other"));
        steps.once(name + ": the plan, into another folder", 0, () -> plan[0] = other.plan(request[0]));
        said(plan[0], RestorePlan.Step.CREATE);
    }

    /** No more than ten thousand, beside all others of their folder. */
    private void removedAndBack(OpenVault vault, Place place, List<String> ofOne, Recovery recovery) throws Exception {
        List<String> some = ofOne.subList(0, Math.min(10_000, ofOne.size()));
        Instant before = Instant.now();
        Capture capture = new Capture(vault, place, Clock.system(ZoneOffset.UTC), (p, o) -> o);
        for (String path : some) {
            Files.delete(place.root().resolve(path));
        }
        steps.once(
                some.size() + " of the files of one folder: captured that they are removed",
                0,
                () -> capture.run(CaptureScope.WHOLE, Progress.NONE));
        RestoreRequest[] request = new RestoreRequest[1];
        try (Reading reading = vault.read()) {
            request[0] = new Selection(some, before)
                    .request(reading, place, false, Collisions.all(Collision.REPLACE), Progress.NONE);
        }
        steps.once(some.size() + " of them: the plan to bring them back", 0, () -> recovery.plan(request[0]));
        steps.once(some.size() + " of them: brought back", 0, () -> recovery.restore(request[0], Progress.NONE));
    }

    private static void said(RestorePlan plan, RestorePlan.Step step) {
        if (plan.count(step) != plan.items().size()) {
            throw new IllegalStateException(
                    "expected all " + plan.items().size() + " to be " + step + " but " + plan.count(step) + " are");
        }
    }
}
