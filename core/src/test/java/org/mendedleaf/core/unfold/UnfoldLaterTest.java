package org.mendedleaf.core.unfold;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.core.vault.Documents.document;
import static org.mendedleaf.core.vault.Documents.noise;
import static org.mendedleaf.core.vault.Documents.text;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Op;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.UnfoldQueue;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.jobs.Breathing;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Collision;
import org.mendedleaf.core.recovery.RestoreItem;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.Reclaim;
import org.mendedleaf.core.retention.StandingRules;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.ContentParts;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.UnfoldedContent;
import org.mendedleaf.core.vault.Unfolder;

/** Documents are captured as they come, and unfolded afterwards. */
class UnfoldLaterTest {

    private static final int VERSIONS = 4;

    @TempDir
    Path temp;

    private TestPlace p;
    private final List<byte[]> letters = new ArrayList<>();

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        for (int i = 0; i < VERSIONS; i++) {
            letters.add(letter(1, i));
        }
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    /** The same words but for one sentence, which is another in each edit. */
    private static byte[] letter(int words, int edit) throws IOException {
        byte[] text = text(words, 12_000);
        byte[] sentence = ("this is what edit " + edit + " says").getBytes(StandardCharsets.US_ASCII);
        System.arraycopy(sentence, 0, text, 20_000 + edit * 5000, sentence.length);
        return document(6, text, noise(7, 9000), edit);
    }

    private void saveLetters() throws IOException {
        for (byte[] letter : letters) {
            p.save("letter.odt", letter);
            p.capture();
        }
    }

    private List<Version> versions(String path) throws IOException {
        List<Version> newestFirst = p.line(path).versions();
        List<Version> found = new ArrayList<>(newestFirst);
        Collections.reverse(found);
        return found;
    }

    private List<Boolean> unfolded(String path) throws IOException {
        return versions(path).stream()
                .map(v -> v.recipe().unfolded().isPresent())
                .toList();
    }

    private byte[] read(Version version) throws IOException {
        try (Reading reading = p.vault().read()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            reading.contents().read(version.recipe(), out::write);
            return out.toByteArray();
        }
    }

    private void assertLettersAreWhole() throws IOException {
        List<Version> all = versions("letter.odt");
        for (int i = 0; i < VERSIONS; i++) {
            assertThat(read(all.get(i))).as("version " + (i + 1)).isEqualTo(letters.get(i));
        }
        assertThat(p.check().isClean()).isTrue();
    }

    private long packBytes() throws IOException {
        long all = 0;
        for (long pack : p.vault().folder().packNumbers()) {
            all += Files.size(p.vault().folder().pack(pack));
        }
        return all;
    }

    @Test
    void aCaptureStoresADocumentAsItComes() throws IOException {
        saveLetters();
        assertThat(unfolded("letter.odt")).containsOnly(false);
        try (Reading reading = p.vault().read()) {
            assertThat(UnfoldQueue.of(reading).left())
                    .as("the first was alone when it came")
                    .isEqualTo(VERSIONS - 1);
        }
    }

    @Test
    void afterwardsAllVersionsOfALineAreUnfoldedAndTheSpaceOfTheirCopiesIsGivenBack() throws IOException {
        saveLetters();
        long before = packBytes();
        Unfolding.Result result = p.unfold();
        assertThat(result.versions()).isEqualTo(VERSIONS);
        assertThat(result.complete()).isTrue();
        assertThat(unfolded("letter.odt")).containsOnly(true);
        assertThat(packBytes()).isLessThan(before / 2);
        assertLettersAreWhole();
        assertThat(p.unfold().versions()).as("nothing is left").isZero();
    }

    @Test
    void aVersionThatComesLaterIsUnfoldedAgainstThoseBeforeIt() throws IOException {
        saveLetters();
        p.unfold();
        long before = packBytes();
        p.save("letter.odt", letter(1, 7));
        p.capture();
        assertThat(p.unfold().versions()).isOne();
        assertThat(packBytes() - before).isLessThan(letters.get(0).length / 3);
        assertThat(read(versions("letter.odt").get(VERSIONS))).isEqualTo(letter(1, 7));
    }

    @Test
    void versionsWithTheSameContentAreUnfoldedTogether() throws IOException {
        saveLetters();
        p.recovery()
                .restore(
                        List.of(new RestoreItem(versions("letter.odt").get(0), "letter.odt")),
                        Collision.REPLACE,
                        Progress.NONE);
        assertThat(p.unfold().versions()).isEqualTo(VERSIONS + 1);
        assertThat(unfolded("letter.odt")).hasSize(VERSIONS + 1).containsOnly(true);
        try (Reading reading = p.vault().read()) {
            assertThat(UnfoldQueue.of(reading).left()).isZero();
        }
    }

    @Test
    void aDocumentThatIsAloneStaysAsItCame() throws IOException {
        p.save("alone.odt", letter(3, 0));
        p.save("other.odt", letter(4, 0));
        p.capture();
        assertThat(p.unfold().versions()).isZero();
        assertThat(unfolded("alone.odt")).containsExactly(false);
        p.save("alone.odt", letter(3, 1));
        p.capture();
        assertThat(p.unfold().versions()).as("it is not alone any more").isEqualTo(2);
        assertThat(unfolded("alone.odt")).containsExactly(true, true);
    }

    @Test
    void filesThatAreMuchAlikeAreUnfoldedThoughEachIsAloneOnItsLine() throws IOException {
        p.save("plan.odt", letter(3, 0));
        p.save("plan v2.odt", letter(3, 1));
        p.save("plan FINAL.odt", letter(3, 2));
        p.save("other.odt", letter(4, 0));
        p.capture();
        assertThat(p.unfold().versions()).isEqualTo(3);
        assertThat(unfolded("other.odt")).containsExactly(false);
        for (int i = 0; i < 3; i++) {
            String name = List.of("plan.odt", "plan v2.odt", "plan FINAL.odt").get(i);
            assertThat(read(versions(name).get(0))).isEqualTo(letter(3, i));
        }
    }

    @Test
    void inTheBackgroundADocumentThatIsAloneIsLookedAtWhenItWasLeftAloneForADay() throws IOException {
        p.save("plan.odt", letter(3, 0));
        p.save("plan v2.odt", letter(3, 1));
        p.capture();
        Unfolding background = Unfolding.inBackground(p.vault(), p.clock(), true);
        assertThat(background.run(Progress.NONE).versions()).isZero();
        p.later(25 * 60);
        assertThat(background.run(Progress.NONE).versions()).isEqualTo(2);
    }

    @Test
    void whoBeganToReadBeforeReadsOnThoughTheChunksAreGone() throws IOException {
        saveLetters();
        List<Version> before = versions("letter.odt");
        try (Reading old = p.vault().read()) {
            old.line(p.place(), "letter.odt").orElseThrow();
            p.unfold();
            for (int i = 0; i < VERSIONS; i++) {
                byte[] letter = letters.get(i);
                ByteArrayOutputStream whole = new ByteArrayOutputStream();
                old.contents().read(before.get(i).recipe(), whole::write);
                assertThat(whole.toByteArray()).isEqualTo(letter);
                assertThat(old.contents().head(before.get(i).recipe(), 100)).isEqualTo(Arrays.copyOf(letter, 100));
                assertThat(old.contents().range(before.get(i).recipe(), 5000, 100))
                        .isEqualTo(Arrays.copyOfRange(letter, 5000, 5100));
                assertThat(old.contents().damaged(before.get(i).recipe())).isEmpty();
                assertThat(old.contents().parts(before.get(i).recipe()).stretches().stream()
                                .mapToInt(ContentParts.Stretch::length)
                                .sum())
                        .isEqualTo(letter.length);
            }
        }
        assertThat(read(before.get(2)))
                .as("a window that did not ask anew, too")
                .isEqualTo(letters.get(2));
    }

    @Test
    void whatIsRestoredByAnOldRecipeIsAVersionThatCanBeRead() throws IOException {
        saveLetters();
        Version first = versions("letter.odt").get(0);
        p.unfold();
        p.recovery().restore(List.of(new RestoreItem(first, "letter.odt")), Collision.REPLACE, Progress.NONE);
        p.recovery().restore(List.of(new RestoreItem(first, "again.odt")), Collision.REPLACE, Progress.NONE);
        assertThat(p.path("letter.odt")).hasBinaryContent(letters.get(0));
        Version restored = versions("letter.odt").get(VERSIONS);
        assertThat(restored.recipe()).isEqualTo(versions("letter.odt").get(0).recipe());
        assertThat(read(restored)).isEqualTo(letters.get(0));
        assertThat(p.check().isClean()).isTrue();
    }

    @Test
    void whatIsCutShortGoesOn() throws IOException {
        saveLetters();
        for (int i = 0; i < 3; i++) {
            p.save("note " + i + ".odt", letter(10 + i, 0));
            p.capture();
            p.save("note " + i + ".odt", letter(10 + i, 1));
            p.capture();
        }
        AtomicInteger asked = new AtomicInteger();
        Unfolding.Result first =
                Unfolding.atOnce(p.vault(), p.clock()).run(Progress.until(() -> asked.incrementAndGet() > 6));
        assertThat(first.complete()).isFalse();
        assertThat(first.versions()).isBetween(1, 9);
        assertThat(p.unfold().versions()).isEqualTo(VERSIONS + 6 - first.versions());
        assertLettersAreWhole();
    }

    @Test
    void aVersionThatIsGoneByThenStaysGone() throws IOException {
        saveLetters();
        Version second = versions("letter.odt").get(1);
        try (Reading reading = p.vault().read();
                Unfolder unfolder = new Unfolder()) {
            UnfoldQueue.Document document =
                    UnfoldQueue.of(reading).document(second.line(), 2).orElseThrow();
            UnfoldedContent made = unfolder.unfold(reading.contents(), second.recipe(), second.digest())
                    .orElseThrow();
            try (WriteSession session = p.vault().write()) {
                session.apply(Op.VERSION_GONE, second.line(), 2);
                Recipe recipe = made.store(session.chunks()).orElseThrow();
                assertThat(UnfoldQueue.replace(session, second.line(), document.stored(), recipe, p.now()))
                        .isZero();
                session.commit();
            }
        }
        assertThat(versions("letter.odt").get(1).recipe().isElsewhere()).isTrue();
        p.unfold();
        assertThat(versions("letter.odt").get(1).recipe().isElsewhere()).isTrue();
    }

    @Test
    void aDocumentThatCannotBeReadStaysAsItIsAndTheOthersAreUnfolded() throws IOException {
        saveLetters();
        ChunkPlace damaged;
        try (Reading reading = p.vault().read()) {
            damaged = reading.contents()
                    .places(versions("letter.odt").get(1).recipe())
                    .get(0);
        }
        damage(damaged);
        assertThat(Unfolding.atOnce(p.vault(), p.clock()).run(Progress.NONE).versions())
                .isEqualTo(VERSIONS - 1);
        assertThat(unfolded("letter.odt")).containsExactly(true, false, true, true);
    }

    private void damage(ChunkPlace chunk) throws IOException {
        try (RandomAccessFile pack =
                new RandomAccessFile(p.vault().folder().pack(chunk.pack()).toFile(), "rw")) {
            pack.seek(chunk.offset() + 70);
            int was = pack.read();
            pack.seek(chunk.offset() + 70);
            pack.write(was ^ 1);
        }
        p.vault().closeIdle();
    }

    @Test
    void anUnfoldedDocumentThatIsDamagedIsWholeAgainFromTheLiveFileAndItsOtherVersionsWithIt() throws IOException {
        saveLetters();
        p.unfold();
        ChunkPlace inAll;
        try (Reading reading = p.vault().read()) {
            inAll = reading.contents().places(versions("letter.odt").get(3).recipe()).stream()
                    .max(java.util.Comparator.comparingLong(ChunkPlace::length))
                    .orElseThrow();
        }
        damage(inAll);
        assertThat(p.check().isClean()).isFalse();
        p.capture();
        assertThat(read(versions("letter.odt").get(3))).as("stored anew").isEqualTo(letters.get(3));
        p.unfold();
        assertThat(unfolded("letter.odt")).containsOnly(true);
        for (int i = 0; i < VERSIONS; i++) {
            assertThat(read(versions("letter.odt").get(i))).isEqualTo(letters.get(i));
        }
        assertThat(p.check().lost()).isEmpty();
    }

    @Test
    void aCatalogueThatIsMadeAnewKnowsWhatCanBeUnfolded() throws IOException {
        saveLetters();
        p.close();
        Files.delete(temp.resolve("vault/catalogue.db"));
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        p = new TestPlace(temp);
        assertThat(p.unfold().versions()).isEqualTo(VERSIONS);
        p.close();
        Files.delete(temp.resolve("vault/catalogue.db"));
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        p = new TestPlace(temp);
        assertThat(unfolded("letter.odt"))
                .as("the packs tell how it is stored now")
                .containsOnly(true);
        assertLettersAreWhole();
    }

    @Test
    void inAVaultOfAnEarlierVersionWhatIsThereIsUnfoldedToo() throws Exception {
        saveLetters();
        p.close();
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + temp.resolve("vault/catalogue.db"))) {
            for (String one : List.of(
                    "DROP TABLE to_unfold",
                    "DROP TABLE unfold_sketch",
                    "DROP TABLE replaced_recipe",
                    "PRAGMA user_version = 12")) {
                db.createStatement().execute(one);
            }
        }
        p = new TestPlace(temp);
        assertThat(p.unfold().versions()).isEqualTo(VERSIONS);
        assertLettersAreWhole();
    }

    @Test
    void theKeeperUnfoldsByItselfAndStepsAsideForWhoWrites() throws Exception {
        saveLetters();
        UnfoldKeeper keeper = new UnfoldKeeper(p.vault(), p.clock(), UnfoldKeeper.Listener.NONE);
        try (WriteSession session = p.vault().write()) {
            assertThat(keeper.round(Breathing.on())).isPositive();
            session.commit();
        }
        assertThat(unfolded("letter.odt")).containsOnly(false);
        keeper.round(Breathing.on());
        assertThat(unfolded("letter.odt")).containsOnly(true);
        p.save("letter.odt", letter(1, 8));
        p.capture();
        keeper.round(Breathing.on());
        assertThat(unfolded("letter.odt")).hasSize(VERSIONS + 1).containsOnly(true);
    }

    @Test
    void theKeeperWritesNothingWhereThereIsNothingToUnfold() throws IOException {
        p.save("a.txt", "words");
        p.capture();
        Object before = p.vault().stamp();
        UnfoldKeeper keeper = new UnfoldKeeper(p.vault(), p.clock(), UnfoldKeeper.Listener.NONE);
        keeper.round(Breathing.on());
        keeper.round(Breathing.on());
        assertThat(p.vault().stamp()).isEqualTo(before);
    }

    @Test
    void muchOfItIsShownAndWhoCancelsItHasAnHourOfRest() throws IOException {
        for (int i = 0; i < 55; i++) {
            p.save("note.odt", document(6, text(1, 500 + i), noise(1, 10), i));
            p.capture();
        }
        Job job = new Job("unfolding", () -> {});
        AtomicInteger ended = new AtomicInteger();
        UnfoldKeeper keeper = new UnfoldKeeper(p.vault(), p.clock(), new UnfoldKeeper.Listener() {
            @Override
            public Progress begins() {
                return job;
            }

            @Override
            public void ended(Progress begun) {
                ended.addAndGet(begun == job ? 1 : 100);
            }
        });
        job.cancel();
        keeper.round(Breathing.on());
        assertThat(ended).hasValue(1);
        assertThat(unfolded("note.odt")).containsOnly(false);
        assertThat(job.snapshot().allFiles()).isEqualTo(54);
        p.later(59);
        keeper.round(Breathing.on());
        assertThat(ended).as("it rests").hasValue(1);
        p.later(2);
        keeper.round(Breathing.on());
        assertThat(ended).hasValue(2);
    }

    @Test
    void spaceIsGivenBackByItselfWhenEnoughOfItWasReplaced() throws IOException {
        saveLetters();
        StandingRules standing =
                new StandingRules(p.vault(), p.clock(), "Ada", new Calendar(ZoneOffset.UTC, DayOfWeek.MONDAY));
        assertThat(standing.isDue()).isFalse();
        Unfolding.atOnce(p.vault(), p.clock()).run(Progress.NONE);
        long before = packBytes();
        assertThat(standing.isDue()).isTrue();
        standing.run(Progress.NONE);
        assertThat(packBytes()).isLessThan(before / 2);
        assertThat(standing.isDue()).isFalse();
        assertThat(new Reclaim(p.vault(), p.clock()).run(Progress.NONE).packs()).isZero();
        assertLettersAreWhole();
    }
}
