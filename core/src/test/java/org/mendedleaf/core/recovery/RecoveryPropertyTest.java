package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;

/** Over random histories, with the real vault and real folders. */
class RecoveryPropertyTest {

    private interface Trial {
        void run(TestPlace p, Random random, Map<Instant, Map<String, String>> looks) throws IOException;
    }

    private static void with(long seed, Trial trial) throws IOException {
        Path temp = Files.createTempDirectory("recovery");
        Random random = new Random(seed);
        Map<Instant, Map<String, String>> looks = new LinkedHashMap<>();
        try (TestPlace p = new TestPlace(temp)) {
            for (int look = 0; look < 5; look++) {
                for (int i = 0; i < 2 + random.nextInt(6); i++) {
                    Trees.change(p, random);
                }
                p.capture();
                looks.put(p.now(), Trees.look(p.folder()));
            }
            trial.run(p, random, looks);
            assertThat(p.check().isClean()).isTrue();
        } finally {
            Trees.delete(temp);
        }
    }

    private static Instant any(Map<Instant, Map<String, String>> looks, Random random) {
        return List.copyOf(looks.keySet()).get(random.nextInt(looks.size()));
    }

    private static RestoreRequest whole(TestPlace p, Instant at, Collisions collisions) throws IOException {
        try (Reading reading = p.vault().read()) {
            TreeAt tree = reading.folders().treeAt(p.place(), "", at);
            List<RestoreItem> requested = new ArrayList<>();
            tree.files().forEach((path, v) -> requested.add(new RestoreItem(v, path)));
            return RestoreRequest.restore(requested, collisions, tree.folders());
        }
    }

    /** Plan and outcome agree file by file. */
    private static void agree(RestorePlan plan, RestoreResult result) {
        assertThat(result.items()).extracting(RestoreResult.Item::plan).isEqualTo(plan.items());
        for (RestoreResult.Item i : result.items()) {
            RestoreResult.Outcome expected = i.plan().acts()
                    ? RestoreResult.Outcome.DONE
                    : i.plan().step() == RestorePlan.Step.REFUSE
                            ? RestoreResult.Outcome.FAILED
                            : RestoreResult.Outcome.LEFT;
            assertThat(i.outcome()).as("%s %s", i.plan(), i.why()).isEqualTo(expected);
        }
    }

    private static void undoLast(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            FileWork.Undone undone =
                    p.recovery().undo(JournalStore.of(reading).lastUndoable().orElseThrow());
            assertThat(undone.failed()).isEmpty();
        }
    }

    @Property(tries = 8)
    void anyMomentComesBackIntoAnEmptyFolderWithNamesBytesTimesAndPermissions(@ForAll long seed) throws IOException {
        with(seed, (p, random, looks) -> {
            for (Map.Entry<Instant, Map<String, String>> look : looks.entrySet()) {
                Path into = Files.createTempDirectory("into");
                try {
                    FolderRestore elsewhere = new FolderRestore(p.vault(), into);
                    RestoreRequest request = whole(p, look.getKey(), Collisions.all(Collision.KEEP_BOTH));
                    agree(elsewhere.plan(request), elsewhere.restore(request, Progress.NONE));
                    assertThat(Trees.look(into)).isEqualTo(look.getValue());
                } finally {
                    Trees.delete(into);
                }
            }
        });
    }

    @Property(tries = 8)
    void afterAnyRestoreUndoGivesTheExactStateBefore(@ForAll long seed) throws IOException {
        with(seed, (p, random, looks) -> {
            Instant at = any(looks, random);
            // What was not yet captured is part of the state, too.
            Trees.change(p, random);
            Map<String, String> before = Trees.look(p.folder());
            Map<String, Collision> single = new TreeMap<>();
            for (int i = 0; i < 5; i++) {
                single.put("f" + i, Collision.values()[random.nextInt(4)]);
            }
            Collisions collisions = new Collisions(Collision.values()[random.nextInt(4)], single);
            RestoreRequest request = whole(p, at, collisions);
            p.capture();
            RestorePlan plan = p.recovery().plan(request);
            RestoreResult result = p.recovery().restore(request, Progress.NONE);
            agree(plan, result);
            if (result.action() != 0) {
                undoLast(p);
            }
            assertThat(Trees.look(p.folder())).isEqualTo(before);
        });
    }

    @Property(tries = 10)
    void rollingBackGivesTheMomentAndUndoGivesTheStateBefore(@ForAll long seed) throws IOException {
        with(seed, (p, random, looks) -> {
            Instant at = any(looks, random);
            Trees.change(p, random);
            Map<String, String> before = Trees.look(p.folder());
            Rollback rollback = new Rollback(List.of(""), at, true);
            RestorePlan plan = p.recovery().plan(rollback, Progress.NONE);
            RestoreResult result = p.recovery().rollBack(rollback, Progress.NONE);
            agree(plan, result);
            assertThat(contents(Trees.look(p.folder()))).isEqualTo(contents(looks.get(at)));
            assertThat(p.recovery().plan(rollback, Progress.NONE).acting())
                    .as("it is as it was then")
                    .isZero();
            if (result.action() != 0) {
                undoLast(p);
            }
            assertThat(Trees.look(p.folder())).isEqualTo(before);
        });
    }

    /** Times and permissions of files whose content is the same are left alone by rolling back. */
    private static Map<String, String> contents(Map<String, String> look) {
        Map<String, String> found = new TreeMap<>();
        look.forEach((path, text) -> found.put(path, text.replaceAll(" 20\\d\\d-.*", "")));
        return found;
    }

    private static boolean isRefused(RestoreResult result, String path) {
        return result.items().stream()
                .anyMatch(i -> i.plan().step() == RestorePlan.Step.REFUSE
                        && i.plan().wanted().equals(path)
                        && !i.plan().why().isEmpty());
    }

    private static boolean isBelowAFile(String path, Set<String> there) {
        return IntStream.range(0, path.length())
                .anyMatch(i -> path.charAt(i) == '/' && there.contains(path.substring(0, i)));
    }

    @Example
    void rollingBackWithAFolderInTheWayKeepsEveryContentThatCameLater() throws IOException {
        rollingBackWithoutRemovingKeepsEveryContentThatCameLater(600);
    }

    @Example
    void rollingBackWithAFileInTheWayOfAFolderSaysSo() throws IOException {
        rollingBackWithoutRemovingKeepsEveryContentThatCameLater(5712773);
    }

    @Property(tries = 8)
    void rollingBackWithoutRemovingKeepsEveryContentThatCameLater(@ForAll long seed) throws IOException {
        with(seed, (p, random, looks) -> {
            Instant at = any(looks, random);
            Map<String, Version> then;
            try (Reading reading = p.vault().read()) {
                then = reading.folders().treeAt(p.place(), "", at).byPath();
            }
            Map<String, String> before = Trees.look(p.folder());
            RestoreResult result = p.recovery().rollBack(new Rollback(List.of(""), at, false), Progress.NONE);
            Map<String, String> after = Trees.look(p.folder());
            for (String path : then.keySet()) {
                // What came later has the name, or that of a folder above, and stays: that is said.
                boolean inTheWay = after.containsKey(path + "/") || isBelowAFile(path, after.keySet());
                assertThat(after.containsKey(path) || inTheWay && isRefused(result, path))
                        .as("%s is back, or it is said why not: %s", path, after.keySet())
                        .isTrue();
            }
            try (Reading reading = p.vault().read()) {
                for (String path : before.keySet()) {
                    if (!path.endsWith("/") && !then.containsKey(path) && !after.containsKey(path)) {
                        assertThat(reading.line(p.place(), path))
                                .as("%s moved back to where it was", path)
                                .isPresent();
                    }
                }
            }
        });
    }
}
