package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.retention.Histories.rules;
import static org.mockito.ArgumentMatchers.anyLong;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;

/** Letting go, the grace time, and giving the space back. */
class ReclaimTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private final Random random = new Random(7);

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private byte[] noise(int length) {
        byte[] b = new byte[length];
        random.nextBytes(b);
        return b;
    }

    private Thinning lettingGo() {
        return new Thinning(p.vault(), p.clock(), "Ada");
    }

    private Erasing erasing() {
        return new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"));
    }

    private Reclaim reclaim() {
        return new Reclaim(p.vault(), p.clock());
    }

    private ThinPlan plan(Rule rule) throws IOException {
        Verdicts v = Histories.judge(p, rules(rule));
        return ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
    }

    private Action last() throws IOException {
        try (Reading reading = p.vault().read()) {
            return JournalStore.of(reading).lastUndoable().orElseThrow();
        }
    }

    private List<PendingDeletion> waiting() throws IOException {
        try (Reading reading = p.vault().read()) {
            return PendingDeletionStore.of(reading).waiting();
        }
    }

    @Test
    void theContentOfAFileStaysWhenItsNewestVersionIsErasedAndAnEarlierOneHadTheSame() throws IOException {
        p.save("a.txt", "the same");
        p.capture();
        p.save("a.txt", "other");
        p.capture();
        p.recovery()
                .restore(
                        List.of(new RestoreItem(p.line("a.txt").version(1).orElseThrow(), "a.txt")),
                        Collision.REPLACE,
                        Progress.NONE);
        erasing().erase(p.line("a.txt").id(), Erasing.What.VERSION, 2, Progress.NONE);
        long line = p.line("a.txt").id();
        erasing().erase(line, Erasing.What.VERSION, 3, Progress.NONE);
        p.later(60);
        reclaim().endGrace("Ada", Progress.NONE);
        Version newest = p.line("a.txt").newest().orElseThrow();
        assertThat(newest.number()).isEqualTo(4);
        assertThat(newest.recipe().isElsewhere()).isFalse();
        assertThat(content("a.txt", 4))
                .asString(java.nio.charset.StandardCharsets.UTF_8)
                .isEqualTo("the same");
        assertThat(p.read("a.txt")).isEqualTo("the same");
        assertThat(p.check().isClean()).isTrue();
    }

    private byte[] content(String path, int number) throws IOException {
        Version v = p.line(path).version(number).orElseThrow();
        java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
        try (Reading reading = p.vault().read()) {
            reading.contents().read(v.recipe(), out::write);
        }
        return out.toByteArray();
    }

    private long packBytes() throws IOException {
        try (java.util.stream.Stream<Path> all = Files.list(temp.resolve("vault/packs"))) {
            return all.mapToLong(f -> f.toFile().length()).sum();
        }
    }

    /** Five versions of unlike contents, and one of another file. */
    private void five() throws IOException {
        for (int i = 0; i < 5; i++) {
            p.save("big.bin", noise(400_000));
            p.capture();
        }
        p.save("other.txt", "other");
        p.capture();
    }

    @Test
    void whatIsLetGoStaysForItsGraceAndOneUndoKeepsIt() throws IOException {
        five();
        ThinPlan plan = plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 2));
        assertThat(plan.versions()).isEqualTo(3);
        assertThat(plan.freedBytes()).isBetween(1_199_000L, 1_201_000L);
        Thinning.Done done = lettingGo().thin(plan, Progress.NONE);
        assertThat(done.versions()).isEqualTo(3);
        assertThat(done.due()).isEqualTo(p.now().plus(Duration.ofDays(7)));
        assertThat(content("big.bin", 1)).hasSize(400_000);
        SpaceTable.Sums sums = new SpaceTable(Histories.table(p)).sums();
        assertThat(sums.waiting()).isEqualTo(plan.freedBytes());
        assertThat(last().words()).isEqualTo("big.bin thinned");
        assertThat(p.recovery().undo(last()).failed()).isEmpty();
        assertThat(waiting()).isEmpty();
        assertThat(new SpaceTable(Histories.table(p)).sums().waiting()).isZero();
    }

    @Test
    void theRoomComesBackWhenTheGraceHasEnded() throws IOException {
        five();
        lettingGo().thin(plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 2)), Progress.NONE);
        byte[] kept = content("big.bin", 4);
        long before = packBytes();
        assertThat(reclaim().run(Progress.NONE).versions()).isZero();
        assertThat(packBytes()).isEqualTo(before);
        p.later(8 * 24 * 60);
        Reclaim.Done done = reclaim().run(Progress.NONE);
        assertThat(done.versions()).isEqualTo(3);
        assertThat(done.freedBytes()).isGreaterThan(1_190_000);
        assertThat(packBytes()).isLessThan(before - 1_190_000);
        assertThat(content("big.bin", 4)).isEqualTo(kept);
        Line line = p.line("big.bin");
        assertThat(line.version(1).orElseThrow().recipe().isElsewhere()).isTrue();
        assertThat(p.check().damages()).isEmpty();
        // Captures go on, and what is gone is stored again when it comes again.
        p.save("big.bin", "new");
        p.capture();
        assertThat(content("big.bin", 6)).isEqualTo("new".getBytes(java.nio.charset.StandardCharsets.UTF_8));
        try (Reading reading = p.vault().read()) {
            assertThat(JournalStore.of(reading).lastUndoable()).isEmpty();
        }
    }

    private boolean unfinished() throws IOException {
        try (Reading reading = p.vault().read()) {
            return Reclaim.isUnfinished(PendingDeletionStore.of(reading), p.now());
        }
    }

    /** Lets three of five versions go, and comes back when their grace has ended. */
    private long threeAreDue() throws IOException {
        five();
        lettingGo().thin(plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 2)), Progress.NONE);
        p.later(8 * 24 * 60);
        return packBytes();
    }

    @Test
    void aRunThatIsCutShortAfterForgettingGoesOnThoughNothingElseIsDue() throws IOException {
        long before = threeAreDue();
        Progress cut = org.mockito.Mockito.mock(Progress.class);
        org.mockito.Mockito.doThrow(new IllegalStateException("the power went"))
                .when(cut)
                .begin(org.mockito.ArgumentMatchers.anyString(), anyLong(), anyLong());
        assertThatThrownBy(() -> reclaim().run(cut)).hasMessage("the power went");
        assertThat(waiting()).as("the catalogue forgot them").isEmpty();
        assertThat(packBytes()).isGreaterThanOrEqualTo(before);
        assertThat(unfinished()).as("it may still be running").isFalse();
        p.later(11);
        StandingRules standing = new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> 1L << 40);
        assertThat(standing.isDue()).isTrue();
        standing.run(Progress.NONE);
        assertThat(packBytes()).isLessThan(before - 1_000_000);
        assertThat(standing.isDue()).isFalse();
        assertThat(p.check().damages()).isEmpty();
    }

    @Test
    void aRunThatSomebodyStoppedGoesOnADayLater() throws IOException {
        long before = threeAreDue();
        Progress stopped = org.mockito.Mockito.mock(Progress.class);
        org.mockito.Mockito.when(stopped.isCancelled()).thenReturn(true);
        assertThat(reclaim().run(stopped).cancelled()).isTrue();
        p.later(60);
        assertThat(unfinished()).isFalse();
        p.later(24 * 60);
        assertThat(unfinished()).isTrue();
        reclaim().run(Progress.NONE);
        assertThat(unfinished()).isFalse();
        assertThat(packBytes()).isLessThan(before - 1_000_000);
    }

    @Test
    void aReaderThatIsOpenReadsOnWhilePacksAreEmptied() throws IOException {
        five();
        Version kept = p.line("big.bin").version(5).orElseThrow();
        try (Reading reading = p.vault().read()) {
            List<org.mendedleaf.core.vault.ChunkPlace> places =
                    reading.contents().places(kept.recipe());
            lettingGo().thin(plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 1)), Progress.NONE);
            reclaim().endGrace("Ada", Progress.NONE);
            assertThat(reading.contents().places(kept.recipe())).isNotEqualTo(places);
            assertThat(reading.contents().sha256(kept.recipe())).isNotNull();
        }
    }

    @Test
    void theCatalogueCanBeMadeAnewFromEmptiedPacks() throws IOException {
        five();
        lettingGo().thin(plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 2)), Progress.NONE);
        reclaim().endGrace("Ada", Progress.NONE);
        p.save("later.txt", "later");
        p.capture();
        byte[] kept = content("big.bin", 4);
        p.close();
        Files.delete(temp.resolve("vault/catalogue.db"));
        Rebuild.Report report = Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), Clock.systemUTC());
        assertThat(report.damages()).isEmpty();
        try (OpenVault again = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(1));
                Reading reading = again.read()) {
            Line line = reading.line(reading.places().get(0), "big.bin").orElseThrow();
            java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
            reading.contents().read(line.version(4).orElseThrow().recipe(), out::write);
            assertThat(out.toByteArray()).isEqualTo(kept);
            assertThat(line.version(1).orElseThrow().recipe().isElsewhere()).isTrue();
            assertThat(PendingDeletionStore.of(reading).of(line.id()).get(1).gone())
                    .isPresent();
            assertThat(reading.line(reading.places().get(0), "later.txt")).isPresent();
        }
    }

    @Test
    void whatIsHeldMeanwhileIsNotTaken() throws IOException {
        five();
        ThinPlan plan = plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 2));
        Line line = p.line("big.bin");
        Holds holds = new Holds(p.vault(), p.clock(), "Ada");
        holds.version(p.place(), line.id(), 1, line.path(), "why", Optional.empty());
        Thinning.Done done = lettingGo().thin(plan, Progress.NONE);
        assertThat(done.versions()).isEqualTo(2);
        assertThat(done.kept()).isEqualTo(1);
        holds.version(p.place(), line.id(), 2, line.path(), "why", Optional.empty());
        Reclaim.Done reclaimed = reclaim().endGrace("Ada", Progress.NONE);
        assertThat(reclaimed.versions()).isEqualTo(1);
        assertThat(reclaimed.kept()).isEqualTo(1);
        assertThat(content("big.bin", 1)).hasSize(400_000);
        assertThat(content("big.bin", 2)).hasSize(400_000);
    }

    @Test
    void anErasedVersionIsGoneFromEveryPack() throws IOException {
        five();
        Line line = p.line("big.bin");
        Erasing.Consequences c = erasing().consequences(line.id(), Erasing.What.VERSION, 2);
        assertThat(c.numbers()).containsExactly(2);
        assertThat(c.freedBytes()).isBetween(399_000L, 401_000L);
        assertThat(c.words(line).get(0)).startsWith("Version 2 of big.bin is erased: 400 kB, of which 400 kB");
        Erasing.Done done = erasing().erase(line.id(), Erasing.What.VERSION, 2, Progress.NONE);
        assertThat(done.consequences().numbers()).containsExactly(2);
        Reclaim.Done reclaimed = reclaim().endGrace("Ada", Progress.NONE);
        assertThat(reclaimed.proof().orElseThrow().leftIn()).isEmpty();
        assertThat(reclaimed.proof().orElseThrow().records()).isPositive();
        assertThat(content("big.bin", 1)).hasSize(400_000);
        assertThat(reclaim().endGrace("Ada", Progress.NONE).proof()).isEmpty();
        assertThat(p.check().damages()).isEmpty();
    }

    @Test
    void whenTheNewestIsErasedTheOneBeforeBecomesCurrentAndUndoBringsItBack() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        Line line = p.line("a.txt");
        Erasing.Consequences c = erasing().consequences(line.id(), Erasing.What.VERSION, 2);
        assertThat(c.current()).isEqualTo(1);
        erasing().erase(line.id(), Erasing.What.VERSION, 2, Progress.NONE);
        assertThat(p.read("a.txt")).isEqualTo("one");
        assertThat(waiting()).extracting(PendingDeletion::number).containsExactly(2);
        p.recovery().undo(last());
        assertThat(p.read("a.txt")).isEqualTo("two");
        assertThat(waiting()).isEmpty();
    }

    @Test
    void aWholeLineIsErasedWithItsFileAndComesBackWithinItsGrace() throws IOException {
        five();
        Line line = p.line("big.bin");
        byte[] live = Files.readAllBytes(p.path("big.bin"));
        assertThat(erasing().consequences(line.id(), Erasing.What.ALL, 0).removes())
                .isTrue();
        erasing().erase(line.id(), Erasing.What.ALL, 0, Progress.NONE);
        assertThat(p.path("big.bin")).doesNotExist();
        assertThat(waiting()).hasSize(5);
        p.recovery().undo(last());
        assertThat(p.path("big.bin")).hasBinaryContent(live);
        assertThat(waiting()).isEmpty();
        erasing().erase(line.id(), Erasing.What.ALL, 0, Progress.NONE);
        assertThat(reclaim()
                        .endGrace("Ada", Progress.NONE)
                        .proof()
                        .orElseThrow()
                        .leftIn())
                .isEmpty();
        assertThat(p.check().damages()).isEmpty();
        assertThat(packBytes()).isLessThan(60_000);
    }

    @Test
    void undoingTheEraseOfOldVersionsLeavesTheFileAsItIsNow() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        erasing().erase(p.line("a.txt").id(), Erasing.What.OLDER, 0, Progress.NONE);
        p.save("a.txt", "three");
        p.capture();
        p.recovery().undo(last());
        assertThat(p.read("a.txt")).isEqualTo("three");
        assertThat(waiting()).isEmpty();
    }

    @Test
    void heldVersionsStayWhenTheirLineIsErased() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.save("a.txt", "two");
        p.capture();
        Line line = p.line("a.txt");
        new Holds(p.vault(), p.clock(), "Ada").version(p.place(), line.id(), 1, line.path(), "audit", Optional.empty());
        Erasing.Consequences c = erasing().consequences(line.id(), Erasing.What.ALL, 0);
        assertThat(c.numbers()).containsExactly(2);
        assertThat(c.words(line)).contains("Version 1 stays: held by Ada: audit.");
        assertThat(c.current()).isEqualTo(1);
        erasing().erase(line.id(), Erasing.What.ALL, 0, Progress.NONE);
        assertThat(p.read("a.txt")).isEqualTo("one");
    }

    @Test
    void aVersionThatIsGoneSaysSoWhenSomebodyWantsItBack() throws IOException {
        five();
        Version first = p.line("big.bin").version(1).orElseThrow();
        erasing().erase(first.line(), Erasing.What.OLDER, 0, Progress.NONE);
        // While it waits it can be restored like any other.
        p.recovery().restore(List.of(new RestoreItem(first, "big.bin")), Collision.REPLACE, Progress.NONE);
        assertThat(Files.size(p.path("big.bin"))).isEqualTo(400_000);
        reclaim().endGrace("Ada", Progress.NONE);
        Version gone = p.line("big.bin").version(2).orElseThrow();
        try (Reading reading = p.vault().read()) {
            assertThatThrownBy(() -> reading.contents().sha256(gone.recipe())).isInstanceOf(IOException.class);
        }
        // What was restored holds the same chunks as the first one did, and keeps them.
        assertThat(content("big.bin", 6)).hasSize(400_000);
    }

    @Test
    void whatIsGoneAlreadyIsSaidWhenTheRestComesBack() throws IOException {
        five();
        lettingGo().thin(plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 4)), Progress.NONE);
        Action first = last();
        lettingGo().thin(plan(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 2)), Progress.NONE);
        reclaim().endGrace("Ada", Progress.NONE);
        assertThat(p.recovery().undo(first).failed())
                .containsExactly("1 version of 1 file cannot come back: the grace has ended.");
        assertThat(content("big.bin", 4)).hasSize(400_000);
    }

    @Test
    void onceBeyondTheRulesOnlySoManyStay() throws IOException {
        five();
        Verdicts v = Histories.judge(p, RuleSet.NONE);
        ThinPlan.Limits limits =
                new ThinPlan.Limits(0, "", java.util.Set.of(), 2, Optional.empty(), Optional.empty(), false);
        ThinPlan plan = ThinPlan.of(v, new SpaceTable(v.table()), limits);
        assertThat(plan.versions()).isEqualTo(3);
        assertThat(plan.warnings()).isEmpty();
        ThinPlan one = ThinPlan.of(
                v,
                new SpaceTable(v.table()),
                new ThinPlan.Limits(0, "big.bin", java.util.Set.of(), 1, Optional.empty(), Optional.empty(), false));
        assertThat(one.warnings()).containsExactly("1 file would be down to one version: big.bin");
        assertThat(ThinPlan.of(
                                v,
                                new SpaceTable(v.table()),
                                new ThinPlan.Limits(
                                        0,
                                        "",
                                        java.util.Set.of(),
                                        1,
                                        Optional.of(p.now().minus(Duration.ofDays(1))),
                                        Optional.empty(),
                                        false))
                        .versions())
                .isZero();
        assertThatThrownBy(() ->
                        new ThinPlan.Limits(0, "", java.util.Set.of(), 0, Optional.empty(), Optional.empty(), false))
                .hasMessageStartingWith("Without rules, at least one version");
    }

    private String state(boolean ofPlace) throws IOException {
        try (Reading reading = p.vault().read()) {
            return ofPlace ? reading.state(p.place().id()) : reading.state();
        }
    }

    @Test
    void lettingGoTakingBackAndGoingEachMakeAnotherState() throws IOException {
        five();
        java.util.Set<String> states = new java.util.HashSet<>();
        java.util.Set<String> ofPlace = new java.util.HashSet<>();
        Step[] steps = {
            () -> {},
            () -> new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                    .erase(p.line("big.bin").id(), Erasing.What.VERSION, 1, Progress.NONE),
            () -> {
                try (WriteSession session = p.vault().write()) {
                    PendingDeletionStore.back(session, p.line("big.bin").id(), 1);
                    session.commit();
                }
            },
            () -> new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                    .erase(p.line("big.bin").id(), Erasing.What.VERSION, 2, Progress.NONE),
            () -> new Reclaim(p.vault(), p.clock()).endGrace("Ines", Progress.NONE)
        };
        for (Step step : steps) {
            step.run();
            assertThat(states.add(state(false))).isTrue();
            assertThat(ofPlace.add(state(true))).isTrue();
            assertThat(state(false)).as("nothing happened").isIn(states);
        }
    }

    private interface Step {
        void run() throws IOException;
    }

    @Test
    void whatIsKnownOfChunksBesideThePacksGoesWithWhatWasErased() throws IOException {
        five();
        Path index = p.vault().folder().root().resolve("chunks.index");
        Files.write(index, new byte[100]);
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                .erase(p.line("big.bin").id(), Erasing.What.VERSION, 1, Progress.NONE);
        new Reclaim(p.vault(), p.clock()).endGrace("Ines", Progress.NONE);
        assertThat(index).doesNotExist();
    }
}
