package org.mendedleaf.core.findings;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.document.Made.rows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.DecisionStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.RuleStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.check.Rebuild;
import org.mendedleaf.core.document.Made;
import org.mendedleaf.core.jobs.Breathing;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Decision;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.retention.StandingRules;

/** From harm in a real folder to the finding, and from there to one action that mends it and can be taken back. */
class FindingsTest {

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

    private void save(String path, byte[] content) throws IOException {
        p.save(path, content);
        p.later(600);
        p.capture();
    }

    private final Map<Integer, byte[]> ledgers = new LinkedHashMap<>();

    /** The same bytes for the same number: what writes a document writes the time of day into it. */
    private byte[] ledger(int last) {
        return ledgers.computeIfAbsent(last, FindingsTest::made);
    }

    private static byte[] made(int last) {
        List<String> rows = new ArrayList<>(List.of("Kind,Kilos"));
        for (int i = 0; i < 40; i++) {
            rows.add("Bramley from row " + i + "," + (i == 39 ? last : 700 + i));
        }
        return Made.ods(rows(rows.toArray(String[]::new)));
    }

    private List<Findings.Listed> all() throws IOException {
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        return new Findings(p.vault(), "Ines").all();
    }

    private List<Findings.Listed> openNow() throws IOException {
        return all().stream().filter(l -> l.state() == Findings.State.OPEN).toList();
    }

    private Findings.Listed only() throws IOException {
        List<Findings.Listed> open = openNow();
        assertThat(open).hasSize(1);
        return open.get(0);
    }

    private RestoreResult mend(Findings.Listed listed) throws IOException {
        RestoreResult result = new Findings(p.vault(), "Ines").mend(listed, p.recovery(), p.now(), Progress.NONE);
        p.later(5);
        return result;
    }

    private static void undo(TestPlace place, RestoreResult result) throws IOException {
        Action action;
        try (Reading reading = place.vault().read()) {
            action = JournalStore.of(reading).get(result.action()).orElseThrow();
        }
        assertThat(place.recovery().undo(action).failed()).isEmpty();
    }

    private void ledgerSavedOver() throws IOException {
        save("ledger.ods", ledger(1));
        save("ledger.ods", ledger(2));
        save("ledger.ods", Made.odt("Dear members", "the press is mended"));
    }

    @Test
    void aLedgerThatWasSavedOverIsMendedAndTheLetterStaysAsAVersion() throws IOException {
        ledgerSavedOver();
        Findings.Listed found = only();
        assertThat(found.found().finding().kind()).isEqualTo(Finding.Kind.SAVED_OVER);
        assertThat(found.found().files().get(0).proof()).isEqualTo("opens, 41 rows");
        RestoreResult result = mend(found);
        assertThat(result.count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        assertThat(Files.readAllBytes(p.path("ledger.ods"))).isEqualTo(ledger(2));
        assertThat(p.line("ledger.ods").versions()).hasSize(4);
        assertThat(all().get(0).state()).isEqualTo(Findings.State.MENDED);
        assertThat(openNow()).isEmpty();
        assertThatThrownBy(() -> mend(all().get(0))).hasMessageContaining("nothing to mend");
    }

    @Test
    void afterUndoingTheFindingIsOpenAgain() throws IOException {
        ledgerSavedOver();
        String id = only().id();
        RestoreResult result = mend(only());
        undo(p, result);
        p.later(5);
        assertThat(Files.readAllBytes(p.path("ledger.ods"))).isNotEqualTo(ledger(2));
        assertThat(only().id()).isEqualTo(id);
    }

    @Test
    void itClosesByItselfWhenSomebodyBringsTheFileBackOrSavesItWell() throws IOException {
        ledgerSavedOver();
        save("ledger.ods", ledger(1));
        assertThat(all()).singleElement().satisfies(l -> {
            assertThat(l.state()).isEqualTo(Findings.State.CLOSED);
            assertThat(l.found().closed()).contains(Found.Fate.BACK);
        });
        save("ledger.ods", Made.odt("Dear members", "the press is mended"));
        save("ledger.ods", ledger(99));
        assertThat(all())
                .extracting(l -> l.found().closed().orElse(Found.Fate.LOST))
                .contains(Found.Fate.EDITED);
        assertThat(openNow()).isEmpty();
        assertThat(new Findings(p.vault(), "Ines").looked()).contains(p.now());
    }

    @Test
    void workOnTheWrongContentDoesNotCloseIt() throws IOException {
        ledgerSavedOver();
        save("ledger.ods", Made.odt("Dear members", "the press is mended", "and so is the beam"));
        assertThat(openNow()).isNotEmpty();
        assertThat(mend(openNow().get(openNow().size() - 1)).count(RestoreResult.Outcome.DONE))
                .isEqualTo(1);
        assertThat(Files.readAllBytes(p.path("ledger.ods"))).isEqualTo(ledger(2));
        assertThat(openNow()).isEmpty();
    }

    @Test
    void itIsDismissedWithAReasonAndThatIsTakenBack() throws IOException {
        ledgerSavedOver();
        Findings findings = new Findings(p.vault(), "Ines");
        findings.dismiss(only(), p.now(), "it was meant");
        assertThat(openNow()).isEmpty();
        Findings.Listed dismissed = all().get(0);
        assertThat(dismissed.state()).isEqualTo(Findings.State.DISMISSED);
        assertThat(dismissed.decision().map(Decision::reason)).contains("it was meant");
        findings.reopen(dismissed);
        assertThat(openNow()).hasSize(1);
    }

    @Test
    void whatIsFineForAFileIsNotSaidAgainOfIt() throws IOException {
        ledgerSavedOver();
        Findings findings = new Findings(p.vault(), "Ines");
        findings.fine(only(), false, p.now(), "it changes its kind");
        save("other.ods", ledger(1));
        save("other.ods", Made.odt("a letter over the other one"));
        assertThat(openNow())
                .singleElement()
                .satisfies(l -> assertThat(l.found().finding().words()).startsWith("other.ods"));
        Findings.Listed fine = all().stream()
                .filter(l -> l.state() == Findings.State.FINE)
                .findFirst()
                .orElseThrow();
        findings.reopen(fine);
        assertThat(openNow()).hasSize(2);
        findings.fine(openNow().get(0), true, p.now(), "all of it");
        assertThat(openNow()).isEmpty();
    }

    @Test
    void decisionsOutliveTheirIndexAndTheCatalogue() throws IOException {
        ledgerSavedOver();
        Findings.Listed found = only();
        new Findings(p.vault(), "Ines").dismiss(found, p.now(), "it was meant");
        Files.delete(p.vault().folder().root().resolve("health.db"));
        assertThat(all().get(0).state()).isEqualTo(Findings.State.DISMISSED);
        Rebuild.run(temp.resolve("vault"), "test", Duration.ofSeconds(1), p.clock());
        try (Reading reading = p.vault().read()) {
            assertThat(DecisionStore.of(reading).decisions(p.place()))
                    .extracting(Decision::finding)
                    .containsExactly(found.id());
        }
    }

    @Test
    void aFolderThatWasRemovedComesBack() throws IOException {
        for (int i = 0; i < 9; i++) {
            p.save("plans/" + i + ".txt", "plan number " + i);
        }
        p.save("other.txt", "stays");
        p.later(600);
        p.capture();
        for (int i = 0; i < 9; i++) {
            Files.delete(p.path("plans/" + i + ".txt"));
        }
        Files.delete(p.path("plans"));
        p.later(600);
        p.capture();
        assertThat(mend(only()).count(RestoreResult.Outcome.DONE)).isEqualTo(9);
        assertThat(p.read("plans/4.txt")).isEqualTo("plan number 4");
        assertThat(all().get(0).found().closed()).contains(Found.Fate.BACK);
        assertThat(openNow()).isEmpty();
    }

    @Test
    void aFolderThatWasRemovedTwiceWithinMinutesComesBackOnce() throws IOException {
        for (int i = 0; i < 10; i++) {
            save(
                    "notes/note " + i + ".txt",
                    ("note " + i + " of this year\n").repeat(20).getBytes(UTF_8));
        }
        p.later(6_000);
        removeNotes();
        mend(only());
        assertThat(p.path("notes/note 3.txt")).exists();
        p.capture();
        removeNotes();
        Findings.Listed listed = only();
        assertThat(listed.found().finding().words()).startsWith("10 files were removed");
        assertThat(listed.found().files()).hasSize(10);
        mend(listed);
        try (Stream<Path> there = Files.list(p.path("notes"))) {
            assertThat(there).as("each once").hasSize(10);
        }
        assertThat(openNow()).isEmpty();
    }

    @Test
    void aFileThatWasHarmedTwiceInOneEventIsMendedOnceAndKeepsWhatWasGoodInBetween() throws IOException {
        for (int i = 0; i < 5; i++) {
            p.save("list " + i + ".txt", ("apples of row " + i + "\n").repeat(20));
        }
        p.later(6_000);
        p.capture();
        for (int i = 0; i < 5; i++) {
            p.save("list " + i + ".txt", "");
        }
        p.later(1);
        p.capture();
        String edited = "apples of row 0\n".repeat(20) + "and pears\n";
        p.save("list 0.txt", edited);
        p.later(1);
        p.capture();
        p.save("list 0.txt", "");
        p.later(1);
        p.capture();
        Findings.Listed listed = only();
        assertThat(listed.found().finding().kind()).isEqualTo(Finding.Kind.BURST);
        assertThat(listed.found().files()).hasSize(5);
        assertThat(mend(listed).count(RestoreResult.Outcome.DONE)).isEqualTo(5);
        assertThat(p.read("list 0.txt")).isEqualTo(edited);
        assertThat(p.read("list 4.txt")).startsWith("apples of row 4");
        try (Stream<Path> there = Files.list(p.folder())) {
            assertThat(there).as("each once").hasSize(5);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {2, 5})
    void filesThatGotAStrangeEndingTwiceGetTheirNamesBackOnce(int edited) throws IOException {
        for (int i = 0; i < 5; i++) {
            p.save("card " + i + ".txt", ("card number " + i + "\n").repeat(20));
        }
        p.later(6_000);
        p.capture();
        rename(".txt", ".txt.locked");
        rename(".txt.locked", ".txt");
        // With two it is one event, with five there are more than ten minutes between the two.
        for (int i = 0; i < edited; i++) {
            p.save("card " + i + ".txt", ("card number " + i + "\n").repeat(20) + "and more\n");
        }
        p.later(1);
        p.capture();
        rename(".txt", ".txt.locked");
        Findings.Listed listed = only();
        assertThat(listed.found().finding().kind()).isEqualTo(Finding.Kind.ALIKE);
        assertThat(listed.found().files()).hasSize(5);
        mend(listed);
        try (Stream<Path> there = Files.list(p.folder())) {
            assertThat(there.map(f -> f.getFileName().toString()))
                    .hasSize(5)
                    .allMatch(name -> name.endsWith(".txt") && !name.contains("("));
        }
        assertThat(p.read("card 0.txt")).endsWith("and more\n");
        assertThat(openNow()).isEmpty();
    }

    private void rename(String from, String to) throws IOException {
        for (int i = 0; i < 5; i++) {
            Files.move(p.path("card " + i + from), p.path("card " + i + to));
        }
        p.later(1);
        p.capture();
    }

    private void removeNotes() throws IOException {
        for (int i = 0; i < 10; i++) {
            Files.delete(p.path("notes/note " + i + ".txt"));
        }
        p.later(1);
        p.capture();
    }

    @Test
    void aFileThatSomebodyMovedMeanwhileIsMendedWhereItIs() throws IOException {
        ledgerSavedOver();
        Files.createDirectories(p.path("archive"));
        Files.move(p.path("ledger.ods"), p.path("archive/ledger 2026.ods"));
        p.later(5);
        p.capture();
        assertThat(mend(only()).count(RestoreResult.Outcome.DONE)).isEqualTo(1);
        assertThat(Files.readAllBytes(p.path("archive/ledger 2026.ods"))).isEqualTo(ledger(2));
        assertThat(p.path("ledger.ods")).doesNotExist();
        assertThat(openNow()).isEmpty();
    }

    @Test
    void aFileThatWasRemovedSinceStaysRemoved() throws IOException {
        ledgerSavedOver();
        Files.delete(p.path("ledger.ods"));
        p.later(5);
        p.capture();
        assertThat(all()).singleElement().satisfies(l -> {
            assertThat(l.state()).isEqualTo(Findings.State.CLOSED);
            assertThat(l.found().closed()).contains(Found.Fate.REMOVED_SINCE);
        });
        assertThatThrownBy(() -> mend(all().get(0))).hasMessageContaining("nothing to mend");
    }

    @Test
    void filesThatGotAStrangeEndingGetTheirNamesBack() throws IOException {
        for (int i = 0; i < 5; i++) {
            p.save("f" + i + ".csv", "name,kilos\nrow " + i + ",1\n");
        }
        p.later(600);
        p.capture();
        for (int i = 0; i < 5; i++) {
            Files.move(p.path("f" + i + ".csv"), p.path("f" + i + ".csv.locked"));
        }
        p.later(5);
        p.capture();
        Findings.Listed found = only();
        assertThat(found.found().finding().kind()).isEqualTo(Finding.Kind.ALIKE);
        assertThat(found.found().finding().why().get(0)).contains(".locked");
        assertThat(mend(found).count(RestoreResult.Outcome.DONE)).isEqualTo(5);
        for (int i = 0; i < 5; i++) {
            assertThat(p.read("f" + i + ".csv")).contains("row " + i);
            assertThat(p.path("f" + i + ".csv.locked")).doesNotExist();
        }
        assertThat(openNow()).isEmpty();
    }

    @Test
    void aFileWithoutAGoodVersionIsSaidAndLeft() throws IOException {
        save("list.json", "{\"a\": [".getBytes(java.nio.charset.StandardCharsets.UTF_8));
        save("list.json", new byte[200]);
        assertThat(all()).as("it was never well").isEmpty();
    }

    @Test
    void theKeeperLooksWhenSomethingWasCapturedAndOnlyThen() throws Exception {
        ledgerSavedOver();
        int[] told = {0};
        HealthKeeper keeper = new HealthKeeper(p.vault(), p.clock(), () -> told[0]++);
        keeper.round(Breathing.on());
        assertThat(told[0]).isEqualTo(1);
        assertThat(new Findings(p.vault(), "Ines").open()).hasSize(1);
        keeper.round(Breathing.on());
        assertThat(told[0]).as("nothing came since").isEqualTo(1);
        save("ledger.ods", ledger(1));
        keeper.round(Breathing.on());
        assertThat(told[0]).isEqualTo(2);
        assertThat(new Findings(p.vault(), "Ines").open()).isEmpty();
    }

    @Test
    void anIdIsTypedAsFarAsItTellsThemApart() throws IOException {
        ledgerSavedOver();
        Findings findings = new Findings(p.vault(), "Ines");
        String id = only().id();
        assertThat(findings.get(id.substring(0, 3).toUpperCase(java.util.Locale.ROOT))
                        .id())
                .isEqualTo(id);
        assertThatThrownBy(() -> findings.get("zz")).hasMessageContaining("There is no finding");
        assertThatThrownBy(() -> findings.get("")).hasMessageContaining("There is no finding");
    }

    @Test
    void whatSomebodyMayNotSeeIsNotNamed() throws IOException {
        ledgerSavedOver();
        try (WriteSession session = p.vault().write()) {
            RemarkStore.card(
                    session, p.line("ledger.ods").id(), new FileProperties("", FileProperties.Visibility.OWNER));
            RuleStore.rule(session, p.place().id(), "owner", "Ines");
            RuleStore.member(session, p.place().id(), "Jory", "reader");
            session.commit();
        }
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        assertThat(new Findings(p.vault(), "Ines").open()).hasSize(1);
        assertThat(new Findings(p.vault(), "Jory").open()).isEmpty();
    }

    @Test
    void rulesLetNothingGoWhileABurstIsUndecided() throws IOException {
        for (int i = 0; i < 8; i++) {
            p.save("f" + i + ".csv", "name,kilos\nrow " + i + ",1\n");
        }
        p.later(600);
        p.capture();
        for (int i = 0; i < 8; i++) {
            byte[] noise = new byte[900];
            new Random(i).nextBytes(noise);
            p.save("f" + i + ".csv", noise);
        }
        p.later(5);
        p.capture();
        new HealthCheck(p.vault(), p.clock(), false).run(Progress.NONE);
        Findings findings = new Findings(p.vault(), "Ines");
        assertThat(findings.pausing(p.now())).isPresent();
        assertThat(findings.pausing(p.now().plus(Duration.ofDays(40))))
                .as("not for ever")
                .isEmpty();
        try (WriteSession session = p.vault().write()) {
            PendingDeletionStore.put(
                    session,
                    new PendingDeletion(
                            p.line("f1.csv").id(),
                            1,
                            0,
                            p.now(),
                            p.now(),
                            "Ines",
                            "THINNED",
                            "Daily",
                            java.util.Optional.empty()));
            session.commit();
        }
        List<StandingRules.Done> done = new ArrayList<>();
        RetentionKeeper keeper = new RetentionKeeper(
                p.vault(),
                p.clock(),
                "Ines",
                new Calendar(p.clock().getZone(), java.time.DayOfWeek.MONDAY),
                () -> findings.pausing(p.now()).isPresent(),
                done::add);
        keeper.round(Breathing.on());
        assertThat(done).isEmpty();
        findings.dismiss(findings.open().get(0), p.now(), "it was a test");
        keeper.round(Breathing.on());
        assertThat(done).hasSize(1);
        assertThat(p.line("f1.csv").version(1).orElseThrow().recipe().isElsewhere())
                .as("its grace had ended")
                .isTrue();
    }

    @Test
    void aCancelledCheckGoesOnAndADamagedIndexIsBegunAnew() throws IOException {
        ledgerSavedOver();
        Progress stops = new Progress() {
            private int asked;

            @Override
            public boolean isCancelled() {
                return asked++ > 0;
            }
        };
        HealthCheck check = new HealthCheck(p.vault(), p.clock(), false);
        HealthCheck.Result first = check.run(stops);
        assertThat(first.complete()).isFalse();
        assertThat(check.run(Progress.NONE).looked()).isEqualTo(3 - first.looked());
        assertThat(check.run(Progress.NONE).looked()).as("each once").isZero();
        Files.write(p.vault().folder().root().resolve("health.db"), new byte[3000]);
        assertThat(new Findings(p.vault(), "Ines").all()).isEmpty();
        assertThat(openNow()).hasSize(1);
    }

    /**
     * After a burst is mended each file is as it was, or as it was edited well since, and nothing else has changed; undoing
     * gives the exact state before.
     */
    @Property(tries = 6)
    void mendingABurstGivesEachFileItsLastGoodVersionOrItsLaterGoodEdit(
            @ForAll long seed, @ForAll @IntRange(min = 4, max = 9) int harmed) throws IOException {
        Path folder = Files.createTempDirectory("mend");
        Random random = new Random(seed);
        try (TestPlace place = new TestPlace(folder)) {
            Map<String, String> good = new TreeMap<>();
            for (int i = 0; i < 12; i++) {
                for (int v = 0; v <= random.nextInt(3); v++) {
                    good.put("f" + i + ".csv", "name,kilos\nrow " + i + "," + v + "\n".repeat(1 + random.nextInt(2)));
                }
                place.save("f" + i + ".csv", good.get("f" + i + ".csv"));
            }
            place.later(600);
            place.capture();
            for (int i = 0; i < harmed; i++) {
                byte[] noise = new byte[900];
                random.nextBytes(noise);
                place.save("f" + i + ".csv", noise);
            }
            place.later(5);
            place.capture();
            int edited = random.nextInt(harmed - 1);
            for (int i = 0; i < edited; i++) {
                String later = good.get("f" + i + ".csv") + "and later," + random.nextInt(100) + "\n";
                good.put("f" + i + ".csv", later);
                place.save("f" + i + ".csv", later);
            }
            place.later(5);
            place.capture();
            Map<String, byte[]> before = contents(place);
            new HealthCheck(place.vault(), place.clock(), false).run(Progress.NONE);
            Findings findings = new Findings(place.vault(), "Ines");
            Findings.Listed burst = findings.open().stream()
                    .filter(l -> l.found().finding().kind() == Finding.Kind.BURST)
                    .findFirst()
                    .orElseThrow();
            assertThat(burst.found().count(Found.Fate.EDITED)).isEqualTo(edited);
            RestoreResult result = findings.mend(burst, place.recovery(), place.now(), Progress.NONE);
            Map<String, String> after = new TreeMap<>();
            for (String path : good.keySet()) {
                after.put(path, place.read(path));
            }
            assertThat(after).isEqualTo(good);
            place.later(5);
            undo(place, result);
            Map<String, byte[]> undone = contents(place);
            assertThat(undone.keySet()).isEqualTo(before.keySet());
            undone.forEach((path, content) -> assertThat(content).as(path).isEqualTo(before.get(path)));
        }
    }

    private static Map<String, byte[]> contents(TestPlace place) throws IOException {
        Map<String, byte[]> all = new LinkedHashMap<>();
        try (var files = Files.list(place.folder())) {
            for (Path file : files.sorted().toList()) {
                all.put(file.getFileName().toString(), Files.readAllBytes(file));
            }
        }
        return all;
    }
}
