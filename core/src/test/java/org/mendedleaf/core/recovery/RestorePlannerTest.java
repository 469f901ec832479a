package org.mendedleaf.core.recovery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.FileState;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.RestorePlan.Item;
import org.mendedleaf.core.recovery.RestorePlan.Step;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;

/** What a restore will do, decision by decision. */
class RestorePlannerTest {

    /** What is there, as a test says. */
    private final Map<String, Existing> there = new HashMap<>();

    private final Map<Integer, String> now = new HashMap<>();
    private final Map<Integer, String> missing = new HashMap<>();
    private final Map<String, List<String>> below = new HashMap<>();
    private boolean reallyThere = true;

    private final PlanTarget target = new PlanTarget() {
        @Override
        public Optional<Existing> at(String path) {
            return Optional.ofNullable(there.get(path));
        }

        @Override
        public List<String> below(String folder) {
            return below.getOrDefault(folder, List.of());
        }

        @Override
        public Optional<String> elsewhere(Version version, String path) {
            return Optional.ofNullable(now.get(version.number()));
        }

        @Override
        public boolean isReallyThere(String path, Version version) {
            return reallyThere;
        }

        @Override
        public Optional<String> missing(Version version) {
            return Optional.ofNullable(missing.get(version.number()));
        }
    };

    private static Digest digest(int n) {
        byte[] bytes = new byte[32];
        bytes[0] = (byte) n;
        return Digest.of(bytes);
    }

    private static Version version(int n, EntryKind kind, long size) {
        return new Version(
                1,
                n,
                Instant.EPOCH,
                Instant.EPOCH,
                "",
                Origin.SAVED,
                0,
                new FileState(kind, size, 0, 0, digest(n), Optional.empty(), Recipe.EMPTY),
                "",
                "x");
    }

    private static Version version(int n) {
        return version(n, EntryKind.FILE, 10);
    }

    private static Existing kept(int n) {
        return new Existing(EntryKind.FILE, Optional.of(digest(n)), 1);
    }

    private static Existing unkept() {
        return new Existing(EntryKind.FILE, Optional.empty(), 0);
    }

    private static Existing folder() {
        return new Existing(EntryKind.FOLDER, Optional.empty(), 0);
    }

    private RestorePlan plan(Collision rule, RestoreItem... requested) throws IOException {
        return RestorePlanner.plan(
                RestoreRequest.restore(List.of(requested), Collisions.all(rule)),
                target,
                TargetFacts.ANYTHING,
                Progress.NONE);
    }

    private Item only(Collision rule, RestoreItem asked) throws IOException {
        RestorePlan plan = plan(rule, asked);
        assertThat(plan.items()).hasSize(1);
        return plan.items().get(0);
    }

    private RestorePlan plan(TargetFacts facts, RestoreItem... requested) throws IOException {
        return RestorePlanner.plan(
                RestoreRequest.restore(List.of(requested), Collisions.all(Collision.REPLACE)),
                target,
                facts,
                Progress.NONE);
    }

    private static TargetFacts facts(boolean insensitive, boolean links, long largest) {
        return new TargetFacts("the stick", 1000, true, insensitive, false, links, largest, true);
    }

    @Test
    void whereNothingHasTheNameItIsWritten() throws IOException {
        Item item = only(Collision.REPLACE, new RestoreItem(version(1), "a.txt"));
        assertThat(item.step()).isEqualTo(Step.CREATE);
        assertThat(item.target()).isEqualTo("a.txt");
        assertThat(item.isAnother()).isFalse();
    }

    @Test
    void aFileThatHasAnotherNameNowBeginsOneOfItsOwn() throws IOException {
        now.put(1, "moved.txt");
        Item item = only(Collision.REPLACE, new RestoreItem(version(1), "a.txt"));
        assertThat(item.step()).isEqualTo(Step.CREATE);
        assertThat(item.other()).isEqualTo("moved.txt");
        assertThat(item.isAnother()).isTrue();
        assertThat(item.reason()).contains("moved.txt");
    }

    @Test
    void whatIsKeptIsReplacedByTheRuleAndWhatNobodyKeepsNever() throws IOException {
        there.put("a.txt", kept(2));
        RestoreItem asked = new RestoreItem(version(1), "a.txt");
        assertThat(only(Collision.REPLACE, asked).step()).isEqualTo(Step.REPLACE);
        assertThat(only(Collision.SKIP, asked).step()).isEqualTo(Step.SKIP);
        there.put("a.txt", unkept());
        Item refused = only(Collision.REPLACE, asked);
        assertThat(refused.step()).isEqualTo(Step.REFUSE);
        assertThat(refused.why()).isNotEmpty();
        assertThat(only(Collision.KEEP_BOTH_RENAME_OTHER, asked).step()).isEqualTo(Step.REFUSE);
    }

    @Test
    void aFolderIsNeverReplacedByAFile() throws IOException {
        there.put("a.txt", folder());
        RestoreItem asked = new RestoreItem(version(1), "a.txt");
        Item item = only(Collision.REPLACE, asked);
        assertThat(item.step()).isEqualTo(Step.REFUSE);
        assertThat(item.why()).contains("folder");
        assertThat(only(Collision.KEEP_BOTH, asked).target()).isEqualTo("a (2).txt");
    }

    @Test
    void theSameContentIsLeftAloneUnlessItOnlySeemsToBeThere() throws IOException {
        there.put("a.txt", kept(1));
        RestoreItem asked = new RestoreItem(version(1), "a.txt");
        assertThat(only(Collision.REPLACE, asked).step()).isEqualTo(Step.UNCHANGED);
        reallyThere = false;
        assertThat(only(Collision.REPLACE, asked).step()).isEqualTo(Step.REPLACE);
        reallyThere = true;
        there.put("a.txt", new Existing(EntryKind.LINK, Optional.of(digest(1)), 1));
        assertThat(only(Collision.REPLACE, asked).step())
                .as("a link is no file")
                .isEqualTo(Step.REPLACE);
    }

    @Test
    void twoOfOneNameStandBesideEachOtherUnderNumbers() throws IOException {
        there.put("sub/plan (2).txt", kept(9));
        RestorePlan plan = plan(
                Collision.REPLACE,
                new RestoreItem(version(1), "sub/plan.txt"),
                new RestoreItem(version(2), "sub/plan.txt"),
                new RestoreItem(version(3), "sub/plan.txt"));
        assertThat(plan.items())
                .extracting(Item::target)
                .containsExactly("sub/plan.txt", "sub/plan (3).txt", "sub/plan (4).txt");
        assertThat(plan.items()).extracting(Item::step).containsExactly(Step.CREATE, Step.KEEP_BOTH, Step.KEEP_BOTH);
    }

    @Test
    void whatIsThereGivesItsNameAndGetsAFreeOne() throws IOException {
        there.put("a.txt", kept(2));
        RestorePlan plan = plan(
                Collision.KEEP_BOTH_RENAME_OTHER,
                new RestoreItem(version(1), "a.txt"),
                new RestoreItem(version(3), "a (2).txt"));
        assertThat(plan.items().get(0).step()).isEqualTo(Step.KEEP_BOTH_RENAME_OTHER);
        assertThat(plan.items().get(0).other()).isEqualTo("a (2).txt");
        assertThat(plan.items().get(1).target()).as("its name is promised").isEqualTo("a (2) (2).txt");
    }

    @Test
    void singleFilesCanBeChosenForOtherwise() throws IOException {
        there.put("a.txt", kept(2));
        there.put("b.txt", kept(2));
        RestoreRequest request = RestoreRequest.restore(
                List.of(new RestoreItem(version(1), "a.txt"), new RestoreItem(version(1), "b.txt")),
                new Collisions(Collision.REPLACE, Map.of("b.txt", Collision.SKIP)));
        assertThat(RestorePlanner.plan(request, target, TargetFacts.ANYTHING, Progress.NONE)
                        .items())
                .extracting(Item::step)
                .containsExactly(Step.REPLACE, Step.SKIP);
    }

    @Test
    void aContentThatCannotBeHadIsRefusedWithTheReason() throws IOException {
        missing.put(1, "it was erased");
        Item item = only(Collision.REPLACE, new RestoreItem(version(1), "a.txt"));
        assertThat(item.step()).isEqualTo(Step.REFUSE);
        assertThat(item.why()).isEqualTo("it was erased");
    }

    @Test
    void aFileWhereAFolderShouldBeIsInTheWayUnlessItLeaves() throws IOException {
        there.put("dir/a.txt", Existing.BLOCKED);
        RestoreItem asked = new RestoreItem(version(1), "dir/a.txt");
        assertThat(only(Collision.REPLACE, asked).step()).isEqualTo(Step.REFUSE);
        RestoreRequest request = new RestoreRequest(
                ActionKind.ROLLED_BACK,
                List.of(asked),
                Collisions.all(Collision.REPLACE),
                List.of(new RestoreRequest.Late(version(5), "dir", true)),
                List.of(),
                List.of());
        assertThat(RestorePlanner.plan(request, target, TargetFacts.ANYTHING, Progress.NONE)
                        .items())
                .extracting(Item::step)
                .containsExactly(Step.CREATE, Step.REMOVE);
    }

    @Test
    void aFolderThatCameLaterGivesWayWhenAllInItLeaves() throws IOException {
        there.put("a", folder());
        below.put("a", List.of("a/x.txt", "a/sub"));
        RestoreItem asked = new RestoreItem(version(1), "a");
        List<RestoreRequest.Late> late = new ArrayList<>();
        late.add(new RestoreRequest.Late(version(5), "a/x.txt", true));
        RestoreRequest request = new RestoreRequest(
                ActionKind.ROLLED_BACK,
                List.of(asked),
                Collisions.all(Collision.REPLACE),
                late,
                List.of(),
                List.of("a", "a/sub"));
        assertThat(RestorePlanner.plan(request, target, TargetFacts.ANYTHING, Progress.NONE)
                        .items()
                        .get(0)
                        .step())
                .isEqualTo(Step.CREATE);
        below.put("a", List.of("a/x.txt", "a/sub", "a/stays.txt"));
        assertThat(RestorePlanner.plan(request, target, TargetFacts.ANYTHING, Progress.NONE)
                        .items()
                        .get(0)
                        .step())
                .as("something stays in it")
                .isEqualTo(Step.REFUSE);
    }

    @Test
    void whatMovesBackGoesOverWhatIsKeptAndNotOverWhatIsNot() throws IOException {
        RestoreItem back = new RestoreItem(version(1), "a.txt", "moved.txt");
        Item item = only(Collision.SKIP, back);
        assertThat(item.step()).isEqualTo(Step.MOVE_BACK);
        assertThat(item.other()).isEqualTo("moved.txt");
        there.put("a.txt", kept(2));
        assertThat(only(Collision.SKIP, back).step()).isEqualTo(Step.MOVE_BACK);
        there.put("a.txt", unkept());
        assertThat(only(Collision.SKIP, back).step()).isEqualTo(Step.REFUSE);
    }

    @Test
    void aPlanTellsHowFarItIsAndStopsWhenItIsToldTo() throws IOException {
        RestoreRequest request = RestoreRequest.restore(
                List.of(new RestoreItem(version(1), "a.txt"), new RestoreItem(version(2), "b.txt")),
                Collisions.all(Collision.REPLACE));
        Job job = new Job("", () -> {});
        RestorePlanner.plan(request, target, TargetFacts.ANYTHING, job);
        assertThat(job.snapshot().step()).isEqualTo("Checking what is there");
        assertThat(job.snapshot().files()).isEqualTo(2);
        assertThat(job.snapshot().allFiles()).isEqualTo(2);
        job.cancel();
        assertThatThrownBy(() -> RestorePlanner.plan(request, target, TargetFacts.ANYTHING, job))
                .isInstanceOf(InterruptedIOException.class)
                .hasMessage("Cancelled.");
        assertThat(job.snapshot().files()).as("not to its end").isEqualTo(1);
    }

    @Test
    void twoFilesCanChangeTheirNames() throws IOException {
        there.put("a.txt", unkept());
        there.put("b.txt", unkept());
        RestorePlan plan = plan(
                Collision.REPLACE,
                new RestoreItem(version(1), "a.txt", "b.txt"),
                new RestoreItem(version(2), "b.txt", "a.txt"));
        assertThat(plan.items()).extracting(Item::step).containsOnly(Step.MOVE_BACK);
    }

    @Test
    void whatCameLaterIsRemovedOrLeftUnlessItsNameIsTaken() throws IOException {
        RestoreRequest request = new RestoreRequest(
                ActionKind.ROLLED_BACK,
                List.of(new RestoreItem(version(1), "taken.txt")),
                Collisions.all(Collision.REPLACE),
                List.of(
                        new RestoreRequest.Late(version(5), "goes.txt", true),
                        new RestoreRequest.Late(version(6), "stays.txt", false),
                        new RestoreRequest.Late(version(7), "taken.txt", true)),
                List.of(),
                List.of());
        RestorePlan plan = RestorePlanner.plan(request, target, TargetFacts.ANYTHING, Progress.NONE);
        assertThat(plan.items()).extracting(Item::target).containsExactly("taken.txt", "goes.txt", "stays.txt");
        assertThat(plan.items()).extracting(Item::step).containsExactly(Step.CREATE, Step.REMOVE, Step.LEAVE);
        assertThat(plan.acting()).isEqualTo(2);
        assertThat(plan.count(Step.LEAVE)).isEqualTo(1);
    }

    @Test
    void whatTheTargetCannotHoldIsRefused() throws IOException {
        Version link = version(2, EntryKind.LINK, 10);
        Version large = version(3, EntryKind.FILE, 5000);
        RestorePlan plan = plan(
                facts(false, false, 4999),
                new RestoreItem(version(1), "a.txt"),
                new RestoreItem(link, "b"),
                new RestoreItem(large, "c.bin"));
        assertThat(plan.items()).extracting(Item::step).containsExactly(Step.CREATE, Step.REFUSE, Step.REFUSE);
        assertThat(plan.items().get(2).why()).contains("5");
        RestorePlan fits = plan(facts(false, true, 5000), new RestoreItem(large, "c.bin"));
        assertThat(fits.items()).extracting(Item::step).containsExactly(Step.CREATE);
    }

    @Test
    void namesThatDifferByCaseOnlyClashWhereCaseDoesNotCount() throws IOException {
        RestoreItem[] requested = {
            new RestoreItem(version(1), "Plan.txt"),
            new RestoreItem(version(2), "plan.TXT"),
            new RestoreItem(version(3), "other.txt")
        };
        RestorePlan clash = plan(facts(true, true, Long.MAX_VALUE), requested);
        assertThat(clash.items()).extracting(Item::step).containsExactly(Step.CREATE, Step.REFUSE, Step.CREATE);
        assertThat(clash.items().get(1).why()).contains("Plan.txt");
        assertThat(plan(facts(false, true, Long.MAX_VALUE), requested).items())
                .extracting(Item::step)
                .containsOnly(Step.CREATE);
    }

    @Test
    void whatStopsAPlanIsSaidBeforeAnythingIsDone() throws IOException {
        RestoreItem asked = new RestoreItem(version(1, EntryKind.FILE, 1001), "a.txt");
        RestorePlan tooLarge = plan(facts(false, true, Long.MAX_VALUE), asked);
        assertThat(tooLarge.bytes()).isEqualTo(1001);
        assertThat(tooLarge.preflight().isGood()).isFalse();
        assertThat(tooLarge.preflight().stops()).contains("the stick");
        RestorePlan fits =
                plan(facts(false, true, Long.MAX_VALUE), new RestoreItem(version(1, EntryKind.FILE, 1000), "a.txt"));
        assertThat(fits.preflight().isGood()).isTrue();
        TargetFacts locked = new TargetFacts("the disc", 1000, false, false, false, true, Long.MAX_VALUE, true);
        assertThat(plan(locked, new RestoreItem(version(1), "a.txt"))
                        .preflight()
                        .stops())
                .contains("the disc");
        there.put("a.txt", kept(1));
        assertThat(plan(locked, new RestoreItem(version(1), "a.txt"))
                        .preflight()
                        .isGood())
                .as("nothing has to be written")
                .isTrue();
    }

    @Test
    void refusalsAreCountedButStopNothing() throws IOException {
        there.put("a.txt", folder());
        RestorePlan plan =
                plan(Collision.REPLACE, new RestoreItem(version(1), "a.txt"), new RestoreItem(version(1), "b.txt"));
        assertThat(plan.preflight().isGood()).isTrue();
        assertThat(plan.preflight().problems()).hasSize(1);
        assertThat(plan.preflight().stoppedBy("no").isGood()).isFalse();
        assertThat(plan.preflight().stoppedBy("no").problems()).hasSize(2);
    }
}
