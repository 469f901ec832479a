package org.mendedleaf.core.findings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.document.Health;
import org.mendedleaf.core.findings.Finding.Mark;
import org.mendedleaf.core.intake.Resemblance;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.vault.Digest;

/** What is known of health, beside the catalogue. */
class HealthStoreTest {

    private static final Instant DAY = Instant.parse("2026-05-04T08:00:00Z");

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private HealthStore store() throws IOException {
        return HealthStore.open(p.vault().folder());
    }

    private static Digest digest(String text) {
        return Digest.of(Digest.sha256().digest(text.getBytes(StandardCharsets.UTF_8)));
    }

    private static Health health(Health.Reason reason) {
        return new Health(reason, "detail", Health.Kind.SHEETS, 7, 900, 512, "504b0304");
    }

    @Test
    void healthBelongsToAContentUnderAnEnding() throws IOException {
        try (HealthStore store = store()) {
            store.put(digest("a"), "x/one.ODS", health(Health.Reason.WELL));
            store.put(digest("a"), "x/one.odt", health(Health.Reason.OTHER_KIND));
        }
        try (HealthStore store = store()) {
            assertThat(store.health(digest("a"), "y/two.ods")).contains(health(Health.Reason.WELL));
            assertThat(store.health(digest("a"), "two.odt").map(Health::reason)).contains(Health.Reason.OTHER_KIND);
            assertThat(store.health(digest("a"), "two")).isEmpty();
            assertThat(store.health(digest("b"), "two.ods")).isEmpty();
        }
    }

    @Test
    void whatWasFoundComesBackAsItWasPut() throws IOException {
        List<Mark> marks = List.of(
                new Mark(4, "a/b.ods", 3, 2, "a/b.ods", DAY, "Jory"), new Mark(9, "c.csv", 1, 0, "c.csv", DAY, ""));
        Finding finding = new Finding(
                1,
                Finding.Kind.BURST,
                Finding.Certainty.LIKELY,
                DAY,
                DAY.plusSeconds(60),
                marks,
                List.of("One reason.", "Another one."));
        Found found = new Found(
                finding,
                List.of(
                        new Found.OfFile(marks.get(0), Found.Fate.TO_MEND, "opens, 3 rows"),
                        new Found.OfFile(marks.get(1), Found.Fate.LOST, "")));
        try (HealthStore store = store()) {
            store.found(1, List.of(found), DAY, 77, judged(40));
            assertThat(store.found(1)).containsExactly(found);
            assertThat(store.found(2)).isEmpty();
            assertThat(store.looked(1)).contains(DAY);
            store.found(1, List.of(), DAY.plusSeconds(5), 78, judged(41));
            assertThat(store.found(1))
                    .as("what is found takes the place of what was")
                    .isEmpty();
        }
    }

    @Test
    void whoLookedEarlierButEndsLaterDoesNotTakeBackWhatWasFoundSince() throws IOException {
        Finding finding = new Finding(
                1,
                Finding.Kind.EMPTIED,
                Finding.Certainty.LIKELY,
                DAY,
                DAY,
                List.of(new Mark(4, "a.ods", 3, 2, "a.ods", DAY, "Jory")),
                List.of("It is empty."));
        Found found =
                new Found(finding, List.of(new Found.OfFile(finding.marks().get(0), Found.Fate.TO_MEND, "")));
        try (HealthStore store = store()) {
            store.found(1, List.of(found), DAY, 77, judged(41));
            store.found(1, List.of(), DAY.plusSeconds(5), 76, judged(40));
            assertThat(store.found(1)).containsExactly(found);
            assertThat(store.looked(1)).contains(DAY);
        }
    }

    @Test
    void aVaultThatWentBackIsJudgedAsItIsNow() throws IOException {
        p.save("list.json", "{\"a\": 1}");
        p.capture();
        long place = p.line("list.json").place().id();
        try (HealthStore store = store()) {
            store.found(place, List.of(), DAY, 77, new HealthStore.Judged(1_000_000, state(place), List.of()));
        }
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        try (HealthStore store = store()) {
            assertThat(store.looked(place)).contains(p.now());
            assertThat(store.seen(place)).isBetween(1L, 100L);
        }
    }

    private static HealthStore.Judged judged(long commit) {
        return new HealthStore.Judged(commit, "", List.of());
    }

    private String state(long place) throws IOException {
        try (Reading reading = p.vault().read()) {
            return reading.state(place);
        }
    }

    /** What nobody would find, so that it shows whether a place was judged again. */
    private void pretend(long place) throws IOException {
        Finding finding = new Finding(
                place,
                Finding.Kind.EMPTIED,
                Finding.Certainty.LIKELY,
                DAY,
                DAY,
                List.of(new Mark(4, "a.ods", 3, 2, "a.ods", DAY, "Jory")),
                List.of("It is empty."));
        try (HealthStore store = store();
                Reading reading = p.vault().read()) {
            Found found =
                    new Found(finding, List.of(new Found.OfFile(finding.marks().get(0), Found.Fate.TO_MEND, "")));
            store.found(
                    place,
                    List.of(found),
                    p.now(),
                    77,
                    new HealthStore.Judged(reading.commit(), reading.state(place), List.of()));
        }
    }

    private boolean isStillPretended(long place) throws IOException {
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        try (HealthStore store = store()) {
            assertThat(store.looked(place).orElseThrow()).isEqualTo(p.now());
            return !store.found(place).isEmpty();
        }
    }

    @Test
    void afterASaveOnlyThatFileIsGoneThrough() throws IOException {
        p.save("list.json", "{\"a\": 1}");
        p.save("notes.txt", "Prune the Bramleys in January.");
        p.capture();
        long place = p.place().id();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        pretend(place);
        p.later(5);
        p.save("notes.txt", "Prune the Bramleys in January, the pears in February.");
        p.save("new.txt", "Planted in March.");
        p.capture();
        assertThat(isStillPretended(place)).as("nothing was judged anew").isTrue();
        p.later(5);
        p.save("notes.txt", "");
        p.capture();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        try (HealthStore store = store()) {
            assertThat(store.found(place))
                    .singleElement()
                    .satisfies(f -> assertThat(f.finding().marks().get(0).path())
                            .as("a save that looks wrong has all of it judged")
                            .isEqualTo("notes.txt"));
        }
    }

    @Test
    void allOfAPlaceIsJudgedOnceADay() throws IOException {
        p.save("notes.txt", "Prune the Bramleys in January.");
        p.capture();
        long place = p.place().id();
        pretend(place);
        p.later(21 * 60);
        p.save("notes.txt", "Prune the Bramleys in January, the pears in February.");
        p.capture();
        assertThat(isStillPretended(place)).isFalse();
    }

    @Test
    void removalsThatComeOneByOneAreOneFindingInTheEnd() throws IOException {
        for (int i = 0; i < 30; i++) {
            p.save("letters/" + i + ".txt", "Dear number " + i + ", thank you for the apples that you sent.");
        }
        p.capture();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        for (int i = 0; i < 7; i++) {
            p.later(3);
            Files.delete(p.path("letters/" + i + ".txt"));
            p.capture();
            new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        }
        try (HealthStore store = store()) {
            assertThat(store.found(p.place().id()))
                    .singleElement()
                    .satisfies(f -> assertThat(f.finding().marks()).hasSize(7));
        }
    }

    @Test
    void aPlaceInWhichNothingHappenedIsNotGoneThroughAgain() throws IOException {
        p.save("list.json", "{\"a\": 1}");
        p.capture();
        long place = p.place().id();
        Path desk = Files.createDirectories(temp.resolve("another")).toRealPath();
        Place other = Protect.place(p.vault(), desk, Rhythm.BY_HAND, List.of(), p.clock(), "Ines");
        pretend(place);
        p.later(5);
        assertThat(isStillPretended(place)).isTrue();
        Files.writeString(desk.resolve("b.txt"), "b");
        new Capture(p.vault(), other, p.clock(), p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
        assertThat(isStillPretended(place)).as("something happened elsewhere").isTrue();
        p.save("list.json", "{\"a\": 2}");
        p.later(5);
        p.capture();
        assertThat(isStillPretended(place)).as("a save that is nothing").isTrue();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .erase(p.line("list.json").id(), Erasing.What.VERSION, 1, Progress.NONE);
        assertThat(isStillPretended(place)).as("something was let go").isFalse();
    }

    @Test
    void theNearestOtherVersionIsTheOneBefore() throws IOException {
        try (HealthStore store = store()) {
            store.put(5, 8, 7, new Resemblance(90, false, -1));
            store.put(5, 8, 2, new Resemblance(40, true, 10));
            assertThat(store.alike(5)).containsEntry(8, new Resemblance(90, false, -1));
            assertThat(store.alike(5, 8, 2)).contains(new Resemblance(40, true, 10));
            assertThat(store.alike(5, 8, 3)).isEmpty();
        }
    }

    @Test
    void workThatFailsLeavesNothingBehind() throws IOException {
        try (HealthStore store = store()) {
            assertThatThrownBy(() -> store.together(() -> {
                        store.put(digest("a"), "a.ods", health(Health.Reason.WELL));
                        throw new IOException("half way");
                    }))
                    .hasMessage("half way");
            assertThat(store.health(digest("a"), "a.ods")).isEmpty();
            store.together(() -> store.put(digest("a"), "a.ods", health(Health.Reason.WELL)));
            assertThat(store.health(digest("a"), "a.ods")).isPresent();
        }
    }

    @Test
    void onlyWhatIsWrongOfALineIsATrouble() throws IOException {
        p.save("list.json", "{\"a\": 1}");
        p.capture();
        p.save("list.json", "{\"a\": ");
        p.capture();
        assertThat(HealthStore.troubles(p.vault().folder(), p.line("list.json")))
                .as("nobody has looked")
                .isEmpty();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        assertThat(HealthStore.troubles(p.vault().folder(), p.line("list.json")))
                .hasSize(1)
                .hasEntrySatisfying(2, w -> assertThat(w).contains("breaks the rules"));
        Files.write(p.vault().folder().root().resolve("health.db"), new byte[100]);
        assertThat(HealthStore.troubles(p.vault().folder(), p.line("list.json")))
                .as("what cannot be read says nothing")
                .isEmpty();
    }
}
